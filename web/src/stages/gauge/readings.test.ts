/** The list of readings: newest first, what was doubted, set aside or taken again, and what waits. */
import { unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Note, Place, Reading, Surveyed } from '../../api/types';
import { button, page, press, shown } from '../../testing';
import Notes from './forms/Notes.svelte';
import ReadingList from './ReadingList.svelte';

const reading = (id: string, part: object = {}) =>
  ({
    fact: 'offset',
    id,
    surface: 'floor',
    at: [700, 100],
    value_mm: 1002.5,
    set_up: 'line-1',
    instrument: 'laser',
    taken_at: '2026-03-07T09:30:00Z',
    taken_by: 'Ines',
    supersedes: null,
    aside: null,
    note: '',
    ...part,
  }) as unknown as Reading;
const aside = { reason: 'stood on a clip', at: '2026-03-07T10:00:00Z', by: 'Ines' };
let made: Record<string, unknown>;
afterEach(() => unmount(made));

describe('the readings', () => {
  const told = { again: vi.fn(), aside: vi.fn(), back: vi.fn(), drop: vi.fn() };
  const put = (
    readings: Reading[],
    verdicts: object[] = [],
    waiting: Reading[] = [],
    unit: 'mm' | 'in' = 'mm',
  ) => {
    Object.values(told).forEach((t) => t.mockClear());
    const place = { readings, set_ups: [] } as unknown as Place;
    const surveyed = { verdicts } as unknown as Surveyed;
    made = shown(
      ReadingList,
      {
        place,
        surveyed,
        waiting,
        onagain: told.again,
        onaside: told.aside,
        onback: told.back,
        ondrop: told.drop,
      },
      unit,
    );
  };
  const rows = () =>
    [...document.querySelectorAll('li')].map((li) => li.textContent.replace(/\s+/g, ' ').trim());

  it('stand newest first under their own numbers, what waits above them', () => {
    put([reading('a'), reading('b', { value_mm: 1004 })], [], [reading('w', { value_mm: 1009 })]);
    expect(rows().map((r) => r[0])).toEqual(['…', '2', '1']);
    expect(rows()[0]).toContain('waiting to be sent');
    expect(rows()[0]).toContain('1009.0');
    press('Discard');
    expect(told.drop).toHaveBeenCalledWith(expect.objectContaining({ id: 'w' }));
  });

  it('say how far a doubted one is out, and which way', () => {
    put(
      [reading('a'), reading('b')],
      [
        { reading: 'a', verdict: 'take again', by_mm: 9.6 },
        { reading: 'b', verdict: 'agrees', by_mm: -0.3 },
      ],
    );
    expect(rows()[1]).toContain('9.6 more than the others say');
    expect(rows()[0]).toContain('agrees within 0.3');
    expect(document.querySelectorAll('.doubted')).toHaveLength(1);
  });

  it('are shown in inches to whoever measures in inches', () => {
    put([reading('a')], [], [], 'in');
    expect(rows()[0]).toContain('39 15/32"');
    expect(rows()[0]).not.toContain('1002.5');
  });

  it('that were taken again or set aside stay in the list and say so', () => {
    put([reading('a'), reading('b', { supersedes: 'a' }), reading('c', { aside })]);
    expect(rows()[2]).toContain('taken again since');
    expect(rows()[0]).toContain('set aside: stood on a clip');
    press('Put back');
    expect(told.back).toHaveBeenCalledWith(expect.objectContaining({ id: 'c' }));
    expect(document.querySelectorAll('.out')).toHaveLength(2);
  });

  it('are superseded by one that still waits, and not by one that was set aside', () => {
    put([reading('a'), reading('b')], [], [reading('w', { supersedes: 'a' })]);
    expect(rows()[2]).toContain('taken again since');
    put([reading('a'), reading('b', { supersedes: 'a', aside })]);
    expect(rows()[1]).not.toContain('taken again since');
  });

  it('are taken again where they were one spot, and set aside whatever they are', () => {
    put([reading('a', { fact: 'span', between: 'left-right', at: [100, 400] })]);
    expect(() => button('Again')).toThrow();
    press('Set aside');
    expect(told.aside).toHaveBeenCalledWith(expect.objectContaining({ id: 'a' }));
    put([reading('a')]);
    press('Again');
    expect(told.again).toHaveBeenCalledWith(expect.objectContaining({ id: 'a' }));
  });
});

describe('notes', () => {
  const note = (id: string, part: Partial<Note> = {}) =>
    ({
      fact: 'note',
      id,
      text: `note ${id}`,
      taken_at: '2026-03-07T09:30:00Z',
      taken_by: '',
      ...part,
    }) as unknown as Note;

  it('take no room while there are none', () => {
    made = shown(Notes, { notes: [], waiting: [] });
    expect(page()).toBe('');
  });

  it('stand newest first, once each, with where they were seen and whether they wait', () => {
    const damp = note('b', { surface: 'back', at: [300, 400], taken_by: 'Ines' });
    made = shown(Notes, { notes: [note('a'), damp], waiting: [damp, note('c')] });
    const lines = [...document.querySelectorAll('li')].map((li) => li.textContent.replace(/\s+/g, ' '));
    expect(lines.map((l) => l.trim().slice(0, 6))).toEqual(['note c', 'note b', 'note a']);
    expect(lines[1]).toContain('Back');
    expect(lines[1]).toContain('Ines · waiting to be sent');
    expect(lines[2]).not.toContain('waiting');
  });
});
