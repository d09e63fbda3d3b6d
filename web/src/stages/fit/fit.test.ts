/** What goes into a gap, in words, and what a touched tick opens. */
import { describe, expect, it } from 'vitest';
import type { Place, PlaceFit, Filling, Plan } from '../../api/types';
import { arc } from './arc';
import { opened, uprightTicks } from './ticks';
import { fillingWords, taperWords, turnWords } from './words';

const filling = (part: Partial<Filling>): Filling => ({
  kind: 'stack',
  stack: null,
  taper: null,
  block_mm: null,
  cut_mm: null,
  within_tolerance: true,
  ...part,
});
const stack = (...pieces_mm: number[]) => ({
  pieces_mm,
  thickness_mm: pieces_mm.reduce((a, b) => a + b, 0),
  left_mm: 0,
});

describe('a filling in words', () => {
  it.each([
    [filling({ kind: 'bare' }), 'nothing'],
    [filling({ stack: stack(5, 5, 1) }), '2 × 5 + 1'],
    [filling({ stack: stack(1.5) }), '1.5'],
    [filling({ kind: 'block', block_mm: 39, stack: stack(2) }), 'block 39 + 2'],
    // cutting rounds up: what is cut a hair short is shimmed, what is left long does not go under
    [filling({ kind: 'cut', cut_mm: 3.01 }), 'cut 3.1 off'],
  ])('%o is %s', (given, words) => {
    expect(fillingWords(given, 'mm')).toBe(words);
  });

  it('speaks inches', () => {
    expect(fillingWords(filling({ stack: stack(6.35, 3.175) }), 'in')).toBe('1/4" + 1/8"');
  });

  it('cuts to the next thirty-second, never short of it', () => {
    // 3.01 mm is 3.79 thirty-seconds, 3.2 mm is 4.03: the nearest would leave the second one long
    expect(fillingWords(filling({ kind: 'cut', cut_mm: 3.01 }), 'in')).toBe('cut 1/8" off');
    expect(fillingWords(filling({ kind: 'cut', cut_mm: 3.2 }), 'in')).toBe('cut 5/32" off');
    expect(fillingWords(filling({ kind: 'cut', cut_mm: 3.175 }), 'in')).toBe('cut 1/8" off');
  });

  it('says which ends of a tapered pair overlap', () => {
    const taper = { length_mm: 150, overlap_mm: 120.6, slide_mm: -29.4 };
    expect(taperWords(filling({ taper }), 'mm')).toBe('overlap 121, thin ends');
    expect(taperWords(filling({ taper: { ...taper, slide_mm: 29.4 } }), 'mm')).toBe('overlap 121');
  });
});

const figure = (value_mm: number) => ({ value_mm, sd_mm: 0, working: [] });
const plan = {
  base: { height: figure(2.5), over_high_spot: figure(0.5), tied: true, tops_mm: [730.5, 730.5] },
  shims: [
    {
      support: 'A.front-left',
      unit: 'A',
      corner: 'front left',
      at: [40, 500],
      gap: figure(12.2),
      filling: filling({}),
    },
  ],
  packings: [
    {
      fixing: 'A.fix-1-left',
      unit: 'A',
      side: 'left',
      at: [40, 652.5],
      gap: figure(3.5),
      filling: filling({}),
    },
  ],
} as unknown as Plan;
const fit = { plan, findings: [] } as unknown as PlaceFit;
const place = { units: [{ id: 'A', name: 'A Drawers' }] } as unknown as Place;

describe('the upright rod of Fit', () => {
  it('has the underside, the fixings and each top once', () => {
    expect(uprightTicks(plan, 'mm').map((t) => [t.id, t.label])).toEqual([
      ['base', '2.5'],
      ['fix-653', '653'],
      ['top-730.5', '730.5'],
    ]);
    expect(uprightTicks(null, 'mm').map((t) => t.label)).toEqual(['0']);
  });

  it('opens what is touched', () => {
    expect(opened('A.front-left', fit, place, 'mm')?.title).toBe('Under A Drawers, front left');
    expect(opened('A.fix-1-left', fit, place, 'mm')?.figure.value_mm).toBe(3.5);
    const top = opened('top-730.5', fit, place, 'mm');
    expect(top?.figure.working.map((s) => s.value_mm)).toEqual([2.5, 728]);
    expect(opened('along-110', fit, place, 'mm')).toBeNull();
    expect(opened(null, fit, place, 'mm')).toBeNull();
  });
});

describe('a screw foot', () => {
  it.each([
    [0, 'leave it'],
    [1, '⅛ turn out'],
    [-4, '½ turn in'],
    [8, '1 turn out'],
    [16, '2 turns out'],
    [-27, '3⅜ turns in'],
    [9, '1⅛ turns out'],
  ])('is turned by %i eighths: %s', (eighths, words) => {
    expect(turnWords(eighths)).toBe(words);
  });
});

describe('a door from above', () => {
  it.each([
    ['left', 90, [34, 35]],
    ['right', 90, [36, 35]],
    ['left', 0, [64, 5]],
    // past square it stands on the other side of its hinge
    ['left', 120, [34 - 15, 5 + 30 * Math.sin((120 * Math.PI) / 180)]],
    ['right', 120, [36 + 15, 5 + 30 * Math.sin((120 * Math.PI) / 180)]],
  ] as const)('hinged at the %s and opened by %i° ends at %o', (hinged, opens_deg, end) => {
    const drawn = arc({ hinged, opens_deg });
    expect(drawn.end[0]).toBeCloseTo(end[0], 6);
    expect(drawn.end[1]).toBeCloseTo(end[1], 6);
    expect(drawn.leaf.startsWith(`M${hinged === 'left' ? 34 : 36},5L`)).toBe(true);
  });
});
