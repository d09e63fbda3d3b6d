/** Where level starts: the methods beside each other, the slider, and a top that is asked for. */
import { unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Datum, DatumMethod, Plan } from '../../../api/types';
import { choose, fill, labelled, page, press, shown } from '../../../testing';
import LevelStart from './LevelStart.svelte';

const high = (over_mm: number): Datum => ({ rule: 'high spot', over_mm });
const top = (top_mm: number, part: object = {}): Datum => ({
  rule: 'fixed top',
  top_mm,
  to: 'a height',
  cushion_mm: 0,
  ...part,
});
const cost = (part: object = {}) => ({
  over_mm: 0,
  n_shims: 9,
  largest_shim_mm: 11.2,
  n_cut: 0,
  deepest_cut_mm: 0,
  ...part,
});
const plan = {
  base: {
    height: { value_mm: 5 },
    over_high_spot: { value_mm: 2 },
    sure_over_mm: 0.6,
    tied: true,
    stands: true,
  },
  trades: [
    cost({ over_mm: -10, n_cut: 4, deepest_cut_mm: 9 }),
    cost(),
    cost({ over_mm: 10, largest_shim_mm: 21 }),
  ],
  shims: [
    { gap: { value_mm: 4 }, filling: { kind: 'stack' } },
    { gap: { value_mm: 0 }, filling: { kind: 'bare' } },
    { gap: { value_mm: -3 }, filling: { kind: 'cut' } },
  ],
} as unknown as Plan;
const hung = { ...plan, base: { ...plan.base, stands: false }, shims: [] } as Plan;
const methods = [
  { method: 'high spot', datum: high(0), cost: cost(), proposed: true, reason: 'nothing is cut' },
  {
    method: 'fixed top',
    datum: top(910),
    cost: cost({ n_cut: 2 }),
    proposed: false,
    reason: 'the usual height',
  },
] as unknown as DatumMethod[];
let made: Record<string, unknown>;
afterEach(() => unmount(made));

describe('where level starts', () => {
  const [turned, kept] = [vi.fn<(datum: Datum) => void>(), vi.fn()];
  const put = (datum: Datum, unit: 'mm' | 'in' = 'mm', of: Plan = plan) => {
    turned.mockClear();
    kept.mockClear();
    made = shown(LevelStart, { plan: of, datum, methods, tallest: 720, onturn: turned, onkeep: kept }, unit);
  };
  const slide = (to: string, type: 'input' | 'change') => {
    const slider = document.querySelector<HTMLInputElement>('input[type=range]')!;
    slider.value = to;
    slider.dispatchEvent(new Event(type, { bubbles: true }));
  };

  it('shows each method with what it costs, and which is proposed and why', () => {
    put(high(0));
    expect(page()).toContain('From the high spot');
    expect(page()).toContain('proposed: nothing is cut');
    expect(page()).toContain('9 shims, to 11.2');
    expect(page()).toContain('Top at 910');
    expect(page()).toContain(', 2 cut');
  });

  it('turns and keeps a method at one touch', () => {
    put(high(0));
    press(/^Top at 910/);
    expect(turned).toHaveBeenCalledExactlyOnceWith(top(910));
    expect(kept).toHaveBeenCalledTimes(1);
  });

  it('turns while the slider moves, and keeps where it is let go', () => {
    put(high(0));
    slide('3', 'input');
    expect(turned).toHaveBeenCalledWith(high(3));
    expect(kept).not.toHaveBeenCalled();
    slide('3', 'change');
    expect(kept).toHaveBeenCalled();
  });

  it('moves a top that is asked for by the same slider, in halves of a millimetre', () => {
    put(top(725.3));
    slide('4', 'input');
    const [datum] = turned.mock.calls[0]!;
    expect(datum).toMatchObject({ rule: 'fixed top', to: 'a height' });
    // the top now stands 725.3 − 720 − (5 − 2) = 2.3 over the high spot; 1.7 more is 727.0
    expect((datum as { top_mm: number }).top_mm).toBe(727);
  });

  it('takes the height of a top in the user’s unit, and what it is to meet', () => {
    put(top(914.4), 'in');
    fill('Top over the mark', '36 1/2');
    expect((turned.mock.calls[0]![0] as { top_mm: number }).top_mm).toBeCloseTo(927.1, 6);
    choose('to meet', 'a worktop');
    expect(turned.mock.calls[1]![0]).toMatchObject({ to: 'a worktop' });
    expect(() => labelled('Cushion on it')).toThrow();
  });

  it('says that nothing stands on the floor, and asks for no height that costs nothing', () => {
    put(high(0), 'mm', hung);
    expect(page()).toContain('Nothing stands on the floor here');
    expect(page()).not.toContain('From the high spot');
    expect(document.querySelector('input[type=range]')).toBeNull();
  });

  it('lets a height that was asked for be taken back where nothing stands', () => {
    put(top(910), 'mm', hung);
    press(/^From the high spot/);
    expect(turned).toHaveBeenCalledExactlyOnceWith(high(0));
    expect(document.querySelector('input[type=range]')).toBeNull();
  });

  it('counts a cushion on a seat', () => {
    put(top(450, { to: 'a seat', cushion_mm: 60 }));
    fill('Cushion on it', '80');
    expect(turned.mock.calls[0]![0]).toMatchObject({ to: 'a seat', cushion_mm: 80, top_mm: 450 });
  });
});
