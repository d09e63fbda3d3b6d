<!-- A face frame fitted first: its stiles, its openings, and where the dividers of the boxes behind stand. -->
<script lang="ts">
  import type { Figure, FaceFrame } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import Measure from '../../../entry/Measure.svelte';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    frame: FaceFrame;
    name: (id: string) => string;
    onfigure: (title: string, figure: Figure) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const said = (mm: number) => showLength(mm, view.unit);
</script>

<Wide label="Face frame">
  <table class="facts">
    <caption>The face frame, from a blank of {showLength(p.frame.blank_mm, view.unit, 0)}</caption>
    <tbody>
      {#each p.frame.stiles as s (s.side)}
        <tr>
          <td>{s.side} stile, cut from {showLength(s.blank_mm, view.unit, 0)}</td>
          {#each [['foot', s.bottom], ['head', s.top]] as const as [what, figure] (what)}
            <td class="value"
              >{what}
              <button onclick={() => p.onfigure(`${s.side} stile at the ${what}`, figure)}
                ><Measure mm={figure.value_mm} sd={figure.sd_mm} /></button
              ></td
            >
          {/each}
        </tr>
      {/each}
      {#each p.frame.openings as o, i (i)}
        <tr
          ><td>opening {i + 1}, before {p.name(o.unit)}</td><td class="value figure"
            >{said(o.wide_mm)} wide</td
          ><td class="value figure">from {said(o.left_mm)} along</td></tr
        >
      {/each}
      {#each p.frame.uprights as up, i (i)}
        <tr
          ><td>upright {i + 1}</td><td class="value figure">{said(up[1]!)} wide</td><td class="value figure"
            >middle {said(up[0]!)} along</td
          ></tr
        >
      {/each}
      {#each p.frame.dividers as d, i (i)}
        <tr
          ><td>divider {i + 1} in {p.name(d.unit)}, flush with the opening at its left</td><td
            class="value figure">{said(d.from_left_mm)} from the outside of the box</td
          ><td class="value figure"
            >{d.spacer_mm > 0.5 ? `pack ${said(d.spacer_mm)} out at its right` : ''}</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
</Wide>
