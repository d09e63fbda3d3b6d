/** Figures beside marks on a drawing: which of them have room, where they are written, and where a name stands clear. */

/** A figure as it would be written: from where to where along, and how far down, all px. */
export interface Figure {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly y: number;
}
type Written = Omit<Figure, 'id'>;

const LINE_PX = 12;
const ROW_PX = 13;
const MARK_PX = 6;

const apart = (a: Written, b: Written) => a.to <= b.from || a.from >= b.to || Math.abs(a.y - b.y) >= LINE_PX;

/** Keep the figures that touch none kept before them: what matters most comes first. The lists below carry them all. */
export function withRoom(figures: readonly Figure[]): ReadonlySet<string> {
  const kept: Figure[] = [];
  for (const f of figures) if (kept.every((k) => apart(f, k))) kept.push(f);
  return new Set(kept.map((f) => f.id));
}

/** Where each text is written: right of its mark or left of it, and rows lower where it would cover another. */
export function written(
  marks: readonly { x: number; y: number; text: string }[],
  leftwards = false,
): { x: number; y: number; text: string }[] {
  const taken: Written[] = marks.map((m) => ({ from: m.x - MARK_PX, to: m.x + MARK_PX, y: m.y }));
  return marks.map(({ x, y, text }) => {
    const long = text.length * 7 + 4;
    const from = leftwards ? x - MARK_PX - long : x + 8;
    const rows = [0, 1, -1, 2, -2].map((row) => ({ from, to: from + long, y: y + row * ROW_PX }));
    const at = rows.find((r) => taken.every((k) => apart(r, k))) ?? rows[0]!;
    taken.push(at);
    return { x: from, y: at.y, text };
  });
}

/** How far down a box of this height its name stands: at the middle, or where the figures inside leave it free. */
export function nameAt(top: number, high: number, figures: readonly number[]): number {
  const clear = (y: number) => Math.min(Number.POSITIVE_INFINITY, ...figures.map((f) => Math.abs(f - y)));
  const at = [0.5, 0.25, 0.75].map((part) => top + high * part);
  return at.find((y) => clear(y) >= LINE_PX + 2) ?? at[0]!;
}

const touch = (a: DOMRect, b: DOMRect) =>
  Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 &&
  Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 3;

/** Move names that lie on other words or on marks aside by one of their `data-under` px, or leave them away where none is
 *  free: a touch tells them. What is to `data-stay` is told in any case. */
export function giveWay(drawing: SVGSVGElement): void {
  const names = [...drawing.querySelectorAll<SVGTextElement>('text[data-under]')];
  if (!names.length) return;
  for (const name of names) name.removeAttribute('dy');
  const others = [...drawing.querySelectorAll('text')].filter((t) => !names.includes(t));
  const marks = [...drawing.querySelectorAll('[data-mark]')];
  const taken = [...others, ...marks].map((t) => t.getBoundingClientRect()).filter((r) => r.width > 0);
  for (const name of names) {
    const fits = () => {
      const box = name.getBoundingClientRect();
      return taken.every((r) => !touch(r, box));
    };
    let free = fits();
    for (const by of (name.dataset['under'] ?? '').split(' ')) {
      if (free) break;
      name.setAttribute('dy', by);
      free = fits();
    }
    const stays = name.dataset['stay'] !== undefined;
    if (!free && stays) name.removeAttribute('dy');
    name.style.visibility = free || stays ? '' : 'hidden';
    if (free || stays) taken.push(name.getBoundingClientRect());
  }
}

/** Once a drawing stands still: what is turned redraws it many times a second. */
const SETTLED_MS = 120;

/** Attached to a drawing: its names give way each time that what it shows has changed and come to rest. */
export function givingWay(...shown: unknown[]): (drawing: SVGSVGElement) => () => void {
  void shown; // asked for so that each change of it comes here
  return (drawing) => {
    const timer = setTimeout(() => giveWay(drawing), SETTLED_MS);
    return () => clearTimeout(timer);
  };
}
