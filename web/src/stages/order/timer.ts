/** How long a step takes: a clock that is started and stopped, kept on the device while the page is away. */
const KEY = (job: string) => `wobble-clock ${job}`;

export interface Clock {
  step: string;
  /** When it was started last, ms; 0 while it stands. */
  since: number;
  /** What ran before that, ms. */
  ran: number;
}

export function readClock(job: string): Clock | null {
  try {
    const found = JSON.parse(localStorage.getItem(KEY(job)) ?? 'null') as Clock | null;
    return found && typeof found.step === 'string' ? found : null;
  } catch {
    return null; // a device that keeps nothing has no clock either
  }
}

export function writeClock(job: string, clock: Clock | null): void {
  try {
    if (clock) localStorage.setItem(KEY(job), JSON.stringify(clock));
    else localStorage.removeItem(KEY(job));
  } catch {
    // it runs on while the page is open
  }
}

export const ranMs = (clock: Clock, now: number): number => clock.ran + (clock.since ? now - clock.since : 0);

export const started = (clock: Clock | null, step: string, now: number): Clock =>
  clock?.step === step ? { ...clock, since: now } : { step, since: now, ran: 0 };

export const stopped = (clock: Clock, now: number): Clock => ({ ...clock, since: 0, ran: ranMs(clock, now) });

/** Minutes for the record: whole ones, at least one. */
export const minutesOf = (clock: Clock, now: number): number =>
  Math.max(1, Math.round(ranMs(clock, now) / 60_000));
