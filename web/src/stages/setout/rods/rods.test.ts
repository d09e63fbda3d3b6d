/** Edges, heights and cells as values: what is one tick, what an edge is brought to, what a split leaves. */
import { describe, expect, it } from 'vitest';
import type { Cell, LaidOut, SetOut, Snap, Unit, Place } from '../../../api/types';
import { above, cellAt, EMPTY, fillWords, split, unsplit, withCell } from '../panes/cells';
import { brought, dragged, stepOf, ticksOf } from './edges';
import { heightTicks, raised } from './heights';

const tick = (
  of: string,
  edge: 'left' | 'right',
  mm: number,
  held: 'rule' | 'drawn' | 'stays' = 'drawn',
  signs = '',
) => ({
  of,
  edge,
  at: { value_mm: mm, sd_mm: 0, working: [] },
  held,
  rules: [],
  signs,
});
const laid = (ticks: object[], units: object[] = []) =>
  ({ ticks, units, snaps: [], rules: [] }) as unknown as LaidOut;
const unit = (id: string, low: number, high: number, more: object = {}) => ({
  unit: { id, name: id, over_base_mm: low, height_mm: high, standing: { on: 'shims' }, ...more },
});

describe('ticks of the long rod', () => {
  it('are one where two pieces touch, and move the left one’s right edge', () => {
    const found = ticksOf(
      laid([tick('B', 'left', 600.2, 'rule', '⇥'), tick('A', 'right', 600), tick('A', 'left', 0)]),
    );
    expect(found.map((t) => t.at)).toEqual([0, 600]);
    expect(found[1]).toMatchObject({ edge: { of: 'A', edge: 'right' }, held: 'rule', signs: '⇥' });
    expect(found[1]!.edges).toHaveLength(2);
  });

  it('of what stays cannot be moved; a piece that stands at one can', () => {
    const found = ticksOf(
      laid([tick('w', 'left', 300, 'stays'), tick('A', 'left', 900), tick('w', 'right', 900, 'stays')]),
    );
    expect(found.map((t) => t.edge)).toEqual([null, { of: 'A', edge: 'left' }]);
  });

  it('add the walls where nothing stands at them', () => {
    const found = ticksOf(laid([tick('A', 'left', 0.3)]), [
      { id: 'l', at: 0 },
      { id: 'r', at: 2400 },
    ]);
    expect(found.map((t) => t.id)).toEqual(['A left', 'r']);
  });
});

describe('a dragged edge', () => {
  const snaps: Snap[] = [
    { at_mm: 600, name: 'B, left', edge: { of: 'B', edge: 'left' } },
    { at_mm: 604, name: 'A, right', edge: { of: 'A', edge: 'right' } },
    { at_mm: 640, name: 'stud line', edge: null },
  ];

  it('is brought to the nearest edge that does not move with it', () => {
    expect(brought(603, 8, snaps, ['A'], 'mm')).toMatchObject({ at: 600, to: { name: 'B, left' } });
    expect(brought(603, 8, snaps, ['A', 'B'], 'mm')).toEqual({ at: 603, to: null });
  });

  it('stands at a stud line as a number, as no rule can name it', () => {
    const to = brought(637.4, 8, snaps, ['A'], 'mm');
    expect(dragged({ of: 'A', edge: 'right' }, to)).toEqual({
      move: 'drag',
      edge: { of: 'A', edge: 'right' },
      at_mm: 640,
      to: null,
    });
  });

  it('goes by whole millimetres, or sixteenths of an inch', () => {
    expect(brought(701.4, 5, [], [], 'mm').at).toBe(701);
    expect(brought(25.4 * 10.05, 1, [], [], 'in').at).toBeCloseTo(25.4 * 10.0625, 6);
    expect([stepOf('mm'), stepOf('mm', true), stepOf('in', true)]).toEqual([1, 10, 12.7]);
  });
});

describe('heights on the upright rod', () => {
  const said = {
    heights: [{ id: 's', units: ['A'], tops: ['T'], beside_mm: 735, members: [] }],
    openings: [{ id: 'w', name: 'W', sill_mm: 900 }],
  };

  it('are moved where a piece’s own numbers give them, not where a stack or a carrier does', () => {
    const units = [
      unit('A', 0, 400),
      unit('S', 1200, 30),
      unit('Q', 1230, 60, { standing: { on: 'pieces', pieces: ['S'] } }),
    ];
    const found = heightTicks(said as unknown as SetOut, laid([], units), 's', 2000);
    expect(found.map((t) => [t.at, t.of?.unit ?? '', t.of?.part ?? ''])).toEqual([
      [0, '', ''],
      [400, '', ''],
      [735, '', ''],
      [900, '', ''],
      [1200, 'S', 'underside'],
      [1230, 'S', 'top'],
      [1290, 'Q', 'top'],
    ]);
  });

  it('where a wall steps at a height both heights are on the rod, and none of what steps along', () => {
    const step = { surface: 'back', name: 'Dado', from_mm: 0, to_mm: 910, by_mm: 18 };
    const steps = [
      { ...step, id: 'a', axis: 'second' },
      { ...step, id: 'b', axis: 'second', from_mm: 1500, to_mm: 9000 },
      { ...step, id: 'c', axis: 'first', to_mm: 700 },
      { ...step, id: 'd', axis: 'second', surface: 'floor', to_mm: 120 },
    ] as Place['steps'];
    const found = heightTicks({} as SetOut, laid([], []), null, 2000, steps);
    expect(found.map((t) => [t.at, t.what])).toEqual([
      [0, 'The floor'],
      [910, 'Where Dado ends'],
      [1500, 'Where Dado ends'],
    ]);
  });

  it('an underside carries its piece along, a top makes it taller', () => {
    const shelf = { over_base_mm: 1200, height_mm: 30 } as Unit;
    expect(raised(shelf, 'underside', 1250)).toEqual({ over_base_mm: 1250 });
    expect(raised(shelf, 'top', 1250)).toEqual({ height_mm: 50 });
    expect(raised(shelf, 'top', 900)).toEqual({ height_mm: 1 });
  });
});

describe('cells', () => {
  const shelved = {
    ...EMPTY,
    fill: { fill: 'shelves', count: 2 },
    door: { hangs: 'pair' },
  } as unknown as Cell;

  it('keep what they had in their first part, and their door before all of it', () => {
    const two = split(shelved, 'columns', 2);
    expect(two.door).toEqual({ hangs: 'pair' });
    expect(cellAt(two, '0').fill).toEqual({ fill: 'shelves', count: 2 });
    expect(cellAt(two, '0').door ?? null).toBeNull();
    expect(fillWords(two)).toBe('2 columns');
    expect(unsplit(two)).toMatchObject({ fill: { fill: 'shelves' }, door: { hangs: 'pair' } });
  });

  it('are changed at their path and nowhere else', () => {
    const deep = withCell(split(shelved, 'rows', 3), '2', split(EMPTY, 'columns', 2));
    const now = withCell(deep, '2.1', shelved);
    expect(cellAt(now, '2.1').fill).toEqual({ fill: 'shelves', count: 2 });
    expect(cellAt(now, '2.0')).toEqual(EMPTY);
    expect(cellAt(now, '1')).toEqual(cellAt(deep, '1'));
    expect([above('2.1'), above('2'), above('')]).toEqual(['2', '', null]);
  });
});
