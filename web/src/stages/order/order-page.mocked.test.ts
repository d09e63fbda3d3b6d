/** The page of Order: drawn once it is known what fits tonight, and silent once it is left. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Refused } from '../../api/client';
import type { AskedTonight, Planned, PlannedStep, StoredJob } from '../../api/types';
import { open } from '../../state/job.svelte';
import { notices } from '../../state/notices.svelte';
import { waiting } from '../../state/waiting.svelte';
import { page, press, shown } from '../../testing';
import Order from './Order.svelte';

const calls = vi.hoisted(() => ({ job: vi.fn(), order: vi.fn(), tonight: vi.fn() }));
vi.mock('../../api/calls', () => ({ calls }));
vi.mock('../../state/store', async (actual) => ({
  ...(await actual<object>()),
  remembered: (_: string, ask: () => unknown) => ask(),
}));

const BUY = {
  step: {
    key: 'buy',
    name: 'Buy what is not at hand',
    kind: 'buy',
    place: '',
    parts: [],
    opens: [],
    why: '',
  },
  state: 'ready',
  minutes: 90,
  stretches: [{ start: '2026-11-28T09:00', end: '2026-11-28T10:30', session: 0 }],
} as unknown as PlannedStep;
const planned = (...steps: PlannedStep[]) =>
  ({ steps, sessions: [], findings: [], paces: [] }) as unknown as Planned;
const tonight = {
  steps: [BUY],
  tonight: { steps: ['buy'], begun: '', frees: [], stand_ins: [], findings: [] },
} as unknown as AskedTonight;
const refused = () =>
  new Refused(422, {
    code: 'session',
    message: 'Nobody works tonight.',
    mend: 'Say who does.',
    path: '$.people',
    revision: null,
    sides: [],
    theirs: null,
  });
const settled = async () => {
  for (let n = 0; n < 8; n += 1) await Promise.resolve();
  flushSync();
};
/** An answer that is given by hand. */
function later<T>() {
  let give!: (answer: T) => void, refuse!: (fault: Error) => void;
  const answer = new Promise<T>((yes, no) => ([give, refuse] = [yes, no]));
  return { answer, give, refuse };
}
let made: Record<string, unknown> | null;
const put = () => (made = shown(Order, { params: { job: 'j' } }));

beforeEach(() => {
  for (const call of Object.values(calls)) call.mockReset();
  const stored = {
    id: 'j',
    revision: 1,
    job: { name: 'Loft', units: 'mm', places: [{ id: 'north', name: 'North' }] },
  };
  open.stored = stored as unknown as StoredJob;
  calls.job.mockResolvedValue(stored);
  notices.shown = [];
  waiting.all = [];
});
afterEach(async () => {
  if (made) await unmount(made);
  open.stored = null;
  vi.restoreAllMocks();
});

it('is drawn once it is known what fits tonight: what is pressed stays where it is', async () => {
  const { answer, give } = later<AskedTonight>();
  calls.order.mockResolvedValue(planned(BUY));
  calls.tonight.mockReturnValue(answer);
  put();
  await vi.waitFor(() => expect(calls.tonight).toHaveBeenCalled());
  await settled();
  expect(document.querySelectorAll('main button')).toHaveLength(0);
  give(tonight);
  await vi.waitFor(() => expect(page()).toContain('Buy what is not at hand'));
});

it('is drawn without it where that is refused, and says why', async () => {
  calls.order.mockResolvedValue(planned(BUY));
  calls.tonight.mockRejectedValue(refused());
  put();
  await vi.waitFor(() => expect(page()).toContain('Buy what is not at hand'));
  expect(notices.shown[0]?.title).toBe('Nobody works tonight.');
});

it('asks for nothing more once it is left', async () => {
  const { answer, give } = later<Planned>();
  calls.order.mockReturnValue(answer);
  put();
  await vi.waitFor(() => expect(calls.order).toHaveBeenCalled());
  await unmount(made!);
  made = null;
  give(planned(BUY));
  await settled();
  expect(calls.tonight).not.toHaveBeenCalled();
});

it('says where a job has nothing to put in order, and where no session takes what is left', async () => {
  calls.order.mockResolvedValue(planned({ ...BUY, stretches: [] }));
  calls.tonight.mockResolvedValue(tonight);
  put();
  await vi.waitFor(() => expect(page()).toContain('Tonight'));
  press(/^The whole/);
  expect(page()).toContain('No session takes what is left');
  await unmount(made!);
  open.stored = { ...open.stored!, job: { ...open.stored!.job, places: [] } };
  calls.job.mockResolvedValue(open.stored);
  put();
  await vi.waitFor(() => expect(page()).toContain('Nothing to put in order yet'));
});
