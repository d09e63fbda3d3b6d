/** What units rest on and are screwed through: as thick and long as the screws are that were found to hold. */
import { unmount } from 'svelte';
import { afterEach, describe, expect, it } from 'vitest';
import type { PlaceHold } from '../../../api/types';
import { page, shown } from '../../../testing';
import OverheadPane from './OverheadPane.svelte';
import Rests from './Rests.svelte';

const NONE = {
  ledgers: [],
  held: [],
  cleats: [],
  joined: [],
  underfoot: [],
  sides: [],
  nailing: { nailers: [], loose: [], unknown: [] },
  fasteners: [],
  overhead: [],
} as unknown as PlaceHold;
const side = {
  unit: 'H',
  wall: 'ceiling',
  gap: { value_mm: 10.04, sd_mm: 0.61, working: [] },
  load_n: 294.3,
  fasteners: ['a', 'b', 'c', 'd'],
  use: 0.163,
  enough: true,
  instead: '',
};
const ledger = {
  id: 'ledger-A',
  units: ['A', 'B'],
  top_mm: 1400.2,
  under_line_mm: -400,
  start_mm: 100,
  end_mm: 1300,
  thick_mm: 38,
  places: [200, 600],
  screw_mm: 70,
  shank_mm: 4.5,
  each_n: 400,
  carries_n: 1600.9,
  use: 0.402,
};
const fixed = {
  unit: 'P',
  fasteners: ['x', 'y'],
  screw_mm: 60,
  shank_mm: 5,
  use: 0.2,
  enough: true,
  instead: '',
};
let made: Record<string, unknown>;
afterEach(() => unmount(made));
const tell = (hold: object, unit: 'mm' | 'in' = 'mm', pane: typeof Rests = Rests) => {
  made = shown(pane, { hold: { ...NONE, ...hold }, name: (id) => `Unit ${id}` }, unit);
};

describe('what units rest on', () => {
  it('says so where they rest on nothing', () => {
    tell({});
    expect(page()).not.toBe('');
    expect(document.querySelector('table')).toBeNull();
  });

  it('has boxes hung under a ceiling beside those screwed through their sides, load and use rounded up', () => {
    tell({ sides: [side, { ...side, wall: 'left', unit: 'C', enough: false, instead: 'Find the studs.' }] });
    const rows = [...document.querySelectorAll('tbody tr')].map((row) =>
      [...row.children].map((cell) => cell.textContent.trim()).join(' | '),
    );
    expect(rows).toEqual([
      'Unit H | ceiling | 10.0 ± 0.7 | 295 N | 4 | 17 % | ',
      'Unit C | left | 10.0 ± 0.7 | 295 N | 4 | 17 % | Find the studs.',
    ]);
  });

  it('names the screws that there are, thinner ones where the wood is thin', () => {
    tell({ ledgers: [ledger], underfoot: [fixed] });
    expect(page()).toContain('Ledger under Unit A, Unit B');
    expect(page()).toContain('to 4.5 × 70, at each of 2 places carry 1600 N');
    expect(page()).toContain('41 %');
    expect(page()).toContain('400.0 over the level line');
    expect(page()).toContain('2, to 5 × 60');
  });

  it('says lengths in inches where inches are asked for', () => {
    tell({ ledgers: [ledger], sides: [side] }, 'in');
    expect(page()).toContain('2 3/4');
    expect(page()).not.toContain('1400.2');
  });
});

describe('a member that bridges two joists', () => {
  const hanger = (bridge: object) => ({
    corner: 'back left',
    at: [100, 60],
    how: 'bridging member',
    load_n: 147.2,
    lean_deg: 0,
    chain_n: 147.2,
    chain_mm: 300,
    bolt_mm: 89,
    bites: 0.99,
    use: 0.3,
    enough: true,
    instead: '',
    bridge: { long_mm: 920, wide_mm: 38, high_mm: 89, joists: [900, 1700], use: 0.3, screws: 2, ...bridge },
  });
  const over = (bridge: object) => ({
    overhead: [
      {
        unit: 'R',
        runs: 'out',
        runs_sure: 0.99,
        weight_kg: 30,
        hangers: [hanger(bridge)],
        enough: true,
        caution: '',
      },
    ],
  });

  it('has the screws that hold it, and none named where none can be driven', () => {
    tell(over({ screw_mm: 160, shank_mm: 8 }), 'mm', OverheadPane);
    expect(page()).toContain('2 screws of 8 × 160 at each end');
    void unmount(made);
    tell(over({ screw_mm: 0, shank_mm: 0 }), 'mm', OverheadPane);
    expect(page()).toContain('2 screws at each end');
  });
});
