<!-- What the place is like, surface by surface; each figure with its uncertainty. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { calls } from '../../api/calls';
  import type { Instrument, Surveyed, Reading, Trait } from '../../api/types';
  import Measure from '../../entry/Measure.svelte';
  import { readingValue, readingWords, spotWords, SURFACE_NAMES } from '../../entry/places';
  import { notices } from '../../state/notices.svelte';
  import { remembered } from '../../state/store';
  import { traitWords } from './traits';
  import { showSlope } from '../../entry/length';
  import { usePlace } from '../../state/place';

  interface Props {
    job: string;
    place: string;
    surveyed: Surveyed;
    instruments: readonly Instrument[];
    readings: readonly Reading[];
  }
  let { job, place, surveyed, instruments, readings }: Props = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  let found = $state.raw<Trait[]>([]);
  let opened = $state('');
  const numbered = $derived(new Map(readings.map((r, i) => [r.id, { r, n: i + 1 }])));

  // what a place is like costs more than a reading, so it is asked for when the readings have settled
  $effect(() => {
    void surveyed.verdicts;
    const timer = setTimeout(() => {
      untrack(() => remembered(`traits ${job} ${place}`, () => calls.traits(job, place)))
        .then((traits) => (found = traits))
        .catch((fault: unknown) => notices.refused(fault));
    }, 600);
    return () => clearTimeout(timer);
  });

  const UNITS = { mm: 'mm for', 'mm/m': 'mm per m for', deg: '° for' };
  const surfaces = $derived([...new Set(found.map((t) => t.surface))]);
</script>

<section aria-label="What the place is like">
  <div class="head">
    <h2>What the place is like</h2>
    {#if found.length}<button class="chip no-print" onclick={() => print()}>Print</button>{/if}
  </div>
  {#each surveyed.biases as b (b.instrument)}
    <p class="quiet">
      {instruments.find((i) => i.id === b.instrument)?.name ?? b.instrument} reads
      <span class="figure">{showSlope(b.mm_per_m, unit, b.sd)}</span> too
      {b.mm_per_m < 0 ? 'low' : 'high'}, and is corrected for it.{b.sd > 0.4
        ? ' A flip test would settle it.'
        : ''}
    </p>
  {/each}
  {#each surfaces as surface (surface)}
    <table>
      <caption>{SURFACE_NAMES[surface]}</caption>
      <tbody>
        {#each found.filter((t) => t.surface === surface) as t, i (i)}
          {@const words = traitWords(t)}
          {@const key = t.surface + t.kind + (t.along ?? '')}
          <tr>
            <td
              ><button
                class="link name"
                aria-expanded={opened === key}
                onclick={() => (opened = opened === key ? '' : key)}>{words.name}</button
              ></td
            >
            <td class="value">
              {#if t.unit === 'mm'}
                <Measure mm={words.value} sd={t.sd} named />
              {:else}
                <span class="figure"
                  >{t.unit === 'deg'
                    ? `${words.value.toFixed(2)} ± ${(Math.ceil(t.sd * 100) / 100).toFixed(2)}°`
                    : showSlope(words.value, unit, t.sd)}</span
                >
              {/if}
            </td>
            <td class="quiet">{words.how}{t.at ? ` ${spotWords(surface, t.at, unit)}` : ''}</td>
          </tr>
          {#if opened === key}
            <tr class="working">
              <td colspan="3">
                {t.working}
                {#each t.rests_on ?? [] as share (share.reading)}
                  {@const known = numbered.get(share.reading)}
                  <div>
                    <span class="figure"
                      >{share.weight < 0 ? '−' : '+'}{Math.abs(share.weight).toFixed(
                        t.unit === 'deg' ? 3 : 2,
                      )}</span
                    >
                    {UNITS[t.unit ?? 'mm']} a mm of
                    {known
                      ? `reading ${known.n}: ${readingWords(known.r, unit)}, ${readingValue(known.r, unit)}`
                      : 'a reading in the place round the corner'}
                  </div>
                {/each}
              </td>
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="quiet">
      {surveyed.surfaces.some((s) => s.n_readings > 2)
        ? 'Working it out…'
        : 'Three readings on a surface begin to tell.'}
    </p>
  {/each}
</section>

<style>
  section {
    max-width: 46rem;
    margin-bottom: 1.25rem;
    overflow-x: auto;
  }
  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.4rem;
  }
  h2 {
    font-size: 0.9375rem;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 0.875rem;
    margin-top: 0.4rem;
    break-inside: avoid;
  }
  caption {
    text-align: left;
    font-weight: 650;
  }
  td {
    border-bottom: 1px solid var(--w-line);
    padding: 0.2rem 0.75rem 0.2rem 0;
    width: 34%;
    overflow-wrap: anywhere;
  }
  .name {
    padding: 0;
    min-height: 24px;
    text-align: left;
    color: inherit;
  }
  .working td {
    width: auto;
    color: var(--w-ink-soft);
    font-size: 0.8125rem;
    border-left: 2px solid var(--w-line);
    padding-left: 0.6rem;
  }
  .value {
    text-align: right;
    width: 30%;
    white-space: nowrap;
  }
</style>
