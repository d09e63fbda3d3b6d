/** A job's page: how far its places are, once that is known, and what is said of the job. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Refused } from '../../api/client';
import type { About, Glance, StoredJob } from '../../api/types';
import { open } from '../../state/job.svelte';
import { button, choose, fill, page, shown } from '../../testing';
import JobHome from './JobHome.svelte';

const calls = vi.hoisted(() => ({ job: vi.fn(), glance: vi.fn(), checkFindings: vi.fn(), shelf: vi.fn() }));
vi.mock('../../api/calls', () => ({ calls }));
vi.mock('../../state/store', async (actual) => ({
  ...(await actual<object>()),
  remembered: (_: string, ask: () => unknown) => ask(),
}));

const north = { id: 'north', name: 'North run', units: [{ id: 'A' }], readings: [], kind: 'alcove' };
const stored = (places: object[], part: object = {}) =>
  ({
    id: 'j',
    revision: 1,
    job: {
      name: 'Loft',
      address: 'Quill Lane',
      note: '',
      units: 'mm',
      places,
      kit: {
        pieces: [1, 2].map((thickness_mm) => ({ thickness_mm, count: null })),
        tapers: [],
        tolerance_mm: 0.5,
        max_stack_mm: 25,
        least_overlap_mm: 50,
      },
      instruments: [],
      way_in: [],
      constructions: [],
      ...part,
    },
  }) as unknown as StoredJob;
const glance: Glance = {
  places: [],
  stages: [],
  next: { stage: 'gauge', place: 'north', text: 'Take one reading of North run once more.' },
};
const links = (selector = 'main a') =>
  [...document.querySelectorAll(selector)].map((a) => a.getAttribute('href'));
let made: ReturnType<typeof shown>;
const put = () => (made = shown(JobHome, { params: { job: 'j' } }));

beforeEach(() => {
  for (const call of Object.values(calls)) call.mockReset();
  calls.shelf.mockResolvedValue([]);
  calls.checkFindings.mockResolvedValue([]);
  calls.job.mockImplementation(() => Promise.resolve(open.stored));
  calls.glance.mockResolvedValue(glance);
});
afterEach(async () => {
  await unmount(made);
  open.stored = null;
  vi.restoreAllMocks();
});

it('stands with all its stages before it is known how far they are, and nothing moves then', async () => {
  let give!: (found: Glance) => void;
  calls.glance.mockReturnValue(new Promise((done) => (give = done)));
  open.stored = stored([north]);
  put();
  const before = document.querySelectorAll('main p').length;
  expect(page()).toContain('1 unit · 0 readings · alcove');
  expect(links('.notches a')).toContain('/jobs/j/north/gauge');
  await vi.waitFor(() => expect(calls.glance).toHaveBeenCalled());
  give(glance);
  await vi.waitFor(() => expect(page()).toContain('Next: Take one reading of North run once more.'));
  expect(document.querySelectorAll('main p')).toHaveLength(before);
  expect(links()).toContain('/jobs/j/north/gauge');
});

it('stands without it where it cannot be had', async () => {
  calls.glance.mockRejectedValue(new Error('not reached'));
  open.stored = stored([north]);
  put();
  await vi.waitFor(() => expect(calls.glance).toHaveBeenCalled());
  await new Promise((done) => setTimeout(done));
  expect(page()).toContain('North run');
  expect(page()).not.toContain('Next:');
});

it('offers a first place, and what comes after it only once there is one', () => {
  open.stored = stored([]);
  put();
  expect(page()).toContain('A place is one run of units against a wall.');
  expect(links()).toContain('/jobs/j/new');
  expect(links()).not.toContain('/jobs/j/make');
});

it('keeps what is said of the job, field by field, and never an empty name', () => {
  const about: About[] = [];
  vi.spyOn(open, 'putAbout').mockImplementation((_was, now) => {
    about.push(now);
    return Promise.resolve(true);
  });
  open.stored = stored([north]);
  put();
  fill('Name', 'Mill loft');
  fill('Where', 'Weir End');
  fill('Name', '   ');
  choose('Lengths are shown in', 'in');
  const was = { name: 'Loft', address: 'Quill Lane', note: '', units: 'mm' };
  expect(about).toEqual([
    { ...was, name: 'Mill loft' },
    { ...was, address: 'Weir End' },
    { ...was, units: 'in' },
  ]);
});

it('says in a line what each part holds that is folded away', () => {
  open.stored = stored([north], {
    instruments: [{ id: 'l', name: 'Laser', kind: 'laser line', checks: [] }],
  });
  put();
  const lines = [...document.querySelectorAll('summary')].map((s) =>
    s.textContent.replace(/\s+/g, ' ').trim(),
  );
  expect(lines).toEqual([
    'About Quill Lane · millimetres',
    'The way in nothing said: anything passes',
    'How carcasses are built as is usual',
    'Shim kit 2 thicknesses',
    'Instruments Laser',
  ]);
});

it('says where there is no such job', async () => {
  const fault = { code: 'not-there', message: 'There is no such job.', mend: '', path: '' };
  calls.job.mockRejectedValue(new Refused(404, { ...fault, revision: null, sides: [], theirs: null }));
  put();
  await vi.waitFor(() => expect(page()).toContain('There is no such job'));
  flushSync();
  expect(() => button('Add a place')).toThrow();
});
