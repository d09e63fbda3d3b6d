/** A decision while it is turned: answered at once, kept once it has settled, and undone. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { BackLine, Decisions, Edit, PlaceFit, Datum, StoredJob } from '../../api/types';

const high = (over_mm: number): Datum => ({ rule: 'high spot', over_mm });
const fitOf = (datum: Datum) =>
  ({
    datum,
    findings: [],
    sides: [],
    scribes: [],
    methods: [],
    plan: {
      shims: [{ support: 'A', gap: { value_mm: 5 + (datum.rule === 'high spot' ? datum.over_mm : 0) } }],
      packings: [],
    },
  }) as unknown as PlaceFit;

let server: { revision: number; datum: Datum; back_line: BackLine };
const stored = () =>
  ({
    id: 'job',
    revision: server.revision,
    job: { units: 'mm', places: [{ id: 'place', datum: server.datum, back_line: server.back_line }] },
  }) as unknown as StoredJob;

const calls = {
  job: vi.fn(() => Promise.resolve(stored())),
  gauge: vi.fn(() => Promise.resolve({ surfaces: [] })),
  fit: vi.fn(() => Promise.resolve(fitOf(server.datum))),
  tryFit: vi.fn((_job: string, _place: string, datum: Datum) => Promise.resolve(fitOf(datum))),
  putDecisions: vi.fn((_job: string, _place: string, { was, now }: Edit<Decisions>) => {
    if (JSON.stringify(was.datum) !== JSON.stringify(server.datum))
      throw new Error('not drawn from what is kept');
    server = { revision: server.revision + 1, datum: now.datum, back_line: now.back_line };
    return Promise.resolve(stored());
  }),
};
vi.mock('../../api/calls', () => ({ calls }));

async function opened() {
  vi.resetModules();
  const { Decision } = await import('./decision.svelte');
  const decision = new Decision('job', 'place');
  await decision.load();
  return decision;
}

describe('a decision', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.clearAllMocks();
    server = { revision: 1, datum: high(0), back_line: { off_mm: 0, turn_mm_per_m: 0 } };
  });

  it('is answered as it is turned, and nothing is kept by that', async () => {
    const decision = await opened();
    decision.turn({ datum: high(3) });
    await vi.advanceTimersByTimeAsync(0);
    expect(decision.plan?.shims[0]?.gap.value_mm).toBe(8);
    expect(decision.before.get('A')).toBe(5);
    expect(calls.putDecisions).not.toHaveBeenCalled();
  });

  it('asks only for the newest of those that wait', async () => {
    const decision = await opened();
    for (const over of [1, 2, 3, 4]) decision.turn({ datum: high(over) });
    await vi.advanceTimersByTimeAsync(0);
    expect(calls.tryFit.mock.calls.map((c) => c[2])).toEqual([high(1), high(4)]);
    expect(decision.now?.datum).toEqual(high(4));
  });

  it('is kept once, when it has stood for a moment', async () => {
    const decision = await opened();
    for (const over of [1, 2, 3]) {
      decision.turn({ datum: high(over) });
      decision.keep();
      await vi.advanceTimersByTimeAsync(100);
    }
    await vi.advanceTimersByTimeAsync(1000);
    expect(calls.putDecisions).toHaveBeenCalledTimes(1);
    expect(server.datum).toEqual(high(3));
    expect(decision.turned).toBeNull();
    expect(decision.now?.datum).toEqual(high(3));
  });

  it('is undone step by step, each from what the one before left', async () => {
    const decision = await opened();
    for (const over of [2, 6]) {
      decision.turn({ datum: high(over) });
      decision.keep();
      await vi.advanceTimersByTimeAsync(1000);
    }
    expect(server).toMatchObject({ revision: 3, datum: high(6) });
    await decision.undo();
    expect(server).toMatchObject({ revision: 4, datum: high(2) });
    expect(decision.plan?.shims[0]?.gap.value_mm).toBe(7);
    await decision.undo();
    expect(server.datum).toEqual(high(0));
    expect(decision.canUndo).toBe(false);
  });

  it('turned back to what is kept is not sent again', async () => {
    const decision = await opened();
    decision.turn({ datum: high(2) });
    decision.turn({ datum: high(0) });
    decision.keep();
    await vi.advanceTimersByTimeAsync(1000);
    expect(calls.putDecisions).not.toHaveBeenCalled();
    expect(decision.turned).toBeNull();
  });

  it('is kept when the page is left before it has settled', async () => {
    const decision = await opened();
    decision.turn({ datum: high(2) });
    decision.keep();
    decision.leave();
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.datum).toEqual(high(2));
    expect(calls.putDecisions).toHaveBeenCalledTimes(1);
  });

  it('forgets its marks when they are seen', async () => {
    const decision = await opened();
    decision.turn({ datum: high(3) });
    await vi.advanceTimersByTimeAsync(0);
    decision.seen();
    expect(decision.before.get('A')).toBe(8);
  });
});
