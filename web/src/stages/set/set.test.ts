import { describe, expect, it } from 'vitest';
import type { AsSet, Check } from '../../api/types';
import { asSet, bubble, next, overItsLength, tally, within, withPending } from './set';

const check = (key: string, more: object = {}): Check =>
  ({
    key,
    kind: 'level-along',
    name: key,
    how: '',
    place: 'p',
    of: 'A',
    at: [0, 0],
    over_mm: 800,
    expected_mm: 0,
    tolerance_mm: 1,
    only: 'both',
    least_mm: -1,
    most_mm: 1,
    step: 'set/p/A',
    why: '',
    readings: [],
    state: 'open',
    stands: null,
    ...more,
  }) as unknown as Check;
const pending = (fact: AsSet) => ({ fact });

describe('a level', () => {
  it('has its bubble where the reading puts it, between lines at what is let be, and never off the glass', () => {
    const read = (off: number) =>
      bubble(check('a', { readings: [{ fact: 'f', value_mm: off, off_mm: off, out: false }] }));
    expect([read(0), read(0.5), read(-1), read(30)]).toEqual([0, 0.5, -1, 1.7]);
    expect(bubble(check('a'))).toBeNull();
  });

  it('is read over its length, by the metre or in degrees', () => {
    expect(overItsLength(2, 'mm', 800)).toBe(2);
    expect(overItsLength(2, 'mm/m', 800)).toBeCloseTo(1.6);
    expect(overItsLength(0.1, '°', 800)).toBeCloseTo(1.396, 3);
  });
});

describe('what waits here', () => {
  it('counts at once: right, out, and only more where only that is out', () => {
    const checks = [
      check('a'),
      check('b', { only: 'more', least_mm: null }),
      check('c', { expected_mm: null, tolerance_mm: 0 }),
    ];
    const read = withPending(checks, [
      pending(asSet(checks[0]!, 'Ines', { mm: 1.4 })),
      pending(asSet(checks[1]!, 'Ines', { mm: -3 })),
      pending(asSet(checks[2]!, 'Ines', { came: 'right' })),
    ]);
    expect(read.map((c) => c.state)).toEqual(['out', 'right', 'right']);
    expect(tally(read)).toEqual({ open: 0, right: 2, out: 1 });
    expect(withPending(checks, [])).toEqual(checks);
  });

  it('is told with what was planned then', () => {
    const fact = asSet(check('a', { expected_mm: 720, least_mm: 719, most_mm: 721 }), 'Ines', { mm: 721 });
    expect([fact.value_mm, fact.expected_mm, fact.of, fact.came]).toEqual([721, 720, 'A', null]);
  });
});

describe('the next check', () => {
  it('is of the same step, then of the same unit, then any that is open', () => {
    const a = check('a', { state: 'right' });
    const far = check('far', { of: 'B', step: 'set/p/B' });
    const unit = check('unit', { step: 'fasten/p/A' });
    const step = check('step');
    expect(next([a, far, unit, step], a)?.key).toBe('step');
    expect(next([a, far, unit], a)?.key).toBe('unit');
    expect(next([a, far], a)?.key).toBe('far');
    expect(next([a], a)).toBeNull();
  });
});

describe('the name of a check', () => {
  it('leaves out its piece where it begins with that, and keeps two pieces that meet', () => {
    expect(within('C Bench: level along', 'C Bench')).toBe('level along');
    expect(within('B Press and C Bench: tops flush', 'C Bench')).toBe('B Press and C Bench: tops flush');
  });
});
