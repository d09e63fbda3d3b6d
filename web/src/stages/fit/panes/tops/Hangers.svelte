<!-- Racks under the ceiling: each hanger's own length. -->
<script lang="ts">
  import type { PlaceFit, Figure } from '../../../../api/types';
  import { showLength } from '../../../../entry/length';
  import Measure from '../../../../entry/Measure.svelte';
  import Wide from '../../../../shell/Wide.svelte';
  import { usePlace } from '../../../../state/place';

  interface Props {
    fit: PlaceFit;
    onfigure: (title: string, figure: Figure) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
</script>

{#if p.fit.hangers.length}
  <Wide label="Hangers">
    <table class="facts">
      <caption>Hangers, from the ceiling to the top of the rack</caption>
      <thead
        ><tr
          ><th>Rack</th><th>Corner</th><th class="value">Along</th><th class="value">Out</th><th class="value"
            >Long</th
          ></tr
        ></thead
      >
      <tbody>
        {#each p.fit.hangers as h, i (i)}
          <tr>
            <td>{name(h.unit)}</td><td>{h.corner}</td>
            <td class="value figure">{showLength(h.at[0] as number, view.unit, 0)}</td>
            <td class="value figure">{showLength(h.at[1] as number, view.unit, 0)}</td>
            <td class="value"
              ><button onclick={() => p.onfigure(`Hanger ${h.corner}`, h.long)}
                ><Measure mm={h.long.value_mm} sd={h.long.sd_mm} /></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
