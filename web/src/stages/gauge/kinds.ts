/** The readings that are not taken from a line, and the places that each of them asks for. */
import type { SurfaceName } from '../../api/types';

export type Kind = 'slope' | 'gap' | 'corner' | 'left-right' | 'floor-ceiling' | 'profile' | 'scan';

export const KIND_NAMES: Record<Kind, string> = {
  slope: 'A level laid between two spots',
  gap: 'A gap under a straightedge',
  corner: 'A corner, square or not',
  'left-right': 'Across, left wall to right wall',
  'floor-ceiling': 'Up, floor to ceiling',
  profile: 'A profile from a stick, for a curved wall',
  scan: 'A scan from a file',
};

/** The kinds that a place's surfaces allow. */
export function kindsOf(surfaces: readonly SurfaceName[]): Kind[] {
  const has = (...names: SurfaceName[]) => names.every((s) => surfaces.includes(s));
  const corner = has('back') && (has('left') || has('right'));
  return [
    'slope',
    'gap',
    ...(corner ? (['corner'] as const) : []),
    ...(has('left', 'right') ? (['left-right'] as const) : []),
    ...(has('floor', 'ceiling') ? (['floor-ceiling'] as const) : []),
    'profile',
    'scan',
  ];
}

interface Field {
  key: string;
  label: string;
}

type Words = readonly [string, string];
const spot = (keys: string, [first, second]: Words, name = ''): Field[] => [
  { key: keys[0]!, label: name ? `${name}: ${first}` : capital(first) },
  { key: keys[1]!, label: name ? `${name}: ${second}` : capital(second) },
];
const capital = (word: string) => word[0]!.toUpperCase() + word.slice(1);

/** The places that a kind asks for, by the names of the surface's axes. */
export const FIELDS: Record<Kind, (words: Words, how: 'diagonal' | 'square') => Field[]> = {
  slope: (w) => [...spot('ab', w, 'From'), ...spot('cd', w, 'To')],
  gap: (w) => [...spot('ab', w, 'Touches at'), ...spot('cd', w, 'And at'), ...spot('ef', w, 'Gap at')],
  corner: (_, how) => [
    { key: 'a', label: 'Height' },
    { key: 'b', label: 'Leg along the back' },
    { key: 'c', label: how === 'square' ? 'Length of the square, out' : 'Leg out' },
  ],
  'left-right': (w) => spot('ab', w),
  'floor-ceiling': (w) => spot('ab', w),
  profile: (w) => [{ key: 'a', label: capital(w[0]) }],
  scan: () => [],
};
