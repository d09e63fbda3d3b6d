import { afterEach, expect, it, vi } from 'vitest';
import { askAhead, firstAnswers, takeAhead } from './ahead';

afterEach(() => vi.unstubAllGlobals());

it('knows what a page begins with', () => {
  expect(firstAnswers('/')).toEqual([]);
  expect(firstAnswers('/words')).toEqual([]);
  expect(firstAnswers('/jobs/j')).toEqual(['/api/jobs/j']);
  expect(firstAnswers('/jobs/j/make')).toEqual(['/api/jobs/j', '/api/jobs/j/make']);
  expect(firstAnswers('/jobs/j/p/fit')).toEqual([
    '/api/jobs/j',
    '/api/jobs/j/places/p/fit',
    '/api/jobs/j/places/p/gauge',
  ]);
});

it('gives each answer once, to whoever asks first', async () => {
  vi.useFakeTimers();
  const fetched = vi.fn((url: string) => Promise.resolve(new Response(url)));
  vi.stubGlobal('fetch', fetched);
  askAhead('/jobs/j');
  const url = new URL('/api/jobs/j', location.origin).href;
  expect(await (await takeAhead(url))?.text()).toBe(url);
  expect(takeAhead(url)).toBeUndefined();
  askAhead('/jobs/j');
  vi.advanceTimersByTime(5000);
  expect(takeAhead(url)).toBeUndefined();
  expect(fetched).toHaveBeenCalledTimes(2);
  vi.useRealTimers();
});
