import { describe, expect, it } from 'vitest';
import { NAMES, theme } from './theme.svelte';

describe('the look', () => {
  it('goes round from light to dark to glaring light, and is kept', () => {
    const root = document.documentElement;
    const seen = Array.from({ length: 3 }, () => {
      theme.turn();
      return [theme.look, root.getAttribute('theme'), root.getAttribute('look')];
    });
    expect(seen).toEqual([
      ['dark', 'g100', 'dark'],
      ['glare', 'white', 'glare'],
      ['light', 'white', 'light'],
    ]);
    expect(localStorage.getItem('wobble-theme')).toBe('light');
    expect(NAMES[theme.next]).toBe('Dark');
  });
});
