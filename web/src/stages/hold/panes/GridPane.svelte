<!-- A wall to hang things on: bevelled battens at a pitch, or a board with holes for pegs. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { AskGrid, Laid } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import { showLength } from '../../../entry/length';
  import LengthField from '../../../entry/LengthField.svelte';
  import { Asking } from '../../../state/asking.svelte';
  import { usePlace } from '../../../state/place';
  import { usualLength } from '../../../entry/usual';

  let { high, wide }: { high: number; wide: number } = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  // svelte-ignore state_referenced_locally
  let asked = $state<AskGrid>({
    how: 'battens',
    high_mm: Math.min(usualLength(1800, unit), high),
    wide_mm: Math.min(usualLength(1200, unit), wide),
    pitch_mm: usualLength(150, unit),
    batten_mm: usualLength(80, unit),
    thick_mm: usualLength(18, unit),
    edge_mm: usualLength(20, unit),
    units: unit,
  });
  const asking = new Asking<Laid>();
  const made = $derived(asking.found);
  $effect(() => asking.ask(calls.grid({ ...$state.snapshot(asked), units: unit })));
  const said = (mm: number) => showLength(mm, unit);
  const FIELDS = {
    battens: [
      ['high_mm', 'Wall high'],
      ['pitch_mm', 'Apart, tip to tip'],
      ['batten_mm', 'Batten high'],
      ['thick_mm', 'Batten thick'],
    ],
    pegs: [
      ['wide_mm', 'Board wide'],
      ['high_mm', 'Board high'],
      ['pitch_mm', 'Holes apart'],
      ['edge_mm', 'From its edges'],
    ],
  } as const;
</script>

<div class="asked no-print">
  <Select
    labelText="Lay out"
    size="sm"
    selected={asked.how}
    on:change={(e: Event) => {
      asked.how = (e.target as HTMLSelectElement).value as AskGrid['how'];
      asked.pitch_mm = asked.how === 'pegs' ? 25 : 150;
    }}
  >
    <SelectItem value="battens" text="battens to hang on" />
    <SelectItem value="pegs" text="a board for pegs" />
  </Select>
  {#each FIELDS[asked.how] as [key, label] (key)}
    <LengthField {label} value={asked[key]!} least={1} onchange={(mm) => (asked[key] = mm!)} />
  {/each}
</div>
{#if asking.fault}<p class="stop">{asking.fault}</p>{:else if made}
  {#each made.steps as step, i (i)}<p>{step}</p>{/each}
  <p class="figure">
    {made.columns.length ? 'Rows' : 'Tips'} at {made.rows.map(said).join(', ')} up{made.columns.length
      ? `; columns at ${made.columns.map(said).join(', ')}`
      : ''}.
  </p>
  <p class="quiet">
    Each batten is screwed into every stud that it crosses, like a ledger; a board on furring likewise. Load
    figures are planning figures.
  </p>
{/if}

<style>
  p {
    font-size: 0.875rem;
    margin-bottom: 0.4rem;
    max-width: 60rem;
  }
</style>
