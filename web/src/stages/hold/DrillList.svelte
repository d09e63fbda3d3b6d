<!-- Every hole in the order of work; while drilling, what each met is a tap. -->
<script lang="ts">
  import { SURE_TO_BITE } from '../../api/fields';
  import type { Detection, Fastener } from '../../api/types';
  import { showLength } from '../../entry/length';
  import Wide from '../../shell/Wide.svelte';
  import { usePlace } from '../../state/place';

  interface Props {
    points: readonly Fastener[];
    name: (id: string) => string;
    lit: string | null;
    /** What was met at each screw that was drilled, by its place. */
    met: (point: Fastener) => Detection['sees'] | null;
    onpick: (id: string) => void;
    onmet: (point: Fastener, sees: 'hit' | 'miss' | 'something else') => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const TAPS = [
    ['bit', 'hit', 'bit'],
    ['missed', 'miss', 'missed'],
    ['hit something', 'something else', 'hit something'],
  ] as const;
</script>

<Wide label="Drilling list">
  <table class="facts">
    <thead
      ><tr
        ><th>No.</th><th>Unit</th><th>Through</th><th class="value">Along</th><th class="value">Up</th><th
          class="value">Bites</th
        ><th class="value">Screw</th><th class="value">Packing</th><th class="value">Hole</th><th
          class="no-print">It…</th
        ><th>First</th></tr
      ></thead
    >
    <tbody>
      {#each p.points as q (q.order)}
        {@const said = p.met(q)}
        <tr class:lit={p.lit === `screw-${q.order}`} class:met={said !== null}>
          <td class="figure no">{q.order}</td>
          <td class="unit"><button onclick={() => p.onpick(`screw-${q.order}`)}>{p.name(q.unit)}</button></td>
          <td class="through">{q.part}{q.surface !== 'back' ? `, ${q.surface}` : ''}</td>
          <td class="value figure" data-what="along">{showLength(q.at[0] as number, view.unit, 0)}</td>
          <td class="value figure" data-what="up">{showLength(q.at[1] as number, view.unit, 0)}</td>
          <td class="value figure" data-what="bites" class:stop={q.bites < SURE_TO_BITE}
            >{Math.floor(q.bites * 100)} %</td
          >
          <td class="value figure" data-what="screw">{q.shank_mm} × {showLength(q.screw_mm, view.unit, 0)}</td
          >
          <td class="value figure" data-what="packing"
            >{showLength(Math.max(0, q.packing.value_mm), view.unit)}</td
          >
          <td class="value figure" data-what="hole"
            >{q.pilot_mm ? showLength(q.pilot_mm, view.unit) : 'none'}</td
          >
          <td class="no-print tap">
            <span class="taps">
              {#each TAPS as [words, sees, verb] (sees)}
                <button
                  class="chip"
                  class:chosen={said === sees}
                  aria-pressed={said === sees}
                  aria-label="Screw {q.order} {verb}"
                  onclick={() => p.onmet(q, sees)}>{words}</button
                >
              {/each}
            </span>
          </td>
          <td class="check">{q.check}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  @media print {
    table {
      font-size: 0.75rem;
      width: 100%;
    }
    td {
      padding-right: 0.4rem;
    }
    .check {
      width: 26%;
    }
    table td.value {
      white-space: nowrap;
    }
  }
  .lit td {
    background: var(--w-chalk-wash);
  }
  .taps {
    display: flex;
    gap: 0.35rem;
  }
  .taps .chip,
  .unit {
    white-space: nowrap;
  }
  .chosen {
    border-color: var(--w-chalk);
    background: var(--w-chalk-wash);
  }
  /* in a dusty hand: one card for each hole, its taps as wide as the screen */
  @media screen and (max-width: 760px) {
    table {
      display: block;
    }
    /* what is drilled goes under what is not: the next hole is always at the top, where the thumb is */
    tbody {
      display: flex;
      flex-direction: column;
      overflow-anchor: none; /* or the page would follow the card that was just pressed */
    }
    .met {
      order: 1;
    }
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 0 0.75rem;
      align-items: center;
      border-top: 1px solid var(--w-line);
      padding: 0.5rem 0;
    }
    table td {
      border: 0;
      padding: 0.1rem 0;
      text-align: left !important; /* figures line up under their names here, not by their units */
    }
    .unit button {
      text-align: left;
    }
    .no {
      font-weight: 700;
    }
    td[data-what]::before {
      content: attr(data-what) ' ';
      color: var(--w-ink-soft);
      font: 0.75rem var(--w-sans, sans-serif);
    }
    .tap,
    .check {
      grid-column: 1 / -1;
    }
    .taps {
      display: grid;
      grid-template-columns: 1fr 1fr 1.4fr;
    }
    .taps .chip {
      min-height: 44px;
    }
  }
</style>
