import { unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Fastener } from '../../api/types';
import { shown } from '../../testing';
import DrillList from './DrillList.svelte';

const screw = (order: number, more: Partial<Fastener> = {}) =>
  ({
    order,
    unit: 'A',
    part: 'rail',
    surface: 'back',
    at: [189.6, 652.4],
    bites: 0.998,
    shank_mm: 5,
    screw_mm: 80,
    packing: { value_mm: 4.12, sd_mm: 0.5, working: [] },
    pilot_mm: 3,
    check: '',
    ...more,
  }) as unknown as Fastener;

describe('the drilling list', () => {
  const [picked, met] = [vi.fn(), vi.fn()];
  let list: Record<string, unknown>;
  const put = (points: Fastener[], unit: 'mm' | 'in' = 'mm', said: string | null = null) => {
    list = shown(
      DrillList,
      {
        points,
        name: (id) => `Unit ${id}`,
        lit: 'screw-2',
        met: () => said as never,
        onpick: picked,
        onmet: met,
      },
      unit,
    );
  };
  const rows = () => [...document.querySelectorAll('tbody tr')];
  const says = (row: number, what: string) =>
    rows()[row]?.querySelector(`[data-what=${what}]`)?.textContent?.trim();

  beforeEach(() => {
    picked.mockClear();
    met.mockClear();
  });
  afterEach(() => unmount(list));

  it('says where, how long, through what, and never promises more than it knows', () => {
    put([screw(1), screw(2, { bites: 0.8999, pilot_mm: 0, check: 'Find its edges first.' })]);
    expect([says(0, 'along'), says(0, 'up'), says(0, 'bites')]).toEqual(['190', '652', '99 %']);
    expect([says(0, 'screw'), says(0, 'packing'), says(0, 'hole')]).toEqual(['5 × 80', '4.1', '3.0']);
    expect([says(1, 'bites'), says(1, 'hole')]).toEqual(['89 %', 'none']);
    expect(rows()[0]?.querySelector('[data-what=bites]')?.classList.contains('stop')).toBe(false);
    expect(rows()[1]?.querySelector('[data-what=bites]')?.classList.contains('stop')).toBe(true);
    expect(rows()[1]?.textContent).toContain('Find its edges first.');
  });

  it('marks the screw that is looked at, and picks another by its unit', () => {
    put([screw(1), screw(2)]);
    expect(rows().map((row) => row.classList.contains('lit'))).toEqual([false, true]);
    rows()[0]?.querySelector<HTMLButtonElement>('.unit button')?.click();
    expect(picked).toHaveBeenCalledWith('screw-1');
  });

  it.each([
    ['bit', 'hit'],
    ['missed', 'miss'],
    ['hit something', 'something else'],
  ])('keeps that a hole %s by one tap', (words, sees) => {
    const one = screw(1);
    put([one]);
    document.querySelector<HTMLButtonElement>(`[aria-label="Screw 1 ${words}"]`)?.click();
    expect(met).toHaveBeenCalledWith(one, sees);
  });

  it('shows what was met already', () => {
    put([screw(1)], 'mm', 'miss');
    const pressed = [...document.querySelectorAll('[aria-pressed=true]')].map((b) => b.textContent);
    expect(pressed).toEqual(['missed']);
  });

  it('says inches to those who measure in them', () => {
    put([screw(1)], 'in');
    expect(says(0, 'along')).toBe('7 15/32"');
    expect(rows()[0]?.textContent).not.toContain('652');
  });
});
