/** What Hold draws on a surface, as paths and places in pixels: plain geometry, so that it is tested without a browser. */
import type { Place, Detection, Lines, Fastener, StructureLine, SurfaceName } from '../../api/types';
import { facePx, type Layout } from '../../drawing/layout';

type Spot = readonly [number, number];

/** A closed path round spots of a surface. */
export function outline(l: Layout, surface: SurfaceName, spots: readonly Spot[]): string {
  const px = spots.map(([u, v]) =>
    facePx(l, surface, u, v)
      .map((c) => c.toFixed(1))
      .join(','),
  );
  return `M${px.join('L')}Z`;
}

/** A rectangle on a surface from its lower corner. */
export const box = (l: Layout, surface: SurfaceName, u: number, v: number, w: number, h: number): string =>
  outline(l, surface, [
    [u, v],
    [u + w, v],
    [u + w, v + h],
    [u, v + h],
  ]);

/** A stud from the floor to where the drawing ends, as it leans; a joist over all of a ceiling or floor. */
export function studOutline(
  l: Layout,
  surface: SurfaceName,
  line: StructureLine,
  wide: number,
  place: Pick<Place, 'width_mm' | 'depth_mm' | 'openings'>,
  runs: Lines['runs'],
): string {
  const half = wide / 2;
  if (surface === 'ceiling' || surface === 'floor')
    return runs === 'along'
      ? box(l, surface, 0, line.at_mm - half, place.width_mm, wide)
      : box(l, surface, line.at_mm - half, 0, wide, place.depth_mm);
  const at = (z: number) => line.at_mm + ((line.lean_mm_per_m ?? 0) * (z - (line.up_mm ?? 0))) / 1000;
  const openings = surface === 'back' ? (place.openings ?? []) : [];
  return solid(openings, line.at_mm, l.top)
    .map(([low, high]) =>
      outline(l, surface, [
        [at(low) - half, low],
        [at(low) + half, low],
        [at(high) + half, high],
        [at(high) - half, high],
      ]),
    )
    .join('');
}

/** Stretches of height in which a wall is there at a place along it: doors and windows leave the rest. */
function solid(openings: NonNullable<Place['openings']>, x: number, top: number): [number, number][] {
  const holes = openings
    .filter((o) => o.x_mm < x && x < o.x_mm + o.width_mm)
    .map((o) => [o.sill_mm ?? 0, (o.sill_mm ?? 0) + o.height_mm] as const)
    .sort((a, b) => a[0] - b[0]);
  const out: [number, number][] = [];
  let from = 0;
  for (const [low, high] of holes) {
    if (low > from) out.push([from, Math.min(low, top)]);
    from = Math.max(from, high);
  }
  if (from < top) out.push([from, top]);
  return out;
}

/** The sign of what was found: edges open towards their stud, a miss is a cross, what is no wood a warning. */
export function sign(sees: Detection['sees'], x: number, y: number): string {
  switch (sees) {
    case 'miss':
      return `M${x - 3},${y - 3}l6,6m0,-6l-6,6`;
    case 'something else':
      return `M${x},${y - 6}l5,9h-10Z`;
    case 'left edge':
      return `M${x},${y - 4}v8h3`;
    case 'right edge':
      return `M${x},${y - 4}v8h-3`;
    default:
      return `M${x - 3},${y}h6M${x},${y - 3}v6`;
  }
}

export interface Label {
  x: number;
  y: number;
  orders: number[];
}

/** The numbers of screws; of such as lie over each other, all stand at the first. */
export function labels(l: Layout, surface: SurfaceName, points: readonly Fastener[], near = 14): Label[] {
  const out: Label[] = [];
  for (const q of points) {
    const [x, y] = facePx(l, surface, q.at[0], q.at[1]);
    const there = out.find((o) => Math.hypot(o.x - x, o.y - y) < near);
    if (there) there.orders.push(q.order ?? 0);
    else out.push({ x, y, orders: [q.order ?? 0] });
  }
  return out;
}

/** What a screw's own hole met: the newest trial hole at its place, if any. */
export function metAt(point: Fastener, found: readonly Detection[], same = 12): Detection | null {
  return (
    found.findLast(
      (d) =>
        d.found_by === 'trial hole' &&
        (d.surface ?? 'back') === (point.surface ?? 'back') &&
        Math.hypot(d.at[0] - point.at[0], d.at[1] - point.at[1]) < same,
    ) ?? null
  );
}
