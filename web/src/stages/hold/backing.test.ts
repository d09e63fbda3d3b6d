/** What walls are made of: figures that fixings rest on are never made up from a slip of the finger. */
import { beforeEach, describe, expect, it } from 'vitest';
import type { Backing } from '../../api/types';
import { choose, fill, page, shown } from '../../testing';
import BackingForm from './BackingForm.svelte';
import { BACKING } from './backing';

const WALL = { ...BACKING, kind: 'masonry', lining_mm: 12, anchor: null } as Backing;
const ANCHOR = { name: 'Plug', pull_n: 600, shear_n: 900, embed_mm: 50 };
let put: Partial<Backing>[];
const said = (backing: Backing, more: object = {}) => {
  put = [];
  shown(BackingForm, {
    of: 'walls' as const,
    backing,
    vehicle: false,
    onput: (part: Partial<Backing>) => put.push(part),
    ...more,
  });
};
beforeEach(() => (put = []));

describe('what walls are made of', () => {
  it('takes an anchor’s loads from its maker, and no other', () => {
    said({ ...WALL, anchor: ANCHOR } as unknown as Backing);
    fill('Its maker’s load out', '75O');
    fill('Sideways', '0');
    expect(put).toEqual([]);
    expect(page()).toContain('“75O” is not a number');
    expect(page()).toContain('Not below 1.');
    fill('Its maker’s load out', '750');
    expect(put).toEqual([{ anchor: { ...ANCHOR, pull_n: 750 } }]);
  });

  it('asks for studs where there are some, and brings the lining that goes with a kind', () => {
    said(WALL);
    expect(page()).not.toContain('Studs wide');
    choose('The walls are', 'lath and plaster');
    expect(put).toEqual([{ kind: 'lath and plaster', lining_mm: 22, anchor: null }]);
    said({ ...WALL, kind: 'wood studs' } as unknown as Backing);
    fill('Studs wide', '38');
    expect(put.at(-1)).toEqual({ stud_mm: 38 });
  });

  it('asks a vehicle how hard it is thrown, within what a belt holds', () => {
    said(WALL, { vehicle: true });
    fill('Driving throws it', '25');
    expect(page()).toContain('Not above 20.');
    fill('Driving throws it', '0,8');
    expect(put).toEqual([{ driving_g: 0.8 }]);
  });
});
