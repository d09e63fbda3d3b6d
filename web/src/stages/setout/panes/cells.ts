/** Cells of a carcass by their paths (`0.1`: numbers from the left or from the bottom), changed as values. */
import { DEFAULTS } from '../../../api/fields';
import type { Cell, Insides } from '../../../api/types';

export type Fill = NonNullable<Cell['fill']>;
export const EMPTY = DEFAULTS.cell as unknown as Cell;
export const insidesOf = (insides: Insides | null | undefined): Insides =>
  insides ?? { built: null, cell: EMPTY };

const parts = (cell: Cell): readonly Cell[] => (cell.fill && 'cells' in cell.fill ? cell.fill.cells : []);
const steps = (path: string) => (path ? path.split('.').map(Number) : []);

/** The cell at a path; the nearest above it where there is none. */
export function cellAt(root: Cell, path: string): Cell {
  return steps(path).reduce((cell, i) => parts(cell)[i] ?? cell, root);
}

/** The carcass with the cell at a path put in place of what was there. */
export function withCell(root: Cell, path: string, now: Cell): Cell {
  const [first, ...rest] = steps(path);
  if (first === undefined) return now;
  const cells = parts(root).map((c, i) => (i === first ? withCell(c, rest.join('.'), now) : c));
  return { ...root, fill: { ...root.fill, cells } as Fill };
}

/** A cell split into so many like parts, side by side or over each other: what it had goes into the first, and a door
 *  that closed it closes all of it still. */
export function split(cell: Cell, way: 'columns' | 'rows', n: number): Cell {
  const { size_mm, by_contents, share, door, ...own } = cell;
  const first: Cell = { ...EMPTY, ...own };
  const others = Array.from({ length: n - 1 }, () => ({ ...EMPTY }));
  return {
    ...EMPTY,
    size_mm,
    by_contents,
    share,
    door,
    fill: { fill: way, cells: [first, ...others] },
  };
}

/** A split taken back: its first part is left. */
export function unsplit(cell: Cell): Cell {
  const [first] = parts(cell);
  if (!first) return cell;
  return {
    ...first,
    size_mm: cell.size_mm,
    by_contents: cell.by_contents,
    share: cell.share,
    door: cell.door ?? first.door,
  };
}

/** The path of the split that a cell is a part of; null for the whole carcass. */
export const above = (path: string): string | null =>
  path === '' ? null : path.split('.').slice(0, -1).join('.');

/** What a cell is, in a word or two. */
export function fillWords(cell: Cell): string {
  const fill = cell.fill;
  if (!fill || fill.fill === 'nothing') return cell.door ? 'door' : 'open';
  if (fill.fill === 'shelves') return `${fill.count ?? 1} ${fill.held === 'fixed' ? 'fixed ' : ''}shelves`;
  if (fill.fill === 'drawers') return `${fill.count ?? 3} drawers`;
  if (fill.fill === 'pull-out') return 'pull-out';
  return `${parts(cell).length} ${fill.fill}`;
}
