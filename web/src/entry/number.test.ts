/** A plain number as it is typed: taken with a point or a comma, refused with what is wrong, never made into another. */
import { describe, expect, it } from 'vitest';
import { fill, labelled, page, shown } from '../testing';
import NumberField from './NumberField.svelte';

let said: (number | null)[] = [];
function field(props: object) {
  said = [];
  shown(NumberField, {
    label: 'Weight, kg',
    value: 40,
    onchange: (n: number | null) => said.push(n),
    ...props,
  });
}

describe('a plain number', () => {
  it.each([
    ['12.5', 12.5],
    ['12,5', 12.5],
    [' 7 ', 7],
  ])('is taken as %s', (text, n) => {
    field({});
    fill('Weight', text);
    expect(said).toEqual([n]);
    expect(page()).not.toContain('not a number');
  });

  it.each([
    ['4O', {}, 'is not a number'],
    ['1e3', {}, 'is not a number'],
    ['', {}, 'Give a number.'],
    ['-1', {}, 'Not below 0.'],
    ['2001', { most: 2000 }, 'Not above 2000.'],
    ['2.5', { whole: true }, 'A whole number.'],
  ])('is refused as %s, and stays typed', (text, more, words) => {
    field(more);
    fill('Weight', text);
    expect(said).toEqual([]);
    expect(page()).toContain(words);
    expect(labelled<HTMLInputElement>('Weight').value).toBe(text);
  });

  it('may be left empty where that says something, and says nothing new where it is the same', () => {
    field({ optional: true, value: 40 });
    fill('Weight', '');
    expect(said).toEqual([null]);
    field({});
    fill('Weight', '40.0');
    expect(said).toEqual([]);
  });

  it('is mended where it was wrong', () => {
    field({});
    fill('Weight', 'heavy');
    expect(page()).toContain('“heavy” is not a number');
    fill('Weight', '41');
    expect(said).toEqual([41]);
    expect(page()).not.toContain('heavy');
  });
});
