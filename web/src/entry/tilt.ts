/** A phone as a level: what its sensor of tilt says, steadied, and how it is asked for (W3C Device Orientation). */

/** How a phone lies: about its short edge (its top raised) and about its long edge, degrees. */
export interface Lie {
  beta: number;
  gamma: number;
}
/** Tells every lie until it is stopped. */
export type Sensor = (tell: (lie: Lie) => void) => () => void;
/** Flat on its back with its top towards the end of the reading, or upright against it with its top up. */
export type Held = 'flat' | 'upright';
export type Asked = 'ready' | 'refused' | 'insecure' | 'none';

const SPAN_MS = 2000;
const FEWEST = 12;
const STILL_DEG = 0.12;
const ASKEW_DEG = 4;

/** The angle along the phone's long edge that is read, degrees: over level, or over plumb towards whoever looks at it. */
export const angleOf = (lie: Lie, held: Held): number => (held === 'flat' ? lie.beta : lie.beta - 90);
/** Whether it lies so that its long edge tells nothing: rolled over its long edge, or in the other position. */
export const askew = (lie: Lie, held: Held): boolean =>
  (held === 'flat' && Math.abs(lie.gamma) > ASKEW_DEG) || Math.abs(angleOf(lie, held)) > 30;

/** What the last two seconds say, once they are still. */
export class Steady {
  #seen: { at: number; deg: number }[] = [];

  /** Take an angle; the mean of what was still, or null while it moves. */
  add(at: number, deg: number): number | null {
    this.#seen = [...this.#seen.filter((s) => at - s.at <= SPAN_MS), { at, deg }];
    if (this.#seen.length < FEWEST || this.share < 1) return null;
    const mean = this.#seen.reduce((sum, s) => sum + s.deg, 0) / this.#seen.length;
    const spread = Math.sqrt(this.#seen.reduce((sum, s) => sum + (s.deg - mean) ** 2, 0) / this.#seen.length);
    if (spread <= STILL_DEG) return mean;
    this.#seen = this.#seen.slice(Math.floor(this.#seen.length / 2)); // what moved does not count
    return null;
  }

  /** How much of the time that is wanted has been seen, 0 to 1. */
  get share(): number {
    const [first, last] = [this.#seen[0], this.#seen.at(-1)];
    return first && last ? Math.min(1, (last.at - first.at) / (SPAN_MS * 0.9)) : 0;
  }
}

/** Ask for the sensor, where it must be asked for: by a press of the user's. */
export async function ask(): Promise<Asked> {
  if (!isSecureContext) return 'insecure';
  const events = globalThis.DeviceOrientationEvent as
    (typeof DeviceOrientationEvent & { requestPermission?: () => Promise<string> }) | undefined;
  if (!events) return 'none';
  if (!events.requestPermission) return 'ready';
  try {
    return (await events.requestPermission()) === 'granted' ? 'ready' : 'refused';
  } catch {
    return 'refused';
  }
}

export const own: Sensor = (tell) => {
  const heard = (e: DeviceOrientationEvent) => {
    if (e.beta !== null && e.gamma !== null) tell({ beta: e.beta, gamma: e.gamma });
  };
  addEventListener('deviceorientation', heard);
  return () => removeEventListener('deviceorientation', heard);
};

/** A stand-in for the demo: it lies at some angle, and shakes a little. */
export const simulated =
  (deg: number, held: Held): Sensor =>
  (tell) => {
    let n = 0;
    const timer = setInterval(() => {
      n += 1;
      tell({
        beta: deg + (held === 'upright' ? 90 : 0) + 0.04 * Math.sin(n * 2.4),
        gamma: 0.3 * Math.sin(n),
      });
    }, 50);
    return () => clearInterval(timer);
  };
