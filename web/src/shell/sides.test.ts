import { describe, expect, it } from 'vitest';
import type { Conflict } from '../state/waiting.svelte';
import { ofEdit, ofFact } from './sides';

describe('two values of one thing', () => {
  it('are named by what they belong to, in the unit of the page', () => {
    const sides = [
      { path: '$.units[A].width_mm', yours: 600, theirs: 584.2 },
      { path: '$.units[B]', yours: { name: 'Low box' }, theirs: null },
      { path: '$.closing.method', yours: 'fillers', theirs: 'shadow gap' },
      { path: '$.units[A].fixing_heights_mm', yours: [650, 80], theirs: [] },
      {
        path: '$.datum',
        yours: { rule: 'high spot', over_mm: 2 },
        theirs: { rule: 'fixed top', top_mm: 900 },
      },
    ];
    expect(ofEdit(sides, 'mm').rows).toEqual([
      { name: 'A: width', yours: '600.0', theirs: '584.2' },
      { name: 'B: unit', yours: 'Low box', theirs: 'taken away' },
      { name: 'method', yours: 'fillers', theirs: 'shadow gap' },
      { name: 'A: fixing heights', yours: '650.0 × 80.0', theirs: '—' },
      { name: 'datum', yours: 'rule high spot, over 2.0', theirs: 'rule fixed top, top 900.0' },
    ]);
    expect(ofEdit(sides.slice(0, 1), 'in').rows[0]!.theirs).toBe('23"');
  });

  it('of a fact leave out what only tells one fact from another', () => {
    const conflict = {
      kept: { fact: { id: 'a', fact: 'obstacle', name: 'Outlet', at: [300, 400], taken_by: 'Ines' } },
      theirs: { id: 'b', fact: 'obstacle', name: 'Outlet', at: [310, 400], taken_by: 'Ines' },
    } as unknown as Conflict;
    expect(ofFact(conflict, 'mm')).toEqual({
      title: '“Outlet” was changed in two places',
      rows: [{ name: 'where', yours: '300.0 × 400.0', theirs: '310.0 × 400.0' }],
    });
  });
});
