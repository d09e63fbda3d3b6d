/** Two changes at once come to both of them. */
import { describe, expect, it } from 'vitest';
import { merged } from './merged';

const was = {
  units: [
    { id: 'A', width_mm: 600, insides: { cell: { fill: 'nothing', holds: [] as object[] } } },
    { id: 'B', width_mm: 400, insides: null },
  ],
  heights: [900, 40],
};

describe('two changes to what was drawn', () => {
  it('are both kept, as deep as they lie', () => {
    const mine = structuredClone(was);
    mine.units[0]!.insides!.cell.holds = [{ name: 'Tray' }];
    mine.heights[1] = 30;
    const now = structuredClone(was);
    now.units[0]!.insides!.cell.fill = 'drawers';
    now.units[1]!.width_mm = 450;
    const both = merged(was, mine, now);
    expect(both.units[0]!.insides!.cell).toEqual({ fill: 'drawers', holds: [{ name: 'Tray' }] });
    expect(both.units[1]!.width_mm).toBe(450);
    expect(both.heights).toEqual([900, 30]);
  });

  it('take in pieces put in by one and leave out pieces taken out by the other', () => {
    const mine = { ...was, units: [was.units[0]!, { id: 'C', width_mm: 300, insides: null }] };
    const now = { ...was, units: [...was.units, { id: 'D', width_mm: 200, insides: null }] };
    expect(merged(was, mine, now).units.map((u) => u.id)).toEqual(['A', 'C', 'D']);
    expect(merged(was, now, mine).units.map((u) => u.id)).toEqual(['A', 'D', 'C']);
  });

  it('of the same value are settled by the later one, and a field let go stays let go', () => {
    expect(merged({ a: 1 }, { a: 2 }, { a: 3 })).toEqual({ a: 2 });
    expect(merged<object>({ a: 1, b: 1 }, { b: 1 }, { a: 1, b: 2 })).toEqual({ b: 2 });
    expect(merged([1, 2], [1, 2, 3], [1])).toEqual([1, 2, 3]);
  });
});
