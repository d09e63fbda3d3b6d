<!-- Screw feet in the order in which to set them, and legs to cut. -->
<script lang="ts">
  import type { PlaceFit, Figure } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import Measure from '../../../entry/Measure.svelte';
  import { turnWords } from '../words';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    fit: PlaceFit;
    onfigure: (title: string, figure: Figure) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
</script>

{#if p.fit.feet.length}
  <Wide label="Screw feet">
    <table class="facts">
      <caption>Screw feet, each set once</caption>
      <thead
        ><tr
          ><th>No.</th><th>Unit</th><th>Foot</th><th class="value">Now</th><th class="value">Wanted</th><th
            >Turn</th
          ></tr
        ></thead
      >
      <tbody>
        {#each p.fit.feet as foot (foot.support)}
          <tr>
            <td class="figure">{foot.order}</td>
            <td>{name(foot.unit)}</td>
            <td>{foot.corner}</td>
            <td class="value figure">{showLength(foot.now_mm, view.unit)}</td>
            <td class="value"
              ><button onclick={() => p.onfigure(`Foot under ${name(foot.unit)}, ${foot.corner}`, foot.long)}
                ><Measure mm={foot.long.value_mm} sd={foot.long.sd_mm} /></button
              ></td
            >
            <td class:stop={!foot.reaches}
              >{turnWords(foot.eighths)}{foot.reaches ? '' : ', past its thread'}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
{#if p.fit.legs.length}
  <Wide label="Legs">
    <table class="facts">
      <caption>Legs</caption>
      <thead
        ><tr><th>Unit</th><th>Leg</th><th class="value">Long</th><th class="value">Cut off</th></tr></thead
      >
      <tbody>
        {#each p.fit.legs as leg (leg.support)}
          <tr>
            <td>{name(leg.unit)}</td>
            <td>{leg.corner}</td>
            <td class="value"><Measure mm={leg.long.value_mm} sd={leg.long.sd_mm} /></td>
            <td class="value figure" class:stop={leg.cut_mm < 0}>{showLength(leg.cut_mm, view.unit)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
