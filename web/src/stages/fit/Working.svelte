<!-- How a figure came about: line by line, down to the readings that it rests on. -->
<script lang="ts">
  import type { Place, Figure } from '../../api/types';
  import Measure from '../../entry/Measure.svelte';
  import { readingValue, readingWords, spotWords } from '../../entry/places';
  import { usePlace } from '../../state/place';

  interface Props {
    title: string;
    figure: Figure;
    place: Place;
    onclose: () => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const signed = (share: number) => `${share < 0 ? '−' : ''}${Math.round(Math.abs(share) * 100)}`;
  const numbered = $derived(new Map((p.place.readings ?? []).map((r, i) => [r.id, { r, n: i + 1 }])));
</script>

<section class="working" aria-label="Working of {p.title}">
  <header>
    <h2>{p.title}</h2>
    <button onclick={() => p.onclose()} aria-label="Close the working">✕</button>
  </header>
  <ol>
    {#each p.figure.working ?? [] as step, i (i)}
      <li>
        <span class="sign figure">{i === 0 && step.sign !== -1 ? '' : step.sign === -1 ? '−' : '+'}</span>
        <span>
          {step.label}{#if step.surface && step.at}{' '}<small
              >at {spotWords(step.surface, step.at as [number, number], view.unit)}</small
            >{/if}
        </span>
        <span class="value"><Measure mm={step.value_mm} sd={step.sd_mm} /></span>
        {#if step.rests_on?.length}
          <ul>
            {#each step.rests_on as share (share.reading)}
              {@const found = numbered.get(share.reading)}
              {#if !found && share.reading.includes('/')}
                <li>
                  <span class="figure">{signed(share.weight * (step.sign ?? 1))} %</span> a reading in the place
                  round the corner
                </li>
              {/if}
              {#if found}
                <li>
                  <span class="figure">{signed(share.weight * (step.sign ?? 1))} %</span>
                  reading {found.n}: {readingWords(found.r, view.unit)},
                  <span class="figure">{readingValue(found.r, view.unit)}</span>
                </li>
              {/if}
            {/each}
          </ul>
        {/if}
      </li>
    {/each}
    <li class="sum">
      <span class="sign figure">=</span>
      <span>{p.title}</span>
      <span class="value"><Measure mm={p.figure.value_mm} sd={p.figure.sd_mm} /></span>
    </li>
  </ol>
  <p class="quiet">
    The share says how far the figure moves when that reading does. Readings taken from two lines also tie the
    lines together, so shares may add up to more than the whole.
  </p>
</section>

<style>
  .working {
    background: var(--w-raised);
    border: 1px solid var(--w-chalk);
    border-radius: var(--w-radius);
    padding: 0.75rem 0.9rem;
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: start;
  }
  h2 {
    font-size: 0.9375rem;
  }
  header button {
    background: none;
    border: 0;
    color: var(--w-ink-soft);
    min-width: 32px;
    min-height: 32px;
    margin: -0.4rem -0.5rem 0 0;
    cursor: pointer;
  }
  ol,
  ul {
    list-style: none;
    margin: 0.3rem 0 0;
    padding: 0;
  }
  ol > li {
    display: grid;
    grid-template-columns: 1rem 1fr auto;
    gap: 0 0.4rem;
    padding: 0.3rem 0;
    font-size: 0.875rem;
  }
  ul {
    grid-column: 2 / 4;
    font-size: 0.8125rem;
    color: var(--w-ink-soft);
    border-left: 2px solid var(--w-line);
    line-height: 1.45;
    padding-left: 0.5rem;
  }
  .sum {
    border-top: 1.5px solid var(--w-ink);
    font-weight: 650;
  }
  small {
    color: var(--w-ink-soft);
    font-weight: 400;
  }
  p {
    font-size: 0.75rem;
    margin-top: 0.3rem;
  }
</style>
