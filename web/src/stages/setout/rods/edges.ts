/** Edges on the long rod: those that stand at one place are one tick, and a tick that is dragged near something stays there. */
import type { Edge, EdgeTick, LaidOut, LengthUnit, Move, Snap } from '../../../api/types';
import { showLength } from '../../../entry/length';

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

/** What is written at the long rod: which ticks have a figure, and in how many rows those stand. */
export interface Marked {
  ticks: readonly Tick[];
  labels: readonly string[];
  told: readonly boolean[];
  /** How far the middles of two figures of one row stand apart, px. */
  gap: number;
  rows: number;
}
const MOST_ROWS = 3;
/** On a phone: both walls, and both edges of two pieces. */
const PICKED_AT_ONCE = 6;

/** A length as it stands at a rod of Set out: whole millimetres where it is whole. */
export const atRod = (mm: number, unit: LengthUnit): string =>
  showLength(mm, unit, Math.abs(mm - Math.round(mm)) < 0.05 ? 0 : 1);

/** Edges of pieces carry figures, and what is lit; on a phone only the walls and what is picked. */
export function marked(
  laid: LaidOut,
  on: {
    width_mm: number;
    within: number;
    unit: LengthUnit;
    compact: boolean;
    picked: readonly string[];
    lit: string | null;
  },
): Marked {
  // what is only laid on something is moved where it lies; its edges stand on the rod once it is picked
  const laidOn = (of: string) => {
    const kind = laid.units.find((u) => u.unit.id === of)?.unit.kind;
    return kind === 'cushion' || kind === 'stored';
  };
  const ticks = ticksOf(
    { ...laid, ticks: laid.ticks.filter((t) => !laidOn(t.of) || on.picked.includes(t.of)) },
    [
      { id: 'wall left', at: 0 },
      { id: 'wall right', at: on.width_mm },
    ],
  );
  const labels = ticks.map((t) => `${t.signs}${atRod(t.at, on.unit)}`);
  const told = ticks.map((t, i) => {
    const own = t.edges.some((e) => on.picked.includes(e.of)) || on.lit === t.id;
    return own || i === 0 || i === ticks.length - 1 || (t.held !== 'stays' && !on.compact);
  });
  const longest = Math.max(3, ...labels.filter((_, i) => told[i]).map((l) => l.length));
  const gap = longest * (on.compact ? 5.8 : 6.8) + 7;
  // counted without what is picked just now, or the drawing would jump under the hand
  const n = on.compact ? PICKED_AT_ONCE : ticks.filter((t) => t.held !== 'stays').length + 2;
  const rows = Math.min(MOST_ROWS, Math.max(1, Math.ceil((n * gap) / Math.max(1, on.within - gap))));
  return { ticks, labels, told, gap, rows };
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
