/** What the readings show of whole surfaces and lines, in words, and the edge that is kept from it. */
import { describe, expect, it } from 'vitest';
import { declared, leans, wayOf, type SeenEdge } from './seen';

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
