/** The page of Make: what is looked for longer never hides what was cut meanwhile. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Made, StoredJob } from '../../api/types';
import { open } from '../../state/job.svelte';
import { notices } from '../../state/notices.svelte';
import { waiting } from '../../state/waiting.svelte';
import { button, page, press, shown } from '../../testing';
import Make from './Make.svelte';

const calls = vi.hoisted(() => ({ job: vi.fn(), make: vi.fn(), searchLonger: vi.fn() }));
vi.mock('../../api/calls', () => ({ calls }));
vi.mock('../../state/store', async (actual) => ({
  ...(await actual<object>()),
  remembered: (_: string, ask: () => unknown) => ask(),
}));

const made = (why: string) =>
  ({
    parts: [],
    layout: {
      groups: [{ used: 3, least: 1 }],
      lengths: [],
      missing: [],
      price: 0,
      sawn_m: 0,
      settings: 0,
      sheets: [],
    },
    settings: [],
    buying: { list: [], baskets: [], lines: [] },
    finish: { coats: [], steps: [], products: [] },
    findings: [{ code: 'told', severity: 'mind', title: why, text: '', about: [] }],
  }) as unknown as Made;
const stored = (revision: number) =>
  ({
    id: 'j',
    revision,
    job: { name: 'Loft', units: 'mm', places: [{ id: 'north', name: 'North', units: [] }], workshop: {} },
  }) as unknown as StoredJob;
let shownPage: Record<string, unknown> | null;
const put = () => (shownPage = shown(Make, { params: { job: 'j' } }));
const settled = async () => {
  await new Promise((done) => setTimeout(done));
  flushSync();
};

beforeEach(() => {
  for (const call of Object.values(calls)) call.mockReset();
  open.stored = stored(1);
  calls.job.mockImplementation(() => Promise.resolve(open.stored));
  notices.shown = [];
  waiting.all = [];
});
afterEach(async () => {
  if (shownPage) await unmount(shownPage);
  open.stored = null;
});

describe('the page of Make', () => {
  it('says where there is nothing to make yet, and where to go', async () => {
    calls.make.mockResolvedValue(made('nothing'));
    put();
    await vi.waitFor(() => expect(page()).toContain('Nothing is made by you yet.'));
    expect(document.querySelector('.empty a')?.getAttribute('href')).toBe('/jobs/j/north/setout');
  });

  it('is worked out anew with each change, and shows the newest', async () => {
    const give: ((found: Made) => void)[] = [];
    calls.make.mockImplementation(() => new Promise((done) => give.push(done)));
    put();
    await vi.waitFor(() => expect(give).toHaveLength(1));
    open.stored = stored(2);
    await settled();
    give[0]!(made('at first'));
    await settled();
    open.stored = stored(3);
    await settled();
    give.at(-1)!(made('at last'));
    await vi.waitFor(() => expect(page()).toContain('at last'));
    expect(page()).not.toContain('at first');
  });
});

describe('looking for a better layout', () => {
  const looking = async () => {
    const give: ((found: Made) => void)[] = [];
    calls.make.mockResolvedValue(made('as it was'));
    calls.searchLonger.mockImplementation(() => new Promise((done) => give.push(done)));
    put();
    await vi.waitFor(() => expect(page()).toContain('as it was'));
    press(/^Sheets/);
    press(/^(Look|Search)/);
    await vi.waitFor(() => expect(give).toHaveLength(1));
    return give;
  };

  it('shows what is found', async () => {
    const give = await looking();
    give[0]!(made('a better one'));
    await vi.waitFor(() => expect(page()).toContain('a better one'));
  });

  it('does not bring back what was cut while it was looked for', async () => {
    const give = await looking();
    calls.make.mockResolvedValue(made('one cut'));
    open.stored = stored(2);
    await vi.waitFor(() => expect(page()).toContain('one cut'));
    give[0]!(made('a better one, of before'));
    await settled();
    expect(page()).toContain('one cut');
    expect(page()).not.toContain('of before');
    await vi.waitFor(() => expect(give, 'and goes on from there').toHaveLength(2));
    give[1]!(made('better with it'));
    await vi.waitFor(() => expect(page()).toContain('better with it'));
  });

  it('is stopped by who pressed for it, and by who leaves', async () => {
    const give = await looking();
    press(/^Stop/);
    give[0]!(made('the last'));
    await vi.waitFor(() => expect(page()).toContain('the last'));
    await settled();
    expect(give).toHaveLength(1);
    expect(button(/^(Look|Search)/).disabled).toBe(false);
  });
});
