<!-- Where the user stands in the round, and what was read there. -->
<script lang="ts">
  import { showLength } from '../../entry/length';
  import { spotWords, SURFACE_NAMES } from '../../entry/places';
  import type { Round } from './round.svelte';
  import { usePlace } from '../../state/place';

  let { round }: { round: Round } = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  const number = $derived(round.stations.findIndex((s) => s.id === round.target?.station) + 1);
  const doubted = $derived(round.here !== null && round.suspects.has(round.here.id));
</script>

{#if round.target}
  <div class="where">
    <button onclick={() => round.step(-1)} aria-label="Station before">‹</button>
    <div>
      <h1>
        {SURFACE_NAMES[round.target.surface]}
        <span class="quiet">{number ? `${number} of ${round.stations.length}` : 'a spot of your own'}</span>
      </h1>
      <p class="figure spot">{spotWords(round.target.surface, round.target.at, unit)}</p>
    </div>
    <button onclick={() => round.step(1)} aria-label="Next station">›</button>
  </div>
  {#if round.here?.fact === 'offset' || round.here?.fact === 'span'}
    <p class="here" class:doubted>
      Read <span class="figure">{showLength(round.here.value_mm, unit)}</span>{doubted
        ? ', which disagrees'
        : ''}.
      <label><input type="checkbox" bind:checked={round.replaces} /> replace it</label>
    </p>
  {/if}
{/if}

<style>
  .where {
    display: grid;
    grid-template-columns: 44px 1fr 44px;
    text-align: center;
    align-items: center;
  }
  h1 {
    font-size: 1.125rem;
  }
  h1 span {
    font-weight: 400;
  }
  .spot {
    font-size: 1.25rem;
    font-weight: 600;
  }
  button {
    height: 52px;
    border: 1px solid var(--w-line);
    border-radius: var(--w-radius);
    background: none;
    color: var(--w-ink);
    font-size: 1.5rem;
    cursor: pointer;
  }
  button:hover {
    background: var(--w-hover);
  }
  .here {
    font-size: 0.875rem;
    text-align: center;
  }
  .here label {
    white-space: nowrap;
  }
  .here input {
    accent-color: var(--w-chalk);
  }
  .doubted {
    color: var(--w-stop);
  }
</style>
