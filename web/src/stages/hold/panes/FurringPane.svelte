<!-- Furring strips packed off a bowed wall until their faces lie in one plane. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { Furring } from '../../../api/types';
  import { Checkbox } from '../../../carbon';
  import { showLength, showSlope } from '../../../entry/length';
  import LengthField from '../../../entry/LengthField.svelte';
  import Measure from '../../../entry/Measure.svelte';
  import Wide from '../../../shell/Wide.svelte';
  import { Asking } from '../../../state/asking.svelte';
  import { usePlace } from '../../../state/place';
  import { usualLength } from '../../../entry/usual';

  interface Props {
    job: string;
    place: string;
    high: number;
    /** Asked anew where what is known behind the wall has changed. */
    known: unknown;
  }
  let p: Props = $props();
  const view = usePlace();
  // svelte-ignore state_referenced_locally
  let asked = $state({
    low_mm: usualLength(200, view.unit),
    high_mm: Math.min(usualLength(1400, view.unit), p.high),
    pitch_mm: usualLength(600, view.unit),
    strip_mm: usualLength(19, view.unit),
    plumb: true,
  });
  const asking = new Asking<Furring | null>();
  const made = $derived(asking.found);
  $effect(() => {
    void p.known;
    asking.ask(calls.furring(p.job, p.place, $state.snapshot(asked)).then((f) => f.furring));
  });
  const studs = $derived([...new Set((made?.packings ?? []).map((q) => q.at[0] as number))]);
  const at = (x: number, z: number) =>
    made?.packings.find((q) => q.at[0] === x && q.at[1] === z)?.thick ?? null;
</script>

<div class="asked no-print">
  <LengthField label="Lowest strip" value={asked.low_mm} onchange={(mm) => (asked.low_mm = mm!)} />
  <LengthField label="Highest" value={asked.high_mm} onchange={(mm) => (asked.high_mm = mm!)} />
  <LengthField
    label="At most apart"
    value={asked.pitch_mm}
    least={50}
    onchange={(mm) => (asked.pitch_mm = mm!)}
  />
  <LengthField
    label="Strips thick"
    value={asked.strip_mm}
    least={1}
    onchange={(mm) => (asked.strip_mm = mm!)}
  />
  <Checkbox labelText="Plumb, parallel to the back" bind:checked={asked.plumb} />
</div>
{#if asking.fault}<p class="stop">{asking.fault}</p>{:else if made}
  <p>
    Their backs lie {made.plane_mm > 0 ? `${showLength(made.plane_mm, view.unit)} off` : 'on'} the wall's proudest
    spot ({made.why}){made.lean_mm_per_m || made.turn_mm_per_m
      ? `; the plane leans ${showSlope(made.lean_mm_per_m, view.unit)} ${made.lean_mm_per_m < 0 ? 'back' : 'into the room'} and turns ${showSlope(made.turn_mm_per_m, view.unit)}`
      : ''}. Packed to <b class="figure">{showLength(made.thickest_mm, view.unit)}</b> at the deepest.
  </p>
  <Wide label="Packing behind the strips">
    <table class="facts">
      <caption>Packing behind each strip, at each stud</caption>
      <thead
        ><tr
          ><th>Strip, up</th>{#each studs as x (x)}<th class="value">{showLength(x, view.unit, 0)}</th
            >{/each}</tr
        ></thead
      >
      <tbody>
        {#each made.heights.toReversed() as z (z)}
          <tr
            ><td class="figure">{showLength(z, view.unit, 0)}</td>{#each studs as x (x)}{@const thick = at(
                x,
                z,
              )}<td class="value"
                >{#if thick}<Measure mm={thick.value_mm} sd={thick.sd_mm} />{/if}</td
              >{/each}</tr
          >
        {/each}
      </tbody>
    </table>
  </Wide>
{:else}
  <p class="quiet">Read the back, and find two studs at least: strips are packed where they are screwed.</p>
{/if}

<style>
  p {
    font-size: 0.875rem;
    margin-bottom: 0.5rem;
  }
</style>
