/** What is found out is sent once, in order, and a fact that is refused holds up no other. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { Refused } from '../api/client';
import type { Fact } from '../api/types';
import { fromFirst, fromThird } from './earlier';

const sent = vi.fn<(job: string, place: string, facts: Fact[]) => Promise<{ revision: number }>>();
vi.mock('../api/calls', () => ({
  calls: { addFacts: (...a: Parameters<typeof sent>) => sent(...a) },
}));

const reading = (id: string) => ({ id, fact: 'offset' }) as Fact;
const outlet = (id: string, name: string, supersedes: string | null = null) =>
  ({ id, fact: 'obstacle', name, supersedes }) as Fact;
const refusal = (status: number, theirs: Fact | null = null) =>
  new Refused(status, {
    code: 'x',
    message: 'no',
    mend: 'mend',
    path: '',
    revision: null,
    sides: [],
    theirs: theirs as never,
  });

async function fresh() {
  vi.resetModules();
  const { waiting } = await import('./waiting.svelte');
  const { Refused: Current } = await import('../api/client');
  await waiting.open('ines');
  return {
    waiting,
    refuse: (status: number, theirs?: Fact) =>
      Object.setPrototypeOf(refusal(status, theirs), Current.prototype) as Refused,
  };
}

describe('the queue', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    sent.mockReset();
  });

  it('sends what is kept, tells the revision, and is empty', async () => {
    const { waiting } = await fresh();
    const told = vi.fn();
    waiting.onArrival(told);
    sent.mockResolvedValue({ revision: 7 });
    await waiting.keep('job', 'place', reading('a'));
    expect(sent.mock.calls).toEqual([['job', 'place', [reading('a')]]]);
    expect(told).toHaveBeenCalledWith('job', 7);
    expect(waiting.all).toEqual([]);
  });

  it('shows on what has arrived until the job is read with it', async () => {
    const { waiting } = await fresh();
    sent.mockResolvedValue({ revision: 7 });
    await waiting.keep('job', 'place', reading('a'));
    expect([waiting.count('job', 'place'), waiting.readings('job', 'place')]).toEqual([0, [reading('a')]]);
    waiting.seen('job', 6); // an answer that was asked for before
    waiting.seen('other', 9);
    expect(waiting.readings('job', 'place')).toEqual([reading('a')]);
    waiting.seen('job', 7);
    expect(waiting.readings('job', 'place')).toEqual([]);
  });

  it('waits without a connection and sends all in order when it is back', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'place', reading('a'));
    await waiting.keep('job', 'place', reading('b'));
    expect(waiting.count('job', 'place')).toBe(2);
    sent.mockReset().mockResolvedValue({ revision: 2 });
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent.mock.calls[0]?.[2].map((r) => r.id)).toEqual(['a', 'b']);
    expect(waiting.all).toEqual([]);
  });

  it('keeps a refused reading and sends the rest', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    for (const id of ['a', 'bad', 'c']) await waiting.keep('job', 'place', reading(id));
    sent
      .mockReset()
      .mockImplementation((_job, _place, facts) =>
        facts.some((r) => r.id === 'bad') ? Promise.reject(refuse(422)) : Promise.resolve({ revision: 3 }),
      );
    await waiting.send();
    expect(waiting.all.map((k) => k.id)).toEqual(['bad']);
    await waiting.keep('job', 'other', reading('d'));
    expect(waiting.all.map((k) => k.id)).toEqual(['bad']);
  });

  it('sends facts of all kinds in one call, in the order in which they were kept', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'place', reading('a'));
    await waiting.keep('job', 'place', { id: 'd', fact: 'detection', sees: 'hit' } as Fact);
    await waiting.keep('job', 'place', outlet('o', 'Outlet'), {
      id: 'n',
      fact: 'note',
      text: 'damp',
    } as Fact);
    expect(waiting.detections('job', 'place').map((d) => d.id)).toEqual(['d']);
    expect(waiting.readings('job', 'place').map((r) => r.id)).toEqual(['a']);
    expect(waiting.obstacles('job', 'place').map((o) => o.name)).toEqual(['Outlet']);
    expect(waiting.notes('job', 'place').map((n) => n.text)).toEqual(['damp']);
    sent.mockReset().mockResolvedValue({ revision: 2 });
    await waiting.send();
    expect(sent.mock.calls.map(([, , facts]) => facts.map((f) => f.id))).toEqual([['a', 'd', 'o', 'n']]);
    expect(waiting.all).toEqual([]);
  });

  it('lets what was to replace something taken back replace what that would have', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'place', outlet('b', 'Outlet', 'a'), outlet('c', 'Outlet', 'b'));
    expect(await waiting.take('b')).toBe(true);
    expect(waiting.all.map((k) => [k.id, k.fact.supersedes])).toEqual([['c', 'a']]);
  });

  it('goes on with other places where the server fails at one, and tries that one again', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockImplementation((job) =>
      job === 'ill' ? Promise.reject(refuse(500)) : Promise.resolve({ revision: 2 }),
    );
    await waiting.keep('ill', 'place', reading('a'));
    await waiting.keep('well', 'place', reading('b'));
    expect(waiting.all.map((k) => k.id)).toEqual(['a']);
    expect(waiting.stuck.size).toBe(0);
    sent.mockReset().mockResolvedValue({ revision: 3 });
    await vi.advanceTimersByTimeAsync(5000);
    expect(waiting.all).toEqual([]);
  });

  it('keeps what belongs to a job that is gone, says why, and drops it only when told to', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(404));
    await waiting.keep('gone', 'place', reading('a'), reading('b'));
    expect(sent).toHaveBeenCalledTimes(1);
    expect([...waiting.stuck.keys()]).toEqual(['a', 'b']);
    await waiting.send();
    expect(sent).toHaveBeenCalledTimes(1);
    expect(JSON.parse(waiting.exported)).toMatchObject({ facts: [{ job: 'gone', fact: { id: 'a' } }, {}] });
    await waiting.drop(['a']);
    expect(waiting.all.map((k) => k.id)).toEqual(['b']);
    sent.mockReset().mockResolvedValue({ revision: 3 });
    await waiting.again();
    expect([waiting.all, waiting.stuck.size]).toEqual([[], 0]);
  });

  it('still sends what a full device cannot keep, and says so before it matters', async () => {
    const { waiting, refuse } = await fresh();
    const { notices } = await import('./notices.svelte');
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'place', reading('a'));
    expect([...waiting.loose]).toEqual(['a']);
    expect(notices.shown.map((n) => n.title)).toContain('This device could not keep what you typed.');
    const leaving = new Event('beforeunload', { cancelable: true });
    dispatchEvent(leaving);
    expect(leaving.defaultPrevented).toBe(true);
    sent.mockReset().mockResolvedValue({ revision: 2 });
    await waiting.send();
    expect([waiting.all, waiting.loose.size]).toEqual([[], 0]);
  });

  it('gives back what has not left the device', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'place', reading('a'));
    expect(await waiting.take('a')).toBe(true);
    expect(await waiting.take('a')).toBe(false);
    expect(waiting.all).toEqual([]);
  });

  it('holds a conflict with both values until the user chooses', async () => {
    for (const choice of ['mine', 'theirs'] as const) {
      const { waiting, refuse } = await fresh();
      sent.mockReset().mockRejectedValueOnce(refuse(409, outlet('t', 'Theirs', 'o')));
      await waiting.keep('job', 'place', outlet('m', 'Mine', 'o'));
      expect(waiting.conflicts.map((c) => c.theirs['name'])).toEqual(['Theirs']);
      expect(waiting.obstacles('job', 'place').map((o) => o.name)).toEqual(['Mine']);
      await waiting.send();
      expect(sent).toHaveBeenCalledTimes(1);
      sent.mockResolvedValue({ revision: 5 });
      await waiting.settle(waiting.conflicts[0]!, choice);
      expect(waiting.conflicts).toEqual([]);
      expect(waiting.all).toEqual([]);
      expect(sent).toHaveBeenCalledTimes(choice === 'mine' ? 2 : 1);
      const last = sent.mock.calls.at(-1)![2][0]!;
      expect([last.supersedes, last.id === 'm']).toEqual(choice === 'mine' ? ['t', false] : ['o', true]);
    }
  });
});

describe('what an earlier version kept', () => {
  const tag = { id: 'x', user: 'ines', job: 'j', bay: 'north', kept: 1_700_000_000_000 };

  it('waits on as a fact of its kind', () => {
    const kinds = [
      { reading: { id: 'r', kind: 'slope', taken_at: 'then', value: 2 } },
      { note: { id: 'n', text: 'damp', written_at: 'then', written_by: 'Ines' } },
      { detection: { id: 'd', at: [1, 2], method: 'magnet', taken_at: 'then' } },
      { mark: { id: 'm', kind: 'outlet', name: 'Outlet' }, was: null },
    ].map((old) => fromFirst({ ...tag, ...old })!);
    expect(kinds.map((k) => [k.id, k.place, k.fact.fact])).toEqual([
      ['r', 'north', 'slope'],
      ['n', 'north', 'note'],
      ['d', 'north', 'detection'],
      ['m', 'north', 'obstacle'],
    ]);
    expect(kinds[2]!.fact).toMatchObject({ found_by: 'magnet' });
    expect(fromThird({ ...kinds[2]!, fact: { id: 'd', method: 'knock' } as never }).fact).toEqual({
      id: 'd',
      found_by: 'knock',
    });
    expect(kinds[1]!.fact).toMatchObject({ taken_at: 'then', taken_by: 'Ines', text: 'damp' });
  });

  it('takes the place of what was changed, under an id of its own', () => {
    const kept = fromFirst({ ...tag, mark: { id: 'm', kind: 'outlet' }, was: { id: 'm', kind: 'outlet' } })!;
    expect(kept.fact.supersedes).toBe('m');
    expect(kept.fact.id).not.toBe('m');
    expect(kept.id).toBe(kept.fact.id);
  });
});
