<!-- How far every hinged door opens, drawn from above, and what stops it. -->
<script lang="ts">
  import { SURE } from '../../../api/fields';
  import type { PlaceFit } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import Wide from '../../../shell/Wide.svelte';
  import { arc } from '../arc';
  import { usePlace } from '../../../state/place';

  interface Props {
    fit: PlaceFit;
  }
  let p: Props = $props();
  const view = usePlace();
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
  const stopped = $derived(p.fit.swings.filter((s) => s.by_what !== 'hinge'));
  const free = $derived(p.fit.swings.length - stopped.length);
</script>

{#if stopped.length}
  <Wide label="Doors">
    <table class="facts">
      <caption>How far each door opens, seen from above</caption>
      <thead
        ><tr
          ><td></td><th>Door of</th><th>Hinged</th><th class="value">Wide</th><th class="value">Opens to</th
          ><th class="value">Square</th><th>Stopped by</th></tr
        ></thead
      >
      <tbody>
        {#each stopped as s, i (i)}
          {@const drawn = arc(s)}
          <tr>
            <td
              ><svg viewBox="0 0 70 40" width="63" height="36" aria-hidden="true"
                ><path class="reach" d={drawn.reach} /><path class="leaf" d={drawn.leaf} /></svg
              ></td
            >
            <td>{name(s.unit)}</td>
            <td>{s.hinged}</td>
            <td class="value figure">{showLength(s.door_mm, view.unit, 0)}</td>
            <td class="value figure" class:stop={s.square < SURE}>{Math.floor(s.opens_deg)}°</td>
            <td class="value figure">{Math.floor(s.square * 100)} %</td>
            <td>{s.by}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
{#if p.fit.swings.length}
  <p class="quiet">
    {free
      ? `${stopped.length ? 'The other ' : ''}${free} door${free > 1 ? 's' : ''} open${free > 1 ? '' : 's'} as far as a usual hinge, 110°. `
      : ''}Past what was measured a wall is taken to go on straight.
  </p>
{/if}

<style>
  .reach {
    fill: var(--w-chalk-wash);
  }
  .leaf {
    fill: none;
    stroke: var(--w-chalk);
    stroke-width: 2;
  }
  p {
    font-size: 0.875rem;
    margin-bottom: 0.5rem;
  }
</style>
