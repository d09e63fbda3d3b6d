/** The two rods: marked sticks whose ticks are decisions and finds. */

import type { Place, LengthUnit } from '../api/types';
import { showLength } from '../entry/length';

export interface Tick {
  id: string;
  /** Place along the rod, mm. */
  at: number;
  label: string;
  kind: 'decided' | 'found' | 'place';
  what: string;
}

/** Where labels go so that none stands on another: in order, at least `gap` apart, moved as little as can be. */
export function spread(wanted: readonly number[], gap: number, low: number, high: number): number[] {
  // pool adjacent violators on the places less their share of the gaps
  const order = wanted.map((_, i) => i).sort((a, b) => wanted[a]! - wanted[b]! || a - b);
  const pools: { sum: number; n: number }[] = [];
  order.forEach((index, rank) => {
    let pool = { sum: wanted[index]! - rank * gap, n: 1 };
    while (pools.length && pools.at(-1)!.sum / pools.at(-1)!.n > pool.sum / pool.n) {
      const before = pools.pop()!;
      pool = { sum: before.sum + pool.sum, n: before.n + pool.n };
    }
    pools.push(pool);
  });
  const places: number[] = [];
  pools.forEach((pool) => {
    const mean = pool.sum / pool.n;
    for (let i = 0; i < pool.n; i += 1) places.push(mean);
  });
  const highest = high - (wanted.length - 1) * gap;
  const out = new Array<number>(wanted.length);
  order.forEach((index, rank) => {
    out[index] = Math.max(low, Math.min(Math.max(low, highest), places[rank]!)) + rank * gap;
  });
  return out;
}

/** Ticks of the long rod: both corners, and every edge of a unit; what stands in a corner shares its tick. */
export function longTicks(place: Place, unit: LengthUnit): Tick[] {
  const tick = (at: number, kind: Tick['kind'], what: string): Tick => ({
    id: `along-${at}`,
    at,
    label: showLength(at, unit, 0),
    kind,
    what,
  });
  const edges = place.units.flatMap((u) => [
    tick(u.x_mm, 'decided', `Left edge of ${u.name}`),
    tick(u.x_mm + u.width_mm, 'decided', `Right edge of ${u.name}`),
  ]);
  const corners = [tick(0, 'place', 'Left corner'), tick(place.width_mm, 'place', 'Right corner')];
  return [...edges, ...corners]
    .toSorted((a, b) => a.at - b.at)
    .filter((t, i, all) => i === 0 || t.at - all[i - 1]!.at >= 1);
}

/** Width of a figure's character, px: those of the phone are smaller. */
const CHAR_PX = { wide: 7, compact: 5.9 };
const MOST_ROWS = 3;

export const widest = (ticks: readonly Tick[]): number => Math.max(3, ...ticks.map((t) => t.label.length));
/** How far the middles of labels of so many characters stand apart beneath the long rod, px. */
export const labelPx = (chars: number, compact: boolean): number =>
  chars * (compact ? CHAR_PX.compact : CHAR_PX.wide) + 8;

/** In how many rows so many labels of that width are written beneath a rod, so that none stands on another nor far from its tick. */
export const rowsOf = (labels: number, labelPx: number, width: number): number =>
  Math.min(MOST_ROWS, Math.max(1, Math.ceil(((labels - 1) * labelPx) / Math.max(width, 1))));
