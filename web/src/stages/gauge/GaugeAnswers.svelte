<!-- What the readings say of themselves: which to take again, which to take next, and whether that is enough. -->
<script lang="ts">
  import type { LengthUnit, Reading } from '../../api/types';
  import { showLength, showSpread } from '../../entry/length';
  import Measure from '../../entry/Measure.svelte';
  import { readingWords, spotWords, SURFACE_NAMES } from '../../entry/places';
  import Answer from '../../shell/Answer.svelte';
  import type { Round } from './round.svelte';

  interface Props {
    round: Round;
    unit: LengthUnit;
    onagain: (reading: Reading) => void;
    onbest: () => void;
  }
  let p: Props = $props();
  const verdicts = $derived(p.round.place?.verdicts ?? []);
  const suspects = $derived(verdicts.filter((v) => v.verdict === 'take again'));
  const readings = $derived(new Map((p.round.bay?.readings ?? []).map((r) => [r.id, r])));
  const left = $derived(
    p.round.stations.filter((s) => !s.read_by && !p.round.pendingStations.has(s.id)).length,
  );
  const best = $derived(p.round.place?.next_reading);
</script>

{#each suspects as v (v.reading)}
  {@const r = readings.get(v.reading)}
  {#if r}
    {#snippet by()}<Measure mm={Math.abs(v.by_mm)} sd={v.sd_mm} unit={p.unit} />{/snippet}
    <Answer
      mark="stop"
      title="Measure again"
      text="{readingWords(r, p.unit)}: it does not agree with the others.{v.looks_like
        ? ` It looks like ${v.looks_like}.`
        : ''}"
      figure={by}
      onclick={() => p.onagain(r)}
    />
  {/if}
{/each}
{#if best && p.round.best && best.station !== p.round.target?.station}
  {@const s = p.round.best}
  {#snippet gain()}
    <span class="figure"
      >{showSpread(best.worst_sd_now_mm, p.unit)} → {showSpread(best.worst_sd_then_mm, p.unit)}</span
    >
  {/snippet}
  <Answer
    mark="next"
    title="Tells most"
    text="{SURFACE_NAMES[s.surface]}, {spotWords(s.surface, s.at, p.unit)}: {best.would_move_mm < 1
      ? 'but it would hardly move anything now: enough is enough.'
      : `it may move things by ${showLength(best.would_move_mm, p.unit)}.`}"
    figure={gain}
    onclick={() => p.onbest()}
  />
{/if}
{#if !suspects.length && verdicts.length > 3}
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
