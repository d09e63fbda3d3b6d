/** What component tests share: a component put on an empty page, in millimetres or inches, and how a user meets it. */
import { flushSync, mount, type Component } from 'svelte';
import type { LengthUnit } from './api/types';
import { PLACE } from './state/place';

export function shown<Props extends object>(
  component: Component<Props>,
  props: NoInfer<Props>,
  unit: LengthUnit = 'mm',
): Record<string, unknown> {
  document.body.innerHTML = '';
  const made = mount(component as Component, {
    target: document.body,
    props: props as Record<string, unknown>,
    context: new Map([[PLACE, { unit }]]),
  });
  flushSync();
  return made;
}

/** All that can be read on the page, with single spaces. */
export const page = () => (document.body.textContent ?? '').replace(/\s+/g, ' ').trim();

/** What carries a label: an input or a select. */
export function labelled<T extends HTMLElement>(text: string | RegExp): T {
  const fits = (said: string) => (typeof text === 'string' ? said.startsWith(text) : text.test(said));
  const label = [...document.querySelectorAll('label')].find((l) => fits((l.textContent ?? '').trim()));
  const found = document.getElementById(label?.getAttribute('for') ?? '');
  if (!found) throw new Error(`nothing is labelled ${String(text)}`);
  return found as T;
}

export function button(name: string | RegExp): HTMLButtonElement {
  const fits = (said: string) => (typeof name === 'string' ? said === name : name.test(said));
  const found = [...document.querySelectorAll('button')].find((b) =>
    fits((b.getAttribute('aria-label') ?? b.textContent ?? '').replace(/\s+/g, ' ').trim()),
  );
  if (!found) throw new Error(`there is no button ${String(name)}`);
  return found;
}

export function press(name: string | RegExp): void {
  button(name).click();
  flushSync();
}

export function choose(label: string | RegExp, value: string): void {
  const select = labelled<HTMLSelectElement>(label);
  select.value = value;
  select.dispatchEvent(new Event('change', { bubbles: true }));
  flushSync();
}

/** Type into a field and leave it. */
export function fill(label: string | RegExp, text: string): void {
  const input = labelled<HTMLInputElement>(label);
  input.value = text;
  input.dispatchEvent(new Event('input', { bubbles: true }));
  flushSync();
  input.dispatchEvent(new FocusEvent('blur'));
  flushSync();
}

export const options = (label: string | RegExp) =>
  [...labelled<HTMLSelectElement>(label).options].map((o) => o.value);
