/** The bar over a made-up place: one lesson after the other, left and gone on with at any time. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Practised, StoredJob } from '../../api/types';
import { router } from '../../router.svelte';
import { open } from '../../state/job.svelte';
import { practising } from '../../state/practising.svelte';
import { button, page, press, shown } from '../../testing';
import PracticeBar from './PracticeBar.svelte';

const calls = vi.hoisted(() => ({ practice: vi.fn() }));
vi.mock('../../api/calls', () => ({ calls }));

const told = (next: Practised['next'], part: Partial<Practised> = {}): Practised => ({
  next,
  read: 0,
  of: 12,
  again: 0,
  nearness: null,
  ...part,
});
const nearness = {
  units: [{ unit: 'A', bare_mm: 6.2, packed_mm: 0.4 }],
  shims_of: 12,
  shims_held: 11,
  surfaces: [],
} as unknown as NonNullable<Practised['nearness']>;
const tools = { here: vi.fn(() => Promise.resolve()), rest: vi.fn(() => Promise.resolve()) };
let made: Record<string, unknown>;
async function put(stage: string, at: Practised) {
  router.go(`/jobs/j/corner/${stage}`);
  calls.practice.mockResolvedValue(at);
  practising.told = null;
  made = shown(PracticeBar, { job: 'j', place: 'corner' });
  await vi.waitFor(() => expect(page()).not.toBe(''));
}

beforeEach(() => {
  localStorage.clear();
  practising.told = null;
  practising.tools = tools;
  Object.values(tools).forEach((tool) => tool.mockReset());
  open.stored = {
    id: 'j',
    revision: 1,
    job: { name: 'Corner', units: 'mm', places: [{ id: 'corner', units: [{ id: 'A', name: 'A Left' }] }] },
  } as unknown as StoredJob;
});
afterEach(async () => {
  await unmount(made);
  open.stored = null;
  practising.tools = null;
  history.replaceState(null, '', '/');
});

it.each([
  ['read', 'gauge', 'Read three spots', 'Read it here'],
  ['read', 'fit', 'Read three spots', 'To Gauge'],
  ['rest', 'gauge', 'Let the apprentice go on', 'Let him read'],
  ['again', 'gauge', 'Take one again', 'Read it here'],
  ['fit', 'gauge', 'See what goes under', 'To Fit'],
  ['fit', 'fit', 'See what goes under', 'Seen'],
] as const)('at “%s” on the page of %s it says “%s” and offers “%s”', async (next, stage, title, offer) => {
  await put(stage, told(next));
  expect(page()).toContain(title);
  expect(page()).toContain(offer);
});

it('counts what was read, and what the apprentice has before him', async () => {
  await put('gauge', told('read', { read: 2 }));
  expect(page()).toContain('2 of 3');
  await unmount(made);
  await put('gauge', told('rest', { read: 3 }));
  expect(page()).toContain('9 stations are left');
});

it('lets the apprentice read once, and again where his reading was lost', async () => {
  let refuse!: (fault: Error) => void;
  tools.rest.mockReturnValue(new Promise((_, no) => (refuse = no)));
  await put('gauge', told('rest', { read: 3 }));
  const lost = vi.fn((event: Event) => event.preventDefault());
  const unheard = (fault: unknown) => void lost(new Event(String(fault)));
  process.once('unhandledRejection', unheard);
  press('Let him read');
  expect(button('The apprentice reads…').disabled).toBe(true);
  refuse(new Error('not reached'));
  await vi.waitFor(() => expect(button('Let him read').disabled).toBe(false));
  await new Promise((done) => setTimeout(done));
  process.off('unhandledRejection', unheard);
  expect(tools.rest).toHaveBeenCalledOnce();
});

it('goes from the shims to the list to the truth, and remembers what was seen', async () => {
  await put('fit', told('fit', { read: 12, nearness }));
  press('Seen');
  expect(page()).toContain('The list to carry');
  press('Seen');
  expect(page()).toContain('How near you came');
  await unmount(made);
  await put('fit', told('fit', { read: 12, nearness }));
  expect(page(), 'on the next visit too').toContain('How near you came');
  press('Show me');
  const cells = [...document.querySelectorAll('tbody tr :is(th, td)')].map((cell) => cell.textContent);
  expect(cells).toEqual(['A Left', '6.2', '0.4']);
  expect(page()).toContain('Of 12 shims 11 are right within twice the ±');
});

it('is left, and gone on with where it was left', async () => {
  await put('gauge', told('again', { read: 12, again: 1 }));
  press('Leave');
  expect(page()).toBe('A practice in a made-up corner. Go on with it');
  await unmount(made);
  await put('gauge', told('again', { read: 12, again: 1 }));
  expect(page()).toBe('A practice in a made-up corner. Go on with it');
  press('Go on with it');
  flushSync();
  expect(page()).toContain('Take one again');
});
