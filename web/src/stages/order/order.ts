/** Order drawn and said: weeks as rods, evenings as hands on them, steps as notches, waits as cords, gates as pegs. */
import type { Fact, PlannedStep, SessionPlan } from '../../api/types';

const MINUTE = 60_000;

/** A moment as the server wants it: the clock on this wall, and how far it is from everybody's. */
export function moment(at = new Date()): string {
  const off = -at.getTimezoneOffset();
  const two = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, '0');
  const local = new Date(at.getTime() + off * MINUTE).toISOString().slice(0, 19);
  return `${local}${off < 0 ? '-' : '+'}${two(off / 60)}:${two(off % 60)}`;
}

/** Minutes between two moments of the wall clock; the zone falls out. */
export const minutesBetween = (from: string, to: string): number =>
  (Date.parse(`${to}Z`) - Date.parse(`${from}Z`)) / MINUTE;

const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A day as one says it. */
export function sayDay(text: string): string {
  const at = new Date(`${text.slice(0, 10)}T00:00Z`);
  return `${DAYS[at.getUTCDay()]} ${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]}`;
}
export const sayHour = (text: string): string => text.slice(11, 16);
export const sayWhen = (text: string): string => `${sayDay(text)}, ${sayHour(text)}`;

/** Minutes as one says them. */
export function sayMinutes(n: number): string {
  if (n < 60) return `${n} min`;
  const rest = n % 60;
  return `${Math.floor(n / 60)} h${rest ? ` ${rest}` : ''}`;
}

/** The Monday of a day's week. */
export function weekOf(text: string): string {
  const at = new Date(`${text.slice(0, 10)}T00:00Z`);
  at.setUTCDate(at.getUTCDate() - ((at.getUTCDay() + 6) % 7));
  return at.toISOString().slice(0, 10);
}

/** A stretch of a step on a rod: from which pixel to which, in whose lane of how many. */
export interface Notch {
  step: PlannedStep;
  number: number;
  x: number;
  w: number;
  lane: number;
  lanes: number;
  first: boolean;
  last: boolean;
}

export interface Hand {
  session: SessionPlan;
  x: number;
  w: number;
  notches: Notch[];
}

export interface Week {
  monday: string;
  hands: Hand[];
  /** What somebody else does that week. */
  others: PlannedStep[];
}

const JOINT = 10;

/** Sessions as rods, one a week, all on one scale: the fullest week is as wide as there is room. */
export function weeks(
  sessions: readonly SessionPlan[],
  steps: readonly PlannedStep[],
  width: number,
): { weeks: Week[]; scale: number } {
  const by = new Map<string, SessionPlan[]>();
  for (const s of sessions) by.set(weekOf(s.start), [...(by.get(weekOf(s.start)) ?? []), s]);
  const others = steps.filter((s) => s.step.others && s.stretches?.length);
  for (const s of others)
    if (!by.has(weekOf(s.stretches[0]!.start))) by.set(weekOf(s.stretches[0]!.start), []);
  const long = (s: SessionPlan) => minutesBetween(s.start, s.end);
  const most = Math.max(1, ...[...by.values()].map((ws) => ws.reduce((n, s) => n + long(s), 0)));
  const joints = Math.max(1, ...[...by.values()].map((ws) => ws.length)) * JOINT;
  const scale = Math.max(0.2, (width - joints) / most);
  const numbers = numbersOf(steps);
  const found = [...by.keys()].toSorted().map((monday) => {
    let x = 0;
    const hands = by.get(monday)!.map((session) => {
      const w = long(session) * scale;
      const hand = { session, x, w, notches: notchesOf(session, steps, numbers, x, scale) };
      x += w + JOINT;
      return hand;
    });
    return { monday, hands, others: others.filter((s) => weekOf(s.stretches[0]!.start) === monday) };
  });
  return { weeks: found, scale };
}

/** The number of each step that is planned, by which notch and list name it. */
export const numbersOf = (steps: readonly PlannedStep[]): Map<string, number> =>
  new Map(steps.filter((s) => s.stretches?.length).map((s, i) => [s.step.key, i + 1]));

function notchesOf(
  session: SessionPlan,
  steps: readonly PlannedStep[],
  numbers: ReadonlyMap<string, number>,
  x: number,
  scale: number,
): Notch[] {
  const lanes = session.people.length;
  return steps.flatMap((step) =>
    (step.stretches ?? []).flatMap((s, i, all) => {
      if (s.start < session.start || s.start >= session.end || !s.people.length) return [];
      const both = s.people.length > 1;
      return [
        {
          step,
          number: numbers.get(step.step.key) ?? 0,
          x: x + minutesBetween(session.start, s.start) * scale,
          w: minutesBetween(s.start, s.end) * scale,
          lane: both ? 0 : Math.max(0, session.people.indexOf(s.people[0]!)),
          lanes: both ? 1 : lanes,
          first: i === 0,
          last: i === all.length - 1,
        },
      ];
    }),
  );
}

/** Where something dries: from the end of a step to the first that waits for it. */
export interface Cord {
  from: string;
  to: string;
  hours: number;
  why: string;
}

export function cords(steps: readonly PlannedStep[]): Cord[] {
  const starts = new Map(steps.map((s) => [s.step.key, s.stretches?.[0]?.start ?? '']));
  return steps.flatMap((s) => {
    const hours = s.step.rests_h ?? 0;
    if (!hours || !s.stretches?.length) return [];
    const waits = steps
      .filter(
        (o) => o.before.some((t) => t.first === s.step.key && t.rests !== false) && starts.get(o.step.key),
      )
      .toSorted((a, b) => starts.get(a.step.key)!.localeCompare(starts.get(b.step.key)!));
    const to = waits[0];
    return to ? [{ from: s.step.key, to: to.step.key, hours, why: s.step.rests_why ?? '' }] : [];
  });
}

/** Whether something waits for a step as for a peg that must be pulled. */
export const isGate = (key: string, steps: readonly PlannedStep[]): boolean =>
  steps.some((s) => s.before.some((t) => t.first === key && t.kind === 'gate'));

/** What waits for a step, with why. */
export const after = (key: string, steps: readonly PlannedStep[]) =>
  steps.flatMap((s) => s.before.filter((t) => t.first === key).map((t) => ({ step: s, tie: t })));

/** Steps that were ticked here, and have not reached the server. */
export const tickedHere = (pending: readonly { fact: Fact }[]): Set<string> =>
  new Set(pending.flatMap((k) => (k.fact.fact === 'step' ? [k.fact.step] : [])));

export const NUMBER_WIDE = 15;
