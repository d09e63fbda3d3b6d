/** Lists of a form, changed in one place: values are never changed where they stand. */
import type { Sessions } from '../../../api/types';

export type Put = (part: Partial<Sessions>) => void;

export const swapped = <T>(all: readonly T[], i: number, part: Partial<T>): T[] =>
  all.map((one, k) => (k === i ? { ...one, ...part } : one));
export const without = <T>(all: readonly T[], i: number): T[] => all.filter((_, k) => k !== i);
export const toggled = <T>(all: readonly T[], one: T): T[] =>
  all.includes(one) ? all.filter((x) => x !== one) : [...all, one];
export const tomorrow = () => new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
