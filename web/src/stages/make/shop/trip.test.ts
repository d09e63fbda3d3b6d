/** Jobs that are bought for on the same trip. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { calls } from '../../../api/calls';
import { Refused } from '../../../api/client';
import type { JobLine, Trip } from '../../../api/types';
import { notices } from '../../../state/notices.svelte';
import { button, page, press, shown } from '../../../testing';
import TripPane from './TripPane.svelte';

const line = (id: string): JobLine => ({
  id,
  name: `Loft ${id}`,
  address: '',
  n_places: 1,
  n_readings: 4,
  changed: '2026-03-07T10:00:00Z',
});
const trip = (packs: number, part: object = {}) =>
  ({
    lines: [
      {
        item: 'screws',
        what: 'Screws 4 × 40',
        packs,
        shares: [
          { job: 'Loft j', packs: 1 },
          { job: 'Loft a', packs: packs - 1 },
          { job: 'Loft b', packs: 0 },
        ],
      },
      { item: 'glue', what: 'Glue', packs: 1, shares: [] },
    ],
    shops: [{ id: 'yard', name: 'Weir Yard' }],
    baskets: [{ lines: [{ item: 'screws', shop: 'yard', price: 12.5 }] }],
    why: 'One trip costs 3.20 less than two.',
    left_out: [],
    ...part,
  }) as unknown as Trip;
const rows = () =>
  [...document.querySelectorAll('tbody tr')].map((row) =>
    [...row.querySelectorAll('td')].map((cell) => cell.textContent.replace(/\s+/g, ' ').trim()),
  );
let made: Record<string, unknown>;
async function put(ids: string[]) {
  vi.spyOn(calls, 'jobs').mockResolvedValue(ids.map(line));
  made = shown(TripPane, { job: 'j' });
  await vi.waitFor(() => expect(page()).toMatch(ids.length > 1 ? /Loft a/ : /no other job/));
}

beforeEach(() => {
  notices.shown = [];
  vi.restoreAllMocks();
});
afterEach(() => unmount(made));

it('says that there is no other job, and does not offer the one that is open', async () => {
  await put(['j']);
  expect(() => button('Loft j')).toThrow();
});

it('tells what is bought for whom and where, and what is lacking', async () => {
  const ask = vi.spyOn(calls, 'trip').mockResolvedValue(trip(3, { left_out: ['Far Mill'] }));
  await put(['j', 'a', 'b']);
  press('Loft a');
  await vi.waitFor(() => expect(page()).toContain('One trip costs 3.20 less than two.'));
  expect(ask).toHaveBeenCalledExactlyOnceWith('j', ['a']);
  expect(rows()).toEqual([
    ['Screws 4 × 40', '3', 'Loft j 1, Loft a 2', 'Weir Yard, 12.50'],
    ['Glue', '1', '', 'lacking'],
  ]);
  expect(page()).toContain('Not looked for at Far Mill: eight shops are tried.');
  expect(button('Loft a').getAttribute('aria-pressed')).toBe('true');
});

it('follows what is chosen last, whichever answer comes last, and tells nothing for none', async () => {
  const give: ((found: Trip) => void)[] = [];
  vi.spyOn(calls, 'trip').mockImplementation(() => new Promise((done) => give.push(done)));
  await put(['j', 'a', 'b']);
  press('Loft a');
  press('Loft b');
  give[1]!(trip(5));
  await vi.waitFor(() => expect(rows()[0]?.[1]).toBe('5'));
  give[0]!(trip(3));
  await Promise.resolve();
  flushSync();
  expect(rows()[0]?.[1]).toBe('5');
  press('Loft a');
  press('Loft b');
  expect(rows()).toEqual([]);
  give[2]!(trip(4));
  await new Promise((done) => setTimeout(done));
  press('Loft a');
  expect(rows(), 'what was found for another choice is not told for this one').toEqual([]);
});

it('takes seven others at most, and says what is refused', async () => {
  const fault = { code: 'trip', message: 'A job has no parts.', mend: 'Set it out first.', path: '$.jobs' };
  vi.spyOn(calls, 'trip').mockRejectedValue(
    new Refused(422, { ...fault, revision: null, sides: [], theirs: null }),
  );
  await put(['j', 'a', ...'bcdefgh']);
  for (const id of 'abcdefg') press(`Loft ${id}`);
  expect(button('Loft h').disabled).toBe(true);
  expect(button('Loft a').disabled).toBe(false);
  await vi.waitFor(() => expect(notices.shown[0]?.title).toBe('A job has no parts.'));
  expect(notices.shown, 'once, not for each choice').toHaveLength(1);
});
