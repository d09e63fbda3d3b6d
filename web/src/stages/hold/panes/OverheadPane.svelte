<!-- Racks under the ceiling: eye bolts into joists, chains, members that bridge. -->
<script lang="ts">
  import { SURE_TO_BITE } from '../../../api/fields';
  import type { PlaceHold } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    hold: PlaceHold;
    name: (id: string) => string;
  }
  let p: Props = $props();
  const view = usePlace();
  const whole = (mm: number) => showLength(mm, view.unit, 0);
  const runs = {
    out: 'run out from the back',
    along: 'run along the back',
    'not known': 'run nobody knows how',
  };
</script>

{#each p.hold.overhead as o, i (i)}
  <h2>{p.name(o.unit)}: {Math.ceil(o.weight_kg)} kg</h2>
  <p class="stop">⚠ {o.caution}</p>
  <p>
    The joists {runs[o.runs]}{o.runs !== 'not known' && o.runs_sure < 1
      ? `, with ${Math.floor(o.runs_sure * 100)} %`
      : ''}. Two of four hangers can carry all, so each is planned for half.
  </p>
  <Wide label="Hangers of {p.name(o.unit)}">
    <table class="facts">
      <thead
        ><tr
          ><th>Corner</th><th>By</th><th class="value">Along</th><th class="value">Out</th><th class="value"
            >Bites</th
          ><th class="value">Load</th><th class="value">Chain</th><th class="value">Leans</th><th
            class="value">Use</th
          ><td></td></tr
        ></thead
      >
      <tbody>
        {#each o.hangers as h, i (i)}
          <tr>
            <td>{h.corner}</td>
            <td
              >{h.how}{h.how === 'eye bolt' ? ` 8 × ${whole(h.bolt_mm)}` : ''}{h.bridge
                ? ` ${whole(h.bridge.wide_mm)} × ${whole(h.bridge.high_mm)}, ${whole(h.bridge.long_mm)} long, on edge over the joists at ${h.bridge.joists.map((x) => whole(x as number)).join(' and ')}, ${h.bridge.screws} screws${h.bridge.screw_mm ? ` of ${h.bridge.shank_mm} × ${whole(h.bridge.screw_mm)}` : ''} at each end`
                : ''}</td
            >
            <td class="value figure">{whole(h.at[0] as number)}</td>
            <td class="value figure">{whole(h.at[1] as number)}</td>
            <td class="value figure" class:stop={h.bites < SURE_TO_BITE}>{Math.floor(h.bites * 100)} %</td>
            <td class="value figure">{Math.ceil(h.chain_n)} N</td>
            <td class="value figure">{whole(h.chain_mm)}</td>
            <td class="value figure">{Math.ceil(h.lean_deg)}°</td>
            <td class="value figure" class:stop={!h.enough}>{Math.ceil(h.use * 100)} %</td>
            <td>{h.instead}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{:else}
  <p class="quiet">
    No rack hangs from this ceiling. A unit of the kind “overhead rack” that hangs, under a ceiling that is
    measured, is planned here.
  </p>
{/each}

<style>
  h2 {
    font-size: 0.9375rem;
  }
  p {
    font-size: 0.875rem;
    max-width: 60rem;
    margin-bottom: 0.4rem;
  }
</style>
