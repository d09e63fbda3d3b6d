import type { CheckFound, LengthUnit } from '../../../api/types';
import { showLength, showSlope, showSpread } from '../../../entry/length';

/** By how much an instrument reads too much or too little, with its unit and its uncertainty. */
export function sayError({ value, sd, unit }: CheckFound, shown: LengthUnit): string {
  if (unit !== 'mm') return showSlope(value, shown, sd);
  return `${showLength(Math.abs(value), shown)} ${showSpread(sd, shown)}${shown === 'mm' ? ' mm' : ''}`;
}
