/** Typing and walking, without a browser. */
import { describe, expect, it } from 'vitest';
import type { Station } from '../api/types';
import { newId } from './ids';
import { parseLength, showLength } from './length';
import { spotWords } from './places';
import { EIGHTHS, pressed, SIXTEENTHS } from './typed';
import { usual, usualLength } from './usual';
import { neighbour, nextOpen } from './walk';

const type = (...keys: string[]) => keys.reduce(pressed, '');

describe('the pad', () => {
  it.each([
    [['1', '0', '0', '4', '.', '5'], '1004.5'],
    [['1', '.', '5', '.'], '1.5'],
    [['3', '9', '5/8'], '39 5/8'],
    [['3', '9', '5/8', '3/4'], '39 3/4'],
    [['3', '9', '5/8', '⌫'], '39'],
    [['3', '9', '5/8', '⌫', '⌫'], '3'],
    [['1/4'], '1/4'],
    [['±', '1/4'], '-1/4'],
    [['4', '±'], '-4'],
    [['4', '±', '±'], '4'],
    [['⌫'], ''],
  ])('%s types %s', (keys, text) => {
    expect(type(...keys)).toBe(text);
  });

  it.each([...EIGHTHS, ...SIXTEENTHS])('%s is a length with and without inches before it', (fraction) => {
    const [above, below] = fraction.split('/').map(Number);
    expect(parseLength(type('7', fraction), 'in')).toBeCloseTo((7 + above! / below!) * 25.4, 9);
    expect(parseLength(type(fraction), 'in')).toBeCloseTo((above! / below!) * 25.4, 9);
  });
});

describe('the walk', () => {
  const station = (id: string, read_by: string | null = null): Station => ({
    id,
    surface: 'floor',
    at: [0, 0],
    takes: 'offset',
    read_by,
  });
  const round = [station('a'), station('b', 'r1'), station('c'), station('d')];

  it('goes on to the next open station, past those that are read or wait', () => {
    expect(nextOpen(round, 'a', new Set())?.id).toBe('c');
    expect(nextOpen(round, 'a', new Set(['c']))?.id).toBe('d');
  });

  it('comes round to what was left out, and ends where all are read', () => {
    expect(nextOpen(round, 'd', new Set())?.id).toBe('a');
    expect(nextOpen(round, 'd', new Set(['a', 'c']))).toBeNull();
    expect(nextOpen([], null, new Set())).toBeNull();
  });

  it('steps to its neighbours both ways', () => {
    expect(neighbour(round, 'a', -1)?.id).toBe('d');
    expect(neighbour(round, 'd', 1)?.id).toBe('a');
    expect(neighbour([], 'a', 1)).toBeNull();
  });
});

it('names a spot by the way its surface runs', () => {
  expect(spotWords('floor', [1050, 60], 'mm')).toBe('1050 along, 60 out');
  expect(spotWords('back', [254, 508], 'in')).toBe('10" along, 20" up');
});

it('makes ids that the server takes, each its own', () => {
  const ids = Array.from({ length: 200 }, newId);
  expect(new Set(ids).size).toBe(200);
  ids.forEach((id) =>
    expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/),
  );
});

describe('a form field by field', () => {
  it('walks on at Enter as a meter types it, and sends after the last', async () => {
    const { fieldByField } = await import('./fields');
    document.body.innerHTML = '<form><input id="a"><input type="checkbox"><input id="b"></form>';
    const form = document.querySelector('form')!;
    const sent: string[] = [];
    fieldByField(form, () => sent.push('sent'));
    const enter = (id: string) =>
      document
        .getElementById(id)!
        .dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    document.getElementById('a')!.focus();
    enter('a');
    expect(document.activeElement?.id).toBe('b');
    expect(sent).toEqual([]);
    enter('b');
    expect(sent).toEqual(['sent']);
  });
});

describe('what a form begins with', () => {
  it.each([
    [2400, '96"'],
    [1200, '48"'],
    [760, '30"'],
    [600, '24"'],
    [400, '16"'],
    [100, '4"'],
    [40, '1 1/2"'],
    [19, '3/4"'],
    [6, '1/4"'],
    [1, '1/16"'],
  ])('is, for %s mm, %s on a rule in inches', (mm, inches) => {
    expect(showLength(usualLength(mm, 'in'), 'in')).toBe(inches);
    expect(usualLength(mm, 'mm')).toBe(mm);
  });

  it('turns the lengths of a thing, and nothing else of it', () => {
    const door = { way: 'doorway', width_mm: 760, slope_deg: 40, at: [100, 100], name: 'Door' };
    expect(usual(door, 'in')).toEqual({ ...door, width_mm: 762, at: [101.6, 101.6] });
    expect(usual(door, 'mm')).toEqual(door);
  });
});
