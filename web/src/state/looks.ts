/** What was told at the last look at a page, so that what is new or otherwise since then can be marked. */
import type { Finding } from '../api/types';
import { keyOf } from '../shell/findings';

export type News = 'new' | 'changed';
const PLACE = 'wobble looks';
/** Pages of which the last look is remembered; the one that was looked at longest ago goes first. */
const MOST = 60;

type Told = Record<string, number>;

/** A number that differs where the words do (FNV-1a): the words themselves are not kept. */
function digest(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}

const toldOf = (findings: readonly Finding[]): Told =>
  Object.fromEntries(
    findings.map((f) => [
      keyOf(f),
      digest([f.severity, f.title, f.text, f.caution, f.figure?.value_mm.toFixed(1)].join('\n')),
    ]),
  );

function all(): [string, Told][] {
  try {
    return JSON.parse(localStorage.getItem(PLACE) ?? '[]') as [string, Told][];
  } catch {
    return []; // nothing is kept here, or it is no longer readable: then nothing is new
  }
}

/** What was told at the last look; null where there was none. */
export const lastLook = (page: string): Told | null => all().find(([key]) => key === page)?.[1] ?? null;

export function keepLook(page: string, findings: readonly Finding[]): void {
  const kept = [...all().filter(([key]) => key !== page), [page, toldOf(findings)]];
  try {
    localStorage.setItem(PLACE, JSON.stringify(kept.slice(-MOST)));
  } catch {
    // a full device marks nothing as new
  }
}

/** What is new or otherwise since a look, by key, and how many things are told no more. */
export function since(
  look: Told | null,
  findings: readonly Finding[],
): { news: Map<string, News>; settled: number } {
  const now = toldOf(findings);
  const news = new Map<string, News>();
  if (!look) return { news, settled: 0 };
  for (const [key, words] of Object.entries(now)) {
    if (!(key in look)) news.set(key, 'new');
    else if (look[key] !== words) news.set(key, 'changed');
  }
  return { news, settled: Object.keys(look).filter((key) => !(key in now)).length };
}
