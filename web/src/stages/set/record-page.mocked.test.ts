/** The record of a job: day by day, what was agreed and what went wrong, and the newest of it. */
import { unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Refused } from '../../api/client';
import type { JobRecord, StoredJob } from '../../api/types';
import { open } from '../../state/job.svelte';
import { notices } from '../../state/notices.svelte';
import { waiting } from '../../state/waiting.svelte';
import { page, shown } from '../../testing';
import Record from './Record.svelte';

const calls = vi.hoisted(() => ({ job: vi.fn(), record: vi.fn() }));
vi.mock('../../api/calls', () => ({ calls }));
vi.mock('../../state/store', async (actual) => ({
  ...(await actual<object>()),
  remembered: (_: string, ask: () => unknown) => ask(),
}));

const entry = (at: string, text: string, part: object = {}) => ({
  at,
  text,
  by: 'Ines',
  kind: 'step',
  note: '',
  about: '',
  minutes: 0,
  moment: '',
  out: false,
  photo: '',
  ...part,
});
const record = (part: object = {}) =>
  ({
    entries: [],
    agreed: [],
    wrong: [],
    left: [],
    hours: [],
    pairs: [],
    photos: 0,
    ...part,
  }) as unknown as JobRecord;
const arrived: ((job: string, revision: number) => void)[] = [];
let made: ReturnType<typeof shown>;
const put = () => (made = shown(Record, { params: { job: 'j' } }));

beforeEach(() => {
  for (const call of Object.values(calls)) call.mockReset();
  arrived.length = 0;
  vi.spyOn(waiting, 'onArrival').mockImplementation((hear) => {
    arrived.push(hear);
    return () => undefined;
  });
  open.stored = {
    id: 'j',
    revision: 1,
    job: { name: 'Loft', units: 'mm', places: [{ id: 'north', name: 'North' }] },
  } as unknown as StoredJob;
  calls.job.mockImplementation(() => Promise.resolve(open.stored));
  notices.shown = [];
});
afterEach(async () => {
  await unmount(made);
  open.stored = null;
  vi.restoreAllMocks();
});

it('says what will be written down while nothing is', async () => {
  calls.record.mockResolvedValue(record());
  put();
  await vi.waitFor(() => expect(page()).toContain('Nothing is written down yet.'));
  expect(document.querySelectorAll('h2')).toHaveLength(0);
  expect(document.querySelector('a[download]')?.getAttribute('href')).toBe('/api/jobs/j/job.zip');
});

it('tells each day once, what went wrong marked, with its minutes and its picture', async () => {
  calls.record.mockResolvedValue(
    record({
      entries: [
        entry('2026-03-07T09:30:00', 'Cut the sides', { minutes: 42.4 }),
        entry('2026-03-07T10:00:00', 'The saw drifted', { kind: 'note', note: 'went wrong' }),
        entry('2026-03-08T09:00:00', 'Corner before', { kind: 'photo', moment: 'before', photo: 'abc' }),
      ],
      photos: 1,
    }),
  );
  put();
  await vi.waitFor(() => expect(page()).toContain('Cut the sides, 42 min'));
  expect(document.querySelectorAll('h2')).toHaveLength(2);
  const [first, second, third] = document.querySelectorAll('ol li');
  expect([first!, second!, third!].map((li) => li.classList.contains('out'))).toEqual([false, true, false]);
  expect(second!.textContent).toContain('went wrong');
  const picture = third!.querySelector('img')!;
  expect([picture.getAttribute('src'), picture.alt]).toEqual([
    '/api/jobs/j/photos/abc.jpg',
    'before: Corner before',
  ]);
  expect(page()).toContain('1 picture');
});

it('tells what was agreed, what is open, hours by the clock, and pairs of pictures', async () => {
  calls.record.mockResolvedValue(
    record({
      entries: [entry('2026-03-07T09:30:00', 'Begun')],
      agreed: [entry('2026-03-07T09:30:00', 'Oak for the top')],
      left: [entry('2026-03-07T09:30:00', 'The plinth')],
      hours: [
        { by: 'Ines', minutes: 90, steps: 1 },
        { by: '', minutes: 0, steps: 3 },
      ],
      pairs: [{ name: 'North', before: 'b4', after: 'af' }],
    }),
  );
  put();
  await vi.waitFor(() => expect(page()).toContain('Oak for the top'));
  const titles = [...document.querySelectorAll('h2')].map((h) => h.textContent);
  expect(titles.slice(0, 4)).toEqual(['Agreed', 'Open for the next job', 'Hours', 'North']);
  expect(page()).toContain('Ines: 1.5 h by the clock, 1 step');
  expect(page()).toContain('Somebody: 3 steps');
  expect([...document.querySelectorAll('img')].map((i) => i.alt)).toEqual(['Before: North', 'After: North']);
});

it('follows what arrives, and shows the newest, whichever answer comes last', async () => {
  const give: ((found: JobRecord) => void)[] = [];
  calls.record.mockImplementation(() => new Promise((done) => give.push(done)));
  put();
  await vi.waitFor(() => expect(give).toHaveLength(1));
  arrived[0]!('another job', 3);
  expect(give).toHaveLength(1);
  arrived[0]!('j', 2);
  expect(give).toHaveLength(2);
  give[1]!(record({ entries: [entry('2026-03-07T09:30:00', 'Now')] }));
  await vi.waitFor(() => expect(page()).toContain('Now'));
  give[0]!(record({ entries: [entry('2026-03-07T09:00:00', 'Before')] }));
  await new Promise((done) => setTimeout(done));
  expect(page()).not.toContain('Before');
});

it('says why it cannot be told', async () => {
  const fault = {
    code: 'busy',
    message: 'You ask for more at once than one user may.',
    mend: 'Wait.',
    path: '',
  };
  calls.record.mockRejectedValue(new Refused(429, { ...fault, revision: null, sides: [], theirs: null }));
  put();
  await vi.waitFor(() => expect(notices.shown[0]?.title).toContain('more at once'));
});
