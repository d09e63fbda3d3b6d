import { flushSync, unmount, type ComponentProps } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Advice, Check, Proposal } from '../../api/types';
import { button, page, press, shown } from '../../testing';
import BeforeAfter from './BeforeAfter.svelte';
import CheckPane from './CheckPane.svelte';
import OtherwisePane from './OtherwisePane.svelte';

let made: Record<string, unknown>[] = [];
beforeEach(() => (made = []));
afterEach(() => Promise.all(made.map((m) => unmount(m))));

const LEVEL = {
  key: 'level-along/p/A',
  kind: 'level-along',
  name: 'A: level along',
  how: 'The level along its top',
  place: 'p',
  of: 'A',
  at: [0, 0],
  over_mm: 800,
  expected_mm: 0,
  tolerance_mm: 0.7,
  only: 'both',
  step: 'set/p/A',
  why: 'whatever stands on it takes it over',
  readings: [],
  state: 'open',
  stands: null,
} as unknown as Check;

function type(text: string) {
  const field = document.querySelector('input[data-pad]') as HTMLInputElement;
  field.value = text;
  field.dispatchEvent(new Event('input', { bubbles: true }));
  field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
  flushSync();
}

describe('a check in hand', () => {
  const onread = vi.fn();
  const put = (check: Check, advice?: Advice) => {
    onread.mockClear();
    made.push(shown(CheckPane, { check, advice, onread, onnext: null, onclose: vi.fn() }));
  };

  it('takes what the level says, over its length, by the metre and in degrees', () => {
    put(LEVEL);
    type('1.6');
    press('mm/m');
    type('2');
    press('°');
    type('0.1');
    const said = onread.mock.calls.map((c) => (c[0] as { mm: number }).mm);
    expect(said[0]).toBeCloseTo(1.6);
    expect(said[1]).toBeCloseTo(1.6);
    expect(said[2]).toBeCloseTo(1.396, 3);
  });

  it('takes degrees and mm a metre as the level shows them in inches too, fractions and all', () => {
    onread.mockClear();
    made.push(
      shown(CheckPane, { check: LEVEL, advice: undefined, onread, onnext: null, onclose: vi.fn() }, 'in'),
    );
    type('1/16');
    press('mm/m');
    type('0.5');
    press('°');
    type('3/8');
    const said = onread.mock.calls.map((c) => (c[0] as { mm: number }).mm);
    expect(said[0]).toBeCloseTo(25.4 / 16);
    expect(said[1]).toBeCloseTo(0.5 * 0.8);
    expect(said[2]).toBeCloseTo(800 * Math.tan((0.375 * Math.PI) / 180), 3);
  });

  it('says what to do where it is out, and that it is read again', () => {
    const readings = [{ fact: 'f', value_mm: 2.1, off_mm: 2.1, out: true }];
    put(
      { ...LEVEL, readings, state: 'out' },
      {
        of: 'A',
        checks: [LEVEL.key],
        words: ['back left: 0.9 mm up', 'back left: 0.9 mm up'],
        moves: [],
      },
    );
    expect(page()).toContain('back left: 0.9 mm up');
    expect(page()).toContain('Then read it again');
    expect(page()).toContain('2.1 mm, out');
  });

  it('is a tap where there is nothing to read', () => {
    put({ ...LEVEL, key: 'bites/p/A', kind: 'bites', expected_mm: null, tolerance_mm: 0 });
    press('It is not');
    press('It is right');
    expect(onread.mock.calls.map((c) => c[0] as object)).toEqual([{ came: 'wrong' }, { came: 'right' }]);
  });
});

describe('before and after', () => {
  const change = (kind: string, name: string, before: number | null, after: number | null, cut = '') => ({
    kind,
    name,
    about: name,
    before_mm: before,
    after_mm: after,
    cut,
  });
  const put = (proposal: Proposal | null, onfollow = vi.fn()) =>
    made.push(shown(BeforeAfter, { proposal, pending: ['A'], onfollow }));

  it('holds every figure against the one before, and says what is cut again', () => {
    const onfollow = vi.fn();
    const changes = [change('base', 'Base', 2.5, 3.8), change('part', 'B3 leg', 300, 301, 'again')];
    put({ readings: ['r'], changes, again: 1, spared: 2 } as unknown as Proposal, onfollow);
    expect(page()).toMatch(/Base\s*2\.5\s*3\.8/);
    expect(page()).toContain('1 is cut again.');
    expect(page()).toContain('2 that are cut still do.');
    press('Let the plan follow what stands');
    expect(onfollow).toHaveBeenCalled();
  });

  it('says why there is nothing to follow', () => {
    put({ readings: [], changes: [], again: 0, spared: 0 });
    expect(page()).toContain('Nothing that stands was read yet');
    put({ readings: ['r'], changes: [], again: 0, spared: 0 });
    expect(page()).toContain('no figure moves');
  });
});

describe('found otherwise', () => {
  it('is one tap at a screw, with the caution before it, and is taken back', () => {
    const onfound = vi.fn();
    const ontake = vi.fn();
    const props: unknown = {
      place: { existing: [{ id: 'old', name: 'Old box' }] },
      units: [{ id: 'A', name: 'A', front: { openings: 3 } }],
      screws: [{ id: 's1', order: 1, unit: 'A', part: 'rail', surface: 'back', at: [400, 650] }],
      found: [{ id: 'o', what: 'no box', of: 'old', text: '' }],
      onfound,
      ontake,
    };
    made.push(shown(OtherwisePane, props as ComponentProps<typeof OtherwisePane>));
    expect(button('There is no stud').disabled).toBe(true);
    const choose = (label: string, value: string) => {
      const select = [...document.querySelectorAll('select')].find(
        (s) => s.getAttribute('aria-label') === label,
      )!;
      select.value = value;
      select.dispatchEvent(new Event('change', { bubbles: true }));
      flushSync();
    };
    choose('Which screw', 's1');
    expect(page()).toContain('switch off at the main');
    press('A wire or a pipe');
    choose('Of which box', 'A');
    press('So many after all');
    press('Take it back');
    expect(onfound.mock.calls.map((c) => c[0] as object)).toEqual([
      { what: 'wire or pipe', of: 's1', surface: 'back', at: [400, 650] },
      { what: 'other openings', of: 'A', count: 2 },
    ]);
    expect(ontake).toHaveBeenCalledWith('o');
  });
});
