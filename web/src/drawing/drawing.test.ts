/** What the drawings are computed from, without a browser. */
import { describe, expect, it } from 'vitest';
import type { Place, SurfaceShape } from '../api/types';
import { bands, veils } from './bands';
import { facePx, layout, spotAt, xPx, yPx, zPx } from './layout';
import { ribbon } from './ribbon';
import { longTicks, spread } from './rods';
import { bandStep, extremes, middle, profile, valueAt } from './shape';

/** A floor that falls 12 over 3000 along and rises 3 over 600 out, known to 0.5. */
const floor: SurfaceShape = {
  surface: 'floor',
  n_readings: 9,
  tied: true,
  first: [0, 1000, 2000, 3000],
  second: [0, 300, 600],
  mean_mm: [0, 300, 600].map((y) => [0, 1000, 2000, 3000].map((x) => (-12 * x) / 3000 + (3 * y) / 600)),
  sd_mm: [0, 300, 600].map(() => [0.5, 0.5, 0.5, 0.5]),
};

describe('a surface on its grid', () => {
  it('is the plane between its points, and holds its edge beyond them', () => {
    expect(valueAt(floor, 1500, 150).mean).toBeCloseTo(-6 + 0.75, 9);
    expect(valueAt(floor, 2750, 600).mean).toBeCloseTo(-11 + 3, 9);
    expect(valueAt(floor, 9999, -50).mean).toBeCloseTo(-12, 9);
  });

  it('has a profile at any depth', () => {
    expect(profile(floor, 600).map((s) => s.mean)).toEqual([3, -1, -5, -9]);
  });

  it('leaves out of its middle and its extremes what is not known', () => {
    const vague = { ...floor, sd_mm: floor.sd_mm.map((row) => row.map((sd, i) => (i === 3 ? 9 : sd))) };
    expect(middle(floor)).toBeLessThan(middle(vague));
    const [high, low] = extremes(vague, 0, 1.6);
    expect(high).toEqual({ at: [0, 600], by: 3 });
    expect(low).toEqual({ at: [2000, 0], by: -8 });
    expect(extremes({ ...floor, sd_mm: floor.sd_mm.map((row) => row.map(() => 9)) }, 0, 1.6)).toEqual([]);
  });

  it.each([
    [2, 0.5],
    [4, 1],
    [9, 2],
    [22, 5],
    [400, 100],
  ])('covers %s mm in steps of %s', (range, step) => {
    expect(bandStep(range)).toBe(step);
  });
});

describe('bands', () => {
  const toPx = (x: number, y: number): [number, number] => [x / 10, y / 10];
  /** Area under a path's outline by the shoelace formula, px². */
  const area = (d: string) =>
    d
      .split('M')
      .filter(Boolean)
      .map((ring) =>
        ring
          .replace('Z', '')
          .split('L')
          .map((p) => p.split(',').map(Number)),
      )
      .reduce((sum, ring) => {
        const twice = ring.reduce(
          (s, [x, y], i) => s + x! * ring[(i + 1) % ring.length]![1]! - ring[(i + 1) % ring.length]![0]! * y!,
          0,
        );
        return sum + Math.abs(twice) / 2;
      }, 0);

  it('cover the part of the surface that stands past their edge', () => {
    const flat = { ...floor, mean_mm: floor.mean_mm.map((row) => row.map((_, i) => -4 * i)) };
    const { step, all } = bands(flat, 0, 1, toPx);
    expect(step).toBe(5);
    const hollow = all.filter((b) => b.kind === 'hollow');
    expect(all.filter((b) => b.kind === 'proud')).toEqual([]);
    // 2.5 below is passed at x = 625, 7.5 at 1875: of 3000 × 600 mm that leaves 2375 and 1125 mm, in px a tenth
    expect(area(hollow[0]!.d) / 60).toBeCloseTo(237.5, -1);
    expect(area(hollow[1]!.d) / 60).toBeCloseTo(112.5, -1);
  });

  it('change sides with the sign of proud', () => {
    expect(bands(floor, 0, -1, toPx).all.filter((b) => b.kind === 'proud').length).toBeGreaterThan(1);
  });

  it('are veiled only where little is known', () => {
    expect(veils(floor, toPx)).toEqual(['', '']);
    const vague = { ...floor, sd_mm: floor.sd_mm.map((row) => row.map((_, i) => i)) };
    const [first, second] = veils(vague, toPx);
    expect(area(first!)).toBeGreaterThan(area(second!) - 1);
    expect(area(second!) / 60).toBeCloseTo(0, 0);
  });
});

describe('the layout', () => {
  const l = layout({
    width: 900,
    room: 600,
    placeWidth: 3240,
    placeDepth: 640,
    top: 1000,
    ribbon: 80,
    surfaces: ['floor', 'back'],
    compact: false,
  });

  it('keeps wall, ribbon and floor on one scale, below each other, inside the width', () => {
    expect(l.wall.w / 3240).toBeCloseTo(l.scale, 9);
    expect(l.floor.h / 640).toBeCloseTo(l.scale, 9);
    expect(l.ribbon.y).toBeCloseTo(l.wall.y + l.wall.h, 9);
    expect(l.floor.y).toBeCloseTo(l.ribbon.y + l.ribbon.h, 9);
    expect(l.wall.x + l.wall.w).toBeLessThanOrEqual(900);
    expect(l.upright.x).toBeGreaterThan(0);
  });

  it('finds the spot under a pixel again', () => {
    const wall = spotAt(l, xPx(l, 1200), zPx(l, 640));
    expect(wall?.surface).toBe('back');
    expect(wall?.at[0]).toBeCloseTo(1200, 6);
    expect(wall?.at[1]).toBeCloseTo(640, 6);
    expect(spotAt(l, xPx(l, 1200), yPx(l, 500))?.at[1]).toBeCloseTo(500, 6);
    expect(spotAt(l, xPx(l, 1200), l.ribbon.y + 40)).toBeNull();
    expect(spotAt(l, 3, zPx(l, 100))).toBeNull();
  });
});

describe('an unfolded place', () => {
  const surfaces = ['floor', 'back', 'left', 'right', 'ceiling'] as const;
  const l = layout({
    width: 900,
    room: 700,
    placeWidth: 2000,
    placeDepth: 600,
    top: 2300,
    ribbon: 80,
    surfaces,
    compact: false,
  });

  it('keeps every face inside the drawing and off the others', () => {
    const boxes = Object.values(l.faces);
    expect(boxes.length).toBe(5);
    boxes.forEach((a, i) => {
      expect(a.x).toBeGreaterThan(l.upright.x + l.upright.w - 1);
      expect(a.x + a.w).toBeLessThanOrEqual(900);
      boxes.slice(i + 1).forEach((b) => {
        const apart = a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y;
        expect(apart).toBe(true);
      });
    });
  });

  it.each(surfaces)('finds every spot of the %s again', (surface) => {
    for (const at of [
      [100, 100],
      [300, 550],
      [590, 20],
    ] as const) {
      const found = spotAt(l, ...facePx(l, surface, at[0], at[1]));
      expect(found?.surface).toBe(surface);
      expect(found?.at[0]).toBeCloseTo(at[0], 6);
      expect(found?.at[1]).toBeCloseTo(at[1], 6);
    }
  });

  it('folds every face at the back: its near edge meets the back wall', () => {
    expect(facePx(l, 'left', 0, 500)[0]).toBeLessThan(facePx(l, 'back', 0, 500)[0]);
    expect(facePx(l, 'left', 600, 500)[0]).toBeLessThan(facePx(l, 'left', 0, 500)[0]);
    expect(facePx(l, 'right', 600, 500)[0]).toBeGreaterThan(facePx(l, 'right', 0, 500)[0]);
    expect(facePx(l, 'ceiling', 500, 600)[1]).toBeLessThan(facePx(l, 'ceiling', 500, 0)[1]);
  });
});

describe('a ribbon', () => {
  const drawn = (reach: [number, number]) =>
    ribbon({
      samples: profile(floor, 0),
      reference: 0,
      gain: 5,
      x: (mm) => mm / 10,
      y: 100,
      reach,
      bottom: 200,
    });

  it('goes down by the deviation times the gain', () => {
    expect(drawn([-60, 90]).line).toBe('M0,100L100,120L200,140L300,160');
  });

  it('stops at its reach', () => {
    expect(drawn([-60, 30]).line).toContain('L200,130L300,130');
  });
});

describe('labels of a rod', () => {
  it('stay where they are while there is room', () => {
    expect(spread([10, 40, 90], 20, 0, 100)).toEqual([10, 40, 90]);
  });

  it.each([[[50, 52, 53, 10]], [[0, 0, 0]], [[99, 98, 97, 96]], [[5, 80, 6, 81, 7]]])(
    '%s keep their order, their distance and their bounds',
    (wanted) => {
      const places = spread(wanted, 15, 0, 100);
      const order = wanted.map((_, i) => i).sort((a, b) => wanted[a]! - wanted[b]! || a - b);
      order
        .slice(1)
        .forEach((i, k) => expect(places[i]! - places[order[k]!]!).toBeGreaterThanOrEqual(15 - 1e-9));
      expect(Math.min(...places)).toBeGreaterThanOrEqual(0);
      expect(Math.max(...places)).toBeLessThanOrEqual(100 + 1e-9);
    },
  );

  it('name each edge of the run once', () => {
    const unit = (id: string, x_mm: number) => ({ id, name: id, x_mm, width_mm: 600 });
    const place = { width_mm: 1500, units: [unit('A', 0), unit('B', 600)] } as unknown as Place;
    expect(longTicks(place, 'mm').map((t) => [t.label, t.kind])).toEqual([
      ['0', 'decided'],
      ['600', 'decided'],
      ['1200', 'decided'],
      ['1500', 'place'],
    ]);
  });
});
