/** Checking an instrument: what is read becomes a check, what the server finds is shown before it counts. */
import { unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { calls } from '../../../api/calls';
import { Refused } from '../../../api/client';
import type { Instrument } from '../../../api/types';
import { notices } from '../../../state/notices.svelte';
import { fill, labelled, page, press, shown } from '../../../testing';
import InstrumentCheck from './InstrumentCheck.svelte';

const told = { close: vi.fn(), kept: vi.fn<(i: Instrument) => void>() };
let made: Record<string, unknown>;
const put = (kind: string, unit: 'mm' | 'in' = 'mm', checks: object[] = []) => {
  const instrument = { id: 'i', name: 'Old one', kind, sigma_mm: 0.5, checks } as unknown as Instrument;
  made = shown(InstrumentCheck, { instrument, onclose: told.close, onkept: told.kept }, unit);
};
const finds = (value: number, sd: number, unit = 'mm') =>
  vi.spyOn(calls, 'checkFindings').mockResolvedValue([{ value, sd, unit }] as never);
const asked = () => vi.mocked(calls.checkFindings).mock.calls[0]![0].checks.at(-1)!;

beforeEach(() => {
  Object.values(told).forEach((t) => t.mockReset());
  notices.shown = [];
});
afterEach(async () => {
  await unmount(made);
  vi.restoreAllMocks();
});

describe('a check', () => {
  it.each([
    [
      'level',
      { '1. How much the far end': '2.0', '2. Turn it end for end': '-1' },
      { check: 'flip', length_mm: 1200, first_mm: 2, turned_mm: -1 },
    ],
    [
      'laser line',
      { '1. Height of the line': '1003', '2. Turn it half round': '1001' },
      { check: 'flip', length_mm: 5000, first_mm: 1003, turned_mm: 1001 },
    ],
    [
      'tape',
      { '1. By the hook': '600.5', 'and read there': '700' },
      { check: 'hook', hooked_mm: 600.5, mark_mm: 100, from_mark_mm: 700 },
    ],
    ['square', { 'The lines stand apart': '-0.8' }, { check: 'square', leg_mm: 400, apart_mm: -0.8 }],
  ])('of a %s is worked out from what is read', async (kind, typed, check) => {
    finds(0.4, 0.1);
    put(kind);
    for (const [label, text] of Object.entries(typed)) fill(label, text);
    press('Work it out');
    await vi.waitFor(() => expect(page()).toContain('It reads 0.4 ± 0.1 mm too'));
    expect(asked()).toMatchObject(check);
  });

  it('begins in inches with round ones', () => {
    put('level', 'in');
    expect(labelled<HTMLInputElement>('Length of the level').value).toBe('48"');
  });

  it('says which reading is missing, and asks for nothing until then', () => {
    finds(0.4, 0.1);
    put('tape');
    fill('1. By the hook', '600.5');
    press('Work it out');
    expect(page()).toContain('“and read there” is not a length yet.');
    expect(calls.checkFindings).not.toHaveBeenCalled();
  });

  it('counts only once it was looked at, beside the checks before', async () => {
    const before = {
      check: 'hook',
      at: '2026-01-01T00:00:00Z',
      hooked_mm: 500,
      mark_mm: 100,
      from_mark_mm: 600,
    };
    finds(0.4, 0.1);
    put('tape', 'mm', [before]);
    fill('1. By the hook', '600.5');
    fill('and read there', '700');
    press('Work it out');
    await vi.waitFor(() => expect(page()).toContain('too long. That is taken off all that is read with it'));
    expect(told.kept).not.toHaveBeenCalled();
    press('Count it from now on');
    await vi.waitFor(() => expect(told.kept).toHaveBeenCalledOnce());
    const { checks } = told.kept.mock.calls[0]![0];
    expect(checks).toHaveLength(2);
    expect(checks[0]).toEqual(before);
  });

  it('that finds no more than it can tell says that the instrument is sound', async () => {
    finds(-0.15, 0.1);
    put('square');
    fill('The lines stand apart', '0.2');
    press('Work it out');
    await vi.waitFor(() => expect(page()).toContain('too little'));
    expect(page()).toContain('the instrument is sound');
    press('Throw it away');
    expect(told.close).toHaveBeenCalledOnce();
    expect(told.kept).not.toHaveBeenCalled();
  });

  it('that is refused keeps what was typed, and says why', async () => {
    const fault = {
      code: 'value',
      message: 'A level is not 4 m long.',
      mend: 'Look at its length.',
      path: '$',
    };
    vi.spyOn(calls, 'checkFindings').mockRejectedValue(
      new Refused(422, { ...fault, revision: null, sides: [], theirs: null }),
    );
    put('level');
    fill('Length of the level', '4000');
    fill('1. How much the far end', '1');
    fill('2. Turn it end for end', '1');
    press('Work it out');
    await vi.waitFor(() => expect(notices.shown[0]?.title).toBe('A level is not 4 m long.'));
    expect(labelled<HTMLInputElement>('Length of the level').value).toBe('4000');
  });
});
