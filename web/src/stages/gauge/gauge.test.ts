/** Readings of every kind by name, and what a place is like in words. */
import { describe, expect, it } from 'vitest';
import type { Reading, Trait } from '../../api/types';
import { readingValue, readingWords } from '../../entry/places';
import { FIELDS, kindsOf } from './kinds';
import { traitWords } from './traits';

const trait = (part: Partial<Trait>): Trait => ({
  surface: 'floor',
  kind: 'tilt',
  along: 'x',
  value: 0,
  sd: 0.1,
  unit: 'mm',
  at: null,
  working: '',
  rests_on: [],
  ...part,
});

describe('what a place is like', () => {
  it.each([
    [trait({ value: -4 }), 'Falls', 4, 'along'],
    [trait({ surface: 'back', along: 'z', value: 3 }), 'Leans', 3, 'into the room, going up'],
    [trait({ surface: 'left', along: 'y', value: -2 }), 'Runs', 2, 'away, going out into the room'],
    [trait({ kind: 'bow', value: -6 }), 'Bow', 6, 'hollow in the middle, along'],
    [
      trait({ kind: 'angle', surface: 'left', value: 89.2, unit: 'deg' }),
      'Corner with the back',
      89.2,
      'narrower than square',
    ],
  ])('%o', (given, name, value, how) => {
    expect(traitWords(given)).toEqual({ name, value, how });
  });
});

describe('the kinds of readings', () => {
  it('are those that the surfaces allow', () => {
    expect(kindsOf(['floor', 'back'])).toEqual(['slope', 'gap', 'profile', 'scan']);
    expect(kindsOf(['floor', 'back', 'left', 'right', 'ceiling'])).toEqual([
      'slope',
      'gap',
      'corner',
      'left-right',
      'floor-ceiling',
      'profile',
      'scan',
    ]);
  });

  it('ask for every place once', () => {
    for (const fields of Object.values(FIELDS)) {
      const keys = fields(['along', 'out'], 'square').map((f) => f.key);
      expect(new Set(keys).size).toBe(keys.length);
    }
  });

  const common = {
    id: 'r',
    instrument: 'i',
    taken_at: '',
    taken_by: '',
    entered: '',
    note: '',
    supersedes: null,
    aside: null,
  };
  it.each<[Reading, string, string]>([
    [
      { ...common, fact: 'span', between: 'floor-ceiling', at: [900, 60], value_mm: 2390 },
      'Floor to ceiling, 900 along, 60 out',
      '2390.0',
    ],
    [
      {
        ...common,
        fact: 'slope',
        surface: 'floor',
        start: [0, 60],
        end: [600, 60],
        value: -3,
        unit: 'mm/m',
        turned: true,
      },
      'Floor, level, turned, from 0 along, 60 out',
      '-3 mm/m',
    ],
    [
      {
        ...common,
        fact: 'corner',
        corner: 'back-left',
        height_mm: 900,
        along_mm: 600,
        out_mm: 800,
        how: 'diagonal',
        value_mm: 1003,
      },
      'Corner at the left, 900 up, by diagonal',
      '1003.0',
    ],
    [
      { ...common, fact: 'gap', surface: 'back', start: [0, 0], end: [900, 0], at: [450, 300], value_mm: 4 },
      'Back wall, gap at 450 along, 300 up',
      '4.0',
    ],
    [
      {
        ...common,
        fact: 'profile',
        surface: 'back',
        set_up: 's',
        along_mm: 600,
        points: [
          [0, 1],
          [2, 3],
        ],
      },
      'Back wall, profile at 600 along',
      '2 points',
    ],
  ])('%o', (reading, words, value) => {
    expect(readingWords(reading, 'mm')).toBe(words);
    expect(readingValue(reading, 'mm')).toBe(value);
  });
});
