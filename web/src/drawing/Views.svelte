<!-- The three ways to look at a place: unfolded, cut upright, in plan; the last two a key away. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Place, Surveyed } from '../api/types';
  import Section from './Section.svelte';
  import type { Way } from './section';

  interface Props {
    view: 'unfolded' | Way;
    place: Place;
    surveyed: Surveyed;
    room: number;
    exaggeration: number;
    base?: number;
    back?: number;
    /** Given the height that is left for the drawing, px. */
    unfolded: Snippet<[number]>;
  }
  let { view = $bindable(), ...p }: Props = $props();
  const VIEWS = { unfolded: 'Unfolded', cut: 'Cut', plan: 'Plan' } as const;
  const KEYS = { unfolded: 'f', cut: 'c', plan: 'v' };
</script>

<div class="views no-print" role="group" aria-label="View">
  {#each Object.entries(VIEWS) as [key, name] (key)}
    <button
      aria-pressed={view === key}
      title="{name} ({KEYS[key as keyof typeof KEYS]})"
      onclick={() => (view = key as typeof view)}>{name}</button
    >
  {/each}
</div>
{#if view === 'unfolded'}
  {@render p.unfolded(p.room - 30)}
{:else}
  <Section
    way={view}
    place={p.place}
    surveyed={p.surveyed}
    room={p.room - 60}
    exaggeration={p.exaggeration}
    base={p.base ?? 0}
    back={p.back ?? 0}
  />
{/if}

<style>
  .views {
    display: flex;
    gap: 0.1rem;
    margin-bottom: 2px;
  }
  button {
    background: none;
    border: 0;
    border-bottom: 2px solid transparent;
    color: var(--w-ink-soft);
    font-size: 0.8125rem;
    padding: 0.15rem 0.6rem;
    min-height: 28px;
    cursor: pointer;
  }
  button:hover {
    background: var(--w-hover);
  }
  button[aria-pressed='true'] {
    color: var(--w-ink);
    font-weight: 600;
    border-bottom-color: var(--w-chalk);
  }
</style>
