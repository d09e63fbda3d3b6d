/** How surfaces, spots and readings are named to the user. */
import type { LengthUnit, Reading, SetUp, SurfaceName } from '../api/types';
import { showLength } from './length';

export const SURFACE_NAMES: Record<SurfaceName, string> = {
  floor: 'Floor',
  back: 'Back wall',
  left: 'Left wall',
  right: 'Right wall',
  ceiling: 'Ceiling',
};

/** The axis that a surface is read along, and so the axis its lines stand across. */
export const ACROSS: Record<SurfaceName, 'x' | 'y' | 'z'> = {
  floor: 'z',
  ceiling: 'z',
  back: 'y',
  left: 'x',
  right: 'x',
};

/** What the two axes of a surface are called. */
export const AXIS_WORDS: Record<SurfaceName, [string, string]> = {
  floor: ['along', 'out'],
  ceiling: ['along', 'out'],
  back: ['along', 'up'],
  left: ['out', 'up'],
  right: ['out', 'up'],
};

export function spotWords(surface: SurfaceName, at: readonly [number, number], unit: LengthUnit): string {
  const [first, second] = AXIS_WORDS[surface];
  return `${showLength(at[0], unit, 0)} ${first}, ${showLength(at[1], unit, 0)} ${second}`;
}

/** Where a reading was taken. */
export function readingWords(reading: Reading, unit: LengthUnit): string {
  const place = (mm: number) => showLength(mm, unit, 0);
  switch (reading.fact) {
    case 'offset':
      return `${SURFACE_NAMES[reading.surface]}, ${spotWords(reading.surface, reading.at, unit)}`;
    case 'slope':
      return `${SURFACE_NAMES[reading.surface]}, level${reading.turned ? ', turned,' : ''} from ${spotWords(reading.surface, reading.start, unit)}`;
    case 'gap':
      return `${SURFACE_NAMES[reading.surface]}, gap at ${spotWords(reading.surface, reading.at, unit)}`;
    case 'span':
      return reading.between === 'left-right'
        ? `Left to right, ${place(reading.at[0])} out, ${place(reading.at[1])} up`
        : `Floor to ceiling, ${place(reading.at[0])} along, ${place(reading.at[1])} out`;
    case 'corner':
      return `Corner ${reading.corner === 'back-left' ? 'at the left' : 'at the right'}, ${place(reading.height_mm)} up, by ${reading.how}`;
    case 'profile':
      return `${SURFACE_NAMES[reading.surface]}, profile at ${place(reading.along_mm)} along`;
    case 'scan':
      return `${SURFACE_NAMES[reading.surface]}, scan`;
  }
}

/** What was read, with its unit where that is not a length. */
export function readingValue(reading: Reading, unit: LengthUnit): string {
  switch (reading.fact) {
    case 'slope':
      if (reading.unit === 'mm') return showLength(reading.value, unit);
      return `${reading.value} ${reading.unit === 'deg' ? '°' : reading.unit}`;
    case 'profile':
    case 'scan':
      return `${reading.points.length} points`;
    default:
      return showLength(reading.value_mm, unit);
  }
}

/** A line's place over the mark, as far as it is known. */
export function lineWords(setUp: SetUp, unit: LengthUnit, found?: { at_mm: number; sd_mm: number }): string {
  if (setUp.at_mm !== null && setUp.at_mm !== undefined)
    return `${setUp.name} · ${showLength(setUp.at_mm, unit, 1)}`;
  if (found && found.sd_mm < 25) return `${setUp.name} · found at ${showLength(found.at_mm, unit, 1)}`;
  return `${setUp.name} · place not known`;
}
