/** Readings that are not taken from a line, as they are typed: each kind becomes its own fact, or says what is missing. */
import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { calls } from '../../../api/calls';
import type { Instrument, Place, Reading, SurfaceName } from '../../../api/types';
import { choose, fill, labelled, options, page, press, shown } from '../../../testing';
import OtherReading from './OtherReading.svelte';

const ALL: SurfaceName[] = ['floor', 'back', 'left', 'right', 'ceiling'];
const instruments = [
  { id: 'level', name: 'Spirit level', kind: 'level' },
  { id: 'tape', name: 'Tape', kind: 'tape' },
] as unknown as Instrument[];
const told = { reading: vi.fn<(r: Reading) => void>(), close: vi.fn() };
let made: Record<string, unknown>;

function put(
  part: {
    surfaces?: SurfaceName[];
    set_ups?: object[];
    unit?: 'mm' | 'in';
    at?: [number, number] | null;
  } = {},
) {
  const place = {
    id: 'north',
    surfaces: part.surfaces ?? ALL,
    set_ups: part.set_ups ?? [],
  } as unknown as Place;
  const at = part.at === undefined ? ([700, 100] as [number, number]) : part.at;
  made = shown(
    OtherReading,
    {
      place,
      job: 'j',
      instruments,
      instrument: 'tape',
      by: 'Ines',
      from: at && { surface: 'floor', at },
      onclose: told.close,
      onreading: told.reading,
      onphone: () => Promise.resolve('phone'),
    },
    part.unit,
  );
}
/** The reading that was recorded, without its name and its time. */
function recorded() {
  expect(told.reading).toHaveBeenCalledOnce();
  expect(told.close).toHaveBeenCalledOnce();
  const { id, taken_at, supersedes, aside, note, ...rest } = told.reading.mock.calls[0]![0];
  expect([typeof id, new Date(taken_at).getFullYear() > 2000]).toEqual(['string', true]);
  expect([supersedes, aside, note]).toEqual([null, null, '']);
  return rest;
}
function refused(words: string) {
  press('Record');
  expect(page()).toContain(words);
  expect(told.reading).not.toHaveBeenCalled();
  expect(told.close).not.toHaveBeenCalled();
}

beforeEach(() => Object.values(told).forEach((t) => t.mockReset()));
afterEach(() => unmount(made));

describe('what can be measured', () => {
  it('follows from the surfaces that a place has', () => {
    put();
    expect(options('What you measure')).toEqual([
      'slope',
      'gap',
      'corner',
      'left-right',
      'floor-ceiling',
      'profile',
      'scan',
    ]);
    put({ surfaces: ['floor', 'back', 'left'] });
    expect(options('What you measure')).toEqual(['slope', 'gap', 'corner', 'profile', 'scan']);
    choose('What you measure', 'corner');
    expect(options('Corner')).toEqual(['back-left']);
    put({ surfaces: ['floor'] });
    expect(options('What you measure')).toEqual(['slope', 'gap', 'profile', 'scan']);
  });
});

describe('a level between two spots', () => {
  it('begins where one stands, and is told by its length, its slope or degrees', () => {
    put();
    fill('To: along', '1900');
    fill('To: out', '100');
    fill('Rises by', '-2,5');
    choose('With', 'level');
    press('Record');
    expect(recorded()).toEqual({
      fact: 'slope',
      surface: 'floor',
      start: [700, 100],
      end: [1900, 100],
      value: -2.5,
      unit: 'mm',
      turned: false,
      instrument: 'level',
      taken_by: 'Ines',
      entered: '-2,5',
    });
  });

  it('is turned end for end for a pair, which finds its bias', () => {
    put();
    fill('To: along', '1900');
    fill('To: out', '100');
    fill('Rises by', '1.2');
    labelled<HTMLInputElement>(/turned end for end/).click();
    press('Record');
    expect(recorded()).toMatchObject({ turned: true, value: 1.2, start: [700, 100] });
  });

  it('takes degrees as they are, in inches too', () => {
    put({ unit: 'in' });
    fill('To: along', '74 3/4');
    fill('To: out', '4');
    choose('As', 'deg');
    fill('Rises by', '0.35');
    press('Record');
    const reading = recorded() as { end: number[]; value: number; unit: string };
    expect(reading.end[0]).toBeCloseTo(74.75 * 25.4, 6);
    expect([reading.value, reading.unit]).toEqual([0.35, 'deg']);
  });

  it('says what is missing, and what is no reading', () => {
    put();
    refused('“To: along” is empty.');
    fill('To: along', '1900');
    fill('To: out', '100');
    refused('“” is not a reading.');
    fill('Rises by', 'two');
    refused('“two” is not a reading.');
  });
});

describe('a gap under a straightedge', () => {
  beforeEach(() => {
    put({ at: null });
    choose('What you measure', 'gap');
    const spots = { 'Touches at': [0, 300], 'And at': [1800, 300], 'Gap at': [900, 300] };
    for (const [name, [along, out]] of Object.entries(spots)) {
      fill(`${name}: along`, String(along));
      fill(`${name}: out`, String(out));
    }
  });

  it('is told by the three spots', () => {
    fill('Gap under the straightedge', '4.2');
    press('Record');
    expect(recorded()).toMatchObject({
      fact: 'gap',
      start: [0, 300],
      end: [1800, 300],
      at: [900, 300],
      value_mm: 4.2,
      instrument: 'tape',
    });
  });

  it('is not below nothing', () => {
    fill('Gap under the straightedge', '-1');
    refused('A gap is not below nothing');
  });
});

describe('a corner', () => {
  it.each([
    ['diagonal', 'Leg out', '800', 'Diagonal', '1000', 1000],
    ['square', 'Length of the square, out', '600', 'Gap at the tip', '-3', -3],
  ])('is told by its %s', (how, leg, out, label, text, value) => {
    put({ at: null });
    choose('What you measure', 'corner');
    choose('Corner', 'back-right');
    choose('By', how);
    fill('Height', '900');
    fill('Leg along the back', '600');
    fill(leg, out);
    fill(label, text);
    press('Record');
    expect(recorded()).toMatchObject({
      fact: 'corner',
      corner: 'back-right',
      height_mm: 900,
      along_mm: 600,
      out_mm: Number(out),
      how,
      value_mm: value,
    });
  });
});

describe('a distance across', () => {
  it.each([
    ['left-right', ['Out', 'Up'], [300, 900]],
    ['floor-ceiling', ['Along', 'Out'], [1200, 300]],
  ] as const)('%s is told where it was taken, and is more than nothing', (kind, words, at) => {
    put({ at: null });
    choose('What you measure', kind);
    words.forEach((word, i) => fill(word, String(at[i])));
    fill('Distance', '0');
    refused('A distance across is more than nothing.');
    fill('Distance', '2398.5');
    press('Record');
    expect(recorded()).toMatchObject({ fact: 'span', between: kind, at: [...at], value_mm: 2398.5 });
  });
});

describe('a profile from a stick', () => {
  const lines = [{ id: 'stick', name: 'Stick', across: 'y' }];
  const back = () => {
    choose('What you measure', 'profile');
    choose('On the', 'back');
  };

  it('is a height and a distance on every line, however they are parted', () => {
    put({ set_ups: lines });
    back();
    fill('Along', '1500');
    fill('Heights and distances', '0; 612\n450\t611,5\n\n900  609');
    press('Record');
    expect(recorded()).toMatchObject({
      fact: 'profile',
      surface: 'back',
      set_up: 'stick',
      along_mm: 1500,
      points: [
        [0, 612],
        [450, 611.5],
        [900, 609],
      ],
    });
  });

  it('says in which line something else stands, empty ones counted', () => {
    put({ set_ups: lines });
    back();
    fill('Along', '1500');
    refused('Type a height and a distance on each line');
    fill('Heights and distances', '0; 612\n\n450; about 600');
    refused('Line 3 is not a height and a distance');
  });

  it('wants a line that it is read from', () => {
    put();
    back();
    fill('Along', '1500');
    fill('Heights and distances', '0; 612');
    refused('Set a line for this surface first.');
  });
});

describe('a scan', () => {
  const choosing = async (file: File) => {
    const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
    Object.defineProperty(input, 'files', { value: [file], configurable: true });
    input.dispatchEvent(new Event('change', { bubbles: true }));
    await Promise.resolve();
    flushSync();
  };

  it('is thinned by the server, and recorded with how far its axes may be out', async () => {
    const thin = vi.spyOn(calls, 'thinScan').mockResolvedValue({
      points: [
        [100, 100, 2],
        [400, 100, 3],
      ],
      n_read: 2400,
      n_outside: 12,
    } as never);
    put({ set_ups: [{ id: 'line', name: 'Line', across: 'z' }] });
    choose('What you measure', 'scan');
    refused('Choose a file of points.');
    await choosing(new File(['1 2 3'], 'floor.xyz'));
    await vi.waitFor(() => expect(page()).toContain('2400 points read, 12 outside the floor; 2 kept'));
    expect(thin.mock.calls[0]!.slice(0, 3)).toEqual(['j', 'north', 'floor']);
    press('Record');
    expect(recorded()).toMatchObject({
      fact: 'scan',
      set_up: 'line',
      points: [
        [100, 100, 2],
        [400, 100, 3],
      ],
      n_read: 2400,
      tilt_mm_per_m: 3,
    });
  });
});
