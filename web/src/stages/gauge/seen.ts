/** What the readings show of a surface as a whole: where it steps, and which lines lean. */
import { showSlope } from '../../entry/length';
import type { LengthUnit, SurfaceName, Surveyed, WallStep } from '../../api/types';
import { SURFACE_NAMES } from '../../entry/places';
import { freeStep } from '../../entry/ids';

export type SeenEdge = NonNullable<Surveyed['edges']>[number];
export type LeaningLine = NonNullable<Surveyed['leaning']>[number];

/** What a height may be out by before the readings say: the edge is declared, its height is theirs to tell. */
const HEIGHT_OPEN_MM = 50;

export const called = (surface: SurfaceName): string => SURFACE_NAMES[surface].toLowerCase();

/** Which way a surface steps, towards the installer or off. */
export function wayOf(edge: SeenEdge): string {
  const nearer = edge.by_mm > 0;
  if (edge.surface === 'floor') return nearer ? 'higher' : 'lower';
  if (edge.surface === 'ceiling') return nearer ? 'lower' : 'higher';
  return nearer ? 'nearer to the room' : 'further from the room';
}

/** Along which way its ends are told. */
export function alongOf(edge: SeenEdge): string {
  const out = 'out from the back';
  if (edge.surface === 'floor' || edge.surface === 'ceiling') return edge.axis === 'first' ? 'along' : out;
  return edge.axis === 'second' ? 'up' : edge.surface === 'back' ? 'along' : out;
}

/** The edge as it is declared: midway between the readings that it lies between, to be tapped more exactly. */
export function declared(edge: SeenEdge, steps: readonly WallStep[]): WallStep {
  const ends = [edge.low, ...(edge.high ? [edge.high] : [])];
  const middle = ([low, high]: readonly number[]) => Math.round(((low ?? 0) + (high ?? 0)) / 2);
  return {
    id: freeStep(steps),
    name: edge.by_mm > 0 ? 'Step out' : 'Step back',
    surface: edge.surface,
    axis: edge.axis,
    from_mm: middle(edge.low),
    to_mm: edge.high ? middle(edge.high) : edge.end_mm,
    at_sigma_mm: Math.ceil(Math.max(...ends.map(([low, high]) => (high - low) / 2 / Math.sqrt(3)))),
    by_mm: 0,
    sigma_mm: HEIGHT_OPEN_MM,
  };
}

/** How much lines lean, a line of words for each. */
export function leans(
  leaning: readonly LeaningLine[],
  names: ReadonlyMap<string, string>,
  unit: LengthUnit,
): string[] {
  const along: Record<string, string> = { x: 'along', y: 'out from the back', z: 'up' };
  return [...new Set(leaning.map((l) => l.set_up))].map((id) => {
    const own = leaning.filter((l) => l.set_up === id);
    const said = own.map((l) => `${showSlope(l.mm_per_m, unit, l.sd)} ${along[l.axis] ?? l.axis}`);
    return `“${names.get(id) ?? id}” leans ${said.join(' and ')}`;
  });
}
