/** What stands in place of a page that is not here. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { LONG_MS, TOLD_MS, underWay } from '../api/underway.svelte';
import { router } from '../router.svelte';
import { button, page, shown } from '../testing';
import Coming from './Coming.svelte';

let made: Record<string, unknown>;
const after = async (ms: number) => {
  await vi.advanceTimersByTimeAsync(ms);
  flushSync();
};

beforeEach(() => {
  vi.useFakeTimers();
  made = shown(Coming, {});
});
afterEach(async () => {
  await unmount(made);
  vi.useRealTimers();
  history.replaceState(null, '', '/');
});

it('tells what is under way, what takes long, and what did not come', async () => {
  let refuse!: (fault: Error) => void;
  const asked = underWay.watch(new Promise((_, no) => (refuse = no)));
  asked.catch(() => undefined);
  await after(TOLD_MS - 1);
  expect(page()).toBe('');
  await after(1);
  expect(page()).toBe('Fetching what stands here…');
  await after(LONG_MS - TOLD_MS);
  expect(page()).toContain('Still fetching what stands here…');
  refuse(new Error('not reached'));
  await after(0);
  expect(page(), 'a page may be drawn from what came').toBe('');
  await after(1500);
  expect(page()).toContain('could not be fetched');
  expect(button('Try again').disabled).toBe(false);
});

it('begins anew with every page', async () => {
  await after(1500);
  expect(page()).toContain('could not be fetched');
  router.go('/words');
  await after(0);
  expect(page()).toBe('');
  await after(1500);
  expect(page()).toContain('could not be fetched');
});
