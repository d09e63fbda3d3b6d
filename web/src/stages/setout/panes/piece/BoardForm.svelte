<!-- What a top or a shelf is made of, what it carries, and the edge that stiffens its front. -->
<script lang="ts">
  import { OPTIONS } from '../../../../api/fields';
  import type { Unit } from '../../../../api/types';
  import { Select, SelectItem } from '../../../../carbon';
  import LengthField from '../../../../entry/LengthField.svelte';
  import NumberField from '../../../../entry/NumberField.svelte';
  import { usual } from '../../../../entry/usual';
  import { open } from '../../../../state/job.svelte';
  import { BOARD } from './shapes';

  interface Props {
    unit: Unit;
    onchange: (part: Partial<Unit>) => void;
  }
  let p: Props = $props();
  const MATERIALS = OPTIONS.materials;
  const board = $derived(p.unit.board ?? usual(BOARD, open.units));
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
</script>

<Select
  labelText="Made of"
  size="sm"
  selected={board.material ?? 'particleboard'}
  on:change={(e: Event) =>
    p.onchange({ board: { ...board, material: chosen(e) as (typeof MATERIALS)[number] } })}
>
  {#each MATERIALS as value (value)}<SelectItem {value} text={value} />{/each}
</Select>
<NumberField
  label="Carries, kg a metre"
  most={2000}
  value={board.load_kg_per_m ?? 30}
  onchange={(kg) => p.onchange({ board: { ...board, load_kg_per_m: kg! } })}
/>
<NumberField
  label="Moisture swing, %"
  most={20}
  value={board.moisture_range_percent ?? 4}
  onchange={(n) => p.onchange({ board: { ...board, moisture_range_percent: n! } })}
/>
<LengthField
  label="Longest stock"
  value={board.stock_mm ?? 4100}
  least={1}
  onchange={(mm) => p.onchange({ board: { ...board, stock_mm: mm! } })}
/>
<LengthField
  label="Front edge thick"
  optional
  value={board.edge?.thick_mm ?? null}
  onchange={(mm) =>
    p.onchange({
      board: { ...board, edge: mm ? { thick_mm: mm, high_mm: board.edge?.high_mm ?? 40 } : null },
    })}
/>
{#if board.edge}
  {@const edge = board.edge}
  <LengthField
    label="Front edge high"
    value={edge.high_mm}
    least={1}
    onchange={(mm) => p.onchange({ board: { ...board, edge: { ...edge, high_mm: mm! } } })}
  />
{/if}
