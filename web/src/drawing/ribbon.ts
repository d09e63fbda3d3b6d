/** A ribbon: a surface's profile with its deviation from a line exaggerated, and its uncertainty as a soft edge. */
import type { Sample } from './shape';

export interface Ribbon {
  line: string;
  /** One standard deviation to each side. */
  near: string;
  /** Two. */
  far: string;
  body: string;
}

export interface RibbonSpec {
  samples: readonly Sample[];
  /** The line that deviations are drawn from, mm. */
  reference: number;
  /** Pixels per millimetre of deviation. */
  gain: number;
  x: (mm: number) => number;
  /** Pixel of the line. */
  y: number;
  /** Pixels beyond which nothing is drawn, from the line: up (negative) and down. */
  reach: [number, number];
  /** Pixel where the solid body ends. */
  bottom: number;
}

export function ribbon(spec: RibbonSpec): Ribbon {
  const held = (v: number) => spec.y + Math.min(spec.reach[1], Math.max(spec.reach[0], v));
  const edge = (k: number) =>
    spec.samples.map((s) => [spec.x(s.at), held((spec.reference - s.mean + k * s.sd) * spec.gain)] as const);
  const line = edge(0);
  const first = line[0]?.[0] ?? 0;
  const last = line.at(-1)?.[0] ?? 0;
  return {
    line: path(line),
    near: closed(edge(-1), edge(1)),
    far: closed(edge(-2), edge(2)),
    body: `${path(line)}L${n(last)},${n(spec.bottom)}L${n(first)},${n(spec.bottom)}Z`,
  };
}

const n = (v: number) => v.toFixed(1);

export function path(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], i) => `${i ? 'L' : 'M'}${n(x)},${n(y)}`).join('');
}

function closed(
  a: readonly (readonly [number, number])[],
  b: readonly (readonly [number, number])[],
): string {
  return `${path(a)}${path(b.toReversed()).replace('M', 'L')}Z`;
}
