/** Where the parts of a place's drawing stand on the page: the back wall, with the floor folded down below it, side walls
 *  folded out to left and right and the ceiling folded up, as far as the place has them; between the back and the floor runs the
 *  floor's ribbon. At the left stands the upright rod, beneath lies the long one. Pixels, y down. */
import type { SurfaceName } from '../api/types';
import { rowsOf } from './rods';

export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

export interface Layout {
  width: number;
  height: number;
  /** Pixels per millimetre. */
  scale: number;
  wall: Box;
  ribbon: Box;
  floor: Box;
  /** Every face that the place has. */
  faces: Partial<Record<SurfaceName, Box>>;
  upright: Box;
  long: Box;
  /** In how many rows figures are written beneath the long rod. */
  rows: number;
  /** Highest z that is drawn, mm. */
  top: number;
}

export interface Wanted {
  width: number;
  /** Pixels that the drawing may take at most. */
  room: number;
  placeWidth: number;
  placeDepth: number;
  top: number;
  ribbon: number;
  surfaces: readonly SurfaceName[];
  /** On a phone: narrow rods, small labels. */
  compact: boolean;
  /** How many times nearer than from where all of it fits; figures keep their size. */
  near?: number;
  /** What is written at the rods: px of the longest figure at the upright one and at the long one, and how many at the long one. */
  written?: { up: number; along: number; labels: number };
}

const WIDE = { left: 96, right: 30, rod: 22, head: 26, foot: 64, gap: 6 };
const NARROW = { left: 76, right: 12, rod: 12, head: 16, foot: 46, gap: 3 };

const ROW_PX = 12;

/** Margins with room for what is written at the rods. */
function margins(wanted: Wanted, written = 1) {
  const m = wanted.compact ? NARROW : WIDE;
  if (!wanted.written) return m;
  const { up, along } = wanted.written;
  return {
    ...m,
    left: Math.max(m.left - 20, m.rod + 27 + up),
    right: Math.max(m.right, along / 2 - m.rod / 2),
    foot: m.foot + (written - 1) * ROW_PX,
  };
}

export function layout(wanted: Wanted): Layout {
  const { labels = 0, along = 0 } = wanted.written ?? {};
  const oneRow = laid(wanted, 1);
  const rows = rowsOf(labels, along, Math.min(oneRow.long.w, oneRow.width - along));
  return rows > 1 ? laid(wanted, rows) : oneRow;
}

function laid(wanted: Wanted, rows: number): Layout {
  const m = margins(wanted, rows);
  const has = (s: SurfaceName) => wanted.surfaces.includes(s);
  const sides = Number(has('left')) + Number(has('right'));
  const overhead = Number(has('ceiling'));
  const across = Math.max(120, wanted.width - m.left - m.right - sides * m.gap);
  const upright = Math.max(160, wanted.room - m.head - m.foot - wanted.ribbon - overhead * m.gap);
  const afar = Math.min(
    across / (wanted.placeWidth + sides * wanted.placeDepth),
    upright / (wanted.top + (1 + overhead) * wanted.placeDepth),
  );
  const scale = afar * (wanted.near ?? 1);
  const w = wanted.placeWidth * scale;
  const d = wanted.placeDepth * scale;
  const begin = m.left + Math.max(0, (across - w - sides * d) / 2);
  const width = Math.max(wanted.width, m.left + w + sides * (d + m.gap) + m.right);
  const x = begin + (has('left') ? d + m.gap : 0);
  const wall = { x, y: m.head + overhead * (d + m.gap), w, h: wanted.top * scale };
  const ribbon = { x, y: wall.y + wall.h, w, h: wanted.ribbon };
  const floor = { x, y: ribbon.y + ribbon.h, w, h: d };
  const long = { x, y: floor.y + d + 12, w, h: m.rod };
  const all: Record<SurfaceName, Box> = {
    back: wall,
    floor,
    left: { x: begin, y: wall.y, w: d, h: wall.h },
    right: { x: x + w + m.gap, y: wall.y, w: d, h: wall.h },
    ceiling: { x, y: m.head, w, h: d },
  };
  return {
    width,
    height: long.y + m.foot - 4,
    scale,
    wall,
    ribbon,
    floor,
    faces: Object.fromEntries(wanted.surfaces.map((s) => [s, all[s]])),
    upright: { x: begin - m.rod - 12, y: wall.y, w: m.rod, h: wall.h },
    long,
    rows,
    top: wanted.top,
  };
}

/** Pixel of x along the back. */
export const xPx = (l: Layout, x: number): number => l.wall.x + x * l.scale;
/** Pixel of a height on the walls. */
export const zPx = (l: Layout, z: number): number => l.wall.y + (l.top - z) * l.scale;
/** Pixel of a distance out on the floor folded down. */
export const yPx = (l: Layout, y: number): number => l.floor.y + y * l.scale;

/** Pixel of a spot on a face: side walls and ceiling run out from the fold where they meet the back. */
export function facePx(l: Layout, surface: SurfaceName, u: number, v: number): [number, number] {
  const box = l.faces[surface] ?? l.wall;
  switch (surface) {
    case 'back':
      return [xPx(l, u), zPx(l, v)];
    case 'floor':
      return [xPx(l, u), yPx(l, v)];
    case 'left':
      return [box.x + box.w - u * l.scale, zPx(l, v)];
    case 'right':
      return [box.x + u * l.scale, zPx(l, v)];
    case 'ceiling':
      return [xPx(l, u), box.y + box.h - v * l.scale];
  }
}

/** Sign of proud: +1 where a larger coordinate stands towards the installer. */
export const PROUD: Record<SurfaceName, 1 | -1> = { floor: 1, ceiling: -1, back: 1, left: 1, right: -1 };

export interface Found {
  surface: SurfaceName;
  at: [number, number];
}

/** The spot under a pixel, mm, or null outside all faces. */
export function spotAt(l: Layout, px: number, py: number): Found | null {
  for (const [name, box] of Object.entries(l.faces)) {
    if (px < box.x || px > box.x + box.w || py < box.y || py > box.y + box.h) continue;
    const surface = name as SurfaceName;
    const along = (px - l.wall.x) / l.scale;
    const up = l.top - (py - l.wall.y) / l.scale;
    if (surface === 'back') return { surface, at: [along, up] };
    if (surface === 'floor') return { surface, at: [along, (py - box.y) / l.scale] };
    if (surface === 'ceiling') return { surface, at: [along, (box.y + box.h - py) / l.scale] };
    return { surface, at: [(surface === 'left' ? box.x + box.w - px : px - box.x) / l.scale, up] };
  }
  return null;
}
