/** What is typed is sent once, in order, and a reading that is refused holds up no other. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { Refused } from '../api/client';
import type { Detection, Mark, Note, Reading } from '../api/types';

const sent = vi.fn<(job: string, bay: string, readings: Reading[]) => Promise<{ revision: number }>>();
const finds =
  vi.fn<
    (
      job: string,
      bay: string,
      notes: Note[],
      marks: { mark: Mark; was: Mark | null }[],
    ) => Promise<{ revision: number }>
  >();
const behind = vi.fn<(job: string, bay: string, found: Detection[]) => Promise<{ revision: number }>>();
vi.mock('../api/calls', () => ({
  calls: {
    addDetections: (...a: Parameters<typeof behind>) => behind(...a),
    addReadings: (...a: Parameters<typeof sent>) => sent(...a),
    addFinds: (...a: Parameters<typeof finds>) => finds(...a),
  },
}));

const reading = (id: string) => ({ id, kind: 'offset' }) as Reading;
const mark = (name: string) => ({ id: 'm', name }) as Mark;
const refusal = (status: number, theirs: Mark | null = null) =>
  new Refused(status, {
    code: 'x',
    message: 'no',
    mend: 'mend',
    path: '',
    revision: null,
    changes: [],
    theirs: theirs as never,
  });

async function fresh() {
  vi.resetModules();
  const { waiting } = await import('./waiting.svelte');
  const { Refused: Current } = await import('../api/client');
  await waiting.open('ines');
  return {
    waiting,
    refuse: (status: number, theirs?: Mark) =>
      Object.setPrototypeOf(refusal(status, theirs), Current.prototype) as Refused,
  };
}

describe('the queue', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    sent.mockReset();
    finds.mockReset();
  });

  it('sends what is kept, tells the revision, and is empty', async () => {
    const { waiting } = await fresh();
    const told = vi.fn();
    waiting.onArrival(told);
    sent.mockResolvedValue({ revision: 7 });
    await waiting.keep('job', 'bay', reading('a'));
    expect(sent.mock.calls).toEqual([['job', 'bay', [reading('a')]]]);
    expect(told).toHaveBeenCalledWith('job', 7);
    expect(waiting.all).toEqual([]);
  });

  it('waits without a connection and sends all in order when it is back', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'bay', reading('a'));
    await waiting.keep('job', 'bay', reading('b'));
    expect(waiting.count('job', 'bay')).toBe(2);
    sent.mockReset().mockResolvedValue({ revision: 2 });
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent.mock.calls[0]?.[2].map((r) => r.id)).toEqual(['a', 'b']);
    expect(waiting.all).toEqual([]);
  });

  it('keeps a refused reading and sends the rest', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    for (const id of ['a', 'bad', 'c']) await waiting.keep('job', 'bay', reading(id));
    sent
      .mockReset()
      .mockImplementation((_job, _bay, readings) =>
        readings.some((r) => r.id === 'bad') ? Promise.reject(refuse(422)) : Promise.resolve({ revision: 3 }),
      );
    await waiting.send();
    expect(waiting.all.map((k) => k.id)).toEqual(['bad']);
    await waiting.keep('job', 'other', reading('d'));
    expect(waiting.all.map((k) => k.id)).toEqual(['bad']);
  });

  it('sends what was found behind a lining by its own call, in order with the rest', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    behind.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'bay', reading('a'));
    await waiting.keepDetection('job', 'bay', { id: 'd', sees: 'hit' } as Detection);
    expect(waiting.detectionsOf('job', 'bay').map((d) => d.id)).toEqual(['d']);
    expect(waiting.of('job', 'bay').map((r) => r.id)).toEqual(['a']);
    sent.mockReset().mockResolvedValue({ revision: 2 });
    behind.mockReset().mockResolvedValue({ revision: 3 });
    await waiting.send();
    expect(behind.mock.calls).toEqual([['job', 'bay', [{ id: 'd', sees: 'hit' }]]]);
    expect(sent).toHaveBeenCalledTimes(1);
    expect(waiting.all).toEqual([]);
  });

  it('gives back what has not left the device', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'bay', reading('a'));
    expect(await waiting.take('a')).toBe(true);
    expect(await waiting.take('a')).toBe(false);
    expect(waiting.all).toEqual([]);
  });

  it('sends notes and marks apart from readings, a mark changed twice only once, from what the server had', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    finds.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'bay', reading('a'));
    await waiting.keepNote('job', 'bay', { id: 'n', text: 'damp' } as Note);
    await waiting.keepMark('job', 'bay', mark('Outlet, low'), mark('Outlet'));
    await waiting.keepMark('job', 'bay', mark('Outlet, lower'), mark('Outlet, low'));
    expect(waiting.marksOf('job', 'bay').map((m) => m.name)).toEqual(['Outlet, lower']);
    sent.mockReset().mockResolvedValue({ revision: 2 });
    finds.mockReset().mockResolvedValue({ revision: 3 });
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent).toHaveBeenCalledTimes(1);
    expect(finds.mock.calls).toEqual([
      ['job', 'bay', [{ id: 'n', text: 'damp' }], [{ mark: mark('Outlet, lower'), was: mark('Outlet') }]],
    ]);
    expect(waiting.all).toEqual([]);
  });

  it('holds a conflict with both values until the user chooses', async () => {
    for (const choice of ['mine', 'theirs'] as const) {
      const { waiting, refuse } = await fresh();
      finds.mockReset().mockRejectedValueOnce(refuse(409, mark('Theirs')));
      await waiting.keepMark('job', 'bay', mark('Mine'), mark('Old'));
      expect(waiting.conflicts.map((c) => c.theirs['name'])).toEqual(['Theirs']);
      expect(waiting.marksOf('job', 'bay')).toEqual([mark('Mine')]);
      await waiting.send();
      expect(finds).toHaveBeenCalledTimes(1);
      finds.mockResolvedValue({ revision: 5 });
      await waiting.settle(waiting.conflicts[0]!, choice);
      expect(waiting.conflicts).toEqual([]);
      expect(waiting.all).toEqual([]);
      const last = finds.mock.calls.at(-1)![3][0]!;
      expect(last).toEqual(
        choice === 'mine'
          ? { mark: mark('Mine'), was: mark('Theirs') }
          : { mark: mark('Mine'), was: mark('Old') },
      );
      expect(finds).toHaveBeenCalledTimes(choice === 'mine' ? 2 : 1);
    }
  });
});
