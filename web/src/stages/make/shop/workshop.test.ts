/** The workshop's forms: each writes what was changed and nothing else, and what is no number is told, not kept. */
import { flushSync } from 'svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { calls } from '../../../api/calls';
import type { StockItem, Workshop } from '../../../api/types';
import { open } from '../../../state/job.svelte';
import { choose, fill, page, press, shown } from '../../../testing';
import StockPane from './StockPane.svelte';
import WorkshopPane from './WorkshopPane.svelte';

const PLY = {
  sold_as: 'sheet',
  id: 'ply',
  name: 'Plywood 18',
  material: 'plywood',
  thick_mm: 18,
  measured_mm: null,
  long_mm: 2440,
  wide_mm: 1220,
  at_hand: 0,
  price: 60,
  grain: true,
} as unknown as StockItem;
const PINS = {
  sold_as: 'pack',
  id: 'pins',
  name: 'bag of pins',
  of: 'shelf pins',
  holds: 20,
  at_hand: 1,
  price: null,
} as unknown as StockItem;
const shop = (more: object = {}): Workshop =>
  ({ stock: [PLY, PINS], shops: [], machines: [], coats: [], ...more }) as unknown as Workshop;
const field = (label: string, n = 0) => {
  const all = [...document.querySelectorAll('label')].filter((l) =>
    (l.textContent ?? '').trim().startsWith(label),
  );
  return document.getElementById(all[n]!.getAttribute('for')!) as HTMLInputElement;
};
function type(label: string, text: string, n = 0) {
  const input = field(label, n);
  input.value = text;
  input.dispatchEvent(new Event('input', { bubbles: true }));
  flushSync();
  input.dispatchEvent(new FocusEvent('blur'));
  flushSync();
}

beforeEach(() => {
  vi.restoreAllMocks();
  vi.spyOn(calls, 'jobs').mockResolvedValue([]);
});

describe('the stock', () => {
  let put: Partial<Workshop>[];
  const stocked = (w = shop()) => {
    put = [];
    shown(StockPane, { job: 'j', workshop: w, put: (part: Partial<Workshop>) => put.push(part) });
  };

  it('takes a thickness as it measures, a price and a count, each alone', () => {
    stocked();
    type('Measures', '17.4');
    type('Price', '62,50');
    type('At hand', '3', 1);
    expect(put.map((p) => p.stock)).toEqual([
      [{ ...PLY, measured_mm: 17.4 }, PINS],
      [{ ...PLY, price: 62.5 }, PINS],
      [PLY, { ...PINS, at_hand: 3 }],
    ]);
  });

  it('tells what is no price and no count, and keeps what was', () => {
    stocked();
    type('Price', 'cheap');
    type('At hand', '2.5');
    type('In one pack', '0');
    expect(put).toEqual([]);
    expect(page()).toContain('“cheap” is not a number');
    expect(page()).toContain('A whole number.');
    expect(page()).toContain('Not below 0.001.');
  });

  it('takes a price away where the field is emptied', () => {
    stocked();
    type('Price', '');
    expect(put).toEqual([{ stock: [{ ...PLY, price: null }, PINS] }]);
  });

  it('loses an item with its prices in every shop', () => {
    const prices = [
      { item: 'ply', price: 50 },
      { item: 'pins', price: 4 },
    ];
    stocked(shop({ shops: [{ id: 's', name: 'Yard', trip: 0, prices }] }));
    press('Remove Plywood 18');
    expect(put).toEqual([
      { stock: [PINS], shops: [{ id: 's', name: 'Yard', trip: 0, prices: [{ item: 'pins', price: 4 }] }] },
    ]);
  });

  it('says what is assumed while it is empty, and begins with what is usual', () => {
    stocked(shop({ stock: [] }));
    expect(page()).toContain('usual trade sizes are assumed');
    press('Add a sheet');
    expect(put[0]!.stock![0]).toMatchObject({ sold_as: 'sheet', long_mm: 2440, wide_mm: 1220 });
  });
});

describe('the workshop', () => {
  let put: [Workshop, Workshop][];
  const worked = (w = shop()) => {
    put = [];
    vi.spyOn(open, 'putWorkshop').mockImplementation((was, now) => {
      put.push([was, now]);
      return Promise.resolve(true);
    });
    shown(WorkshopPane, { job: 'j', workshop: w });
  };
  const last = () => put.at(-1)![1];

  it('says what one lifts and what the car takes', () => {
    worked();
    fill('One person lifts', '18');
    expect(last().lifts_kg).toBe(18);
    fill('The car takes', '1900');
    expect(last().carries_mm).toEqual([1900, 1000]);
    fill('One person lifts', '0');
    expect(put).toHaveLength(2);
    expect(page()).toContain('Not below 1.');
  });

  it('names machines with their limits, and takes them away', () => {
    const saw = { id: 'm', name: 'Saw', kind: 'table saw', rip_mm: 0 };
    worked(shop({ machines: [saw] }));
    fill('Rips up to', '600');
    expect(last().machines).toEqual([{ ...saw, rip_mm: 600 }]);
    choose('Kind', 'track saw');
    expect(last().machines[0]!.kind).toBe('track saw');
    press('Remove Saw');
    expect(last().machines).toEqual([]);
    press('Add a machine');
    expect(last().machines).toHaveLength(2);
  });

  it('takes what a shop asks for each item of the stock, and forgets it where it is emptied', () => {
    const yard = { id: 's', name: 'Yard', trip: 2, prices: [{ item: 'ply', price: 50 }] };
    worked(shop({ shops: [yard] }));
    type('bag of pins', '4.2');
    expect(last().shops[0]!.prices).toEqual([
      { item: 'ply', price: 50 },
      { item: 'pins', price: 4.2 },
    ]);
    type('Plywood 18', '');
    expect(last().shops[0]!.prices).toEqual([]);
    type('The trip costs', '-3');
    expect(put).toHaveLength(2);
    expect(page()).toContain('Not below 0.');
  });

  it('has at most eight shops', () => {
    const eight = Array.from({ length: 8 }, (_, i) => ({ id: `s${i}`, name: `S${i}`, trip: 0, prices: [] }));
    worked(shop({ shops: eight }));
    expect(page()).not.toContain('Add a shop');
  });
});
