import { describe, expect, it } from 'vitest';
import { nameAt, withRoom, written } from './figures';

const figure = (id: string, from: number, y: number) => ({ id, from, to: from + 25, y });

describe('figures beside marks', () => {
  it('keep the first of two that would be written over each other', () => {
    const kept = withRoom([figure('corner', 100, 50), figure('between', 110, 52), figure('below', 110, 70)]);
    expect([...kept]).toEqual(['corner', 'below']);
  });

  it('stand side by side where they only touch', () => {
    expect(withRoom([figure('a', 0, 0), figure('b', 25, 0)]).size).toBe(2);
  });

  it('writes no number over a mark or over another number', () => {
    const at = (x: number, text: string) => ({ x, y: 50, text });
    const [first, second, far] = written([at(100, '1, 4, 7'), at(130, '2, 5'), at(300, '3')]);
    // "1, 4, 7" from 108 on would cover the mark at 130, so that it stands a row lower; the next has its own row free
    expect(first).toEqual({ x: 108, y: 63, text: '1, 4, 7' });
    expect(second).toEqual({ x: 138, y: 50, text: '2, 5' });
    expect(far).toEqual({ x: 308, y: 50, text: '3' });
    // on the left wall away from its corner: 14 + 4 px long, ending 6 px before its mark
    expect(written([at(100, '24')], true)).toEqual([{ x: 76, y: 50, text: '24' }]);
  });
});

describe('a name', () => {
  it('stands at the middle of its box, and moves where a figure stands there', () => {
    expect(nameAt(100, 80, [])).toBe(140);
    expect(nameAt(100, 80, [141])).toBe(120);
    expect(nameAt(100, 80, [118, 141])).toBe(160);
  });

  it('stays at the middle of a box too low to move it', () => {
    expect(nameAt(100, 16, [104])).toBe(108);
  });
});
