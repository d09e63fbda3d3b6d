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
    case 'foot':
      return 'turn the foot';
    case 'leg':
      return 'cut the leg';
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

/** How far a screw foot is turned, in whole turns and eighths, and which way. */
export function turnWords(eighths: number): string {
  if (eighths === 0) return 'leave it';
  const whole = Math.floor(Math.abs(eighths) / 8);
  const part = Math.abs(eighths) % 8;
  const fraction = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'][part]!;
  const turns = `${whole || !fraction ? whole : ''}${fraction}`;
  return `${turns} ${whole > 1 || (whole === 1 && part) ? 'turns' : 'turn'} ${eighths > 0 ? 'out' : 'in'}`;
}
