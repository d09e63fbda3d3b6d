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

/** The corners of a ribbon's edge so many deviations off, as they are written in a path. */
function edges(spec: RibbonSpec): (k: number) => string[] {
  const x = spec.samples.map((s) => tenths(spec.x(s.at)));
  return (k) =>
    spec.samples.map((s, i) => {
      const off = (spec.reference - s.mean + k * s.sd) * spec.gain;
      return `${x[i]},${tenths(spec.y + Math.min(spec.reach[1], Math.max(spec.reach[0], off)))}`;
    });
}

/** Only the line of a ribbon: it is made anew at each step of the wobble, on a phone within a frame. */
export const ribbonLine = (spec: RibbonSpec): string => `M${edges(spec)(0).join('L')}`;

export function ribbon(spec: RibbonSpec): Ribbon {
  const edge = edges(spec);
  const closed = (k: number) => `M${edge(-k).join('L')}L${edge(k).reverse().join('L')}Z`;
  const line = edge(0);
  const end = (corner: string | undefined) => `${corner?.split(',')[0] ?? 0},${tenths(spec.bottom)}`;
  return {
    line: `M${line.join('L')}`,
    near: closed(1),
    far: closed(2),
    body: `M${line.join('L')}L${end(line.at(-1))}L${end(line[0])}Z`,
  };
}

const tenths = (v: number) => Math.round(v * 10) / 10;

export function path(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], i) => `${i ? 'L' : 'M'}${tenths(x)},${tenths(y)}`).join('');
}
