/** Two values of one thing, as rows that can be read: what differs, in the words of the page and the user's unit. */
import type { LengthUnit, Side } from '../api/types';
import { showLength } from '../entry/length';
import type { Conflict } from '../state/waiting.svelte';

export interface Row {
  name: string;
  yours: string;
  theirs: string;
}

export interface Sides {
  title: string;
  rows: Row[];
}

/** What tells one fact from another, and says nothing of the thing itself. */
const OWN = new Set(['id', 'supersedes', 'aside', 'taken_at', 'fact']);
const NAMES: Record<string, string> = {
  at: 'where',
  value: 'read',
  proud: 'stands proud',
  treatment: 'what may be done',
  text: 'note',
  taken_by: 'by',
  surface: 'on the',
  x: 'from the left',
};

const named = (field: string) => {
  const plain = field.replace(/_(mm|deg|kg|percent)$/, '');
  return NAMES[plain] ?? plain.replaceAll('_', ' ');
};

function said(value: unknown, field: string, unit: LengthUnit): string {
  if (value === null || value === undefined || value === '' || (Array.isArray(value) && !value.length))
    return '—';
  if (Array.isArray(value)) {
    if (value.some((v) => typeof v === 'object')) return `${value.length} of them`;
    return value.map((v) => said(v, field, unit)).join(' × ');
  }
  if (typeof value === 'object') {
    const { name } = value as { name?: unknown };
    if (typeof name === 'string') return name;
    return Object.entries(value)
      .map(([k, v]) => `${named(k)} ${said(v, k, unit)}`)
      .join(', ');
  }
  const long = field.endsWith('_mm') || field === 'at' || field === 'size';
  if (typeof value === 'number' && long) return showLength(value, unit);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'number' ? String(value) : (value as string);
}

/** What stands at a path of the place or the job: `$.units[A].width_mm` is the width of A. */
function spoken(path: string): [name: string, field: string] {
  const steps = [...path.matchAll(/\.([^.[\]]+)|\[([^\]]+)\]/g)];
  const field = steps.at(-1)?.[1] ?? '';
  const item = steps.findLast((step) => step[2] !== undefined)?.[2];
  const group = steps[0]?.[1] ?? '';
  const what = field ? named(field) : named(group).replace(/s$/, '');
  return [item === undefined ? what : `${item}: ${what}`, field || group];
}

export function ofEdit(sides: readonly Side[], unit: LengthUnit): Sides {
  return {
    title: 'This was changed in two places',
    rows: sides.map(({ path, yours, theirs }) => {
      const [name, field] = spoken(path);
      const [mine, other] = [yours, theirs].map((v) => (v === null ? 'taken away' : said(v, field, unit)));
      return { name, yours: mine!, theirs: other! };
    }),
  };
}

export function ofFact({ kept, theirs }: Conflict, unit: LengthUnit): Sides {
  const mine = kept.fact as unknown as Record<string, unknown>;
  const fields = Object.keys({ ...theirs, ...mine }).filter(
    (k) => !OWN.has(k) && JSON.stringify(theirs[k]) !== JSON.stringify(mine[k]),
  );
  return {
    title: `“${said(mine['name'] ?? 'A reading', 'name', unit)}” was changed in two places`,
    rows: fields.map((k) => ({
      name: named(k),
      yours: said(mine[k], k, unit),
      theirs: said(theirs[k], k, unit),
    })),
  };
}
