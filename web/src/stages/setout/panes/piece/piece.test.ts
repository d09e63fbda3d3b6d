import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { OPTIONS } from '../../../../api/fields';
import type { Unit } from '../../../../api/types';
import { shown } from '../../../../testing';
import PieceMore from './PieceMore.svelte';

const BASE = {
  id: 'A',
  name: 'A',
  x_mm: 0,
  width_mm: 600,
  depth_mm: 560,
  height_mm: 720,
} as unknown as Unit;

describe('what can be said of a unit', () => {
  const told = vi.fn<(part: Partial<Unit>) => void>();
  let form: Record<string, unknown>;
  const put = (more: Partial<Unit> = {}) => {
    form = shown(PieceMore, { unit: { ...BASE, ...more }, others: [], onchange: told });
  };
  const labelled = <T extends HTMLElement>(text: string) => {
    const label = [...document.querySelectorAll('label')].find((l) => l.textContent?.trim().startsWith(text));
    return document.getElementById(label?.getAttribute('for') ?? '') as T | null;
  };
  const choose = (label: string, value: string) => {
    const select = labelled<HTMLSelectElement>(label);
    if (!select) throw new Error(`no ${label}`);
    select.value = value;
    select.dispatchEvent(new Event('change', { bubbles: true }));
    flushSync();
  };

  beforeEach(() => {
    told.mockClear();
  });
  afterEach(() => unmount(form));

  it('offers every kind that the core knows, once', () => {
    put();
    const offered = [...(labelled<HTMLSelectElement>('It is a')?.options ?? [])].map((o) => o.value);
    expect(new Set(offered)).toEqual(new Set(OPTIONS.unitKinds));
    expect(offered).toHaveLength(OPTIONS.unitKinds.length);
  });

  it('makes a shelf lie on cleats, meet its walls, and have no toe or fixings', () => {
    put();
    choose('It is a', 'shelf');
    expect(told.mock.calls[0]?.[0]).toMatchObject({
      kind: 'shelf',
      standing: { on: 'cleats' },
      meets: ['left', 'right', 'back'],
      fixing_heights_mm: [],
      toe_recess_mm: 0,
    });
  });

  it('hangs what hangs', () => {
    put();
    choose('It is a', 'wall');
    expect(told).toHaveBeenCalledWith({ kind: 'wall', standing: { on: 'hung' } });
  });

  it('gives what it stands on its usual sizes, and asks for them', () => {
    put();
    choose('It stands', 'feet');
    const standing = told.mock.calls[0]?.[0].standing;
    expect(standing).toMatchObject({ on: 'feet', least_mm: 80, most_mm: 120 });
    void unmount(form);
    put({ standing });
    expect(labelled('Rise of one turn')).not.toBeNull();
    expect(labelled('Shortest')).not.toBeNull();
    expect(labelled('Cleats high')).toBeNull();
  });

  it('says that nobody said what it holds, until somebody does', () => {
    put({ holds: 'not said' });
    const holds = labelled<HTMLSelectElement>('It holds');
    expect(holds?.value).toBe('not said');
    choose('It holds', 'books');
    expect(told).toHaveBeenCalledWith({ holds: 'books' });
  });
});
