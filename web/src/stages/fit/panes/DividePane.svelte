<!-- Dividing a length: equal openings, trim over seams, boards of their true width. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { Divide, Divided } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import { showLength } from '../../../entry/length';
  import LengthField from '../../../entry/LengthField.svelte';
  import NumberField from '../../../entry/NumberField.svelte';
  import LengthsField from '../../../entry/LengthsField.svelte';
  import { Asking } from '../../../state/asking.svelte';
  import { usePlace } from '../../../state/place';
  import { usualLength } from '../../../entry/usual';

  let { long }: { long: number } = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  // svelte-ignore state_referenced_locally
  let asked = $state<Divide>({
    how: 'openings',
    long_mm: long || usualLength(1000, unit),
    piece_mm: usualLength(19, unit),
    count: 3,
    most_apart_mm: usualLength(400, unit),
    gap_mm: 0,
    seams: [],
    units: unit,
  });
  const asking = new Asking<Divided>();
  const found = $derived(asking.found);
  $effect(() => asking.ask(calls.divide({ ...$state.snapshot(asked), units: unit })));
</script>

<div class="fields">
  <Select
    labelText="Divide into"
    size="sm"
    selected={asked.how}
    on:change={(e: Event) => (asked.how = (e.target as HTMLSelectElement).value as Divide['how'])}
  >
    <SelectItem value="openings" text="equal openings between boards" />
    <SelectItem value="trim" text="equal trim, one over each seam" />
    <SelectItem value="boards" text="boards of their true width" />
  </Select>
  <LengthField label="Length" value={asked.long_mm} least={1} onchange={(mm) => (asked.long_mm = mm!)} />
  <LengthField
    label={asked.how === 'openings' ? 'Board, true thickness' : 'Piece, true width'}
    value={asked.piece_mm}
    least={0.5}
    onchange={(mm) => (asked.piece_mm = mm!)}
  />
  {#if asked.how === 'openings'}
    <NumberField
      label="Openings"
      whole
      least={1}
      most={100}
      value={asked.count ?? 1}
      onchange={(n) => (asked.count = n!)}
    />
  {/if}
  {#if asked.how === 'trim'}
    <LengthField
      label="At most between"
      value={asked.most_apart_mm ?? 400}
      least={1}
      onchange={(mm) => (asked.most_apart_mm = mm!)}
    />
    <LengthsField label="Seams at" values={asked.seams ?? []} onchange={(seams) => (asked.seams = seams)} />
  {:else}
    <LengthField
      label={asked.how === 'openings' ? 'Reveal, each side' : 'Gap between'}
      value={asked.gap_mm ?? 0}
      least={0}
      onchange={(mm) => (asked.gap_mm = mm!)}
    />
  {/if}
</div>
{#if found}
  <p><b class="figure">{found.working}</b></p>
  <p class="quiet">
    {asked.how === 'trim' ? 'Middles' : 'Left edges'} at
    <span class="figure">{found.at.map((mm) => showLength(mm, unit)).join(' · ')}</span>, all from the left
    end: mark them in one go, so that no error adds up.
  </p>
{:else if asking.fault}<p class="stop" role="alert">{asking.fault}</p>{/if}

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
    gap: 0.75rem;
    margin-bottom: 0.75rem;
  }
  p {
    font-size: 0.875rem;
    margin-bottom: 0.3rem;
  }
</style>
