/** Set drawn and said: checks as levels with their bubbles, units as they stand over their plan. */
import type { AsSet, Check, Fact } from '../../api/types';
import { newId } from '../../entry/ids';

/** Where a bubble stands between its lines: −1 and 1 are the lines, further out is out. */
export function bubble(check: Check): number | null {
  const last = check.readings?.at(-1);
  if (!last || last.off_mm === null || last.off_mm === undefined || !check.tolerance_mm) return null;
  return Math.max(-1.7, Math.min(1.7, last.off_mm / check.tolerance_mm));
}

export const isYesNo = (check: Check): boolean =>
  check.expected_mm === null || check.expected_mm === undefined;

/** Whether a reading is not what is let be: between which figures that lies is the check's own word. */
export function isOut(check: Check, fact: Pick<AsSet, 'value_mm' | 'came'>): boolean {
  const value = fact.value_mm;
  if (value === null || value === undefined) return fact.came === 'wrong';
  return value < (check.least_mm ?? -Infinity) || value > (check.most_mm ?? Infinity);
}

/** Checks with what was typed here and has not reached the server: open ones are no longer open. */
export function withPending(checks: readonly Check[], pending: readonly { fact: Fact }[]): Check[] {
  const mine = pending.flatMap((k) => (k.fact.fact === 'as set' ? [k.fact] : []));
  if (!mine.length) return [...checks];
  return checks.map((c) => mine.filter((f) => f.check === c.key).reduce(read, c));
}

function read(check: Check, fact: AsSet): Check {
  const off =
    fact.value_mm === null || fact.value_mm === undefined
      ? null
      : fact.value_mm - (check.expected_mm ?? fact.expected_mm ?? 0);
  const out = isOut(check, fact);
  const reading = { fact: fact.id, value_mm: fact.value_mm ?? null, off_mm: off, out };
  return { ...check, readings: [...(check.readings ?? []), reading], state: out ? 'out' : 'right' };
}

/** The fact that a reading of a check is, with what was planned then. */
export function asSet(check: Check, by: string, value: { mm: number } | { came: 'right' | 'wrong' }): AsSet {
  return {
    fact: 'as set',
    id: newId(),
    taken_at: new Date().toISOString(),
    taken_by: by,
    supersedes: null,
    aside: null,
    check: check.key,
    value_mm: 'mm' in value ? value.mm : null,
    came: 'came' in value ? value.came : null,
    instrument: '',
    expected_mm: check.expected_mm ?? null,
    of: check.of,
    stands: check.stands ?? null,
  };
}

/** A level is read as it is there: in mm over the check's length, in mm per metre, or in degrees. */
export type ReadIn = 'mm' | 'mm/m' | '°';
export const isLevel = (check: Check): boolean =>
  check.kind.startsWith('level') || check.kind.startsWith('plumb');
export function overItsLength(value: number, as: ReadIn, over: number): number {
  if (as === 'mm/m') return (value * over) / 1000;
  return as === '°' ? Math.tan((value * Math.PI) / 180) * over : value;
}

/** The check to read next: the first open one of the same unit after this, else of the same step, else of all. */
export function next(checks: readonly Check[], after: Check): Check | null {
  const at = checks.findIndex((c) => c.key === after.key);
  const open = [...checks.slice(at + 1), ...checks.slice(0, at)].filter(
    (c) => c.state !== 'right' && c.key !== after.key,
  );
  return (
    open.find((c) => c.step === after.step && c.state === 'open') ??
    open.find((c) => c.of === after.of && c.state === 'open') ??
    open.find((c) => c.state === 'open') ??
    null
  );
}

export interface Tally {
  open: number;
  right: number;
  out: number;
}
export const tally = (checks: readonly Check[]): Tally => ({
  open: checks.filter((c) => c.state === 'open' || !c.state).length,
  right: checks.filter((c) => c.state === 'right').length,
  out: checks.filter((c) => c.state === 'out').length,
});

/** The sign of a check that is yes or no; nothing for one that has a bubble. */
export const signOf = (check: Check): string =>
  isYesNo(check) ? (check.state === 'right' ? '✓' : check.state === 'out' ? '✗' : '?') : '';

/** What a check is called under the heading of its piece: without the piece's name where it begins with that. */
export const within = (name: string, piece: string): string =>
  name.startsWith(`${piece}: `) ? name.slice(piece.length + 2) : name;
