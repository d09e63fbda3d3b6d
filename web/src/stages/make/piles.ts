/** Two piles: what may be cut now, unit by unit, and what waits, tied together by what it waits for. */
import type {
  Bought,
  CutDone,
  Fact,
  Known,
  LaidSheet,
  Layout,
  MarkedPart,
  Setting,
  StockItem,
  Wait,
  Workshop,
} from '../../api/types';

/** Parts that belong together on a pile: a unit's, or those that wait for one thing. */
export interface Stack {
  id: string;
  place: string;
  title: string;
  parts: MarkedPart[];
}

export interface Tie extends Stack {
  wait: Wait;
}

export interface Piles {
  now: Stack[];
  later: Tie[];
  cut: MarkedPart[];
  /** Bought, kept or mended. */
  notMade: MarkedPart[];
}

const unitOf = (p: MarkedPart) => p.part.of[0] ?? '';

/** Parts as they lie: on the pile of now, tied to what they wait for, or cut. A part that waits for several things hangs
 *  on the first. */
export function piles(parts: readonly MarkedPart[], name: (place: string, unit: string) => string): Piles {
  const now = new Map<string, Stack>();
  const later = new Map<string, Tie>();
  const cut: MarkedPart[] = [];
  const notMade: MarkedPart[] = [];
  for (const p of parts) {
    const wait = p.part.waits[0];
    if (p.state === 'cut') cut.push(p);
    else if (p.state === 'bought' || p.state === 'kept' || p.state === 'mended') notMade.push(p);
    else if (wait) {
      // what Fit or Hold waits for is told by its words: many parts wait for the run to stand
      const id = `${p.place} ${wait.measured ? wait.key : wait.words}`;
      const tie = later.get(id) ?? {
        id,
        place: p.place,
        title: wait.measured ? `${name(p.place, unitOf(p))}: ${wait.words}` : wait.words,
        wait,
        parts: [],
      };
      tie.parts.push(p);
      later.set(id, tie);
    } else {
      const id = `${p.place} ${unitOf(p)}`;
      const stack = now.get(id) ?? { id, place: p.place, title: name(p.place, unitOf(p)), parts: [] };
      stack.parts.push(p);
      now.set(id, stack);
    }
  }
  return { now: [...now.values()], later: [...later.values()], cut, notMade };
}

/** A part's name under the heading of its unit, which need not be said again. */
export function shortName(p: MarkedPart, title: string): string {
  for (const of of [` of ${title}`, ` at ${title}`, ` under ${title}`])
    if (title && p.part.name.endsWith(of)) return p.part.name.slice(0, -of.length);
  return p.part.name;
}

/** Where the numbers of cuts stand: at the beginning of each, or further along it where another stands already.
 *  `taken` are spots that stay free of them, all with the same reach. */
export function numberSpots(
  cuts: readonly { x1: number; y1: number; x2: number; y2: number }[],
  reach: number,
  taken: readonly [number, number][] = [],
): [number, number][] {
  const placed: [number, number][] = [];
  const free = (x: number, y: number) =>
    [...taken, ...placed].every(([a, b]) => Math.hypot(a - x, b - y) >= reach);
  for (const c of cuts) {
    const long = Math.hypot(c.x2 - c.x1, c.y2 - c.y1);
    const steps = Math.max(1, Math.floor(long / (reach / 2)));
    const along = Array.from({ length: steps + 1 }, (_, k): [number, number] => [
      c.x1 + ((c.x2 - c.x1) * k) / steps,
      c.y1 + ((c.y2 - c.y1) * k) / steps,
    ]);
    placed.push(along.find(([x, y]) => free(x, y)) ?? [c.x1, c.y1]);
  }
  return placed;
}

/** The longest part of some, mm: slabs are drawn in proportion to it. */
export const longest = (parts: readonly MarkedPart[]): number =>
  Math.max(1, ...parts.map((p) => Math.max(...p.part.blank_mm)));

/** Parts as they will be once what waits on this device has reached the server: cut, or waiting for less. */
export function withPending(
  parts: readonly MarkedPart[],
  pending: readonly { place: string; fact: Fact }[],
): MarkedPart[] {
  const cuts = pending.filter((w): w is { place: string; fact: CutDone } => w.fact.fact === 'cut');
  const known = pending.filter((w): w is { place: string; fact: Known } => w.fact.fact === 'known');
  if (!cuts.length && !known.length) return [...parts];
  return parts.map((p) => {
    const done = cuts
      .filter((c) => c.place === p.place && c.fact.part === p.part.id && c.fact.came === 'right')
      .reduce((n, c) => n + (c.fact.count ?? 1), 0);
    const waits = p.part.waits.filter(
      (w) => !known.some((k) => k.place === p.place && k.fact.what === w.key),
    );
    const left = Math.max(0, p.to_cut - done);
    if (!done && waits.length === p.part.waits.length) return p;
    const state = left === 0 ? 'cut' : waits.length ? p.state : 'now';
    return { ...p, to_cut: left, state, part: { ...p.part, waits } };
  });
}

/** Stock of some sorts, each with its place in the whole list. */
export const stockAt = <K extends StockItem['sold_as']>(stock: readonly StockItem[], sorts: readonly K[]) =>
  stock.flatMap((s, i) =>
    (sorts as readonly string[]).includes(s.sold_as)
      ? [{ s: s as Extract<StockItem, { sold_as: K }>, i }]
      : [],
  );

/** A stock list with what a table says of it: items of one id as the table has them, their defects kept; new ones after. */
export function merged(stock: readonly StockItem[], table: readonly StockItem[]): StockItem[] {
  const said = new Map(table.map((s) => [s.id, s]));
  const own = stock.map((s) => {
    const now = said.get(s.id);
    if (!now) return s;
    return now.sold_as === 'length' && s.sold_as === 'length' ? { ...now, defects: s.defects } : now;
  });
  const had = new Set(stock.map((s) => s.id));
  return [...own, ...table.filter((s) => !had.has(s.id))];
}

/** How many of an item are ticked off on this device and not yet with the server. */
export const boughtHere = (pending: readonly { fact: Fact }[], item: string): number =>
  pending
    .map((w) => w.fact)
    .filter((f): f is Bought => f.fact === 'bought' && f.item === item)
    .reduce((n, f) => n + (f.count ?? 1), 0);

/** On which sheets and boards a part lies, by number from 1; sheets first. */
export function liesOn(layout: Layout, key: string): { sheets: number[]; lengths: number[] } {
  const on = (some: readonly { parts: readonly { key: string }[] }[]) =>
    some.flatMap((s, i) => (s.parts.some((p) => p.key === key) ? [i + 1] : []));
  return { sheets: on(layout.sheets), lengths: on(layout.lengths) };
}

/** Sheets as they lie, to stay so. */
export const pinned = (sheets: readonly LaidSheet[]): NonNullable<Workshop['pinned']> =>
  sheets.map((s) => ({
    stock: s.stock,
    parts: s.parts.map((p) => ({
      part: p.key,
      at: [p.x_mm, p.y_mm],
      size: [p.long_mm, p.wide_mm],
      turned: p.turned,
    })),
  }));

/** The big number of a setting, and what it is called. */
export function bigNumber(s: Setting): { label: string; angle: boolean } {
  const label = {
    'break down': 'first cut at',
    'true edge': 'straight',
    rip: 'fence',
    'cross-cut': 'stop',
    groove: 'wide',
    bevel: 'blade at',
    drill: 'bit',
  }[s.work];
  return { label, angle: s.work === 'bevel' };
}
