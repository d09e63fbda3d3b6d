/** Words of the trade, found in a text where they first stand. */
import { describe, expect, it } from 'vitest';
import { inWords, WORDS } from './words';

const marked = (text: string) => inWords(text).flatMap((p) => (p.word ? [`${p.text}:${p.word.word}`] : []));

describe('words in a text', () => {
  it('are marked once, the longest first, in any form, and never inside another word', () => {
    expect(marked('Leave a scribe allowance: scribe it, then scribe again.')).toEqual([
      'scribe allowance:scribe allowance',
      'scribe:scribe',
    ]);
    expect(marked('Shims under it, one shim behind')).toEqual(['Shims:shim']);
    expect(marked('a studio, unflushed, describes')).toEqual([]);
  });

  it('lose nothing of the text', () => {
    const text = 'Two ledgers, 18 proud; the high spot. Studs?';
    expect(
      inWords(text)
        .map((p) => p.text)
        .join(''),
    ).toBe(text);
  });

  it('each stand once in the list, with what they mean', () => {
    const forms = WORDS.flatMap((w) => [w.word, ...(w.also ?? [])]);
    expect(new Set(forms).size).toBe(forms.length);
    for (const w of WORDS) expect(w.means).toMatch(/^[A-Z].*[.]$/);
  });
});
