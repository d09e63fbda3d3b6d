<!-- What the readings say of themselves: which to take again, which to take next, and whether that is enough. -->
<script lang="ts">
  import type { NextReading, Reading } from '../../api/types';
  import { showLength, showSpread } from '../../entry/length';
  import Measure from '../../entry/Measure.svelte';
  import { readingValue, readingWords, spotWords, SURFACE_NAMES } from '../../entry/places';
  import Answer from '../../shell/Answer.svelte';
  import type { Round } from './round.svelte';
  import { usePlace } from '../../state/place';

  interface Props {
    round: Round;
    onagain: (reading: Reading) => void;
    onbest: () => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const verdicts = $derived(p.round.surveyed?.verdicts ?? []);
  const suspects = $derived(verdicts.filter((v) => v.verdict === 'take again'));
  const readings = $derived(new Map((p.round.place?.readings ?? []).map((r) => [r.id, r])));
  const left = $derived(
    p.round.stations.filter((s) => !s.read_by && !p.round.pendingStations.has(s.id)).length,
  );
  const best = $derived(p.round.surveyed?.next_reading);
  const by = (r: Reading) => (r.taken_by ? ` by ${r.taken_by}` : '');

  /** What one reading more, or two, would still do to what is decided. */
  function worth(next: NextReading): string {
    const what = next.about === 'shims' ? 'shim' : 'spot';
    const one = showLength(1, view.unit, 0);
    if (next.two_would_move_mm !== null && next.two_would_move_mm < 1)
      return `two more readings would change no ${what} by ${one}. Enough is enough.`;
    if (next.would_move_mm < 1) return `one more reading would change no ${what} by ${one}.`;
    return `it may move a ${what} by ${showLength(next.would_move_mm, view.unit)}.`;
  }
</script>

{#each suspects as v (v.reading)}
  {@const r = readings.get(v.reading)}
  {#if r}
    {#snippet off()}<Measure mm={Math.abs(v.by_mm)} sd={v.sd_mm} />{/snippet}
    <Answer
      mark="stop"
      title="Measure again"
      text="{readingWords(r, view.unit)}: it does not agree with the others.{v.looks_like
        ? ` It looks like ${v.looks_like}.`
        : ''}"
      figure={off}
      onclick={() => p.onagain(r)}
    />
  {/if}
{/each}
{#each p.round.twice as [one, two] (one.id + two.id)}
  <Answer
    mark="mind"
    title="Taken again twice"
    text="{readingWords(one, view.unit)}: {readingValue(one, view.unit)}{by(one)} and {readingValue(
      two,
      view.unit,
    )}{by(two)}. Both count until you say which holds."
  />
  <p class="which">
    {#each [one, two] as r (r.id)}
      <button
        class="chip"
        onclick={() => void p.round.setAside(r === one ? two : one, 'the other retake holds')}
        >Keep {readingValue(r, view.unit)}</button
      >
    {/each}
  </p>
{/each}
{#if best && !(best.station && best.station === p.round.target?.station)}
  {#snippet gain()}
    <span class="figure"
      >{showSpread(best.worst_sd_now_mm, view.unit)} → {showSpread(best.worst_sd_then_mm, view.unit)}</span
    >
  {/snippet}
  <Answer
    mark="next"
    title="Tells most"
    text="{SURFACE_NAMES[best.surface]}, {spotWords(
      best.surface,
      best.at as [number, number],
      view.unit,
    )}: {worth(best)}"
    figure={gain}
    onclick={() => p.onbest()}
  />
{/if}
{#if !suspects.length && verdicts.length > 3 && !p.round.surveyed?.edge_or_knock}
  {#snippet count()}<span class="figure">{verdicts.length}</span>{/snippet}
  <Answer
    mark="fine"
    title={left ? `${left} stations to go` : 'The round is done'}
    text="All {verdicts.length} readings agree.{left
      ? ''
      : ' Go on to Fit, or measure where you are in doubt.'}"
    figure={count}
  />
{/if}

<style>
  .which {
    display: flex;
    gap: 0.5rem;
    margin: 0.25rem 0 0.5rem;
  }
</style>
