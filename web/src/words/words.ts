/** The words of the trade as Wobble uses them, found in a text so that they can be explained where they stand. */
import list from './words.json';

export interface Word {
  word: string;
  /** Other forms of it. */
  also?: string[];
  means: string;
  /** False for words so common that they are explained in the list alone. */
  mark?: boolean;
}
export interface Part {
  text: string;
  word?: Word;
}

export const WORDS: readonly Word[] = list;
const FORMS = new Map(
  WORDS.filter((w) => w.mark !== false).flatMap((w) =>
    [w.word, `${w.word}s`, ...(w.also ?? [])].map((form) => [form.toLowerCase(), w] as const),
  ),
);
// the longest first, so that “scribe allowance” is one word and not “scribe”
const ANY = new RegExp(
  `(?<![\\p{L}-])(?:${[...FORMS.keys()].toSorted((a, b) => b.length - a.length).join('|')})(?![\\p{L}-])`,
  'giu',
);

/** A text in parts: each word of the trade is marked where it first stands. */
export function inWords(text: string): Part[] {
  const seen = new Set<string>();
  const parts: Part[] = [];
  let from = 0;
  for (const found of text.matchAll(ANY)) {
    const word = FORMS.get(found[0].toLowerCase());
    if (!word || seen.has(word.word)) continue;
    seen.add(word.word);
    if (found.index > from) parts.push({ text: text.slice(from, found.index) });
    parts.push({ text: found[0], word });
    from = found.index + found[0].length;
  }
  if (from < text.length) parts.push({ text: text.slice(from) });
  return parts;
}
