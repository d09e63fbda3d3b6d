/** What goes into a gap, in words. */
import type { Filling, LengthUnit } from '../../api/types';
import { showLength } from '../../entry/length';

export function fillingWords(f: Filling, unit: LengthUnit): string {
  switch (f.kind) {
    case 'bare':
      return 'nothing';
    case 'cut':
      // to the safe side: a base cut a hair short is shimmed, one left long does not go under
      return `cut ${showLength(upTo(f.cut_mm ?? 0, unit === 'in' ? 25.4 / 32 : 0.1), unit)} off`;
    case 'block':
      return [`block ${showLength(f.block_mm ?? 0, unit, 0)}`, stackWords(f, unit)]
        .filter(Boolean)
        .join(' + ');
    case 'stack':
      return stackWords(f, unit);
  }
}

/** The next mark of the tape at or above a length. */
const upTo = (mm: number, tick: number) => Math.ceil(mm / tick - 1e-9) * tick;

/** The pieces of a stack, such as `2 × 5 + 1`. */
function stackWords(f: Filling, unit: LengthUnit): string {
  const pieces = f.stack?.pieces_mm ?? [];
  const counts = new Map<number, number>();
  for (const mm of pieces) counts.set(mm, (counts.get(mm) ?? 0) + 1);
  return [...counts].map(([mm, n]) => `${n > 1 ? `${n} × ` : ''}${shown(mm, unit)}`).join(' + ');
}

const shown = (mm: number, unit: LengthUnit) => showLength(mm, unit, Number.isInteger(mm) ? 0 : 1);

export function taperWords(f: Filling, unit: LengthUnit): string {
  if (!f.taper) return '';
  const { overlap_mm, slide_mm } = f.taper;
  return `overlap ${showLength(overlap_mm, unit, 0)}${slide_mm < 0 ? ', thin ends' : ''}`;
}
