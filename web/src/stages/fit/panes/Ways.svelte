<!-- Ways of making the run level and lines for its backs, each with what it costs here. -->
<script lang="ts">
  import type { BackLine, Datum, PlaceFit } from '../../../api/types';
  import { showLength, showSlope } from '../../../entry/length';
  import { usePlace } from '../../../state/place';

  interface Props {
    fit: PlaceFit;
    line: BackLine;
    datum: Datum;
    onturn: (line: BackLine) => void;
    onkeep: () => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const NAMES: Record<string, string> = {
    shims: 'Shim each unit',
    'base frame': 'A base frame first',
    'screw feet': 'Screw feet',
    'scribe the base down': 'Scribe the base down',
    'as it is': 'As it stands now',
    'parallel to the back': 'Along the back wall',
    'square to the left wall': 'Square to the left wall',
    'square to the right wall': 'Square to the right wall',
  };
  const signed = (turn: number) => `${turn > 0 ? '+' : turn < 0 ? '−' : ''}${showSlope(turn, view.unit)}`;
  /** What was chosen, for paper: what was not is of no use at the place. */
  const decided = $derived.by(() => {
    const level =
      p.datum.rule === 'fixed top'
        ? `top at ${showLength(p.datum.top_mm, view.unit)}`
        : `level ${showLength(p.datum.over_mm ?? 0, view.unit)} over the high spot`;
    const way = p.fit.levelling.find((w) => w.proposed);
    const turn = p.line.turn_mm_per_m ?? 0;
    const backs = `backs ${showLength(p.line.off_mm ?? 0, view.unit)} clear of the wall${
      Math.abs(turn) < 0.05 ? '' : `, turned ${signed(turn)}`
    }`;
    return `Decided: ${[level, way && NAMES[way.method]?.toLowerCase(), backs].filter(Boolean).join('; ')}.`;
  });
</script>

<p class="print-only">{decided}</p>
<div class="no-print">
  {#if p.fit.levelling.length}
    <h2>Ways of making it level</h2>
    <div class="choices">
      {#each p.fit.levelling as way (way.method)}
        <div class:chosen={way.proposed} class:unfit={!way.works}>
          <b>{NAMES[way.method]}</b>
          <span
            >{way.places} places, to
            <span class="figure">{showLength(way.largest_mm, view.unit)}</span>{way.proposed
              ? ''
              : way.works
                ? ''
                : ': not here'}</span
          >
          <span class="quiet">{way.proposed ? 'proposed: ' : ''}{way.reason}</span>
        </div>
      {/each}
    </div>
  {/if}
  {#if p.fit.lines.length > 1}
    <h2>Lines for the backs</h2>
    <div class="choices" role="group" aria-label="Lines for the backs">
      {#each p.fit.lines as line (line.method)}
        {@const now = Math.abs(line.turn_mm_per_m - (p.line.turn_mm_per_m ?? 0)) < 0.05}
        <button
          class:chosen={now}
          aria-pressed={now}
          onclick={() => (p.onturn({ ...p.line, turn_mm_per_m: line.turn_mm_per_m }), p.onkeep())}
        >
          <b>{NAMES[line.method]}</b>
          <span class="figure">{signed(line.turn_mm_per_m)}</span>
          <span class="quiet">{line.proposed ? 'proposed: ' : ''}{line.reason}</span>
        </button>
      {/each}
    </div>
  {/if}
</div>

<style>
  h2 {
    font-size: 0.9375rem;
    margin: 0.25rem 0 0.4rem;
  }
</style>
