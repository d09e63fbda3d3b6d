<!-- What boards over a wall are nailed to where no stud is: each piece with its length, and where it goes. -->
<script lang="ts">
  import type { PlaceHold } from '../../../api/types';
  import { showLength, showSpread } from '../../../entry/length';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';

  const p: { hold: PlaceHold; name: (unit: string) => string; whole: (mm: number) => string } = $props();
  const view = usePlace();
</script>

<Wide label="Between the studs">
  <table class="facts">
    <caption>Put in between the studs before the boards</caption>
    <thead
      ><tr
        ><th>Boarding</th><th>For</th><th>Runs</th><th class="value">From, along</th><th>Undersides, up</th
        ><th class="value">Long</th><th class="value">Section</th></tr
      ></thead
    >
    <tbody>
      {#each p.hold.nailing.nailers as n (n.id)}
        <tr>
          <td>{p.name(n.unit)}</td>
          <td>{n.why}</td>
          <td>{n.runs}</td>
          <td class="value figure">{p.whole(n.low[0])}</td>
          <td class="figure">{n.rows.map(p.whole).join(', ')}</td>
          <td class="value figure"
            >{showLength(n.long.value_mm, view.unit)}
            {n.long.sd_mm > 0 ? showSpread(n.long.sd_mm, view.unit) : ''}</td
          >
          <td class="value figure">{p.whole(n.narrow_mm)} × {p.whole(n.wide_mm)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>
