/** What a wall or ceiling is taken to be until somebody says, and the words for each. */
import type { Anchor, Backing } from '../../api/types';

export const BACKING: Backing = {
  kind: 'wood studs',
  lining_mm: 12.5,
  stud_mm: 45,
  deep_mm: 90,
  wood: 'spruce-pine-fir',
  steel_mm: 0.6,
  anchor: null,
  runs: 'not known',
  clear_mm: 50,
  rule: 'up, down and sideways',
  deepest_mm: null,
  driving_g: 0,
};
export const FLOOR: Backing = { ...BACKING, lining_mm: 18, deep_mm: 140 };
export const CEILING: Backing = { ...BACKING, deep_mm: 140 };
export const ANCHOR: Anchor = {
  name: 'plug and screw',
  pull_n: 300,
  shear_n: 500,
  embed_mm: 50,
  drill_mm: 8,
  edge_mm: 60,
};
export const KINDS = [
  'wood studs',
  'metal studs',
  'masonry',
  'lath and plaster',
  'ribs and battens',
] as const;
export const WOODS = [
  'spruce-pine-fir',
  'hem-fir',
  'douglas fir',
  'southern pine',
  'oak',
  'plywood',
] as const;
export const RULES: [NonNullable<Backing['rule']>, string][] = [
  ['all round', 'round it only'],
  ['up and down', 'and up and down'],
  ['up, down and sideways', 'and up, down, aside'],
  ['also along corners and ceiling', 'and along corners'],
];
export const RUNS: [NonNullable<Backing['runs']>, string][] = [
  ['not known', 'find out from what is found'],
  ['out', 'out from the back'],
  ['along', 'along the back'],
];
export const METHODS = ['scanner', 'magnet', 'knock', 'trial hole', 'nail seen'] as const;
export const SEES = ['centre', 'left edge', 'right edge', 'screw', 'hit', 'miss', 'something else'] as const;
/** The usual lining where a kind is chosen, mm. */
export const LINING: Partial<Record<(typeof KINDS)[number], number>> = {
  'lath and plaster': 22,
  masonry: 15,
  'ribs and battens': 9,
  'metal studs': 12.5,
  'wood studs': 12.5,
};
