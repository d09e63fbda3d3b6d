/** Where the parts of a bay's drawing stand on the page: the back wall, the floor's ribbon and the floor folded down
 *  below it, between an upright rod at the left and a long rod beneath. Pixels, y down. */

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
  upright: Box;
  long: Box;
  /** Highest z that is drawn, mm. */
  top: number;
}

export interface Wanted {
  width: number;
  /** Pixels that the drawing may take at most. */
  room: number;
  bayWidth: number;
  bayDepth: number;
  top: number;
  ribbon: number;
  /** On a phone: narrow rods, small labels. */
  compact: boolean;
}

const WIDE = { left: 96, right: 30, rod: 22, head: 26, foot: 64 };
const NARROW = { left: 62, right: 12, rod: 12, head: 16, foot: 46 };

export function layout(wanted: Wanted): Layout {
  const m = wanted.compact ? NARROW : WIDE;
  const across = Math.max(120, wanted.width - m.left - m.right);
  const upright = Math.max(160, wanted.room - m.head - m.foot - wanted.ribbon);
  const scale = Math.min(across / wanted.bayWidth, upright / (wanted.top + wanted.bayDepth));
  const w = wanted.bayWidth * scale;
  const x = m.left + Math.max(0, (across - w) / 2);
  const wall = { x, y: m.head, w, h: wanted.top * scale };
  const ribbon = { x, y: wall.y + wall.h, w, h: wanted.ribbon };
  const floor = { x, y: ribbon.y + ribbon.h, w, h: wanted.bayDepth * scale };
  const long = { x, y: floor.y + floor.h + 12, w, h: m.rod };
  return {
    width: wanted.width,
    height: long.y + m.foot - 4,
    scale,
    wall,
    ribbon,
    floor,
    upright: { x: x - m.rod - 12, y: wall.y, w: m.rod, h: wall.h },
    long,
    top: wanted.top,
  };
}

/** Pixel of x along the back. */
export const xPx = (l: Layout, x: number): number => l.wall.x + x * l.scale;
/** Pixel of a height on the back wall. */
export const zPx = (l: Layout, z: number): number => l.wall.y + (l.top - z) * l.scale;
/** Pixel of a distance out on the floor folded down. */
export const yPx = (l: Layout, y: number): number => l.floor.y + y * l.scale;

/** The spot under a pixel, mm, or null outside both faces. */
export function spotAt(
  l: Layout,
  px: number,
  py: number,
): { surface: 'back' | 'floor'; at: [number, number] } | null {
  const x = (px - l.wall.x) / l.scale;
  if (x < 0 || px > l.wall.x + l.wall.w) return null;
  if (py >= l.wall.y && py <= l.wall.y + l.wall.h)
    return { surface: 'back', at: [x, l.top - (py - l.wall.y) / l.scale] };
  if (py >= l.floor.y && py <= l.floor.y + l.floor.h)
    return { surface: 'floor', at: [x, (py - l.floor.y) / l.scale] };
  return null;
}
