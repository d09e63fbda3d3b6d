<!-- Known edges: where a wall steps out or back, a chimney breast, a recess, where a floor drops. -->
<script lang="ts">
  import type { SurfaceName, WallStep } from '../../../api/types';
  import { Button, Select, SelectItem, TextInput } from '../../../carbon';
  import { freeStep } from '../../../entry/ids';
  import LengthField from '../../../entry/LengthField.svelte';
  import { AXIS_WORDS, SURFACE_NAMES } from '../../../entry/places';
  import { usual } from '../../../entry/usual';
  import { open } from '../../../state/job.svelte';

  interface Props {
    steps: readonly WallStep[];
    surfaces: readonly SurfaceName[];
    onchange: (steps: WallStep[]) => void;
  }
  let p: Props = $props();
  const set = (i: number, part: Partial<WallStep>) =>
    p.onchange(p.steps.map((s, k) => (k === i ? { ...s, ...part } : s)));
  function add() {
    p.onchange([
      ...p.steps,
      usual(
        {
          id: freeStep(p.steps),
          name: 'Chimney breast',
          surface: 'back',
          from_mm: 800,
          to_mm: 1600,
          by_mm: 120,
          sigma_mm: 3,
          axis: 'first',
          at_sigma_mm: 3,
        } as WallStep,
        open.units,
      ),
    ]);
  }
  const PARTS = [
    ['from_mm', 'From'],
    ['to_mm', 'To'],
    ['by_mm', 'Nearer to the room by'],
  ] as const;
</script>

<section>
  <h2>Where a surface steps</h2>
  {#if p.steps.length}
    {#each p.steps as s, i (s.id)}
      <div class="step">
        <TextInput
          labelText="What"
          size="sm"
          value={s.name}
          on:input={(e: CustomEvent<string | number | null>) =>
            set(i, { name: String(e.detail ?? '') || s.name })}
        />
        <Select
          labelText="On the"
          size="sm"
          selected={s.surface ?? 'back'}
          on:change={(e: Event) => set(i, { surface: (e.target as HTMLSelectElement).value as SurfaceName })}
        >
          {#each p.surfaces as name (name)}<SelectItem value={name} text={SURFACE_NAMES[name]} />{/each}
        </Select>
        <Select
          labelText="Told"
          size="sm"
          selected={s.axis ?? 'first'}
          on:change={(e: Event) => set(i, { axis: (e.target as HTMLSelectElement).value as 'first' })}
        >
          <SelectItem value="first" text={AXIS_WORDS[s.surface ?? 'back'][0]} />
          <SelectItem value="second" text={AXIS_WORDS[s.surface ?? 'back'][1]} />
        </Select>
        {#each PARTS as [key, label] (key)}
          <LengthField
            {label}
            value={s[key]}
            help={key === 'by_mm' ? 'below zero: further away' : ''}
            onchange={(mm) => set(i, { [key]: mm! })}
          />
        {/each}
        <LengthField
          label="Height known to ±"
          value={s.sigma_mm ?? 3}
          least={0}
          help={(s.sigma_mm ?? 3) >= 30 ? 'the readings on both sides say it' : ''}
          onchange={(mm) => set(i, { sigma_mm: mm! })}
        />
        <LengthField
          label="Edges known to ±"
          value={s.at_sigma_mm ?? 3}
          least={0}
          onchange={(mm) => set(i, { at_sigma_mm: mm! })}
        />
        <button class="link" onclick={() => p.onchange(p.steps.filter((_, k) => k !== i))}
          >Remove {s.name}</button
        >
      </div>
    {/each}
  {:else}
    <p class="quiet">
      A chimney breast, a column, a recess, a floor that drops: readings on both sides of a known edge are not
      smoothed into one.
    </p>
  {/if}
  <Button size="small" kind="ghost" on:click={add}>Add a step</Button>
</section>

<style>
  .step {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(8.5rem, 1fr));
    gap: 0.75rem;
    align-items: end;
    padding: 0.5rem 0;
    border-top: 1px solid var(--w-line);
  }
  p {
    font-size: 0.875rem;
    margin: 0.4rem 0;
  }
  @media (max-width: 760px) {
    .step {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
