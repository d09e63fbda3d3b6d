/** A place cut through: each surface where it stands, only its deviation exaggerated. */
import { describe, expect, it } from 'vitest';
import type { Place, Surveyed, SurfaceShape } from '../api/types';
import { boxes, cuts, nominal, paths, reach } from './section';

const place = {
  width_mm: 2000,
  depth_mm: 600,
  height_mm: 2400,
  units: [
    { id: 'A', name: 'A', x_mm: 100, width_mm: 600, depth_mm: 560, height_mm: 720 },
    { id: 'B', name: 'B', x_mm: 700, width_mm: 600, depth_mm: 300, height_mm: 2000 },
  ],
} as unknown as Place;

function shape(
  surface: SurfaceShape['surface'],
  first: number[],
  second: number[],
  value: (u: number, v: number) => number,
) {
  return {
    surface,
    n_readings: 5,
    tied: true,
    first,
    second,
    mean_mm: second.map((v) => first.map((u) => value(u, v))),
    sd_mm: second.map(() => first.map(() => 0.5)),
  } as SurfaceShape;
}

const surveyed = {
  surfaces: [
    shape('floor', [0, 1000, 2000], [0, 300, 600], (x, y) => x / 100 - y / 100),
    shape('back', [0, 1000, 2000], [0, 1200, 2400], (x, z) => x / 200 + z / 1000),
    { ...shape('left', [0, 600], [0, 2400], () => 3), n_readings: 0 },
  ],
} as unknown as Surveyed;

describe('a section', () => {
  it('cuts floor and back upright at one x, and leaves out what is not measured', () => {
    const found = cuts(surveyed, 'cut', 500);
    expect(found.map((c) => c.surface)).toEqual(['floor', 'back']);
    expect(found[0]!.mean).toEqual([5, 2, -1]);
    expect(found[1]!.mean).toEqual([2.5, 3.7, 4.9]);
  });

  it('cuts the back in plan at one height', () => {
    expect(cuts(surveyed, 'plan', 600)).toMatchObject([
      { surface: 'back', lies: 'across', mean: [0.6, 5.6, 10.6] },
    ]);
    expect(reach(place, 'plan')).toBe(2400);
  });

  it('exaggerates the deviation and not the place', () => {
    const [floor] = cuts(surveyed, 'cut', 500);
    const one = paths({ ...floor!, reference: 2 }, 10, nominal(place, 'floor'), (a, u) => [a, u]);
    expect(one.line).toBe('M0.0,30.0L300.0,0.0L600.0,-30.0');
    const band = one.band.match(/-?[0-9.]+,-?[0-9.]+/g)!;
    expect(band[0]).toBe('0.0,35.0');
    expect(band.at(-1)).toBe('0.0,25.0');
    expect(nominal(place, 'ceiling')).toBe(2400);
  });

  it('shows the boxes that it goes through', () => {
    expect(boxes(place, 'cut', 400, 5, 3).map((b) => [b.id, b.across, b.up, b.w, b.h])).toEqual([
      ['A', 3, 5, 560, 720],
    ]);
    expect(boxes(place, 'plan', 900, 5, 3).map((b) => b.id)).toEqual(['B']);
    expect(boxes(place, 'cut', 1900, 5, 3)).toEqual([]);
  });
});
