<!-- What is done about each thing in the way, with the sizes to mark out on the unit. -->
<script lang="ts">
  import type { Place, PlaceFit } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    fit: PlaceFit;
    place: Place;
  }
  let p: Props = $props();
  const view = usePlace();
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
  const thing = (id: string) => p.place.obstacles?.find((m) => m.id === id)?.name ?? 'Air around it';
</script>

{#if p.fit.cutouts.length}
  <Wide label="What is in the way">
    <table class="facts">
      <thead><tr><th>Unit</th><th>In the way</th><th>Do</th><th>Mark out on the unit</th></tr></thead>
      <tbody>
        {#each p.fit.cutouts as a, i (i)}
          <tr>
            <td>{name(a.unit)}</td>
            <td>{thing(a.obstacle)}: <b class:stop={a.severity === 'stop'}>{a.what}</b></td>
            <td
              >{a.text}{#if a.caution}<span class="stop"> ⚠ {a.caution}</span>{/if}</td
            >
            <td
              >{#each a.sizes as size, i (i)}<div>
                  {size.label} <b class="figure">{showLength(size.mm, view.unit, 0)}</b>
                </div>{/each}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{:else}
  <p class="quiet">
    Nothing that was marked stands in a unit's way. Outlets, pipes, skirting and the like are marked in Gauge
    (“Found…”) or on the place's page.
  </p>
{/if}

<style>
  td {
    min-width: 7rem;
  }
  td:nth-child(3) {
    min-width: 15rem;
  }
</style>
