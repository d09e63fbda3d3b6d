import { describe, expect, it } from 'vitest';
import { nameAt, withRoom } from './figures';

const figure = (id: string, from: number, y: number) => ({ id, from, to: from + 25, y });

describe('figures beside marks', () => {
  it('keep the first of two that would be written over each other', () => {
    const kept = withRoom([figure('corner', 100, 50), figure('between', 110, 52), figure('below', 110, 70)]);
    expect([...kept]).toEqual(['corner', 'below']);
  });

  it('stand side by side where they only touch', () => {
    expect(withRoom([figure('a', 0, 0), figure('b', 25, 0)]).size).toBe(2);
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
