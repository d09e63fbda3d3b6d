/** What is said once for a job: ways of building, the shim kit. Each field writes itself alone. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Construction, ShimKit } from '../../../api/types';
import { open } from '../../../state/job.svelte';
import { choose, fill, page, press, shown } from '../../../testing';
import Kit from './Kit.svelte';
import Ways from './Ways.svelte';

const WAY = { id: 'way-1', name: 'Plain', board_mm: 18, handle_apart_mm: null } as unknown as Construction;
let put: unknown[];
beforeEach(() => {
  put = [];
  vi.restoreAllMocks();
  vi.spyOn(open, 'putWays').mockImplementation((_, now) => {
    put.push(now);
    return Promise.resolve(true);
  });
  vi.spyOn(open, 'putKit').mockImplementation((_, now) => {
    put.push(now);
    return Promise.resolve(true);
  });
});

describe('a way of building', () => {
  it('writes the field that was changed and leaves the others', () => {
    shown(Ways, { ways: [WAY, { ...WAY, id: 'way-2' }] });
    fill('Boards, as measured', '17.6');
    fill('Pin holes apart', '25');
    choose('Joined by', 'dowels');
    expect(put).toEqual([
      [
        { ...WAY, board_mm: 17.6 },
        { ...WAY, id: 'way-2' },
      ],
      [
        { ...WAY, pin_pitch_mm: 25 },
        { ...WAY, id: 'way-2' },
      ],
      [
        { ...WAY, joined: 'dowels' },
        { ...WAY, id: 'way-2' },
      ],
    ]);
  });

  it('asks how far a handle’s holes are apart only where there are two', () => {
    shown(Ways, { ways: [WAY] });
    expect(page()).not.toContain('Its holes apart');
    choose('Doors are opened by', 'handle');
    expect(put).toEqual([[{ ...WAY, handle_apart_mm: 128 }]]);
    shown(Ways, { ways: [{ ...WAY, handle_apart_mm: 128 }] });
    fill('Its holes apart', '160');
    expect(put.at(-1)).toEqual([{ ...WAY, handle_apart_mm: 160 }]);
    choose('Doors are opened by', 'knob');
    expect(put.at(-1)).toEqual([{ ...WAY, handle_apart_mm: 0 }]);
    shown(Ways, { ways: [{ ...WAY, handle_apart_mm: 0 }] });
    expect(page()).not.toContain('Its holes apart');
    expect(page()).toContain('In from the edges');
    choose('Doors are opened by', 'none');
    expect(put.at(-1)).toEqual([{ ...WAY, handle_apart_mm: null }]);
  });

  it('is refused where a length is none, and stays as it was', () => {
    shown(Ways, { ways: [WAY] });
    fill('Pin holes apart', 'wide');
    fill('Boards, as measured', '0');
    expect(put).toEqual([]);
    expect(page()).toContain('“wide” is not a length');
    expect(page()).toContain('Not below');
  });

  it('is added under a name of its own and taken away by it', () => {
    shown(Ways, { ways: [WAY] });
    press('Add a way of building');
    expect((put[0] as Construction[]).map((w) => w.id)).toEqual(['way-1', 'way-2']);
    press('Remove Plain');
    expect(put[1]).toEqual([]);
  });
});

describe('the shim kit', () => {
  const kit = {
    pieces: [
      { thickness_mm: 1, count: 10 },
      { thickness_mm: 5, count: null },
    ],
    tapers: [],
    tolerance_mm: 0.5,
  } as unknown as ShimKit;

  it('counts shims, where an empty field stands for plenty', () => {
    shown(Kit, { kit });
    fill('How many of shim 2', '4');
    expect(put).toEqual([
      {
        ...kit,
        pieces: [
          { thickness_mm: 1, count: 10 },
          { thickness_mm: 5, count: 4 },
        ],
      },
    ]);
    fill('How many of shim 1', '');
    expect((put[1] as ShimKit).pieces[0]).toEqual({ thickness_mm: 1, count: null });
  });

  it('does not take a slip of the finger for plenty', () => {
    shown(Kit, { kit });
    fill('How many of shim 1', '1o');
    fill('How many of shim 2', '2.5');
    expect(put).toEqual([]);
    expect(page()).toContain('“1o” is not a number');
    expect(page()).toContain('A whole number.');
  });
});
