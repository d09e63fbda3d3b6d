/** What a form begins with, on round marks of the user's own rule: never a millimetre default turned into 23 5/8". */
import type { LengthUnit } from '../api/types';

const INCH = 25.4;
/** From so many inches on, to so many: rooms in half feet, cabinets in inches, boards in eighths. */
const MARKS: readonly [number, number][] = [
  [39, 6],
  [9, 1],
  [1.2, 0.5],
  [0.4, 0.125],
  [0, 0.0625],
];

export function usualLength(mm: number, unit: LengthUnit): number {
  if (unit === 'mm') return mm;
  const inches = Math.abs(mm) / INCH;
  const mark = MARKS.find(([from]) => inches >= from)?.[1] ?? 1;
  return Math.sign(mm) * Math.round(inches / mark) * mark * INCH;
}

/** The same for all lengths of a thing: what ends in `_mm`, and the spots and sizes of holes. */
export function usual<T extends object>(thing: T, unit: LengthUnit): T {
  const told = Object.entries(thing).map(([key, value]: [string, unknown]) => {
    if (typeof value === 'number' && key.endsWith('_mm')) return [key, usualLength(value, unit)];
    if (Array.isArray(value) && (key === 'at' || key === 'size'))
      return [key, value.map((v: number) => usualLength(v, unit))];
    return [key, value];
  });
  return Object.fromEntries(told) as T;
}
