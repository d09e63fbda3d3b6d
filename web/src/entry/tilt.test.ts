/** A phone as a level: which way it reads, and when it is still. */
import { describe, expect, it } from 'vitest';
import { angleOf, askew, simulated, Steady } from './tilt';

describe('how a phone lies', () => {
  it('is over level on its back, and over plumb towards whoever looks at it upright', () => {
    expect(angleOf({ beta: 0.4, gamma: 0 }, 'flat')).toBeCloseTo(0.4);
    expect(angleOf({ beta: 91.5, gamma: 0 }, 'upright')).toBeCloseTo(1.5);
  });

  it('tells nothing rolled over its long edge, or in the other position', () => {
    expect(askew({ beta: 0.4, gamma: 6 }, 'flat')).toBe(true);
    expect(askew({ beta: 80, gamma: 0 }, 'flat')).toBe(true);
    expect(askew({ beta: 3, gamma: 0 }, 'upright')).toBe(true);
    expect(askew({ beta: 92, gamma: 20 }, 'upright')).toBe(false);
  });
});

describe('what is steadied', () => {
  const fed = (degs: (n: number) => number, ms: number) => {
    const steady = new Steady();
    const out: (number | null)[] = [];
    for (let at = 0; at <= ms; at += 50) out.push(steady.add(at, degs(at / 50)));
    return { out, steady };
  };

  it('is the mean of two still seconds, and nothing before', () => {
    const { out } = fed((n) => 0.5 + (n % 2 ? 0.1 : -0.1), 1800);
    expect(out.slice(0, -1).every((x) => x === null)).toBe(true);
    expect(out.at(-1)).toBeCloseTo(0.5, 1);
  });

  it('never comes while it moves, and comes once it has come to rest', () => {
    expect(fed((n) => n * 0.02, 6000).out.every((x) => x === null)).toBe(true);
    const { out } = fed((n) => (n < 40 ? n * 0.1 : 4), 6000);
    const first = out.findIndex((x) => x !== null);
    expect(first).toBeGreaterThan(40 + 30);
    expect(out[first]).toBeCloseTo(4, 1);
  });

  it('is not taken from a few numbers, however long they are apart', () => {
    const steady = new Steady();
    expect([0, 900, 1900].map((at) => steady.add(at, 1))).toEqual([null, null, null]);
  });

  it('is near what the stand-in of the demo lies at', async () => {
    const steady = new Steady();
    let n = 0;
    const still = await new Promise<number>((tell) => {
      const stop = simulated(
        0.35,
        'upright',
      )((lie) => {
        n += 1;
        const found = steady.add(n * 100, angleOf(lie, 'upright'));
        if (found === null) return;
        stop();
        tell(found);
      });
    });
    expect(still).toBeCloseTo(0.35, 1);
  });
});
