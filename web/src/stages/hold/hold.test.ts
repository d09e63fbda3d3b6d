/** What Hold draws, and what a tap on a hole says, without a browser. */
import { describe, expect, it } from 'vitest';
import type { Detection, Fastener, StructureLine } from '../../api/types';
import { layout } from '../../drawing/layout';
import { box, labels, metAt, sign, studOutline } from './shapes';

const l = layout({
  width: 1000,
  room: 700,
  placeWidth: 3000,
  placeDepth: 600,
  top: 2400,
  ribbon: 60,
  surfaces: ['back', 'floor', 'left', 'ceiling'],
  compact: false,
});
const line = (part: Partial<StructureLine> = {}): StructureLine => ({
  at_mm: 1000,
  sd_mm: 2,
  chance: 1,
  found_by: ['scanner'],
  up_mm: 1000,
  lean_mm_per_m: 0,
  lean_sd: 1,
  double: false,
  ...part,
});
const point = (order: number, x: number, z: number, part: Partial<Fastener> = {}) =>
  ({ order, at: [x, z], surface: 'back', ...part }) as Fastener;
const hole = (id: string, x: number, z: number, part: Partial<Detection> = {}) =>
  ({ id, at: [x, z], surface: 'back', found_by: 'trial hole', sees: 'hit', ...part }) as Detection;
const corners = (path: string) =>
  [...path.matchAll(/([\d.]+),([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);
const place = { width_mm: 3000, depth_mm: 600, openings: [] };

describe('a stud', () => {
  it('stands upright as wide as it is, from the floor to the end of the drawing', () => {
    const [a, b, c, d] = corners(studOutline(l, 'back', line(), 45, place, 'not known'));
    expect(b![0] - a![0]).toBeCloseTo(45 * l.scale, 0);
    expect([a![0], b![0]]).toEqual([d![0], c![0]]);
    expect(a![1] - d![1]).toBeCloseTo(2400 * l.scale, 0);
  });

  it('leans about the height where it was found: 10 a metre is 10 less at the floor and 14 more at 2400', () => {
    const upright = corners(studOutline(l, 'back', line(), 45, place, 'not known'));
    const leaning = corners(studOutline(l, 'back', line({ lean_mm_per_m: 10 }), 45, place, 'not known'));
    expect(leaning[0]![0] - upright[0]![0]).toBeCloseTo(-10 * l.scale, 0);
    expect(leaning[2]![0] - upright[2]![0]).toBeCloseTo(14 * l.scale, 0);
  });

  it('leaves out a window that it would run through, and not one beside it', () => {
    const window = {
      id: 'w',
      name: 'Light',
      x_mm: line().at_mm - 300,
      width_mm: 600,
      height_mm: 900,
      sill_mm: 900,
    };
    const cut = studOutline(l, 'back', line(), 45, { ...place, openings: [window] } as never, 'not known');
    expect(cut.split('Z').filter(Boolean)).toHaveLength(2);
    const aside = { ...window, x_mm: line().at_mm + 100 };
    expect(studOutline(l, 'back', line(), 45, { ...place, openings: [aside] } as never, 'not known')).toBe(
      studOutline(l, 'back', line(), 45, place, 'not known'),
    );
  });

  it('is a joist over the whole ceiling, the way they run', () => {
    const out = corners(studOutline(l, 'ceiling', line(), 50, place, 'out'));
    const along = corners(studOutline(l, 'ceiling', line({ at_mm: 300 }), 50, place, 'along'));
    const wide = (c: typeof out) => Math.max(...c.map((q) => q[0])) - Math.min(...c.map((q) => q[0]));
    const high = (c: typeof out) => Math.max(...c.map((q) => q[1])) - Math.min(...c.map((q) => q[1]));
    expect([wide(out), high(out)].map((n) => n / l.scale)).toEqual([
      expect.closeTo(50, 0),
      expect.closeTo(600, 0),
    ]);
    expect([wide(along), high(along)].map((n) => n / l.scale)).toEqual([
      expect.closeTo(3000, 0),
      expect.closeTo(50, 0),
    ]);
  });
});

describe('signs and numbers', () => {
  it('has a sign of its own for every edge, a miss and what is no wood', () => {
    const all = (['centre', 'left edge', 'right edge', 'miss', 'something else'] as const).map((s) =>
      sign(s, 10, 10),
    );
    expect(new Set(all).size).toBe(5);
    expect(sign('screw', 10, 10)).toBe(sign('centre', 10, 10));
  });

  it('puts the numbers of screws over each other at one place', () => {
    const found = labels(l, 'back', [point(1, 400, 1357), point(2, 1000, 1357), point(3, 400, 1387)]);
    expect(found.map((f) => f.orders)).toEqual([[1, 3], [2]]);
  });

  it('draws a side wall from its fold outwards', () => {
    const near = corners(box(l, 'left', 0, 0, 100, 100));
    const far = corners(box(l, 'left', 400, 0, 100, 100));
    expect(Math.max(...far.map((c) => c[0]))).toBeLessThan(Math.min(...near.map((c) => c[0])));
  });
});

describe('what a hole met', () => {
  it('is the newest trial hole at its place, on its own surface', () => {
    const found = [
      hole('a', 400, 652, { sees: 'miss' }),
      hole('b', 405, 650),
      hole('c', 400, 652, { surface: 'left', sees: 'something else' }),
      hole('d', 400, 652, { found_by: 'magnet', sees: 'screw' }),
    ];
    expect(metAt(point(1, 400, 652), found)?.id).toBe('b');
    expect(metAt(point(1, 400, 652, { surface: 'left' }), found)?.id).toBe('c');
    expect(metAt(point(1, 430, 652), found)).toBeNull();
  });
});
