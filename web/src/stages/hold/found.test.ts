/** What is found behind a lining: touched in the drawing, said by what, and taken back. */
import { flushSync, unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { OPTIONS } from '../../api/fields';
import type { Behind, Detection } from '../../api/types';
import { button, choose, fill, labelled, options, page, press, shown } from '../../testing';
import FoundForm from './FoundForm.svelte';

const stud = (id: string, part: object = {}) =>
  ({
    fact: 'detection',
    id,
    surface: 'back',
    at: [410, 650],
    found_by: 'magnet',
    sees: 'screw',
    ...part,
  }) as unknown as Detection;
let made: Record<string, unknown>;
afterEach(() => unmount(made));

describe('what was found behind a lining', () => {
  const [moved, found, taken] = [vi.fn(), vi.fn(), vi.fn()];
  const put = (
    at: { surface: Behind; along: number | null; up: number },
    list: Detection[] = [],
    waits: string[] = [],
    unit: 'mm' | 'in' = 'mm',
  ) => {
    [moved, found, taken].forEach((t) => t.mockClear());
    made = shown(
      FoundForm,
      {
        surfaces: ['floor', 'back', 'left'],
        found: list,
        waits: new Set(waits),
        at,
        onat: moved,
        onfound: found,
        ontake: taken,
      },
      unit,
    );
  };

  it('waits for a place before it can be told', () => {
    put({ surface: 'back', along: null, up: 650 });
    expect(button('Found').disabled).toBe(true);
    fill('Along', '410');
    expect(moved).toHaveBeenCalledExactlyOnceWith({ surface: 'back', along: 410, up: 650 });
  });

  it('is told with what found it, and the place is free for the next', () => {
    put({ surface: 'back', along: 410, up: 650 });
    choose('Found by', 'magnet');
    choose('It shows', 'screw');
    press('Found');
    expect(found).toHaveBeenCalledExactlyOnceWith({
      surface: 'back',
      at: [410, 650],
      found_by: 'magnet',
      sees: 'screw',
    });
    expect(moved).toHaveBeenLastCalledWith({ surface: 'back', along: null, up: 650 });
  });

  it('offers what the schema has, and only surfaces of the place', () => {
    put({ surface: 'back', along: null, up: 650 });
    expect(options('Found by')).toEqual([...OPTIONS.foundBy]);
    expect(options('Found behind')).toEqual(['back', 'left', 'floor']);
  });

  it('names the two directions as they lie on the surface', () => {
    put({ surface: 'left', along: 100, up: 650 });
    expect(() => labelled('Along')).toThrow();
    expect(labelled<HTMLInputElement>('Out').value).toBe('100');
    put({ surface: 'floor', along: 100, up: 200 });
    expect(labelled<HTMLInputElement>('Along').value).toBe('100');
    expect(labelled<HTMLInputElement>('Out').value).toBe('200');
  });

  it('is listed newest first with what waits, and taken back', () => {
    put(
      { surface: 'back', along: null, up: 650 },
      [stud('a'), stud('b', { surface: 'left', at: [812.8, 650] })],
      ['b'],
      'in',
    );
    flushSync();
    const lines = [...document.querySelectorAll('li')].map((li) =>
      li.textContent.replace(/\s+/g, ' ').trim(),
    );
    expect(lines[0]).toContain('left: magnet, screw 32"');
    expect(lines[0]).toContain('waits here');
    expect(lines[1]).not.toContain('waits');
    expect(page()).toContain('2 found so far');
    press('Take back magnet at 32"');
    expect(taken).toHaveBeenCalledExactlyOnceWith('b');
  });
});
