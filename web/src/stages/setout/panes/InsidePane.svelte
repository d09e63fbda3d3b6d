<!-- A carcass opened at the side: its cells between their rods, the way it is built, and one cell at a time. -->
<script lang="ts">
  import type { Cell, Insides, LaidUnit, LengthUnit, Unit } from '../../../api/types';
  import { Button, Select, SelectItem } from '../../../carbon';
  import { open } from '../../../state/job.svelte';
  import Carcass from './Carcass.svelte';
  import CellForm from './CellForm.svelte';
  import { above, cellAt, insidesOf, split, unsplit, withCell } from './cells';

  interface Props {
    laid: LaidUnit;
    unit: LengthUnit;
    onchange: (part: Partial<Unit>) => void;
  }
  let p: Props = $props();
  let path = $state('');
  const insides = $derived<Insides>(insidesOf(p.laid.unit.insides));
  const known = $derived(p.laid.cells.some((c) => c.path === path) ? path : '');
  const cell = $derived(cellAt(insides.cell!, known));
  const laid = $derived(p.laid.cells.find((c) => c.path === known));
  const up = $derived(above(known));
  const within = $derived.by(() => {
    if (up === null) return null;
    const fill = cellAt(insides.cell!, up).fill;
    return fill?.fill === 'rows' ? 'rows' : 'columns';
  });
  const ways = $derived(open.stored?.job.constructions ?? []);
  const set = (now: Cell, then = known) => {
    path = then;
    p.onchange({ insides: { ...insides, cell: withCell(insides.cell!, known, now) } });
  };
  const into = (way: 'columns' | 'rows', n: number) => set(split(cell, way, n), known ? `${known}.0` : '0');
  function together() {
    if (up === null) return;
    p.onchange({
      insides: { ...insides, cell: withCell(insides.cell!, up, unsplit(cellAt(insides.cell!, up))) },
    });
    path = up;
  }
</script>

{#if p.laid.unit.insides}
  <Carcass laid={p.laid} unit={p.unit} chosen={known} onchoose={(to) => (path = to)} />
  <div class="acts">
    {#each [2, 3] as n (n)}
      <button class="chip" onclick={() => into('columns', n)}>{n} columns</button>
      <button class="chip" onclick={() => into('rows', n)}>{n} rows</button>
    {/each}
    {#if up !== null}
      <button class="chip" onclick={together}>Join again</button>
      <button class="chip" onclick={() => (path = up)}>Wider</button>
    {/if}
  </div>
  {#if !('cells' in (cell.fill ?? {}))}
    <CellForm {cell} {laid} {within} onchange={(now) => set(now)} />
  {:else}
    <p class="quiet">Choose a cell in the drawing, or close all of it by one door:</p>
    <CellForm
      cell={{ ...cell, fill: { fill: 'nothing' } } as Cell}
      split
      {laid}
      {within}
      onchange={(now) => set({ ...now, fill: cell.fill } as Cell)}
    />
  {/if}
  {#if ways.length}
    <Select
      labelText="Built"
      size="sm"
      selected={insides.built ?? ways[0]!.id}
      on:change={(e: Event) =>
        p.onchange({ insides: { ...insides, built: (e.target as HTMLSelectElement).value || null } })}
    >
      {#each ways as w (w.id)}<SelectItem value={w.id} text={w.name} />{/each}
    </Select>
  {/if}
  <Button size="small" kind="ghost" on:click={() => p.onchange({ insides: null })}
    >Close it up: say nothing of its inside</Button
  >
{:else}
  <p class="quiet">Nothing is said of its inside.</p>
  <Button size="small" kind="tertiary" on:click={() => p.onchange({ insides: insidesOf(null) })}
    >Open it</Button
  >
{/if}

<style>
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    margin: 0.4rem 0;
  }
  p {
    font-size: 0.875rem;
    margin: 0.4rem 0;
  }
</style>
