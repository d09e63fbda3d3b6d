<!-- The finish: areas by face, and what goes on them, step by step, with how long each dries. -->
<script lang="ts">
  import type { Made } from '../../api/types';

  let { finish }: { finish: Made['finish'] } = $props();
  const WORDS = { seen: 'seen faces', inside: 'insides', edges: 'cut edges of panels, not banded' };
</script>

<p class="sum">
  {#each finish.areas as a, i (i)}<span
      ><b class="figure">{a.m2.toFixed(2)} m²</b> <span class="quiet">{WORDS[a.faces]}</span></span
    >{/each}
  <span><b class="figure">{finish.banding_m.toFixed(1)} m</b> <span class="quiet">of edges banded</span></span
  >
</p>
{#if finish.steps.length}
  <ol>
    {#each finish.steps as s, i (i)}
      <li>
        <span>{s.what}</span>
        <span class="quiet figure"
          >{s.m2.toFixed(1)} m²{#if s.litres}, {s.litres.toFixed(2)} l{/if}{#if s.dries_h}, dries {s.dries_h}
            h{/if}{#if s.assumed}, usual figures{/if}</span
        >
      </li>
    {/each}
  </ol>
  <p class="quiet">
    Drying in all: {finish.dries_h} h at 20 °C; cold or damp takes longer. Inside of units before they are closed.
  </p>
{:else}
  <p class="quiet">
    No finish is asked for. Say in Workshop which coats go on, and areas become litres and tins.
  </p>
{/if}

<style>
  .sum {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.5rem;
    font-size: 0.875rem;
    margin-bottom: 0.8rem;
  }
  ol {
    padding-left: 1.4rem;
    margin-bottom: 0.6rem;
    list-style: decimal;
  }
  li {
    padding: 0.3rem 0;
    font-size: 0.875rem;
  }
  li span {
    display: block;
  }
  p {
    font-size: 0.8125rem;
  }
</style>
