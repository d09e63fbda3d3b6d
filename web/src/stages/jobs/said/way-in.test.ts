/** The way in, and where surfaces step: lists that are added to, changed in one entry and taken from. */
import { unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Passage, StoredJob, WallStep } from '../../../api/types';
import { open } from '../../../state/job.svelte';
import { choose, fill, labelled, options, page, press, shown } from '../../../testing';
import Steps from '../place/Steps.svelte';
import WayIn from './WayIn.svelte';

let made: Record<string, unknown>;
const inUnits = (units: 'mm' | 'in') =>
  (open.stored = { id: 'j', revision: 1, job: { name: 'Loft', units, places: [] } } as unknown as StoredJob);
afterEach(async () => {
  await unmount(made);
  open.stored = null;
  vi.restoreAllMocks();
});

describe('the way in', () => {
  const DOOR: Passage = { way: 'doorway', name: 'Door', width_mm: 760, height_mm: 1980 };
  const STAIR: Passage = { way: 'stair', name: 'Stair', width_mm: 800, headroom_mm: 2000, slope_deg: 40 };
  let sent: readonly Passage[][];
  beforeEach(() => {
    sent = [];
    inUnits('mm');
    vi.spyOn(open, 'edit').mockImplementation((_target, _send, _was, now) => {
      sent = [...sent, [...(now as { way_in: Passage[] }).way_in]];
      return Promise.resolve(true);
    });
  });

  it('says what it is for while nothing is said', () => {
    made = shown(WayIn, { way: [] });
    expect(page()).toContain('Say what each unit must pass between the street and its place');
    press('A stair');
    expect(sent).toEqual([[STAIR]]);
  });

  it('begins in inches with round ones', () => {
    inUnits('in');
    made = shown(WayIn, { way: [] }, 'in');
    press('A doorway');
    const door = sent[0]![0] as typeof DOOR & { width_mm: number; height_mm: number };
    expect([door.width_mm / 25.4, door.height_mm / 25.4]).toEqual([30, 78]);
  });

  it('asks of each kind what it has, and changes one entry alone', () => {
    made = shown(WayIn, { way: [DOOR, STAIR] });
    const labels = [...document.querySelectorAll('label')].map((l) => l.textContent.trim());
    expect(labels).toEqual([
      'Called',
      'clear width, mm',
      'clear height, mm',
      'Called',
      'clear width, mm',
      'headroom, upright, mm',
      'Slope, degrees',
    ]);
    fill('headroom', '1950');
    fill('Slope', '42');
    expect(sent).toEqual([
      [DOOR, { ...STAIR, headroom_mm: 1950 }],
      [DOOR, { ...STAIR, slope_deg: 42 }],
    ]);
  });

  it('keeps a size of nothing and a stair steeper than a ladder to itself', () => {
    made = shown(WayIn, { way: [DOOR, STAIR] });
    fill('clear width', '0');
    fill('Slope', '75');
    expect(sent).toEqual([]);
    expect(page()).toContain('60');
    expect(labelled<HTMLInputElement>('Slope').value).toBe('75');
  });

  it('takes out the one that is meant, of two that are called alike', () => {
    made = shown(WayIn, { way: [DOOR, { ...DOOR, width_mm: 700 }] });
    document.querySelectorAll<HTMLButtonElement>('button.link')[1]!.click();
    expect(sent).toEqual([[DOOR]]);
  });
});

describe('where a surface steps', () => {
  const BREAST = {
    id: 'step-1',
    name: 'Chimney breast',
    surface: 'back',
    from_mm: 800,
    to_mm: 1600,
    by_mm: 120,
    sigma_mm: 3,
    axis: 'first',
    at_sigma_mm: 3,
  } as WallStep;
  const changed = vi.fn<(steps: WallStep[]) => void>();
  const put = (steps: WallStep[], units: 'mm' | 'in' = 'mm') => {
    changed.mockClear();
    inUnits(units);
    made = shown(Steps, { steps, surfaces: ['floor', 'back'], onchange: changed }, units);
  };

  it('is added with a name of its own, in round figures', () => {
    put([BREAST], 'in');
    press(/^Add/);
    const [first, second] = changed.mock.calls[0]![0];
    expect(first).toEqual(BREAST);
    expect(second!.id).not.toBe(BREAST.id);
    expect(second!.to_mm / 25.4).toBeCloseTo(60, 6);
  });

  it('is told along either axis of its surface, by the words of that surface', () => {
    put([{ ...BREAST, surface: 'floor' }]);
    expect(options('Told')).toEqual(['first', 'second']);
    expect([...labelled<HTMLSelectElement>('Told').options].map((o) => o.text)).toEqual(['along', 'out']);
    choose('Told', 'second');
    choose('On the', 'back');
    fill('Nearer to the room by', '-40');
    expect(changed.mock.calls.map(([steps]) => steps[0])).toEqual([
      { ...BREAST, surface: 'floor', axis: 'second' },
      { ...BREAST, surface: 'back' },
      { ...BREAST, surface: 'floor', by_mm: -40 },
    ]);
  });

  it('is never left without a name', () => {
    put([BREAST]);
    fill('What', '');
    expect(changed).toHaveBeenLastCalledWith([BREAST]);
  });
});
