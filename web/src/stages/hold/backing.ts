/** What a wall or ceiling is taken to be until somebody says, and the words for each. */
import { DEFAULTS, OPTIONS } from '../../api/fields';
import type { Anchor, Backing } from '../../api/types';

export const BACKING: Backing = DEFAULTS.walls;
export const FLOOR: Backing = DEFAULTS.floor;
export const CEILING: Backing = DEFAULTS.ceiling;
export const ANCHOR: Anchor = DEFAULTS.anchor;
export const KINDS = OPTIONS.backingKinds;
export const WOODS = OPTIONS.woods;
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
export const FOUND_BY = OPTIONS.foundBy;
export const SEES = OPTIONS.sees;
/** The usual lining where a kind is chosen, mm. */
export const LINING: Partial<Record<(typeof KINDS)[number], number>> = {
  'lath and plaster': 22,
  masonry: 15,
  'ribs and battens': 9,
  'metal studs': 12.5,
  'wood studs': 12.5,
};
