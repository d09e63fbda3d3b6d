<!-- Set out on paper: every piece with its edges on both rods, and every stack of heights from the floor up. -->
<script lang="ts">
  import type { LaidOut } from '../../api/types';
  import { showFigure, showLength } from '../../entry/length';
  import { usePlace } from '../../state/place';

  let { laid }: { laid: LaidOut } = $props();
  const view = usePlace();
  const edges = $derived(new Map(laid.ticks.map((t) => [`${t.of} ${t.edge}`, t])));
  const size = (mm: number) => showLength(mm, view.unit);
  const at = (unit: string, edge: string) => {
    const tick = edges.get(`${unit} ${edge}`);
    return tick ? showFigure(tick.at.value_mm, tick.at.sd_mm, view.unit) : '';
  };
</script>

{#if laid.units.length}
  <table class="facts">
    <caption>Pieces{view.unit === 'mm' ? ', mm' : ''}: edges from the left end, heights over the base</caption
    >
    <thead
      ><tr
        ><th>Piece</th><th class="value">Left</th><th class="value">Right</th><th class="value">Wide</th><th
          class="value">Underside</th
        ><th class="value">Top</th><th class="value">Deep</th></tr
      ></thead
    >
    <tbody>
      {#each laid.units as { unit, width } (unit.id)}
        <tr>
          <td>{unit.name}</td>
          <td class="value figure">{at(unit.id, 'left')}</td>
          <td class="value figure">{at(unit.id, 'right')}</td>
          <td class="value figure">{showFigure(width.value_mm, width.sd_mm, view.unit)}</td>
          <td class="value figure">{size(unit.over_base_mm ?? 0)}</td>
          <td class="value figure">{size((unit.over_base_mm ?? 0) + unit.height_mm)}</td>
          <td class="value figure">{size(unit.depth_mm)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
{#if laid.rules.length}
  <h3>Kept by rules</h3>
  <ul>
    {#each laid.rules as rule (rule.id)}<li>
        {rule.words}{rule.stands === 'holds' ? '' : `: ${rule.stands}`}
      </li>{/each}
  </ul>
{/if}
{#each laid.stacks as stack (stack.id)}
  <table class="facts">
    <caption>Heights{view.unit === 'mm' ? ', mm' : ''}, finished at {size(stack.finished_mm)}</caption>
    <thead><tr><th>Member</th><th class="value">From</th><th class="value">To</th><td></td></tr></thead>
    <tbody>
      {#each stack.layers.toReversed() as layer, i (i)}
        <tr>
          <td>{layer.name}</td>
          <td class="value figure">{size(layer.low_mm)}</td>
          <td class="value figure">{size(layer.high_mm)}</td>
          <td>{layer.gives ? 'gives' : ''}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/each}

<style>
  ul {
    columns: 2;
    margin: 0;
    padding-left: 1.1rem;
    font-size: 0.75rem;
  }
  h3 {
    font-size: 0.875rem;
    margin: 0.8rem 0 0.2rem;
  }
  table {
    margin-top: 1rem;
    break-inside: avoid;
  }
</style>
