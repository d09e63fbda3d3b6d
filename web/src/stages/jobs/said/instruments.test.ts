/** A job's instruments: what they are, what checks found of them, and the shelf that goes from job to job. */
import { unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { calls } from '../../../api/calls';
import { Refused } from '../../../api/client';
import type { Instrument } from '../../../api/types';
import { open } from '../../../state/job.svelte';
import { notices } from '../../../state/notices.svelte';
import { button, page, press, shown } from '../../../testing';
import Instruments from './Instruments.svelte';

const flipped = { check: 'flip', at: '2026-11-02T19:00:00Z', length_mm: 1200, first_mm: 4, turned_mm: 1 };
const level = {
  id: 'level',
  name: 'Spirit level',
  kind: 'level',
  sigma_mm: 0.5,
  checks: [flipped],
} as unknown as Instrument;
const tape = { id: 'tape', name: 'Tape', kind: 'tape', sigma_mm: 0.7, checks: [] } as unknown as Instrument;
let made: Record<string, unknown>;
const put = async (instruments: Instrument[], shelf: Instrument[] = []) => {
  vi.spyOn(calls, 'shelf').mockResolvedValue(shelf);
  vi.spyOn(calls, 'checkFindings').mockResolvedValue([
    { at: flipped.at, value: 1.25, sd: 0.3, unit: 'mm per m' },
  ] as never);
  made = shown(Instruments, { instruments });
  await vi.waitFor(() => expect(calls.shelf).toHaveBeenCalled());
};
const kept = vi.fn<typeof open.putInstruments>();

beforeEach(() => {
  notices.shown = [];
  kept.mockReset();
  vi.spyOn(open, 'putInstruments').mockImplementation(kept);
});
afterEach(async () => {
  await unmount(made);
  vi.restoreAllMocks();
});

describe('instruments', () => {
  it('tell what their last check found, with its unit, and only of those that were checked', async () => {
    await put([level, tape]);
    await vi.waitFor(() => expect(page()).toMatch(/\+1\.3 ± 0\.3 mm per m/));
    expect(vi.mocked(calls.checkFindings)).toHaveBeenCalledExactlyOnceWith(level);
  });

  it('go on the shelf, and say that they lie there', async () => {
    await put([tape]);
    vi.spyOn(calls, 'putOnShelf').mockResolvedValue([tape]);
    press('To my shelf: Tape');
    await vi.waitFor(() => expect(page()).toContain('on your shelf'));
    expect(calls.putOnShelf).toHaveBeenCalledExactlyOnceWith(tape);
  });

  it('come from the shelf into another job with their checks, and are offered once', async () => {
    await put([tape], [level, tape]);
    await vi.waitFor(() => expect(page()).toContain('From your shelf'));
    expect(() => button('Tape')).toThrow();
    press('Spirit level');
    expect(kept.mock.calls).toEqual([[[tape], [tape, level]]]);
  });

  it('that are on the shelf otherwise than here may be put there anew', async () => {
    await put([{ ...tape, sigma_mm: 0.4 }], [tape]);
    expect(button('To my shelf: Tape')).toBeTruthy();
  });

  it('are taken off the shelf, and a refusal is told', async () => {
    await put([], [tape]);
    await vi.waitFor(() => expect(page()).toContain('From your shelf'));
    vi.spyOn(calls, 'takeOffShelf').mockRejectedValue(
      new Refused(404, { code: 'not-there', message: 'It is gone already.' } as never),
    );
    press('✕ Take Tape off your shelf');
    await vi.waitFor(() => expect(notices.shown).toHaveLength(1));
    expect(JSON.stringify(notices.shown)).toContain('It is gone already.');
    expect(kept.mock.calls).toEqual([]);
  });

  it('are added, changed and removed one at a time', async () => {
    await put([tape, level]);
    press('Remove Tape');
    expect(kept.mock.calls.at(-1)).toEqual([[tape, level], [level]]);
    press('Add an instrument');
    const [before, after] = kept.mock.calls.at(-1) as [Instrument[], Instrument[]];
    expect(before).toHaveLength(2);
    expect(after.map((i) => i.id)).toEqual(['tape', 'level', 'tool-3']);
  });
});
