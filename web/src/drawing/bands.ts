/** Contour bands of a surface: how far it stands proud or hollow of a reference, and where it is not known. */
import { contours } from 'd3-contour';
import type { SurfaceShape } from '../api/types';
import { bandStep } from './shape';

export interface Band {
  kind: 'proud' | 'hollow';
  /** Nearest edge of the band, mm from the reference; above 0 for both kinds. */
  from: number;
  d: string;
}

/** Standard deviations, mm, past which a surface counts as less and less known. */
export const VEILS = [1.6, 3];

type ToPx = (first: number, second: number) => [number, number];

/** `proudSign` is +1 where a larger coordinate stands towards the installer. */
export function bands(
  shape: SurfaceShape,
  reference: number,
  proudSign: 1 | -1,
  toPx: ToPx,
): { step: number; all: Band[] } {
  const by = shape.mean_mm.flatMap((row) => row.map((v) => (v - reference) * proudSign));
  const known = by.filter((_, i) => shape.sd_mm.flat()[i]! < VEILS[1]!);
  const range = Math.max(0.5, ...known.map(Math.abs));
  const step = bandStep(range);
  const levels = Array.from({ length: 6 }, (_, i) => (i + 0.5) * step).filter(
    (level) => level < range + step,
  );
  const of = (kind: Band['kind'], values: number[]): Band[] =>
    traced(shape, values, levels, toPx).map((d, i) => ({ kind, from: levels[i]!, d }));
  return {
    step,
    all: [
      ...of('proud', by),
      ...of(
        'hollow',
        by.map((v) => -v),
      ),
    ].filter((b) => b.d),
  };
}

/** Outlines of where the surface is known worse than each of the veils' limits. */
export function veils(shape: SurfaceShape, toPx: ToPx): string[] {
  return traced(shape, shape.sd_mm.flat(), VEILS, toPx);
}

function traced(shape: SurfaceShape, values: number[], levels: readonly number[], toPx: ToPx): string[] {
  const [w, h] = [shape.first.length, shape.second.length];
  // A rim of repeated values, so that bands reach the edges of the surface and not only the middle of its last cells.
  const rimmed: number[] = [];
  for (let j = -1; j <= h; j += 1)
    for (let i = -1; i <= w; i += 1) rimmed.push(values[clamp(j, h) * w + clamp(i, w)]!);
  const along = (axis: readonly number[], t: number) => {
    const held = Math.min(axis.length - 1, Math.max(0, t));
    const i = Math.min(axis.length - 2, Math.floor(held));
    return axis[i]! + (axis[i + 1]! - axis[i]!) * (held - i);
  };
  const point = ([gx, gy]: readonly number[]) => {
    // d3-contour puts the value of cell i at i + 0.5, and the rim adds one cell
    const [x, y] = toPx(along(shape.first, gx! - 1.5), along(shape.second, gy! - 1.5));
    return `${x.toFixed(1)},${y.toFixed(1)}`;
  };
  const trace = contours()
    .size([w + 2, h + 2])
    .smooth(true);
  return levels.map((level) =>
    trace
      .contour(rimmed, level)
      .coordinates.flatMap((polygon) => polygon.map((ring) => `M${ring.map(point).join('L')}Z`))
      .join(''),
  );
}

const clamp = (i: number, length: number) => Math.min(length - 1, Math.max(0, i));
