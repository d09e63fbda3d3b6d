/** A surface as the server gives it, on a grid: values between its points, profiles, extremes. */
import type { SurfaceShape } from '../api/types';

export interface Sample {
  at: number;
  mean: number;
  sd: number;
}

/** Index of the cell that holds a coordinate, and how far into it, 0 to 1; held at the edges. */
function cell(axis: readonly number[], at: number): [number, number] {
  const last = axis.length - 2;
  let i = 0;
  while (i < last && axis[i + 1]! < at) i += 1;
  const share = (at - axis[i]!) / (axis[i + 1]! - axis[i]!);
  return [i, Math.min(1, Math.max(0, share))];
}

function between(
  rows: readonly (readonly number[])[],
  [i, u]: [number, number],
  [j, v]: [number, number],
): number {
  const low = rows[j]![i]! * (1 - u) + rows[j]![i + 1]! * u;
  const high = rows[j + 1]![i]! * (1 - u) + rows[j + 1]![i + 1]! * u;
  return low * (1 - v) + high * v;
}

/** Mean and sd at a spot, mm. */
export function valueAt(shape: SurfaceShape, first: number, second: number): { mean: number; sd: number } {
  const i = cell(shape.first, first);
  const j = cell(shape.second, second);
  return { mean: between(shape.mean_mm, i, j), sd: between(shape.sd_mm, i, j) };
}

/** The surface along its first axis at one place on its second. */
export function profile(shape: SurfaceShape, second: number): Sample[] {
  return shape.first.map((at) => ({ at, ...valueAt(shape, at, second) }));
}

/** The middle of all values that are known to better than `limit`, or of all if none is. */
export function middle(shape: SurfaceShape, limit = 5): number {
  const known = shape.mean_mm.flatMap((row, j) => row.filter((_, i) => shape.sd_mm[j]![i]! < limit));
  const values = (known.length ? known : shape.mean_mm.flat()).toSorted((a, b) => a - b);
  return values[Math.floor(values.length / 2)] ?? 0;
}

/** The largest and smallest deviation that is known to better than `limit`, with their places. */
export function extremes(
  shape: SurfaceShape,
  reference: number,
  limit: number,
): { at: [number, number]; by: number }[] {
  let high: { at: [number, number]; by: number } | null = null;
  let low: { at: [number, number]; by: number } | null = null;
  shape.second.forEach((b, j) =>
    shape.first.forEach((a, i) => {
      if (shape.sd_mm[j]![i]! >= limit) return;
      const by = shape.mean_mm[j]![i]! - reference;
      if (!high || by > high.by) high = { at: [a, b], by };
      if (!low || by < low.by) low = { at: [a, b], by };
    }),
  );
  return [high, low].filter((e) => e !== null);
}

/** A step for contour bands, so that about four of them cover the range. */
export function bandStep(range: number): number {
  return [0.5, 1, 2, 5, 10, 20, 50].find((step) => range / step <= 4.5) ?? 100;
}
