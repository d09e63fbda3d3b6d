/** The page of a place: what was typed stays whatever comes meanwhile, and what was seen is never written over. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Obstacle, Place, StoredJob } from '../../../api/types';
import { router } from '../../../router.svelte';
import { open } from '../../../state/job.svelte';
import { notices } from '../../../state/notices.svelte';
import { waiting } from '../../../state/waiting.svelte';
import { button, fill, labelled, page, press, shown } from '../../../testing';
import PlacePage from './PlacePage.svelte';

const calls = vi.hoisted(() => ({ job: vi.fn(), putPlace: vi.fn(), setAside: vi.fn() }));
vi.mock('../../../api/calls', () => ({ calls }));

const PIPE = {
  fact: 'obstacle',
  id: 'pipe',
  name: 'Pipe',
  surface: 'back',
  at: [300, 200],
  size: [40, 900],
  proud_mm: 30,
  taken_at: '2026-03-07T09:30:00Z',
  taken_by: 'ines',
  supersedes: null,
  aside: null,
} as unknown as Obstacle;
const place = (part: Partial<Place> = {}) =>
  ({
    id: 'north',
    name: 'North wall',
    width_mm: 2400,
    depth_mm: 600,
    height_mm: 2400,
    kind: 'open',
    frame: 'gravity',
    character: 'typical',
    surfaces: ['floor', 'back'],
    units: [],
    obstacles: [PIPE],
    readings: [],
    facts: [],
    ...part,
  }) as unknown as Place;
const job = (revision: number, ...places: Place[]) =>
  ({ id: 'j', revision, job: { name: 'Loft', units: 'mm', places } }) as unknown as StoredJob;
const name = () => labelled<HTMLInputElement>('Name').value;
const put = (key: string) =>
  (made = shown(PlacePage, { params: { job: 'j', ...(key ? { place: key } : {}) } }));
/** An answer that is given by hand. */
function later<T>() {
  let give!: (answer: T) => void;
  const answer = new Promise<T>((done) => (give = done));
  return { answer, give };
}
let made: Record<string, unknown>;

beforeEach(() => {
  for (const call of Object.values(calls)) call.mockReset();
  open.stored = job(1, place());
  notices.shown = [];
});
afterEach(async () => {
  await unmount(made);
  open.stored = null;
  vi.restoreAllMocks();
});

describe('a place', () => {
  it('that is open already is drawn at once, and what is typed while it comes stays', async () => {
    const { answer, give } = later<StoredJob>();
    calls.job.mockReturnValue(answer);
    put('north');
    expect(name()).toBe('North wall');
    fill('Name', 'North wall, left half');
    give(job(2, place({ height_mm: 2390 })));
    await vi.waitFor(() => expect(open.stored?.revision).toBe(2));
    flushSync();
    expect(name()).toBe('North wall, left half');
  });

  it('that nobody touched follows what comes', async () => {
    const { answer, give } = later<StoredJob>();
    calls.job.mockReturnValue(answer);
    put('north');
    give(job(2, place({ name: 'South wall' })));
    await vi.waitFor(() => expect(name()).toBe('South wall'));
    expect(button('Keep changes').disabled).toBe(true);
  });

  it('that is not there is not made by looking at it', async () => {
    calls.job.mockResolvedValue(job(1, place()));
    put('nowhere');
    await vi.waitFor(() => expect(page()).toContain('There is no such place'));
  });

  it('is kept once, and what is typed while it is kept waits to be kept next', async () => {
    calls.job.mockImplementation(() => Promise.resolve(open.stored));
    const { answer, give } = later<StoredJob>();
    calls.putPlace.mockReturnValue(answer);
    put('north');
    fill('Name', 'North');
    press('Keep changes');
    expect(button('Keep changes').disabled).toBe(true);
    fill('Name', 'North, by the door');
    give(job(2, place({ name: 'North' })));
    await vi.waitFor(() => expect(button('Keep changes').disabled).toBe(false));
    expect(name()).toBe('North, by the door');
    expect(calls.putPlace).toHaveBeenCalledOnce();
    const edit = calls.putPlace.mock.calls[0]![1] as { was: Place; now: Place };
    expect([edit.was.name, edit.now.name]).toEqual(['North wall', 'North']);
    expect(notices.shown).toEqual([]);
  });

  it('takes back what was changed and not kept', () => {
    calls.job.mockResolvedValue(job(1, place()));
    put('north');
    fill('Long', '2500');
    press('Undo changes');
    expect(labelled<HTMLInputElement>('Long').value).toBe('2400');
  });

  it('that is new gets an address of its own and is measured next', async () => {
    calls.job.mockImplementation(() => Promise.resolve(open.stored));
    calls.putPlace.mockImplementation((_: string, edit: { now: Place }) =>
      Promise.resolve(job(2, place(), edit.now)),
    );
    const go = vi.spyOn(router, 'go').mockReturnValue();
    put('');
    await vi.waitFor(() => expect(calls.job).toHaveBeenCalled());
    fill('Name', 'North wall');
    await vi.waitFor(() => expect(button('Keep, then measure').disabled).toBe(false));
    press('Keep, then measure');
    await vi.waitFor(() => expect(go).toHaveBeenCalledOnce());
    const edit = calls.putPlace.mock.calls[0]![1] as { was: null; now: Place };
    expect(edit.was).toBeNull();
    expect(edit.now.id).not.toBe('north');
    expect(go).toHaveBeenCalledWith(`/jobs/j/${edit.now.id}/gauge`);
  });

  it('that is kept after its page was left leaves the page that is in view', async () => {
    const { answer, give } = later<StoredJob>();
    const other = { ...job(5, place()), id: 'k' };
    calls.job.mockImplementation((id: string) => Promise.resolve(id === 'k' ? other : job(1, place())));
    calls.putPlace.mockReturnValue(answer);
    const go = vi.spyOn(router, 'go').mockReturnValue();
    put('');
    await vi.waitFor(() => expect(button('Keep, then measure').disabled).toBe(false));
    press('Keep, then measure');
    await unmount(made);
    const next = open.load('k');
    give(job(2, place()));
    await next;
    await new Promise((done) => setTimeout(done));
    expect(go).not.toHaveBeenCalled();
    expect(open.stored).toMatchObject({ id: 'k', revision: 5 });
    put('north');
  });

  it('sets aside what is taken off the list of what is in the way, with a reason', async () => {
    calls.job.mockImplementation(() => Promise.resolve(open.stored));
    calls.putPlace.mockImplementation((_: string, edit: { now: Place }) =>
      Promise.resolve(job(2, { ...edit.now, obstacles: [] })),
    );
    calls.setAside.mockResolvedValue({});
    vi.spyOn(waiting, 'take').mockResolvedValue(false);
    const keep = vi.spyOn(waiting, 'keep').mockResolvedValue();
    put('north');
    press('Remove Pipe');
    press('Keep changes');
    await vi.waitFor(() => expect(calls.setAside).toHaveBeenCalledOnce());
    expect(calls.setAside.mock.calls[0]!.slice(0, 4)).toEqual(['j', 'north', 'pipe', 'taken off the list']);
    expect(keep).not.toHaveBeenCalled();
  });

  it('changes what was seen by a fact of its own', async () => {
    calls.job.mockImplementation(() => Promise.resolve(open.stored));
    calls.putPlace.mockImplementation((_: string, edit: { now: Place }) => Promise.resolve(job(2, edit.now)));
    const keep = vi.spyOn(waiting, 'keep').mockResolvedValue();
    put('north');
    fill('How far Pipe stands proud', '35');
    press('Keep changes');
    await vi.waitFor(() => expect(keep).toHaveBeenCalledOnce());
    const fact = keep.mock.calls[0]![2] as Obstacle;
    expect([fact.supersedes, fact.proud_mm]).toEqual(['pipe', 35]);
    expect(fact.id).not.toBe('pipe');
  });
});
