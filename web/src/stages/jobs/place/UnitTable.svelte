<!-- The units of a place, from the left, as a table with more about each. -->
<script lang="ts">
  import type { Place, Unit } from '../../../api/types';
  import { Button, TextInput } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';
  import LengthsField from '../../../entry/LengthsField.svelte';
  import RunSketch from './RunSketch.svelte';
  import UnitMore from './UnitMore.svelte';

  interface Props {
    place: Place;
    onchange: (units: Unit[]) => void;
  }
  let { place, onchange }: Props = $props();
  const units = $derived(place.units ?? []);
  let more = $state('');

  const setUnit = (i: number, part: Partial<Unit>) =>
    onchange(units.map((u, k) => (k === i ? { ...u, ...part } : u)));

  /** The next unit stands beside the last one and is like it. */
  function addUnit() {
    const last = units.at(-1);
    const taken = new Set(units.map((u) => u.id));
    let letter = 'A';
    while (taken.has(letter))
      letter = letter < 'Z' ? String.fromCharCode(letter.charCodeAt(0) + 1) : letter + 'A';
    const like: Partial<Unit> = last ?? { width_mm: 600, depth_mm: 560, height_mm: 720, kind: 'base' };
    onchange([
      ...units,
      { ...like, id: letter, name: letter, x_mm: last ? last.x_mm + last.width_mm : 0 } as Unit,
    ]);
  }
</script>

<section>
  <h2>What will stand here</h2>
  {#if units.length}
    <RunSketch {place} />
    <div class="scroll">
      <table class="fields-table">
        <thead>
          <tr>
            <th>Unit</th><th>From the left</th><th>Wide</th><th>Deep</th><th>High</th><th>Toe recess</th><th
              >Feet in from edges</th
            >
            <th>Screw heights</th><th></th>
          </tr>
        </thead>
        <tbody>
          {#each units as u, i (u.id)}
            <tr>
              <td
                ><TextInput
                  hideLabel
                  labelText="Name of unit {u.id}"
                  size="sm"
                  value={u.name}
                  on:input={(e: CustomEvent<string | number | null>) =>
                    setUnit(i, { name: String(e.detail ?? '') })}
                /></td
              >
              {#each [['x_mm', 'From the left'], ['width_mm', 'Width'], ['depth_mm', 'Depth'], ['height_mm', 'Height'], ['toe_recess_mm', 'Toe recess'], ['support_inset_mm', 'Inset of feet']] as const as [part, what] (part)}
                <td
                  ><LengthField
                    bare
                    label="{what} of {u.name}"
                    value={u[part] ?? (part === 'toe_recess_mm' ? 60 : 40)}
                    least={part === 'x_mm' || part === 'toe_recess_mm' || part === 'support_inset_mm' ? 0 : 1}
                    onchange={(mm) => setUnit(i, { [part]: mm! })}
                  /></td
                >
              {/each}
              <td
                ><LengthsField
                  label="Screw heights of {u.name}"
                  values={u.fixing_heights_mm ?? [650]}
                  onchange={(heights) => setUnit(i, { fixing_heights_mm: heights })}
                /></td
              >
              <td
                ><button
                  class="link"
                  aria-expanded={more === u.id}
                  aria-label="{more === u.id ? 'Less' : 'More'} about {u.name}"
                  onclick={() => (more = more === u.id ? '' : u.id)}>{more === u.id ? 'Less' : 'More'}</button
                ><button
                  class="link"
                  onclick={() => onchange(units.filter((_, k) => k !== i))}
                  aria-label="Remove {u.name}">Remove</button
                ></td
              >
            </tr>
            {#if more === u.id}
              <tr><td colspan="9"><UnitMore unit={u} onchange={(part) => setUnit(i, part)} /></td></tr>
            {/if}
          {/each}
        </tbody>
      </table>
    </div>
  {:else}
    <p class="quiet">
      No units yet. Add the boxes in the order in which they stand, from the left; you can measure first and
      add them later.
    </p>
  {/if}
  <Button size="small" kind={units.length ? 'ghost' : 'tertiary'} on:click={addUnit}>Add a unit</Button>
</section>

<style>
  .scroll {
    position: relative; /* holds the hidden labels, which stand apart from the flow */
    overflow-x: auto;
    margin-bottom: 0.5rem;
  }
  td:first-child {
    min-width: 9rem;
  }
</style>
