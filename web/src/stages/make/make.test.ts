/** Make's pages: piles and their ties, what is ticked and what that sends, numbers beside cuts, the walk through a sheet. */
import { describe, expect, test } from 'vitest';
import type {
  AimOutcome,
  Fact,
  LaidSheet,
  Layout,
  Made,
  MarkedPart,
  Setting,
  StockItem,
  ToBuy,
} from '../../api/types';
import { button, choose, fill, page, press, shown } from '../../testing';
import BuyPane from './shop/BuyPane.svelte';
import FinishPane from './FinishPane.svelte';
import PartPane from './PartPane.svelte';
import Piles from './Piles.svelte';
import SettingsPane from './SettingsPane.svelte';
import SheetDrawing from './sheets/SheetDrawing.svelte';
import SheetsPane from './sheets/SheetsPane.svelte';
import { boughtHere, liesOn, merged, numberSpots, piles, shortName, withPending, type Tie } from './piles';

const part = (
  mark: string,
  more: Partial<MarkedPart> = {},
  own: Partial<MarkedPart['part']> = {},
): MarkedPart => ({
  key: `p/${mark}`,
  mark,
  place: 'p',
  to_cut: 1,
  state: 'now',
  checked: [],
  ...more,
  part: {
    id: mark,
    role: 'side',
    of: ['B'],
    name: `${mark} of B Base`,
    material: 'plywood',
    thick_mm: 18,
    blank_mm: [720, 560],
    finished: [
      {
        label: 'long',
        figure: {
          value_mm: 720,
          sd_mm: 0,
          working: [
            {
              label: 'Height of the unit',
              surface: null,
              at: null,
              sign: 1,
              value_mm: 720,
              sd_mm: 0,
              rests_on: [],
            },
          ],
        },
      },
    ],
    cuts: [],
    quantity: 1,
    ready: [],
    when: 'now',
    waits: [],
    grain: 'length',
    hand: '',
    banded: [],
    seen: [],
    face_up: '',
    end: '',
    joins: '',
    grooves: [],
    drillings: [],
    corner: null,
    curve: null,
    bevel_deg: 0,
    boxes: [],
    ...own,
  },
});
const slides = { key: 'slides-B', words: 'the slides bought', measured: false };
const width = { key: 'width-B', words: 'its width measured', measured: true };
const sent = (fact: object, place = 'p') => ({ place, fact: fact as Fact });

describe('piles', () => {
  const now = part('A1');
  const later = part('A2', { state: 'after' }, { waits: [slides, width] });
  const cut = part('A3', { state: 'cut', to_cut: 0 });

  test('lie by unit, by what they wait for, or are cut', () => {
    const made = piles([now, later, cut], () => 'B Base');
    expect(made.now.map((s) => [s.title, s.parts.map((p) => p.mark)])).toEqual([['B Base', ['A1']]]);
    expect(made.later.map((t) => [t.title, t.wait.key])).toEqual([['the slides bought', 'slides-B']]);
    expect(made.cut).toEqual([cut]);
    // a measure is of one unit, which is named; what is bought or set is told once for all that waits for it
    const measured = piles([part('A5', { state: 'after' }, { waits: [width] })], () => 'B Base');
    expect(measured.later[0]?.title).toBe('B Base: its width measured');
  });

  test('show at once what still waits on the device', () => {
    const pending = [
      sent({ fact: 'cut', part: 'A1', came: 'right', count: 1 }),
      sent({ fact: 'known', what: 'slides-B' }),
    ];
    const [first, second] = withPending([now, later], pending);
    expect([first!.state, first!.to_cut]).toEqual(['cut', 0]);
    expect(second!.part.waits).toEqual([width]);
    expect(
      withPending([now], [sent({ fact: 'cut', part: 'A1', came: 'right', count: 1 }, 'elsewhere')])[0],
    ).toBe(now);
  });

  test('a part is named without the unit under which it stands', () => {
    expect(shortName(part('A1', {}, { name: 'left side of B Base' }), 'B Base')).toBe('left side');
    expect(shortName(part('A1', {}, { name: 'plinth under A to C' }), 'B Base')).toBe('plinth under A to C');
  });

  test('what may be cut can be ticked, what waits cannot, and a measured wait asks for its length', () => {
    const said: unknown[] = [];
    shown(Piles, {
      piles: piles(
        [
          now,
          part('A2', { state: 'after' }, { waits: [slides] }),
          part('A4', { state: 'after' }, { waits: [width] }),
        ],
        () => 'B Base',
      ),
      lit: null,
      onpick: (key: string) => said.push(key),
      oncut: (p: MarkedPart) => said.push(['cut', p.mark]),
      onknown: (tie: Tie, mm: number | null) => said.push([tie.wait.key, mm]),
    });
    press('A1 is cut');
    expect(() => button('A2 is cut')).toThrow();
    press('That is so now');
    fill('Measured', '562.5');
    expect(said).toEqual([
      ['cut', 'A1'],
      ['slides-B', null],
      ['width-B', 562.5],
    ]);
  });
});

test('a table of stock changes what it names, and loses nothing', () => {
  const board = {
    sold_as: 'length',
    id: 'b',
    name: 'Board',
    long_mm: 2400,
    defects: [{ from_mm: 1, to_mm: 2 }],
  } as StockItem;
  const sheet = { sold_as: 'sheet', id: 's', name: 'Sheet' } as StockItem;
  const table = [
    { ...board, long_mm: 3000, defects: [] },
    { sold_as: 'sheet', id: 'n', name: 'New' } as StockItem,
  ];
  expect(merged([sheet, board], table)).toEqual([sheet, { ...board, long_mm: 3000 }, table[1]]);
});

test('numbers beside cuts never lie on each other while there is room along them', () => {
  const cuts = [
    { x1: 0, y1: 0, x2: 1000, y2: 0 },
    { x1: 0, y1: 5, x2: 1000, y2: 5 },
    { x1: 2, y1: 0, x2: 2, y2: 600 },
  ];
  const spots = numberSpots(cuts, 60, [[30, 0]]);
  for (const [i, a] of spots.entries())
    for (const b of spots.slice(i + 1))
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeGreaterThanOrEqual(60);
  expect(Math.hypot(spots[0]![0] - 30, spots[0]![1])).toBeGreaterThanOrEqual(60);
});

describe('a part', () => {
  test('shows its sizes with their working, and tells how it came off the saw', () => {
    const said: unknown[] = [];
    shown(PartPane, {
      part: part('A1', {}, { joins: 'screwed through', banded: ['front edge'] }),
      beside: [],
      where: 'B Base',
      oncut: (...args) => said.push(args),
      ongot: () => undefined,
      onclose: () => undefined,
    });
    expect(page()).toContain('Height of the unit');
    expect(page()).toContain('screwed through');
    fill('Came out long', '715');
    press('Cut short');
    press('Cut');
    expect(said).toEqual([
      ['short', 1, [715, 560]],
      ['right', 1, [715, 560]],
    ]);
  });

  test('that waits says what for and what to rough out, in inches where they are read', () => {
    shown(
      PartPane,
      {
        part: part('A2', { state: 'after' }, { waits: [slides], blank_mm: [254, 127] }),
        beside: [],
        where: 'B Base',
        oncut: () => undefined,
        ongot: () => undefined,
        onclose: () => undefined,
      },
      'in',
    );
    expect(page()).toContain('after the slides bought');
    expect(page()).toContain('10" × 5"');
    expect(button('Cut').disabled).toBe(true);
  });

  test('that is bought says what it saves, and may be made again', () => {
    const said: unknown[] = [];
    shown(PartPane, {
      part: part('A1', { state: 'bought', to_cut: 0 }),
      beside: [],
      where: '',
      got: { part: 'p/A1', how: 'bought', price: 12 },
      saves: 3.5,
      ongot: (...args: unknown[]) => said.push(args),
      oncut: () => undefined,
      onclose: () => undefined,
    });
    expect(page()).toContain('Saves 3.50');
    fill('For', '14');
    choose('This part is', 'made');
    expect(said).toEqual([
      ['bought', 14],
      ['made', 12],
    ]);
  });

  test('that was cut and is too small now is cut again', () => {
    const checked = {
      count: 1,
      came: 'right' as const,
      then: 'cut again' as const,
      off_mm: [-10, 0] as [number, number],
      words: 'cut again: 10 mm too small now',
    };
    shown(PartPane, {
      part: part('A1', { checked: [checked] }),
      beside: [],
      where: '',
      oncut: () => undefined,
      ongot: () => undefined,
      onclose: () => undefined,
    });
    expect(page()).toContain('10 mm too small now');
  });
});

const SHEET = {
  stock: 'ply',
  name: 'Ply 18',
  material: 'plywood',
  thick_mm: 18,
  long_mm: 2440,
  wide_mm: 1220,
  weight_kg: 34.8,
  assumed: false,
  parts: [
    { key: 'p/A1', mark: 'A1', x_mm: 0, y_mm: 0, long_mm: 720, wide_mm: 560, turned: false, ready: true },
  ],
  cuts: [
    { at: [0, 0], size: [2440, 1220], axis: 'y', at_mm: 560 },
    { at: [0, 0], size: [2440, 560], axis: 'x', at_mm: 720 },
  ],
  rests: [],
};
const LAYOUT = {
  sheets: [SHEET],
  lengths: [{ ...SHEET, name: 'Batten', wide_mm: 60, cuts: [], rest_mm: 300 }],
  missing: [],
  groups: [{ material: 'plywood', thick_mm: 18, used: 2, least: 1, assumed: false }],
  price: 60,
  sawn_m: 3,
  settings: 2,
} as unknown as Layout;

describe('sheets', () => {
  test('are walked through cut by cut, and searched longer for', () => {
    const said: string[] = [];
    const props = {
      job: 'j',
      layout: LAYOUT,
      lit: null,
      searching: null,
      onpick: (key: string) => said.push(key),
      onsearch: () => said.push('search'),
      onstop: () => said.push('stop'),
      aim: 'fewest sheets' as const,
      aims: null as readonly AimOutcome[] | null,
      oncompare: () => said.push('compare'),
      onaim: (aim: string) => said.push(aim),
      onpin: (sheets: readonly LaidSheet[]) => said.push(`pin ${String(sheets.length)}`),
    };
    shown(SheetsPane, props);
    expect(page()).toContain('no layout does with fewer than 1');
    press('Walk through');
    expect(page()).toContain('Cut 1 of 2: along, at 560.0');
    press('Next cut');
    expect(page()).toContain('Cut 2 of 2: across, at 720.0');
    press('Keep this sheet as it is');
    press('Look longer for a better one');
    shown(SheetsPane, { ...props, searching: 0.5 });
    press('Stop, keep the best');
    press('Hold all three aims beside each other');
    const outcome = (aim: AimOutcome['aim'], settings: number): AimOutcome => ({
      aim,
      sheets: 2,
      lengths: 1,
      price: 60,
      sawn_m: 40,
      settings,
    });
    shown(SheetsPane, { ...props, aims: [outcome('fewest sheets', 12), outcome('fewest settings', 8)] });
    press('Lay out for fewest settings');
    expect(said).toEqual(['pin 1', 'search', 'stop', 'compare', 'fewest settings']);
  });

  test('number what is cut before a sheet is carried in squares', () => {
    const drawn = (before: number[]) => {
      shown(SheetDrawing, {
        sheet: { ...LAYOUT.sheets[0]!, before, bought: true },
        number: 1,
        lit: null,
        upto: null,
        onpick: () => undefined,
      });
      return [document.querySelectorAll('.no rect').length, document.querySelectorAll('.no circle').length];
    };
    expect(drawn([])).toEqual([0, 2]);
    expect(page()).not.toContain('one lifts');
    document.body.replaceChildren();
    expect(drawn([1])).toEqual([1, 1]);
    expect(page()).toContain('cut where it is bought');
  });

  test('say where a part lies', () => {
    expect(liesOn(LAYOUT, 'p/A1')).toEqual({ sheets: [1], lengths: [1] });
    expect(liesOn(LAYOUT, 'p/B1')).toEqual({ sheets: [], lengths: [] });
  });
});

test('a setting is one card with one big number; one kind of work can be looked at', () => {
  const setting = (id: string, work: Setting['work'], at_mm: number): Setting => ({
    id,
    work,
    at_mm,
    deep_mm: 0,
    from_mm: 0,
    thick_mm: 18,
    words: `words of ${id}`,
    pieces: [{ key: 'p/A1', mark: 'A1', count: 2, ready: true }],
    machine: id === 'r' ? '' : 'Saw',
    instead: id === 'r' ? 'a straightedge clamped on' : '',
    caution: 'Guard on.',
  });
  const picked: string[] = [];
  shown(SettingsPane, {
    settings: [setting('r', 'rip', 560), setting('b', 'bevel', 45)],
    lit: null,
    onpick: (key: string) => picked.push(key),
  });
  expect(page()).toContain('560.0');
  expect(page()).toContain('45°');
  expect(page()).toContain('a straightedge clamped on');
  press('bevel 1');
  expect(page()).not.toContain('560.0');
  press(/^A1/);
  expect(picked).toEqual(['p/A1']);
});

describe('buying', () => {
  const line = (item: string, packs: number, bought = 0): ToBuy => ({
    what: `${item}s`,
    item,
    needs: 4,
    unit: 'pieces',
    at_hand: 0,
    packs,
    bought,
    price: 2.5,
  });
  const buying = {
    list: [line('pin', 3, 1), line('hinge', 0), { ...line('', 1), what: 'handles' }],
    baskets: [
      {
        shops: ['y'],
        lines: [{ shop: 'y', item: 'pin', packs: 3, price: 7.5 }],
        goods: 7.5,
        trips: 2,
        total: 9.5,
        lacking: ['hinge'],
      },
    ],
    why: 'cheapest',
  };

  test('ticks off what is bought, and says what a shop lacks', () => {
    const said: string[] = [];
    shown(BuyPane, {
      buying,
      shops: [{ id: 'y', name: 'The yard', trip: 2, prices: [] }],
      pending: (item: string) => (item === 'pin' ? 1 : 0),
      onbought: (b: ToBuy) => said.push(b.item ?? ''),
    });
    expect(page()).toContain('1 of 3');
    expect(page()).toContain('at hand');
    expect(page()).toContain('Lacks hinges');
    press('pins: bought');
    expect(said).toEqual(['pin']);
  });

  test('counts what is ticked off on this device', () => {
    const facts = [
      sent({ fact: 'bought', item: 'pin', count: 2 }),
      sent({ fact: 'bought', item: 'hinge', count: 1 }),
    ];
    expect(boughtHere(facts, 'pin')).toBe(2);
  });
});

test('a finish is told step by step, or how to ask for one', () => {
  const finish = {
    areas: [{ faces: 'seen', m2: 3.2 }],
    steps: [],
    dries_h: 0,
    banding_m: 12.5,
  } as unknown as Made['finish'];
  shown(FinishPane, { finish });
  expect(page()).toContain('Say in Workshop which coats go on');
  const steps = [
    {
      what: 'paint, coat 1 of 2',
      kind: 'paint' as const,
      m2: 3.2,
      litres: 0.3,
      tin: '',
      dries_h: 6,
      assumed: true,
    },
  ];
  shown(FinishPane, { finish: { ...finish, steps, dries_h: 6 } });
  expect(page()).toContain('0.30 l, dries 6 h, usual figures');
});
