/** Figures beside marks on the drawing: which of them have room, and where a name stands clear of them. */

/** A figure as it would be written: from where to where along, how far down, all px. */
export interface Figure {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly y: number;
}

const LINE_PX = 12;

/** Keep the figures that touch none kept before them: what matters most comes first. The lists below carry them all. */
export function withRoom(figures: readonly Figure[]): ReadonlySet<string> {
  const kept: Figure[] = [];
  for (const f of figures) {
    const free = kept.every((k) => f.to <= k.from || f.from >= k.to || Math.abs(f.y - k.y) >= LINE_PX);
    if (free) kept.push(f);
  }
  return new Set(kept.map((f) => f.id));
}

/** How far down a box of this height its name stands: at the middle, or where the figures inside leave it free. */
export function nameAt(top: number, high: number, figures: readonly number[]): number {
  const clear = (y: number) => Math.min(Number.POSITIVE_INFINITY, ...figures.map((f) => Math.abs(f - y)));
  const at = [0.5, 0.25, 0.75].map((part) => top + high * part);
  return at.find((y) => clear(y) >= LINE_PX + 2) ?? at[0]!;
}
