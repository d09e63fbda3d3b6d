/** What component tests share: a component put on an empty page, in millimetres or inches. */
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
