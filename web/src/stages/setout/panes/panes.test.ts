/** The panes of Set out: each tells what was changed, in the values that travel. */
import { flushSync, unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { DEFAULTS } from '../../../api/fields';
import type {
  Cell,
  HeightStack,
  LaidCell,
  LaidOut,
  LaidUnit,
  Move,
  Place,
  SetOut,
  Unit,
} from '../../../api/types';
import { button, choose, fill, labelled, options, page, press, shown } from '../../../testing';
import BodyForm from './piece/BodyForm.svelte';
import { EMPTY } from './cells';
import CellForm from './CellForm.svelte';
import HeightsPane from './HeightsPane.svelte';
import HolesForm from './HolesForm.svelte';
import RoomPane from './RoomPane.svelte';
import RulesPane from './RulesPane.svelte';
import Things from './Things.svelte';
import TypeHere from '../rods/TypeHere.svelte';

let made: Record<string, unknown>;
afterEach(() => unmount(made));
/** A value of which a pane looks at a part only. */
const part = <T>(value: unknown) => value as T;
const last = <T>(told: ReturnType<typeof vi.fn<(value: T) => void>>) => told.mock.calls.at(-1)![0];

describe('a cell', () => {
  const told = vi.fn<(cell: Cell) => void>();
  const put = (cell: object, within: 'columns' | 'rows' | null = null, laid?: object) => {
    told.mockClear();
    made = shown(CellForm, {
      cell: { ...EMPTY, ...cell },
      laid: laid as LaidCell | undefined,
      within,
      onchange: told,
    });
  };

  it('is filled with the usual of what is chosen', () => {
    put({});
    choose('In it', 'drawers');
    expect(last(told).fill).toEqual(DEFAULTS.drawers);
  });

  it('has a door of a hinge that is not chosen until somebody does', () => {
    put({});
    choose('Door', 'left');
    expect(last(told).door).toMatchObject({ hangs: 'left', hinge: 'not chosen' });
    void unmount(made);
    put({ door: { ...DEFAULTS.door, hangs: 'left' } });
    choose('Hinge', 'cup');
    expect(last(told).door).toMatchObject({ hangs: 'left', hinge: 'cup' });
  });

  it('takes a size of its own, or goes by what stands in it', () => {
    put({}, 'columns', {
      rect: { wide_mm: 301.4, high_mm: 700, x_mm: 0, z_mm: 0 },
      deep_mm: 480,
      leaf: true,
    });
    expect(page()).toContain('301.4 × 700.0 × 480.0');
    choose('How wide', 'size');
    expect(last(told)).toMatchObject({ size_mm: 301, by_contents: false });
    choose('How wide', 'contents');
    expect(last(told)).toMatchObject({ size_mm: null, by_contents: true });
  });

  it('takes less at the sides for slides that lie under the box', () => {
    put({ fill: DEFAULTS.drawers });
    choose('Slides', 'under');
    expect(last(told).fill).toMatchObject({ slides: { kind: 'under', side_mm: 5 } });
    press('Drawers: one more');
    expect(last(told).fill).toMatchObject({ count: 4 });
  });
});

describe('a stack of heights', () => {
  const told = vi.fn<(heights: HeightStack[]) => void>();
  const stack = {
    id: 's',
    units: ['A'],
    tops: [],
    members: [
      { name: 'base', high_mm: 80 },
      { name: 'box', high_mm: 300 },
    ],
    finished_mm: 380,
    gives: 'box',
  } as unknown as HeightStack;
  const said = {
    units: [{ id: 'A', height_mm: 380, standing: { on: 'toe-kick box', height_mm: 80 } }],
    heights: [stack],
  };
  const put = (one: HeightStack | null) => {
    told.mockClear();
    const place = { obstacles: [{ id: 'k', kind: 'skirting', name: 'Skirting' }] } as unknown as Place;
    made = shown(HeightsPane, {
      said: part<SetOut>(one ? said : { ...said, heights: [] }),
      place,
      stack: one,
      laid: null,
      picked: [],
      onchange: told,
    });
  };

  it('puts a new layer where it lies', () => {
    put(stack);
    const cushion = labelled<HTMLInputElement>('covering');
    cushion.click();
    flushSync();
    expect(last(told)[0]!.members.map((m) => m.name)).toEqual(['covering', 'base', 'box']);
  });

  it('lets another layer give, and a base be as high as its skirting', () => {
    put(stack);
    (document.querySelector('[aria-label="The base gives"]') as HTMLInputElement).click();
    flushSync();
    expect(last(told)[0]!.gives).toBe('base');
    choose('The base is as high as', 'k');
    expect(last(told)[0]!.base_as).toBe('k');
  });

  it('begins from what stands on the floor as it is', () => {
    put(null);
    press(/^Stack up/);
    expect(last(told)[0]).toMatchObject({
      units: ['A'],
      members: [
        { name: 'base', high_mm: 80 },
        { name: 'box', high_mm: 300 },
      ],
      finished_mm: 380,
      gives: 'box',
    });
  });
});

describe('rules', () => {
  const told = vi.fn<(move: Move) => void>();
  const units = [
    { id: 'A', name: 'A', x_mm: 0, over_base_mm: 0 },
    { id: 'B', name: 'B', x_mm: 600, over_base_mm: 0 },
  ];
  const put = (picked: string[], rules: object[] = []) => {
    told.mockClear();
    made = shown(RulesPane, {
      said: part<SetOut>({ units, openings: [{ id: 'w', name: 'Window' }] }),
      place: part<Place>({ obstacles: [] }),
      laid: part<LaidOut>({ rules }),
      picked,
      onmove: told,
    });
  };

  it('are said of what is picked', () => {
    put(['B']);
    press(/Fill to the right wall/);
    expect(last(told)).toMatchObject({
      move: 'say',
      rule: { rule: 'lined up', to: { of: 'place', edge: 'right' } },
    });
    press(/Touches A/);
    expect(last(told)).toMatchObject({
      rule: { edge: { of: 'B', edge: 'left' }, to: { of: 'A', edge: 'right' } },
    });
    choose('Centred on', 'w');
    expect(last(told)).toMatchObject({ rule: { rule: 'centred', units: ['B'], on: 'w' } });
  });

  it('make several equally wide', () => {
    put(['B', 'A']);
    press(/Equally wide/);
    expect(last(told)).toMatchObject({ rule: { rule: 'equal', units: ['A', 'B'] } });
  });

  it('are read with whether they hold, and taken off', () => {
    put([], [{ id: 'r1', sign: '=', words: 'A, B equally wide', stands: 'contradicts' }]);
    expect(page()).toContain('A, B equally wide: contradicts others');
    press(/^Take off: A, B/);
    expect(last(told)).toEqual({ move: 'release', rule: 'r1' });
  });
});

describe('the room', () => {
  it('gets things that stay and openings under ids of their own', () => {
    const told = vi.fn<(part: Partial<SetOut>) => void>();
    made = shown(RoomPane, {
      said: part<SetOut>({ existing: [{ id: 'stays-1', name: 'Levers' }] }),
      place: { width_mm: 3000, height_mm: 2400 },
      onchange: told,
    });
    press('Add something that stays');
    expect(last(told).existing?.map((e) => e.id)).toEqual(['stays-1', 'stays-2']);
    press('Add a window or door');
    expect(last(told).openings?.[0]).toMatchObject({ kind: 'window', sill_mm: 900 });
    press('The wall ends here');
    expect(last(told).openings?.[0]).toMatchObject({
      kind: 'no wall',
      x_mm: 2700,
      width_mm: 300,
      height_mm: 2400,
    });
    fill('High', '410');
    expect(last(told).existing?.[0]).toMatchObject({ height_mm: 410 });
  });
});

describe('things, holes and bodies', () => {
  it('things are named, sized and counted', () => {
    const told = vi.fn<(things: object[]) => void>();
    const thing = { name: 'Tray', width_mm: 300, depth_mm: 200, height_mm: 90, count: 1 };
    made = shown(Things, { things: [thing] as never, onchange: told as never });
    fill('Wide', '320');
    expect(last(told)[0]).toMatchObject({ name: 'Tray', width_mm: 320 });
    press('How many: one more');
    expect(last(told)[0]).toMatchObject({ count: 2 });
    press('Take out Tray');
    expect(last(told)).toEqual([]);
  });

  it('a lid asks for its strip, a cable hole for its plug', () => {
    const hole = {
      id: 'h',
      name: 'Lid',
      kind: 'lid',
      inside: 'top',
      at: [0, 0],
      size: [400, 300],
      strip_mm: 80,
    };
    made = shown(HolesForm, { unit: part<Unit>({ holes: [hole] }), onchange: vi.fn() });
    expect(labelled<HTMLInputElement>('Fixed strip behind').value).toBe('80');
    expect(() => labelled('Plug')).toThrow();
    expect(options('In its')).toContain('top');
  });

  it('a frame says its members and can be laid on the flat', () => {
    const told = vi.fn<(body: object) => void>();
    const laid = {
      unit: { kind: 'platform', body: DEFAULTS.framing },
      frame: { members: [{ at_mm: 0, long_mm: 910 }], wide_mm: 2000, deep_mm: 1000 },
    } as unknown as LaidUnit;
    made = shown(BodyForm, { laid, onchange: told as never });
    expect(page()).toContain('1 × 910 · frame 2000 × 1000');
    choose('Members stand', 'on the flat');
    expect(last(told)).toMatchObject({ body: 'framing', stands: 'on the flat' });
  });
});

describe('a length typed where it is drawn', () => {
  const set = vi.fn<(mm: number) => void>();
  const close = vi.fn<() => void>();
  const put = (unit: 'mm' | 'in' = 'mm') => {
    set.mockClear();
    close.mockClear();
    made = shown(TypeHere, { label: 'Wide', mm: 600, x: 0, y: 0, onset: set, onclose: close }, unit);
    return document.querySelector('input')!;
  };
  const key = (input: HTMLInputElement, name: string) =>
    input.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true }));

  it('is taken by Enter once, and left by Escape', () => {
    let input = put();
    expect(input.value).toBe('600');
    input.value = '62 cm';
    key(input, 'Enter');
    input.dispatchEvent(new FocusEvent('blur'));
    expect(set.mock.calls).toEqual([[620]]);
    expect(close).toHaveBeenCalledTimes(1);
    void unmount(made);
    input = put();
    input.value = '700';
    key(input, 'Escape');
    expect(set).not.toHaveBeenCalled();
  });

  it('is taken too by a finger that goes elsewhere, and says what is no length', () => {
    const input = put('in');
    input.value = 'wide';
    key(input, 'Enter');
    flushSync();
    expect(page()).toContain('Write it like');
    input.value = '24 1/2';
    input.dispatchEvent(new FocusEvent('blur'));
    expect(set.mock.calls[0]![0]).toBeCloseTo(622.3, 6);
  });
});

it('says nothing twice', () => {
  made = shown(Things, { things: [], onchange: vi.fn() });
  expect(button('Add a thing')).toBeTruthy();
});
