import { flushSync, mount, unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import TextField from './TextField.svelte';

/** A field whose values change from outside, as the answers of the server change them. */
let props = $state<Record<string, unknown>>({});
let open: Record<string, unknown> | null = null;
const told = vi.fn();

function put(more: object = {}) {
  document.body.innerHTML = '';
  told.mockClear();
  props = { label: 'Where', value: 'Mill Lane 3', ontext: told, ...more };
  const whole = new Proxy(
    {},
    {
      get: (_, key) => props[key as string],
      has: (_, key) => key in props,
      ownKeys: () => Reflect.ownKeys(props),
      getOwnPropertyDescriptor: (_, key) => ({
        configurable: true,
        enumerable: true,
        get: () => props[key as string],
      }),
    },
  );
  open = mount(TextField as never, { target: document.body, props: whole });
  flushSync();
}
const field = () => document.querySelector<HTMLInputElement | HTMLTextAreaElement>('input, textarea')!;
function type(text: string) {
  field().value = text;
  field().dispatchEvent(new Event('input', { bubbles: true }));
  flushSync();
}
function leave() {
  field().dispatchEvent(new FocusEvent('blur'));
  flushSync();
}
function answer(change: object) {
  props = { ...props, ...change };
  flushSync();
}

afterEach(async () => {
  if (open) await unmount(open);
});

describe.each([
  ['of one line', 1],
  ['of several lines', 3],
])('a field of text %s', (_, rows) => {
  it('tells what was written once it is left, without what is blank around it', () => {
    put({ rows });
    type('  Quay 9 ');
    expect(told).not.toHaveBeenCalled();
    leave();
    leave();
    expect(told.mock.calls).toEqual([['Quay 9']]);
  });

  it('keeps what is half typed when an answer comes, and shows the answer once it is left as it was', () => {
    put({ rows });
    type('Quay');
    answer({ value: 'Mill Lane 3', ontext: told });
    expect(field().value).toBe('Quay');
    answer({ value: 'Harbour 1' });
    expect(field().value).toBe('Quay');
    type('Harbour 1');
    leave();
    expect(told).not.toHaveBeenCalled();
    answer({ value: 'Harbour 2' });
    expect(field().value).toBe('Harbour 2');
  });

  it('is emptied only where it may be', () => {
    put({ rows });
    type('   ');
    leave();
    expect(told).not.toHaveBeenCalled();
    expect(field().value).toBe('Mill Lane 3');
    put({ rows, optional: true });
    type('');
    leave();
    expect(told).toHaveBeenCalledWith('');
  });
});

it('is taken by Enter where it has one line', () => {
  put();
  type('Quay 9');
  field().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  flushSync();
  expect(told).toHaveBeenCalledWith('Quay 9');
});
