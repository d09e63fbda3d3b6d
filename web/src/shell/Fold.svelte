<!-- What is looked up rarely: its name and in a line what it holds, opened by a press. -->
<script module lang="ts">
  /** What was opened on which page: a job that is read again after a change leaves it so. */
  const opened = new Set<string>();
</script>

<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    title: string;
    /** Its name in an address: whoever comes by that finds it open. */
    id: string;
    /** What it holds, in a line. */
    holds: string;
    children: Snippet;
  }
  let { title, id, holds, children }: Props = $props();
  const own = $derived(`${location.pathname}#${id}`);
  let open = $derived(location.hash === `#${id}` || opened.has(own));
</script>

<details {id} bind:open ontoggle={() => void (open ? opened.add(own) : opened.delete(own))}>
  <summary>
    <h2>{title}</h2>
    <span class="quiet">{holds}</span>
  </summary>
  <div class="inside">{@render children()}</div>
</details>

<style>
  details {
    border-top: 1px solid var(--w-line-strong);
  }
  summary {
    cursor: pointer;
    min-height: 44px;
    display: flex;
    align-items: baseline;
    gap: 0.75rem;
    padding: 0.6rem 0.25rem;
  }
  summary::before {
    content: '+';
    font-family: var(--w-mono, monospace);
    width: 1ch;
  }
  details[open] > summary::before {
    content: '−';
  }
  h2 {
    font-size: 1rem;
    flex: 0 1 auto;
  }
  .quiet {
    flex: 1 1 0;
    line-height: 1.5;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .inside {
    padding: 0.25rem 0.25rem 1.5rem;
  }
</style>
