/** What are you building? Asked once all that can be chosen is here, and set out from the answers. */
import { unmount } from 'svelte';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Refused } from '../../../api/client';
import type { StarterTold, StoredJob } from '../../../api/types';
import { router } from '../../../router.svelte';
import { open } from '../../../state/job.svelte';
import { notices } from '../../../state/notices.svelte';
import { button, fill, page, press, shown } from '../../../testing';
import Begin from './Begin.svelte';

const calls = vi.hoisted(() => ({ starters: vi.fn(), begin: vi.fn() }));
vi.mock('../../../api/calls', () => ({ calls }));
vi.mock('../../../state/store', async (actual) => ({
  ...(await actual<object>()),
  remembered: (_: string, ask: () => unknown) => ask(),
}));

const BENCH = {
  id: 'bench',
  name: 'A bench',
  words: 'A worktop on two cabinets.',
  walls: ['back'],
  wide_mm: 1800,
  high_mm: 2400,
  sketch: [],
  questions: [
    { id: 'long', words: 'How long is it?', kind: 'length', usual_mm: 1800, usual_in: 72, least_mm: 300 },
    { id: 'top', words: 'What is the top of?', kind: 'choice', options: ['beech', 'plywood'] },
  ],
} as unknown as StarterTold;
const refused = () =>
  new Refused(422, {
    code: 'starter',
    message: 'There is no such starter.',
    mend: 'Choose another.',
    path: '$.starter',
    revision: null,
    sides: [],
    theirs: null,
  });
let made: Record<string, unknown>;

beforeEach(() => {
  for (const call of Object.values(calls)) call.mockReset();
  vi.spyOn(open, 'load').mockResolvedValue();
  open.stored = {
    id: 'j',
    revision: 1,
    job: { name: 'Loft', units: 'mm', places: [] },
  } as unknown as StoredJob;
  notices.shown = [];
});
afterEach(async () => {
  await unmount(made);
  open.stored = null;
  vi.restoreAllMocks();
});

it('offers nothing before all is there: what is pressed would move from under the finger', async () => {
  let here!: (found: StarterTold[]) => void;
  calls.starters.mockReturnValue(new Promise((done) => (here = done)));
  made = shown(Begin, { params: { job: 'j' } });
  await vi.waitFor(() => expect(calls.starters).toHaveBeenCalledExactlyOnceWith('mm'));
  expect(document.querySelectorAll('main a, main button')).toHaveLength(0);
  here([BENCH]);
  await vi.waitFor(() => expect(page()).toContain('A bench'));
  expect(document.querySelector('main a')?.textContent).toContain('An empty place');
});

it('leaves the empty place where the others cannot be had', async () => {
  calls.starters.mockRejectedValue(refused());
  made = shown(Begin, { params: { job: 'j' } });
  await vi.waitFor(() => expect(page()).toContain('An empty place'));
  expect(notices.shown[0]?.title).toBe('There is no such starter.');
});

it('sends the answers that were given, and goes to what was set out', async () => {
  calls.starters.mockResolvedValue([BENCH]);
  calls.begin.mockResolvedValue({});
  const go = vi.spyOn(router, 'go').mockReturnValue();
  made = shown(Begin, { params: { job: 'j' } });
  await vi.waitFor(() => expect(page()).toContain('A bench'));
  press(/^A bench/);
  fill('How long is it?, mm', '1650');
  fill('Where is it?', 'Under the window');
  press('Set it out');
  await vi.waitFor(() => expect(go).toHaveBeenCalledExactlyOnceWith('/jobs/j/under-the-window/setout'));
  expect(calls.begin).toHaveBeenCalledExactlyOnceWith('j', {
    starter: 'bench',
    id: 'under-the-window',
    name: 'Under the window',
    answers: { long: 1650 },
  });
});

it('keeps what was answered when it is refused', async () => {
  calls.starters.mockResolvedValue([BENCH]);
  calls.begin.mockRejectedValue(refused());
  made = shown(Begin, { params: { job: 'j' } });
  await vi.waitFor(() => expect(page()).toContain('A bench'));
  press(/^A bench/);
  fill('Where is it?', 'Attic');
  press('Set it out');
  await vi.waitFor(() => expect(notices.shown[0]?.title).toBe('There is no such starter.'));
  expect(button('Set it out').disabled).toBe(false);
  expect((document.querySelector('input') as HTMLInputElement).value).toBe('Attic');
});

it('brings nobody back who went on while it was set out', async () => {
  let give!: (made: object) => void;
  calls.starters.mockResolvedValue([BENCH]);
  calls.begin.mockReturnValue(new Promise((done) => (give = done)));
  const go = vi.spyOn(router, 'go').mockReturnValue();
  made = shown(Begin, { params: { job: 'j' } });
  await vi.waitFor(() => expect(page()).toContain('A bench'));
  press(/^A bench/);
  press('Set it out');
  await unmount(made);
  give({});
  await new Promise((done) => setTimeout(done));
  expect(go).not.toHaveBeenCalled();
  made = shown(Begin, { params: { job: 'j' } });
});
