import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LengthUnit } from '../api/types';
import { shown } from '../testing';
import LengthField from './LengthField.svelte';
import NumberPad from './NumberPad.svelte';

let open: Record<string, unknown>[] = [];

const field = () => document.querySelector('input') as HTMLInputElement;
const alert = () => document.body.textContent ?? '';

function type(text: string) {
  field().value = text;
  field().dispatchEvent(new Event('input', { bubbles: true }));
  flushSync();
}

function key(name: string, target: EventTarget = field()) {
  target.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }));
  flushSync();
}

function press(name: string) {
  const found = [...document.querySelectorAll('button')].find(
    (b) => (b.getAttribute('aria-label') ?? b.textContent)?.trim() === name,
  );
  if (!found) throw new Error(`no button ${name}`);
  found.click();
  flushSync();
}

beforeEach(() => (open = []));
afterEach(() => Promise.all(open.map((made) => unmount(made))));

describe('a field for a length', () => {
  const told = vi.fn();
  const put = (more: object, unit: LengthUnit = 'mm') => {
    told.mockClear();
    open.push(shown(LengthField, { label: 'Wide', value: 600, onchange: told, ...more }, unit));
  };

  it('shows millimetres and says the unit', () => {
    put({});
    expect(field().value).toBe('600');
    expect(document.querySelector('label')?.textContent).toContain('Wide, mm');
  });

  it.each([
    ['33.7 cm', 337],
    ['337,5', 337.5],
    ['13 1/4"', 336.55],
  ])('takes %s as %d mm on Enter', (typed, mm) => {
    put({});
    type(typed);
    expect(told).not.toHaveBeenCalled();
    key('Enter');
    expect(told).toHaveBeenCalledTimes(1);
    expect(told.mock.calls[0]?.[0]).toBeCloseTo(mm, 6);
  });

  it('keeps what was typed and says what is wrong with it', () => {
    put({});
    type('wide');
    key('Enter');
    expect(told).not.toHaveBeenCalled();
    expect(field().value).toBe('wide');
    expect(alert()).toContain('“wide” is not a length');
  });

  it('does not go below the least, nor empty unless it may', () => {
    put({ least: 100 });
    type('99');
    key('Enter');
    expect(alert()).toContain('Not below 100');
    type('');
    key('Enter');
    expect(alert()).toContain('Give a length.');
    expect(told).not.toHaveBeenCalled();
    put({ optional: true });
    type('');
    key('Enter');
    expect(told).toHaveBeenCalledWith(null);
  });

  it('shows inches to a sixteenth and reads a bare number as inches', () => {
    put({ value: 336.55 }, 'in');
    expect(field().value).toContain('13');
    expect(field().value).toContain('1/4');
    type('10');
    key('Enter');
    expect(told).toHaveBeenCalledWith(254);
  });

  it('tells nothing when nothing was changed', () => {
    put({});
    type('600');
    key('Enter');
    expect(told).not.toHaveBeenCalled();
  });
});

describe('the number pad', () => {
  const told = vi.fn();
  const put = (unit: LengthUnit = 'mm', more: object = {}) => {
    told.mockClear();
    open.push(shown(NumberPad, { label: 'Reading', hint: '0', onenter: told, ...more }, unit));
  };

  it('records what its keys typed, once', () => {
    put();
    for (const k of ['9', '9', '8', '.', '5']) press(k);
    expect(field().value).toBe('998.5');
    press('Record');
    expect(told.mock.calls).toEqual([[998.5, '998.5']]);
    expect(field().value).toBe('');
  });

  it('takes back and changes the sign', () => {
    put();
    for (const k of ['1', '2', 'Take back', 'Change sign']) press(k);
    press('Record');
    expect(told).toHaveBeenCalledWith(-1, '-1');
  });

  it('takes digits typed anywhere on the page, as a meter does', () => {
    put();
    for (const k of ['1', '0', '0', '4']) key(k, document.body);
    key('Enter', document.body);
    expect(told).toHaveBeenCalledWith(1004, '1004');
  });

  it('leaves letters and shortcuts to the page', () => {
    put();
    key('c', document.body);
    expect(field().value).toBe('');
  });

  it('says what is no length and keeps it', () => {
    put();
    type('1..2');
    key('Enter');
    expect(told).not.toHaveBeenCalled();
    expect(document.querySelector('[role=alert]')?.textContent).toContain('“1..2” is not a length');
    expect(field().value).toBe('1..2');
  });

  it('has fractions for inches, and shows what they come to', () => {
    put('in');
    press('3');
    press('1/4');
    expect(document.querySelector('.unit')?.textContent).toMatch(/^82\.[56] mm$/);
    press('Record');
    expect(told.mock.calls[0]?.[0]).toBeCloseTo(82.55, 6);
  });

  it('records nothing while it is not ready', () => {
    put('mm', { disabled: true });
    type('5');
    key('Enter');
    expect(told).not.toHaveBeenCalled();
  });
});
