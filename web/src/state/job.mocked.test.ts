/** Forms of one job on two devices: what each changes is kept, and what both changed is chosen by the user. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { calls } from '../api/calls';
import { Refused } from '../api/client';
import type { Edit, ShimKit, StoredJob } from '../api/types';
import { open } from './job.svelte';
import { notices } from './notices.svelte';

const kit = (tolerance_mm: number, max_stack_mm = 12): ShimKit => ({
  tolerance_mm,
  max_stack_mm,
  least_overlap_mm: 15,
  pieces: [],
  tapers: [],
});
const stored = (revision: number, now: ShimKit) =>
  ({ id: 'job', revision, job: { units: 'mm', kit: now, places: [] } }) as unknown as StoredJob;
const clash = (revision: number) =>
  new Refused(409, {
    code: 'clash',
    message: 'This was changed elsewhere since you opened it.',
    mend: 'Look at both, and choose which holds.',
    path: '',
    revision,
    sides: [{ path: '$.kit.tolerance_mm', yours: 1, theirs: 2 }],
    theirs: null,
  });

const send = vi.fn<(id: string, edit: Edit<ShimKit>) => Promise<StoredJob>>();
const put = (was: ShimKit, now: ShimKit) => open.edit('kit', send, was, now);

describe('a job that is read', () => {
  it('is not put back to what it was before an edit, whenever the answer comes', async () => {
    let answer: (job: StoredJob) => void = () => undefined;
    vi.spyOn(calls, 'job').mockReturnValue(new Promise((done) => (answer = done)));
    open.stored = stored(1, kit(0.5));
    const read = open.load('job');
    send.mockReset().mockResolvedValue(stored(2, kit(1)));
    await put(kit(0.5), kit(1));
    answer(stored(1, kit(0.5)));
    await read;
    expect(open.stored.job.kit).toEqual(kit(1));
    vi.mocked(calls.job).mockResolvedValue(stored(3, kit(2)));
    await open.load('job');
    expect(open.stored.revision).toBe(3);
  });
});

describe('two jobs that are opened one after the other', () => {
  it.each([[['a', 'b']], [['b', 'a']]])(
    'show the one that was opened last, answered in the order %s',
    async (order) => {
      const give = new Map<string, (job: StoredJob) => void>();
      vi.spyOn(calls, 'job').mockImplementation((id) => new Promise((done) => give.set(id, done)));
      const read = [open.load('a'), open.load('b')];
      await vi.waitFor(() => expect(give.size).toBe(2));
      for (const id of order) {
        give.get(id)!({ ...stored(1, kit(1)), id });
        await new Promise((done) => setTimeout(done));
      }
      await Promise.all(read);
      expect(open.stored?.id).toBe('b');
    },
  );

  it('are not both missing where the first is', async () => {
    const gone = new Refused(404, { ...clash(1).fault, code: 'not-there', sides: [] });
    let refuse!: (fault: Error) => void;
    vi.spyOn(calls, 'job').mockImplementation((id) =>
      id === 'a' ? new Promise((_, no) => (refuse = no)) : Promise.resolve({ ...stored(1, kit(1)), id }),
    );
    const first = open.load('a');
    await open.load('b');
    refuse(gone);
    await first;
    expect([open.missing, open.stored?.id]).toEqual([false, 'b']);
  });
});

describe('a page that is opened', () => {
  it('reads the job after the change of the page before, and not for ever after', async () => {
    vi.useFakeTimers();
    let arrive: (job: StoredJob) => void = () => undefined;
    open.stored = stored(1, kit(0.5));
    send.mockReset().mockReturnValue(new Promise((done) => (arrive = done)));
    const asked = vi.spyOn(calls, 'job').mockResolvedValue(stored(2, kit(1)));
    asked.mockClear();
    const edited = put(kit(0.5), kit(1));
    const read = open.load('job');
    await vi.advanceTimersByTimeAsync(1000);
    expect(asked).not.toHaveBeenCalled();
    arrive(stored(2, kit(1)));
    await edited;
    await read;
    expect(asked).toHaveBeenCalledOnce();
    send.mockReturnValue(new Promise((done) => (arrive = done))); // as a conflict that waits for its user
    const late = put(kit(1), kit(2));
    void open.load('job');
    await vi.advanceTimersByTimeAsync(4100);
    expect(asked).toHaveBeenCalledTimes(2);
    arrive(stored(3, kit(2)));
    await late;
    vi.useRealTimers();
  });
});

describe('an edit', () => {
  beforeEach(() => {
    send.mockReset();
    open.stored = stored(1, kit(0.5));
    open.clash = null;
  });

  it('says what the form was drawn from, and shows what is stored then', async () => {
    send.mockResolvedValue(stored(3, kit(1, 20)));
    expect(await put(kit(0.5), kit(1))).toBe(true);
    expect(send).toHaveBeenCalledExactlyOnceWith('job', { was: kit(0.5), now: kit(1), settle: null });
    expect(open.stored?.job.kit).toEqual(kit(1, 20));
  });

  it('of a form that was not yet drawn anew starts from what the user saw', async () => {
    send.mockResolvedValueOnce(stored(2, kit(1))).mockResolvedValueOnce(stored(3, kit(2)));
    await Promise.all([put(kit(0.5), kit(1)), put(kit(0.5), kit(2))]);
    expect(send.mock.calls[1]![1]).toMatchObject({ was: kit(1), now: kit(2) });
    send.mockResolvedValueOnce(stored(4, kit(3)));
    await put(kit(0.5), kit(3));
    expect(send.mock.calls[2]![1].was).toEqual(kit(0.5));
  });

  it.each([['yours'], ['theirs']] as const)('that clashes waits for a choice: %s', async (side) => {
    send.mockRejectedValueOnce(clash(7)).mockResolvedValueOnce(stored(8, kit(2)));
    const done = put(kit(0.5), kit(1));
    await vi.waitFor(() => expect(open.clash).not.toBeNull());
    expect(open.clash!.sides[0]).toMatchObject({ yours: 1, theirs: 2 });
    expect(send).toHaveBeenCalledTimes(1);
    open.clash!.choose(side);
    expect(await done).toBe(true);
    expect(send.mock.calls[1]![1]).toMatchObject({
      was: kit(0.5),
      now: kit(1),
      settle: { side, revision: 7 },
    });
    expect(open.clash).toBeNull();
  });

  it('that is not settled leaves the form as it is, and the next one goes on', async () => {
    send.mockRejectedValueOnce(clash(7)).mockResolvedValueOnce(stored(8, kit(2)));
    const done = put(kit(0.5), kit(1));
    await vi.waitFor(() => expect(open.clash).not.toBeNull());
    open.clash!.choose(null);
    expect(await done).toBe(false);
    expect(open.stored?.revision).toBe(1);
    expect(await put(kit(0.5), kit(2))).toBe(true);
  });

  it('is drawn at once, so that the next one starts from it, and goes again where it is refused', async () => {
    let arrive: (job: StoredJob) => void = () => undefined;
    vi.spyOn(calls, 'putKit').mockImplementation((_, edit) =>
      edit.now.kit.max_stack_mm !== 30
        ? new Promise((done) => (arrive = done))
        : Promise.reject(new Refused(422, { code: 'document', message: 'No.', mend: '', path: '' } as never)),
    );
    vi.spyOn(notices, 'refused').mockImplementation(() => undefined);
    const first = open.putKit(open.stored!.job.kit, kit(1));
    expect(open.stored?.job.kit).toEqual(kit(1));
    const second = open.putKit(open.stored!.job.kit, kit(1, 30));
    expect(open.stored?.job.kit).toEqual(kit(1, 30));
    await vi.waitFor(() => expect(calls.putKit).toHaveBeenCalledOnce());
    arrive(stored(2, kit(1)));
    expect(await first).toBe(true);
    expect(open.stored?.job.kit).toEqual(kit(1, 30)); // the second is still on its way
    expect(await second).toBe(false);
    expect(open.stored?.job.kit).toEqual(kit(1));
    expect(open.stored?.revision).toBe(2);
  });

  it.each([
    ['sessions', 'putSessions', { sessions: { people: [] } }],
    ['instruments', 'putInstruments', { instruments: [{ id: 'tape' }] }],
    ['a place', 'putPlace', { places: [{ id: 'north', name: 'North', facts: [{ id: 'r' }] }] }],
  ] as const)('of %s is drawn before it is answered: what is changed next has both', async (_, name, now) => {
    let arrive: (job: StoredJob) => void = () => undefined;
    const before = {
      units: 'mm',
      sessions: null,
      instruments: [],
      places: [{ id: 'north', facts: [{ id: 'r' }] }],
    };
    open.stored = { id: 'job', revision: 1, job: before } as unknown as StoredJob;
    vi.spyOn(calls, name).mockReturnValue(new Promise<StoredJob>((done) => (arrive = done)));
    const value: never = (
      name === 'putPlace' ? { id: 'north', name: 'North' } : Object.values(now)[0]
    ) as never;
    const edited = open[name](null as never, value);
    expect(open.stored.job).toEqual({ ...before, ...now });
    await vi.waitFor(() => expect(calls[name]).toHaveBeenCalledOnce());
    arrive({ id: 'job', revision: 2, job: { ...before, ...now } } as unknown as StoredJob);
    expect(await edited).toBe(true);
    expect(open.stored.revision).toBe(2);
  });

  it('goes to the job that it was made in, though another is in view by then', async () => {
    const other = { ...stored(5, kit(0.7)), id: 'other' };
    let arrive: (job: StoredJob) => void = () => undefined;
    send.mockReturnValueOnce(new Promise((done) => (arrive = done))).mockResolvedValueOnce(stored(3, kit(3)));
    const both = [put(kit(0.5), kit(1)), put(kit(1), kit(3))];
    await vi.waitFor(() => expect(send).toHaveBeenCalledOnce());
    open.stored = other;
    arrive(stored(2, kit(1)));
    expect(await Promise.all(both)).toEqual([true, true]);
    expect(send.mock.calls.map((c) => c[0])).toEqual(['job', 'job']);
    expect(open.stored).toEqual(other);
  });
});
