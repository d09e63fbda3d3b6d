<!-- The shim kit: what the installer has to pack with. -->
<script lang="ts">
  import type { ShimKit } from '../../../api/types';
  import { Button } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';
  import NumberField from '../../../entry/NumberField.svelte';
  import { open } from '../../../state/job.svelte';
  import { usual } from '../../../entry/usual';

  let { kit }: { kit: ShimKit } = $props();
  const pieces = $derived(kit.pieces ?? []);
  const tapers = $derived(kit.tapers ?? []);
  const save = (part: Partial<ShimKit>) => void open.putKit(kit, { ...kit, ...part });
  const changed = <T,>(all: readonly T[], i: number, part: Partial<T>) =>
    all.map((p, k) => (k === i ? { ...p, ...part } : p));
  const without = <T,>(all: readonly T[], i: number) => all.filter((_, k) => k !== i);
</script>

<div>
  <table class="fields-table">
    <thead><tr><th>Flat shims</th><th>How many you have</th><td></td></tr></thead>
    <tbody>
      {#each pieces as piece, i (`${i} of ${pieces.length}`)}
        <tr>
          <td
            ><LengthField
              bare
              label="Thickness of shim {i + 1}"
              value={piece.thickness_mm}
              least={0.05}
              onchange={(mm) => save({ pieces: changed(pieces, i, { thickness_mm: mm! }) })}
            /></td
          >
          <td
            ><NumberField
              bare
              label="How many of shim {i + 1}"
              whole
              optional
              placeholder="plenty"
              value={piece.count ?? null}
              onchange={(n) => save({ pieces: changed(pieces, i, { count: n }) })}
            /></td
          >
          <td
            ><button
              class="link"
              onclick={() => save({ pieces: without(pieces, i) })}
              aria-label="Remove shim {i + 1}">Remove</button
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <Button
    size="small"
    kind="ghost"
    on:click={() => save({ pieces: [...pieces, { thickness_mm: 1, count: null }] })}>Add a flat shim</Button
  >

  <table class="fields-table">
    <thead
      ><tr><th>Tapered shims, in pairs: length</th><th>Thin end</th><th>Thick end</th><td></td></tr></thead
    >
    <tbody>
      {#each tapers as taper, i (`${i} of ${tapers.length}`)}
        <tr>
          {#each ['length_mm', 'thin_mm', 'thick_mm'] as const as part (part)}
            <td
              ><LengthField
                bare
                label="{part === 'length_mm'
                  ? 'Length'
                  : part === 'thin_mm'
                    ? 'Thin end'
                    : 'Thick end'} of taper {i + 1}"
                value={taper[part]}
                least={part === 'thin_mm' ? 0 : 0.1}
                onchange={(mm) => save({ tapers: changed(tapers, i, { [part]: mm! }) })}
              /></td
            >
          {/each}
          <td
            ><button
              class="link"
              onclick={() => save({ tapers: without(tapers, i) })}
              aria-label="Remove taper {i + 1}">Remove</button
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <Button
    size="small"
    kind="ghost"
    on:click={() =>
      save({
        tapers: [...tapers, usual({ length_mm: 150, thin_mm: 1, thick_mm: 8, count: null }, open.units)],
      })}>Add a tapered pair</Button
  >

  <div class="fields">
    <LengthField
      label="A stack is good within"
      value={kit.tolerance_mm ?? 0.5}
      least={0.05}
      onchange={(mm) => save({ tolerance_mm: mm! })}
    />
    <LengthField
      label="Tallest stack of loose shims"
      value={kit.max_stack_mm ?? 25}
      least={1}
      onchange={(mm) => save({ max_stack_mm: mm! })}
    />
    <LengthField
      label="Tapers overlap by at least"
      value={kit.least_overlap_mm ?? 50}
      least={0}
      onchange={(mm) => save({ least_overlap_mm: mm! })}
    />
  </div>
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 1rem;
    margin-top: 1rem;
    max-width: 48rem;
  }
  @media (max-width: 760px) {
    .fields {
      grid-template-columns: 1fr;
    }
  }
</style>
