/** What the readings show of whole surfaces and lines, in words, and the edge that is kept from it. */
import { unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Place, Reading, Surveyed } from '../../api/types';
import { page, press, shown } from '../../testing';
import Seen from './Seen.svelte';
import { alongOf, declared, leans, wayOf, type SeenEdge } from './seen';

const edge = (part: Partial<SeenEdge> = {}): SeenEdge => ({
  surface: 'back',
  axis: 'first',
  low: [900, 1300],
  high: null,
  end_mm: 3000,
  by_mm: 20,
  sd_mm: 1,
  ...part,
});

describe('an edge that the readings show', () => {
  it('is told as the room has it: towards, off, up and down', () => {
    expect(wayOf(edge())).toBe('nearer to the room');
    expect(wayOf(edge({ by_mm: -3 }))).toBe('further from the room');
    expect(wayOf(edge({ surface: 'floor' }))).toBe('higher');
    expect(wayOf(edge({ surface: 'ceiling' }))).toBe('lower');
  });

  it('says along which way its ends are told', () => {
    expect(alongOf(edge())).toBe('along');
    expect(alongOf(edge({ axis: 'second' }))).toBe('up');
    expect(alongOf(edge({ surface: 'left' }))).toBe('out from the back');
    expect(alongOf(edge({ surface: 'ceiling', axis: 'second' }))).toBe('out from the back');
  });

  it('is declared midway, as uncertain as the gap between its readings, its height left to them', () => {
    const kept = declared(edge(), []);
    expect(kept).toMatchObject({
      id: 'step-1',
      from_mm: 1100,
      to_mm: 3000,
      at_sigma_mm: 116,
      by_mm: 0,
      sigma_mm: 50,
    });
    const both = declared(edge({ high: [1700, 1900], by_mm: -8 }), [kept]);
    expect(both).toMatchObject({ id: 'step-2', name: 'Step back', from_mm: 1100, to_mm: 1800 });
  });
});

describe('a line that leans', () => {
  it('is told once for all its axes, its uncertainty rounded up', () => {
    const found = [
      { set_up: 'l', axis: 'x', mm_per_m: -1.02, sd: 0.101 },
      { set_up: 'l', axis: 'y', mm_per_m: 0.5, sd: 0.1 },
      { set_up: 'm', axis: 'z', mm_per_m: 0.8, sd: 0.2 },
    ];
    expect(leans(found, new Map([['l', 'Level line']]), 'mm')).toEqual([
      '“Level line” leans 1.0 ± 0.2 mm per m along and 0.5 ± 0.1 mm per m out from the back',
      '“m” leans 0.8 ± 0.2 mm per m up',
    ]);
  });
});

describe('what is told over the readings', () => {
  const onagain = vi.fn();
  const first = {
    fact: 'offset',
    id: 'f0',
    surface: 'floor',
    at: [60, 60],
    value_mm: 1000,
    set_up: 'line',
  } as unknown as Reading;
  let made: Record<string, unknown>;
  afterEach(() => unmount(made));
  const tell = (surveyed: Partial<Surveyed>, unit: 'mm' | 'in' = 'mm') => {
    onagain.mockClear();
    const place = { set_ups: [{ id: 'line', name: 'Level line' }] } as unknown as Place;
    made = shown(Seen, { place, surveyed: surveyed as Surveyed, readings: [first], onagain }, unit);
  };

  it('is nothing where nothing is odd', () => {
    tell({});
    expect(page().trim()).toBe('');
  });

  it('is a step or a knock, and the one reading that decides, at hand', () => {
    tell({
      edge_or_knock: {
        edge: edge({ surface: 'floor', axis: 'second', low: [60, 300], by_mm: -20, end_mm: 600 }),
        set_up: 'line',
        since: 'f8',
        again: 'f0',
      },
    });
    expect(page()).toContain('stands 20');
    expect(page()).toContain('lower from somewhere between 60 and 300 out from the back');
    expect(page()).toContain('or “Level line” was knocked');
    press('Read it again');
    expect(onagain).toHaveBeenCalledExactlyOnceWith(first);
  });

  it('is a bend, with where to say that it is one', () => {
    tell({ bends: ['ceiling', 'back'] });
    expect(page()).toContain('The ceiling turns more sharply than by settling');
    expect(page()).toContain('say where its knee is');
    expect(page()).toContain('Read more closely where it turns.');
  });

  it('says no millimetre where inches are asked for', () => {
    tell({ edges: [edge()], leaning: [{ set_up: 'line', axis: 'x', mm_per_m: 1, sd: 0.2 }] }, 'in');
    expect(page()).toContain('“Level line” leans');
    expect(page()).not.toMatch(/\bmm\b/);
  });
});
