import { onDestroy } from 'svelte';

/** Whether the page that asks is still in view, for what comes back after a while: whoever went on is not brought back. */
export function inView(): () => boolean {
  let here = true;
  onDestroy(() => (here = false));
  return () => here;
}
