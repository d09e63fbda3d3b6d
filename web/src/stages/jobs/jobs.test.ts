/** The list of jobs: what is deleted comes back, many are looked through, one is begun from another. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { calls } from '../../api/calls';
import type { DeletedJob, Glance, JobLine, StageAt, StoredJob } from '../../api/types';
import { router } from '../../router.svelte';
import { fill, page, press, shown } from '../../testing';
import { said, stateOf, walk, wayOn, wayTo } from '../../shell/progress';
import Jobs from './Jobs.svelte';

const line = (n: number): JobLine => ({
  id: `j${n}`,
  name: `Loft ${n}`,
  address: n === 3 ? 'Quill Lane' : '',
  n_places: 1,
  n_readings: 4,
  changed: '2026-03-07T10:00:00Z',
});
let made: Record<string, unknown>;
let list: JobLine[];
let bin: DeletedJob[];
const at = (stage: StageAt['stage'], done: number, of: number, stops = 0): StageAt => ({
  stage,
  done,
  of,
  stops,
});
const glance: Glance = {
  places: ['north', 'south'].map((place) => ({
    place,
    name: place,
    wide_mm: 3000,
    high_mm: 2400,
    units: [{ x_mm: 0, up_mm: 0, wide_mm: 600, high_mm: 720 }],
    floor_mm: [0, 3, -1],
    stages: [
      at('setout', 1, 1),
      at('gauge', place === 'north' ? 24 : 3, 24),
      at('fit', 1, 1, place === 'north' ? 0 : 2),
    ],
  })),
  stages: [at('make', 0, 12), at('order', 0, 30)],
  next: { stage: 'gauge', place: 'south', text: 'Take one reading of south once more.' },
};
const settled = async () => {
  for (let n = 0; n < 8; n += 1) await Promise.resolve();
  flushSync();
};

async function put(n: number) {
  list = Array.from({ length: n }, (_, i) => line(i + 1));
  bin = [];
  vi.spyOn(calls, 'jobs').mockImplementation(() => Promise.resolve(list));
  vi.spyOn(calls, 'glance').mockResolvedValue(glance);
  vi.spyOn(calls, 'deletedJobs').mockImplementation(() => Promise.resolve(bin));
  made = shown(Jobs, {});
  await vi.waitFor(() => expect(page()).toContain('Loft 1'));
}

describe('the list of jobs', () => {
  beforeEach(() => vi.restoreAllMocks());

  it('begins one job however often Start is pressed', async () => {
    let give!: (job: StoredJob) => void;
    const begin = vi.spyOn(calls, 'importJob').mockImplementation(() => new Promise((done) => (give = done)));
    const go = vi.spyOn(router, 'go').mockReturnValue();
    await put(1);
    press('Start a job');
    fill('What are you fitting out?', 'Mill loft');
    press('Start');
    press('Start');
    give({ id: 'new' } as StoredJob);
    await vi.waitFor(() => expect(go).toHaveBeenCalledExactlyOnceWith('/jobs/new/new'));
    expect(begin).toHaveBeenCalledOnce();
    const { name, units } = begin.mock.calls[0]![0] as { name: string; units: string };
    expect([name, units]).toEqual(['Mill loft', 'mm']);
  });
  afterEach(() => unmount(made));

  it('says of each job what is next, and how far its stages are over all places', async () => {
    await put(1);
    await vi.waitFor(() => expect(page()).toContain('once more'));
    const next = [...document.querySelectorAll('a')].find((a) => a.textContent.includes('once more'));
    expect(next?.getAttribute('href')).toBe('/jobs/j1/south/gauge');
    expect(page()).toContain('27/48');
    expect(page()).toContain('2 to mend');
  });

  it('is looked through by name and street, from ten on', async () => {
    await put(9);
    expect(page()).not.toContain('Find a job');
    await unmount(made);
    await put(10);
    fill('Find a job', 'quill');
    expect(page()).toContain('Loft 3');
    expect(page()).not.toContain('Loft 4');
    fill('Find a job', 'barge');
    expect(page()).toContain('No job is called so');
  });

  it('keeps what is deleted at hand, to bring back or to drop for good', async () => {
    await put(2);
    const gone = vi.spyOn(calls, 'deleteJob').mockImplementation((id) => {
      list = list.filter((j) => j.id !== id);
      bin = [{ id, name: 'Loft 2', deleted: '2026-03-08T10:00:00Z', until: '2026-04-07T10:00:00Z' }];
      return Promise.resolve({} as never);
    });
    const back = vi.spyOn(calls, 'bringBack').mockResolvedValue({} as StoredJob);
    press('Delete Loft 2');
    await vi.waitFor(() => expect(page()).toContain('Deleted 1'));
    press('Bring Loft 2 back');
    await settled();
    expect(back).toHaveBeenCalledWith('j2');
    press('Delete Loft 2 for good');
    await settled();
    expect(gone.mock.calls.map(([id]) => id)).toEqual(['j2', 'j2']);
  });

  it('begins a job from another, under a name of its own', async () => {
    await put(1);
    vi.spyOn(calls, 'job').mockResolvedValue({
      id: 'j1',
      revision: 4,
      job: { name: 'Loft 1', places: [], units: 'in' },
    } as unknown as StoredJob);
    const brought = vi.spyOn(calls, 'importJob').mockResolvedValue({} as StoredJob);
    press('Duplicate Loft 1');
    await settled();
    expect(brought.mock.calls[0]![0]).toMatchObject({ name: 'Loft 1, copy', units: 'in' });
  });
});

describe('how far a stage is', () => {
  it('has a notch that is none, begun, whole or broken, and says so', () => {
    expect(
      [at('fit', 0, 0), at('set', 0, 9), at('gauge', 3, 9), at('hold', 4, 4), at('fit', 1, 1, 2)].map(
        stateOf,
      ),
    ).toEqual(['none', 'none', 'some', 'done', 'stop']);
    expect(said(at('gauge', 3, 9))).toBe('Gauge: 3 of 9');
    expect(said(at('fit', 1, 1, 2))).toBe('Fit: 2 to mend');
  });

  it('is of one place, or of all together, and of the job where its work is', () => {
    expect(walk(glance).map((s) => [s.stage, s.done, s.of])).toContainEqual(['gauge', 27, 48]);
    expect(walk(glance, glance.places[1]).map((s) => [s.stage, s.done, s.of])).toContainEqual([
      'gauge',
      3,
      24,
    ]);
    expect(walk(glance, glance.places[1]).map((s) => s.stage)).toEqual(walk(glance).map((s) => s.stage));
  });

  it('is found under the place or the job', () => {
    expect(wayOn('j', glance.next)).toBe('/jobs/j/south/gauge');
    expect(wayTo('j', 'order', 'south')).toBe('/jobs/j/order');
    expect(wayTo('j', 'fit', undefined)).toBe('/jobs/j');
    expect(wayTo('j', 'place', '')).toBe('/jobs/j/new');
  });
});
