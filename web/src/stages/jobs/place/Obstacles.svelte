<!-- What is in the way: where it is, how far it stands out, and what may be done about it. -->
<script lang="ts">
  import type { Obstacle, SurfaceName } from '../../../api/types';
  import { Button, Select, SelectItem, TextInput } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';
  import { newId } from '../../../entry/ids';
  import { SURFACE_NAMES } from '../../../entry/places';
  import PhotoTaker from '../../../shell/PhotoTaker.svelte';
  import { session } from '../../../state/session.svelte';
  import { OBSTACLE_KINDS as KINDS, TREATMENTS } from '../../../entry/obstacles';

  interface Props {
    obstacles: readonly Obstacle[];
    surfaces: readonly SurfaceName[];
    onchange: (obstacles: Obstacle[]) => void;
    /** Where pictures of them belong; none before the place is kept. */
    pictures: { job: string; place: string } | null;
  }
  let p: Props = $props();
  let seen = $state('');
  const shown = $derived(p.obstacles.find((m) => m.id === seen) ?? p.obstacles[0]);

  const change = (i: number, part: Partial<Obstacle>) =>
    p.onchange(p.obstacles.map((m, k) => (k === i ? { ...m, ...part } : m)));
  const value = (e: Event) => (e.target as HTMLSelectElement).value;

  function add() {
    const surface = p.surfaces.includes('back') ? 'back' : (p.surfaces[0] ?? 'back');
    const made: Obstacle = {
      fact: 'obstacle',
      id: newId(),
      taken_at: new Date().toISOString(),
      taken_by: session.name,
      supersedes: null,
      aside: null,
      name: 'Outlet',
      kind: 'outlet',
      surface,
      at: [300, 300],
      size: [86, 86],
      proud_mm: 0,
      treatment: 'keep clear',
      note: '',
    };
    p.onchange([...p.obstacles, made]);
  }
</script>

<section>
  <h2>What is in the way</h2>
  {#if p.obstacles.length}
    <div class="scroll">
      <table class="fields-table">
        <thead>
          <tr
            ><th>What</th><th>Kind</th><th>On the</th><th>Along (or out)</th><th>Up (or out)</th><th>Wide</th
            ><th>High</th><th>Proud</th><th>What may be done</th><td></td></tr
          >
        </thead>
        <tbody>
          {#each p.obstacles as m, i (m.id)}
            <tr>
              <td
                ><TextInput
                  hideLabel
                  labelText="Name of obstacle {i + 1}"
                  size="sm"
                  value={m.name}
                  on:input={(e: CustomEvent<string | number | null>) =>
                    change(i, { name: String(e.detail ?? '') })}
                /></td
              >
              <td
                ><Select
                  hideLabel
                  labelText="Kind of {m.name}"
                  size="sm"
                  selected={m.kind}
                  on:change={(e: Event) => change(i, { kind: value(e) as Obstacle['kind'] })}
                >
                  {#each KINDS as k (k)}<SelectItem value={k} text={k} />{/each}
                </Select></td
              >
              <td
                ><Select
                  hideLabel
                  labelText="Surface of {m.name}"
                  size="sm"
                  selected={m.surface}
                  on:change={(e: Event) => change(i, { surface: value(e) as SurfaceName })}
                >
                  {#each p.surfaces as s (s)}<SelectItem value={s} text={SURFACE_NAMES[s]} />{/each}
                </Select></td
              >
              <td
                ><LengthField
                  bare
                  label="Along of {m.name}"
                  value={m.at[0]}
                  onchange={(mm) => change(i, { at: [mm!, m.at[1]] })}
                /></td
              >
              <td
                ><LengthField
                  bare
                  label="Up of {m.name}"
                  value={m.at[1]}
                  onchange={(mm) => change(i, { at: [m.at[0], mm!] })}
                /></td
              >
              <td
                ><LengthField
                  bare
                  label="Width of {m.name}"
                  least={1}
                  value={m.size[0]}
                  onchange={(mm) => change(i, { size: [mm!, m.size[1]] })}
                /></td
              >
              <td
                ><LengthField
                  bare
                  label="Height of {m.name}"
                  least={1}
                  value={m.size[1]}
                  onchange={(mm) => change(i, { size: [m.size[0], mm!] })}
                /></td
              >
              <td
                ><LengthField
                  bare
                  label="How far {m.name} stands proud"
                  least={0}
                  value={m.proud_mm}
                  onchange={(mm) => change(i, { proud_mm: mm! })}
                /></td
              >
              <td
                ><Select
                  hideLabel
                  labelText="What may be done about {m.name}"
                  size="sm"
                  selected={m.treatment}
                  on:change={(e: Event) => change(i, { treatment: value(e) as Obstacle['treatment'] })}
                >
                  {#each TREATMENTS as t (t)}<SelectItem value={t} text={t} />{/each}
                </Select></td
              >
              <td
                ><button
                  class="link"
                  onclick={() => p.onchange(p.obstacles.filter((_, k) => k !== i))}
                  aria-label="Remove {m.name}">Remove</button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if p.pictures && shown}
      <div class="pictures">
        <Select
          labelText="Picture of"
          size="sm"
          selected={shown.id}
          on:change={(e: Event) => (seen = value(e))}
        >
          {#each p.obstacles as m (m.id)}<SelectItem value={m.id} text={m.name} />{/each}
        </Select>
        <PhotoTaker {...p.pictures} about={shown.id} of={shown.name} />
      </div>
    {/if}
    <p class="quiet">⚠ Detect, isolate, then drill. Wiring, gas and structure are for the licensed trades.</p>
  {:else}
    <p class="quiet">
      Outlets, switches, pipes, vents, window boards, skirting: what the units must miss, notch or bridge.
    </p>
  {/if}
  <Button size="small" kind="ghost" on:click={add}>Add something in the way</Button>
</section>

<style>
  .scroll {
    position: relative; /* holds the hidden labels, which stand apart from the flow */
    overflow-x: auto;
  }
  table {
    min-width: 68rem;
  }
  .pictures {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 0.5rem 1rem;
    max-width: 40rem;
  }
  p {
    font-size: 0.875rem;
    margin: 0.4rem 0;
  }
</style>
