<!-- What may be wider than the screen: it scrolls sideways by itself, also by keyboard. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  let { label, children }: { label: string; children: Snippet } = $props();
</script>

<!-- what scrolls must be reached by keys -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div role="group" aria-label={label} tabindex="0">{@render children()}</div>

<style>
  div {
    position: relative; /* holds hidden labels, which stand apart from the flow */
    overflow-x: auto;
  }
</style>
