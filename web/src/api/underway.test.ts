import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { LONG_MS, TOLD_MS, UnderWay } from './underway.svelte';

/** Something asked for, and how it comes to an end. */
function asked() {
  let give!: (answer: string) => void, refuse!: (fault: Error) => void;
  const promise = new Promise<string>((yes, no) => ([give, refuse] = [yes, no]));
  return { promise, give, refuse };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

it('tells nothing of what comes at once', async () => {
  const way = new UnderWay();
  const one = asked();
  const answer = way.watch(one.promise);
  await vi.advanceTimersByTimeAsync(TOLD_MS - 1);
  one.give('a floor');
  expect(await answer).toBe('a floor');
  await vi.advanceTimersByTimeAsync(LONG_MS);
  expect(way.told).toBe('still');
});

it('tells what takes a moment, then what takes long, until all of it has come', async () => {
  const way = new UnderWay();
  const [one, other] = [asked(), asked()];
  void way.watch(one.promise);
  await vi.advanceTimersByTimeAsync(TOLD_MS);
  expect(way.told).toBe('under way');
  void way.watch(other.promise);
  await vi.advanceTimersByTimeAsync(LONG_MS - TOLD_MS);
  expect(way.told).toBe('long');
  one.give('');
  await vi.advanceTimersByTimeAsync(0);
  expect(way.told).toBe('long');
  other.give('');
  await vi.advanceTimersByTimeAsync(0);
  expect(way.told).toBe('still');
});

it('is over where what is asked for is refused, and begins anew with the next', async () => {
  const way = new UnderWay();
  const [one, next] = [asked(), asked()];
  const refused = expect(way.watch(one.promise)).rejects.toThrow('not reached');
  await vi.advanceTimersByTimeAsync(TOLD_MS);
  one.refuse(new Error('not reached'));
  await refused;
  expect(way.told).toBe('still');
  void way.watch(next.promise);
  await vi.advanceTimersByTimeAsync(TOLD_MS - 1);
  expect(way.told).toBe('still');
  await vi.advanceTimersByTimeAsync(1);
  expect(way.told).toBe('under way');
});
