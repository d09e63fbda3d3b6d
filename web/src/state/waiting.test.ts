/** What is typed is sent once, in order, and a reading that is refused holds up no other. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { Refused } from '../api/client';
import type { Reading } from '../api/types';

const sent = vi.fn<(job: string, bay: string, readings: Reading[]) => Promise<{ revision: number }>>();
vi.mock('../api/calls', () => ({ calls: { addReadings: (...a: Parameters<typeof sent>) => sent(...a) } }));

const reading = (id: string) => ({ id, kind: 'offset' }) as Reading;
const refusal = (status: number) =>
  new Refused(status, { code: 'x', message: 'no', mend: 'mend', path: '', revision: null, changes: [] });

async function fresh() {
  vi.resetModules();
  const { waiting } = await import('./waiting.svelte');
  const { Refused: Current } = await import('../api/client');
  await waiting.open('ines');
  return {
    waiting,
    refuse: (status: number) => Object.setPrototypeOf(refusal(status), Current.prototype) as Refused,
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

  it('gives back what has not left the device', async () => {
    const { waiting, refuse } = await fresh();
    sent.mockRejectedValue(refuse(0));
    await waiting.keep('job', 'bay', reading('a'));
    expect(await waiting.take('a')).toBe(true);
    expect(await waiting.take('a')).toBe(false);
    expect(waiting.all).toEqual([]);
  });
});
