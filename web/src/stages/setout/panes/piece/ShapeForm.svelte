<!-- Where a piece is no box: an end cut back in plan, an edge that is a part of a circle. -->
<script lang="ts">
  import type { Unit } from '../../../../api/types';
  import { Select, SelectItem } from '../../../../carbon';
  import LengthField from '../../../../entry/LengthField.svelte';
  import { usual } from '../../../../entry/usual';
  import { open } from '../../../../state/job.svelte';
  import { curvedEdges, type CurvedEdge } from './shapes';

  interface Props {
    unit: Unit;
    onchange: (part: Partial<Unit>) => void;
  }
  let p: Props = $props();
  const u = $derived(p.unit);
  const edges = $derived(curvedEdges(u.kind ?? 'base'));
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
</script>

<Select
  labelText="An end cut back in plan"
  size="sm"
  selected={u.angled?.end ?? ''}
  on:change={(e: Event) => {
    const end = chosen(e) as 'left' | 'right' | '';
    p.onchange({
      angled: end ? { ...usual({ along_mm: 200, deep_mm: 200 }, open.units), ...u.angled, end } : null,
    });
  }}
>
  <SelectItem value="" text="none" />
  <SelectItem value="left" text="the left end" />
  <SelectItem value="right" text="the right end" />
</Select>
{#if u.angled}
  {@const angled = u.angled}
  <LengthField
    label="Cut back along"
    value={angled.along_mm}
    least={1}
    onchange={(mm) => p.onchange({ angled: { ...angled, along_mm: mm! } })}
  />
  <LengthField
    label="Cut back in depth"
    value={angled.deep_mm}
    least={1}
    onchange={(mm) => p.onchange({ angled: { ...angled, deep_mm: mm! } })}
  />
{/if}
{#if edges.length}
  <Select
    labelText="A curved edge"
    size="sm"
    selected={u.curve?.edge ?? ''}
    on:change={(e: Event) => {
      const edge = chosen(e) as CurvedEdge | '';
      p.onchange({
        curve: edge ? { ...usual({ rise_mm: 80 }, open.units), way: 'out', ...u.curve, edge } : null,
      });
    }}
  >
    <SelectItem value="" text="none" />
    {#each edges as edge (edge)}<SelectItem value={edge} text="its {edge} edge" />{/each}
  </Select>
{/if}
{#if u.curve}
  {@const curve = u.curve}
  <LengthField
    label="Rises in its middle by"
    value={curve.rise_mm}
    least={1}
    onchange={(mm) => p.onchange({ curve: { ...curve, rise_mm: mm! } })}
  />
  <Select
    labelText="It goes"
    size="sm"
    selected={curve.way ?? 'out'}
    on:change={(e: Event) => p.onchange({ curve: { ...curve, way: chosen(e) as 'out' | 'in' } })}
  >
    <SelectItem value="out" text="outwards" />
    <SelectItem value="in" text="cut into it" />
  </Select>
{/if}
