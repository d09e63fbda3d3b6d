/** A place cut through: upright across the run at one x, or level in plan at one height. Each surface that is cut is a line
 *  whose deviation from its own middle is exaggerated, with a band for what is not known of it. Millimetres in, pixels out. */
import type { Place, Surveyed, SurfaceName, SurfaceShape, Unit } from '../api/types';
import { middle, valueAt } from './shape';

export type Way = 'cut' | 'plan';

export interface Cut {
  surface: SurfaceName;
  /** Along the line: place on the other axis of the picture, mm. */
  along: number[];
  mean: number[];
  sd: number[];
  /** What deviations are counted from, mm. */
  reference: number;
  /** Whether the surface runs across the picture (floor, ceiling, back in plan) or up it. */
  lies: 'across' | 'up';
}

/** Axes of the picture: across and up, with their lengths, mm. In a cut the back is at the left; in plan at the top. */
export function extent(place: Place, way: Way): { across: number; up: number } {
  return way === 'cut'
    ? { across: place.depth_mm, up: place.height_mm }
    : { across: place.width_mm, up: place.depth_mm };
}

/** Where the cut may stand, mm. */
export const reach = (place: Place, way: Way): number => (way === 'cut' ? place.width_mm : place.height_mm);

/** Every measured surface that the cut at `at` meets. */
export function cuts(surveyed: Surveyed, way: Way, at: number): Cut[] {
  const out: Cut[] = [];
  const add = (
    surface: SurfaceName,
    lies: Cut['lies'],
    axis: (s: SurfaceShape) => readonly number[],
    spot: (t: number) => [number, number],
  ) => {
    const shape = surveyed.surfaces.find((s) => s.surface === surface);
    if (!shape || !shape.n_readings) return;
    const along = [...axis(shape)];
    const values = along.map((t) => valueAt(shape, ...spot(t)));
    out.push({
      surface,
      lies,
      along,
      mean: values.map((v) => v.mean),
      sd: values.map((v) => v.sd),
      reference: middle(shape),
    });
  };
  if (way === 'cut') {
    add(
      'floor',
      'across',
      (s) => s.second,
      (y) => [at, y],
    );
    add(
      'ceiling',
      'across',
      (s) => s.second,
      (y) => [at, y],
    );
    add(
      'back',
      'up',
      (s) => s.second,
      (z) => [at, z],
    );
  } else {
    add(
      'back',
      'across',
      (s) => s.first,
      (x) => [x, at],
    );
    add(
      'left',
      'up',
      (s) => s.first,
      (y) => [y, at],
    );
    add(
      'right',
      'up',
      (s) => s.first,
      (y) => [y, at],
    );
  }
  return out;
}

export interface Paths {
  line: string;
  band: string;
}

/** The line of a cut and the band of its uncertainty; `px` turns picture coordinates (across, up) into pixels. */
export function paths(
  cut: Cut,
  gain: number,
  nominal: number,
  px: (across: number, up: number) => [number, number],
): Paths {
  const point = (i: number, spread: number): string => {
    // only the deviation is exaggerated; the surface itself stands where it is nominally
    const off = nominal + (cut.mean[i]! - cut.reference + spread * cut.sd[i]!) * gain;
    const [x, y] = cut.lies === 'across' ? px(cut.along[i]!, off) : px(off, cut.along[i]!);
    return `${x.toFixed(1)},${y.toFixed(1)}`;
  };
  const row = (spread: number) => cut.along.map((_, i) => point(i, spread));
  return { line: `M${row(0).join('L')}`, band: `M${[...row(1), ...row(-1).toReversed()].join('L')}Z` };
}

/** Where a surface stands nominally on its axis of the picture, mm. */
export function nominal(place: Place, surface: SurfaceName): number {
  return surface === 'ceiling' ? place.height_mm : surface === 'right' ? place.width_mm : 0;
}

const over = (u: Unit) => u.over_base_mm ?? 0;

/** The boxes that a cut goes through: across, up, width and height, mm. */
export function boxes(
  place: Place,
  way: Way,
  at: number,
  base: number,
  back: number,
): { id: string; name: string; across: number; up: number; w: number; h: number }[] {
  return (place.units ?? [])
    .filter((u) =>
      way === 'cut'
        ? u.x_mm <= at && at <= u.x_mm + u.width_mm
        : base + over(u) <= at && at <= base + over(u) + u.height_mm,
    )
    .map((u) =>
      way === 'cut'
        ? {
            id: u.id,
            name: u.name,
            across: back + (u.out_mm ?? 0),
            up: base + over(u),
            w: u.depth_mm,
            h: u.height_mm,
          }
        : {
            id: u.id,
            name: u.name,
            across: u.x_mm,
            up: back + (u.out_mm ?? 0),
            w: u.width_mm,
            h: u.depth_mm,
          },
    );
}
