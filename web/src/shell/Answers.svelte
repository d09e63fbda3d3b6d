<!-- What the place says, in order of consequence: what is fine is folded by subject, what is new since the last look marked. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { SvelteSet } from 'svelte/reactivity';
  import type { Finding } from '../api/types';
  import Measure from '../entry/Measure.svelte';
  import { usePlace } from '../state/place';
  import { keepLook, lastLook, since } from '../state/looks';
  import { bySubject, keyed, keyOf } from './findings';
  import Answer from './Answer.svelte';

  interface Props {
    findings: readonly Finding[];
    lit: string | null;
    onpick: (finding: Finding) => void;
    /** Whether what is new since the last look at this page is marked. */
    marked?: boolean;
  }
  let p: Props = $props();
  /** So few that are fine are told at once. */
  const FEW = 3;

  const view = usePlace();
  const page = $derived(p.marked ? `${location.pathname} ${view.unit}` : '');
  const look = $derived(page ? lastLook(page) : null);
  const changed = $derived(since(look, p.findings));
  const open = $derived(p.findings.filter((f) => f.severity !== 'fine'));
  const fine = $derived(p.findings.filter((f) => f.severity === 'fine'));
  const folded = $derived(fine.length > FEW ? bySubject(fine) : []);

  /** What was opened stays so while decisions are turned; what the drawing points at is open as long as it does. */
  const opened = new SvelteSet<string>();

  function leave(from = page) {
    if (from && p.findings.length) keepLook(from, p.findings);
  }
  $effect(() => {
    const from = page;
    return () => untrack(() => leave(from));
  });
</script>

<svelte:window onpagehide={() => leave()} />

{#snippet one(f: Finding)}
  {#snippet figure()}
    {#if f.figure}<Measure mm={f.figure.value_mm} sd={f.figure.sd_mm} named />{/if}
  {/snippet}
  <Answer
    mark={f.severity}
    title={f.title}
    text={f.text}
    caution={f.caution}
    news={changed.news.get(keyOf(f))}
    lit={p.lit === keyOf(f)}
    figure={f.figure ? figure : undefined}
    onclick={f.figure?.working.length || f.about.length ? () => p.onpick(f) : undefined}
  />
{/snippet}

{#each keyed(open) as [key, f] (key)}{@render one(f)}{/each}
{#if changed.settled}
  <p class="quiet settled">
    {changed.settled === 1 ? 'One thing' : `${changed.settled} things`} told at your last look {changed.settled ===
    1
      ? 'is'
      : 'are'} settled.
  </p>
{/if}
{#if folded.length}
  {#each folded as [subject, found] (subject)}
    {@const pointed = found.some((f) => p.lit === keyOf(f))}
    <details
      open={pointed || opened.has(subject)}
      ontoggle={(e) => void (e.currentTarget.open ? opened.add(subject) : pointed || opened.delete(subject))}
    >
      <summary>
        <svg viewBox="0 0 14 14" width="14" height="14" aria-hidden="true"
          ><circle cx="7" cy="7" r="5.5" /></svg
        >
        <span class="subject">{subject}</span>
        {#if found.some((f) => changed.news.has(keyOf(f)))}<span class="news">changed</span>{/if}
        <span class="quiet">{found.length} fine</span>
      </summary>
      {#each keyed(found) as [key, f] (key)}{@render one(f)}{/each}
    </details>
  {/each}
{:else}
  {#each keyed(fine) as [key, f] (key)}{@render one(f)}{/each}
{/if}

<style>
  details {
    border-top: 1px solid var(--w-line);
  }
  summary {
    display: grid;
    grid-template-columns: 14px 1fr auto auto;
    gap: 0.7rem;
    align-items: center;
    min-height: 2.5rem;
    cursor: pointer;
    list-style: none;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  summary:hover .subject {
    text-decoration: underline;
  }
  summary svg {
    fill: none;
    stroke: var(--w-fine);
    stroke-width: 2.5;
  }
  details[open] summary svg {
    fill: var(--w-fine);
  }
  .subject {
    font-weight: 650;
  }
  .subject::first-letter {
    text-transform: uppercase;
  }
  .news {
    font-size: 0.75rem;
    font-weight: 650;
    color: var(--w-brass);
  }
  .settled {
    margin: 0;
    padding: 0.5rem 0 0.5rem calc(14px + 0.7rem);
    border-top: 1px solid var(--w-line);
    font-size: 0.875rem;
  }
  @media (pointer: coarse) {
    summary {
      min-height: 44px;
    }
  }
</style>
