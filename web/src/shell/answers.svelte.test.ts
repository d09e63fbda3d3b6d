/** Answers: what stops and what to mind stand open, what is fine is folded by subject, what is new is marked. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Finding } from '../api/types';
import { keepLook, lastLook, since } from '../state/looks';
import { page, shown } from '../testing';
import Answers from './Answers.svelte';

const told = (code: string, severity: Finding['severity'], subject: Finding['subject'], text = ''): Finding =>
  ({
    code,
    severity,
    title: `It says ${code}`,
    text,
    figure: null,
    caution: '',
    about: [],
    subject,
  }) as unknown as Finding;
const MANY = [
  told('take-again', 'stop', 'the readings'),
  told('may-touch', 'mind', 'heights and shims'),
  told('shims', 'fine', 'heights and shims'),
  told('base-height', 'fine', 'heights and shims'),
  told('goes-in', 'fine', 'the way in'),
  told('filler', 'fine', 'between the walls'),
];
let made: Record<string, unknown> | null = null;
const put = (findings: Finding[], more: Record<string, unknown> = {}) => {
  made = shown(Answers, { findings, lit: null, onpick: () => undefined, ...more });
  flushSync();
};
const folds = () =>
  [...document.querySelectorAll('details')].map((d) => [
    d.querySelector('summary')!.textContent.replace(/\s+/g, ' ').trim(),
    d.open,
  ]);

describe('answers', () => {
  beforeEach(() => localStorage.clear());
  afterEach(() => {
    if (made) void unmount(made);
    made = null;
  });

  it('stand beside each other where two say the same of the same', () => {
    put([
      told('may-touch', 'mind', 'heights and shims', 'left'),
      told('may-touch', 'mind', 'heights and shims', 'right'),
    ]);
    expect([...document.querySelectorAll('.answer')].map((a) => a.textContent.includes('left'))).toEqual([
      true,
      false,
    ]);
  });

  it('fold what is fine by subject with a count, once it is much', () => {
    put(MANY);
    expect(folds()).toEqual([
      ['heights and shims 2 fine', false],
      ['the way in 1 fine', false],
      ['between the walls 1 fine', false],
    ]);
    const open = [...document.querySelectorAll('.answer')].filter((a) => !a.closest('details'));
    expect(open.map((a) => a.querySelector('.title')!.textContent)).toEqual([
      'It says take-again',
      'It says may-touch',
    ]);
    void unmount(made!);
    put(MANY.slice(0, 4));
    expect(folds()).toEqual([]);
  });

  it('open the subject of what is pointed at in the drawing', () => {
    put(MANY, { lit: 'goes-in' });
    expect(folds().map(([, open]) => open)).toEqual([false, true, false]);
  });

  it('stay open while what they say changes', async () => {
    const props = $state({ findings: MANY, lit: null, onpick: () => undefined });
    made = shown(Answers, props);
    flushSync();
    const first = document.querySelector('details')!;
    first.open = true;
    first.dispatchEvent(new Event('toggle'));
    props.findings = MANY.map((f) => ({ ...f, text: 'otherwise' }));
    flushSync();
    await Promise.resolve();
    expect(folds().map(([, open]) => open)).toEqual([true, false, false]);
    expect(page()).toContain('otherwise');
  });

  it('mark what is new or otherwise since the last look, and count what is settled', () => {
    put(MANY.slice(0, 3), { marked: true });
    expect(page()).not.toContain('new');
    void unmount(made!);
    put(
      [
        MANY[0]!,
        told('may-touch', 'mind', 'heights and shims', 'by more'),
        told('stuck', 'stop', 'the way in'),
      ],
      { marked: true },
    );
    expect([...document.querySelectorAll('.title .news')].map((n) => n.textContent)).toEqual([
      'changed',
      'new',
    ]);
    expect(page()).toContain('One thing told at your last look is settled');
  });
});

describe('a look', () => {
  beforeEach(() => localStorage.clear());

  it('is of its page, and the oldest of many are forgotten', () => {
    for (let n = 0; n < 70; n += 1) keepLook(`/jobs/${n}`, MANY);
    expect(lastLook('/jobs/3')).toBeNull();
    expect(since(lastLook('/jobs/69'), MANY).news.size).toBe(0);
  });

  it('that cannot be read is none', () => {
    localStorage.setItem('wobble looks', '{');
    expect(lastLook('/jobs/1')).toBeNull();
    expect(since(null, MANY)).toEqual({ news: new Map(), settled: 0 });
  });
});
