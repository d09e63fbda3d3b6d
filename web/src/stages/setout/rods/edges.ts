/** Edges on the long rod: those that stand at one place are one tick, and a tick that is dragged near something stays there. */
import type { Edge, EdgeTick, LaidOut, LengthUnit, Move, Snap } from '../../../api/types';

export interface Tick {
  id: string;
  at: number;
  /** Every edge that stands here, that of the piece at its left first. */
  edges: readonly EdgeTick[];
  /** The edge that is moved when the tick is; null where nothing here can be. */
  edge: Edge | null;
  held: 'rule' | 'drawn' | 'stays';
  signs: string;
}

const SAME_MM = 0.5;

/** Ticks of all edges, from the left; of what stays only what no piece stands at. */
export function ticksOf(laid: LaidOut, lines: readonly { id: string; at: number }[] = []): Tick[] {
  const sorted = laid.ticks.toSorted(
    (a, b) => a.at.value_mm - b.at.value_mm || (a.edge === b.edge ? 0 : a.edge === 'right' ? -1 : 1),
  );
  const groups: EdgeTick[][] = [];
  for (const tick of sorted) {
    const last = groups.at(-1);
    if (last && tick.at.value_mm - last[0]!.at.value_mm < SAME_MM) last.push(tick);
    else groups.push([tick]);
  }
  const made = groups.map((edges): Tick => {
    const own = edges.filter((e) => e.held !== 'stays');
    const first = own.find((e) => e.edge === 'right') ?? own[0];
    return {
      id: `${edges[0]!.of} ${edges[0]!.edge}`,
      at: edges[0]!.at.value_mm,
      edges,
      edge: first ? { of: first.of, edge: first.edge } : null,
      held: own.some((e) => e.held === 'rule') ? 'rule' : own.length ? 'drawn' : 'stays',
      signs: [...new Set(own.flatMap((e) => [...e.signs]))].join(''),
    };
  });
  const walls = lines
    .filter((l) => !made.some((t) => Math.abs(t.at - l.at) < SAME_MM))
    .map((l): Tick => ({ id: l.id, at: l.at, edges: [], edge: null, held: 'stays', signs: '' }));
  return [...made, ...walls].toSorted((a, b) => a.at - b.at);
}

/** The step of arrow keys and of dragging, mm: a millimetre, or a sixteenth of an inch. */
export const stepOf = (unit: LengthUnit, large = false): number =>
  unit === 'mm' ? (large ? 10 : 1) : large ? 12.7 : 25.4 / 16;

/** Where a dragged edge comes to: at something near, or at the next whole step. */
export function brought(
  at: number,
  near_mm: number,
  snaps: readonly Snap[],
  moving: readonly string[],
  unit: LengthUnit,
): { at: number; to: Snap | null } {
  let best: Snap | null = null;
  for (const snap of snaps) {
    if (snap.edge && moving.includes(snap.edge.of)) continue;
    if (Math.abs(snap.at_mm - at) > near_mm) continue;
    if (!best || Math.abs(snap.at_mm - at) < Math.abs(best.at_mm - at)) best = snap;
  }
  if (best) return { at: best.at_mm, to: best };
  const step = stepOf(unit);
  return { at: Math.round(at / step) * step, to: null };
}

/** The move of an edge that is dragged to where it was brought. */
export const dragged = (edge: Edge, to: { at: number; to: Snap | null }): Move => ({
  move: 'drag',
  edge,
  at_mm: Math.max(0, to.at),
  to: to.to?.edge ?? null,
});
