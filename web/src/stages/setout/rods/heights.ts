/** Heights on the upright rod: those that a piece's own numbers give can be moved, nudged and typed. */
import type { LaidOut, Place, SetOut, Unit } from '../../../api/types';

export interface HeightTick {
  at: number;
  what: string;
  stays: boolean;
  /** The piece and which of its two heights this is; null where a stack, a carrier or the room gives it. */
  of: { unit: string; part: 'top' | 'underside' } | null;
}

const SAME_MM = 0.5;

/** Undersides and tops, sills, where the wall steps, and what stays, each height once. */
export function heightTicks(
  said: SetOut,
  laid: LaidOut,
  beside: string | null,
  top: number,
  steps: Place['steps'] = [],
): HeightTick[] {
  const all: HeightTick[] = [{ at: 0, what: 'The floor', stays: true, of: null }];
  const stacked = new Set((said.heights ?? []).flatMap((s) => [...(s.units ?? []), ...(s.tops ?? [])]));
  for (const { unit } of laid.units) {
    const low = unit.over_base_mm ?? 0;
    const free = !stacked.has(unit.id);
    if (low > 0)
      all.push({
        at: low,
        what: `Underside of ${unit.name}`,
        stays: false,
        of: free && unit.standing?.on !== 'pieces' ? { unit: unit.id, part: 'underside' } : null,
      });
    all.push({
      at: low + unit.height_mm,
      what: `Top of ${unit.name}`,
      stays: false,
      of: free ? { unit: unit.id, part: 'top' } : null,
    });
  }
  for (const e of said.existing ?? [])
    all.push({ at: (e.up_mm ?? 0) + e.height_mm, what: `Top of ${e.name}`, stays: true, of: null });
  for (const o of said.openings ?? [])
    if (o.sill_mm) all.push({ at: o.sill_mm, what: `Sill of ${o.name}`, stays: true, of: null });
  for (const s of steps ?? [])
    if (s.surface === 'back' && s.axis === 'second')
      for (const at of [s.from_mm, s.to_mm])
        if (at > 0) all.push({ at, what: `Where ${s.name} ends`, stays: true, of: null });
  const stack = (said.heights ?? []).find((s) => s.id === beside);
  if (stack?.beside_mm)
    all.push({ at: stack.beside_mm, what: stack.beside ?? 'a table', stays: true, of: null });
  const sorted = all
    .filter((t) => t.at <= top + 1)
    .toSorted((a, b) => a.at - b.at || Number(b.of !== null) - Number(a.of !== null));
  return sorted.filter((t, i) => i === 0 || t.at - sorted[i - 1]!.at >= SAME_MM);
}

/** What a piece becomes when one of its heights is brought somewhere; its underside carries the whole piece along. */
export function raised(unit: Unit, part: 'top' | 'underside', at: number): Partial<Unit> {
  const low = unit.over_base_mm ?? 0;
  return part === 'top' ? { height_mm: Math.max(1, at - low) } : { over_base_mm: Math.max(0, at) };
}
