<!-- What the walls, or the ceiling, are made of, and by which rule holes keep clear of services. -->
<script lang="ts">
  import type { Backing } from '../../api/types';
  import { Select, SelectItem } from '../../carbon';
  import TextField from '../../entry/TextField.svelte';
  import LengthField from '../../entry/LengthField.svelte';
  import NumberField from '../../entry/NumberField.svelte';
  import { ANCHOR, KINDS, LINING, RULES, RUNS, WOODS } from './backing';

  interface Props {
    of: 'walls' | 'ceiling' | 'floor';
    backing: Backing;
    vehicle: boolean;
    onput: (part: Partial<Backing>) => void;
  }
  let p: Props = $props();
  const b = $derived(p.backing);
  const anchor = $derived(b.anchor ?? ANCHOR);
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
  function take(kind: (typeof KINDS)[number]) {
    p.onput({
      kind,
      lining_mm: LINING[kind] ?? b.lining_mm,
      anchor: kind === 'masonry' ? (b.anchor ?? null) : b.anchor,
    });
  }
</script>

<div class="fields no-print">
  <Select
    labelText={p.of === 'walls' ? 'The walls are' : `The ${p.of} is`}
    size="sm"
    selected={b.kind}
    on:change={(e: Event) => take(chosen(e) as (typeof KINDS)[number])}
  >
    {#each KINDS as k (k)}<SelectItem
        value={k}
        text={p.of !== 'walls' ? k.replace('studs', 'joists') : k}
      />{/each}
  </Select>
  <LengthField
    label={p.of === 'floor' ? 'Boards thick' : 'Lining'}
    value={b.lining_mm}
    least={0}
    onchange={(mm) => p.onput({ lining_mm: mm! })}
  />
  {#if b.kind !== 'masonry'}
    <LengthField
      label={p.of === 'walls' ? 'Studs wide' : 'Joists wide'}
      value={b.stud_mm}
      least={1}
      onchange={(mm) => p.onput({ stud_mm: mm! })}
    />
    <LengthField label="Deep" value={b.deep_mm} least={1} onchange={(mm) => p.onput({ deep_mm: mm! })} />
  {/if}
  {#if b.kind === 'metal studs'}
    <LengthField
      label="Sheet thick"
      value={b.steel_mm ?? 0.6}
      least={0.1}
      onchange={(mm) => p.onput({ steel_mm: Math.min(5, mm!) })}
    />
  {:else if b.kind === 'masonry'}
    <TextField
      label="Anchor"
      value={b.anchor?.name ?? ''}
      placeholder="as its maker calls it"
      ontext={(name) => p.onput({ anchor: { ...anchor, name } })}
    />
    {#if b.anchor}
      <NumberField
        label="Its maker’s load out, N"
        least={1}
        value={anchor.pull_n}
        onchange={(n) => p.onput({ anchor: { ...anchor, pull_n: n! } })}
      />
      <NumberField
        label="Sideways, N"
        least={1}
        value={anchor.shear_n}
        onchange={(n) => p.onput({ anchor: { ...anchor, shear_n: n! } })}
      />
      <LengthField
        label="Sits deep"
        value={anchor.embed_mm ?? 50}
        least={1}
        onchange={(mm) => p.onput({ anchor: { ...anchor, embed_mm: mm! } })}
      />
      <LengthField
        label="Its hole"
        value={anchor.drill_mm ?? 8}
        least={1}
        onchange={(mm) => p.onput({ anchor: { ...anchor, drill_mm: mm! } })}
      />
    {/if}
  {:else}
    <Select
      labelText="Wood"
      size="sm"
      selected={b.wood}
      on:change={(e: Event) => p.onput({ wood: chosen(e) as (typeof WOODS)[number] })}
    >
      {#each WOODS as w (w)}<SelectItem value={w} text={w} />{/each}
    </Select>
  {/if}
  {#if p.of !== 'walls'}
    <Select
      labelText="Joists run"
      size="sm"
      selected={b.runs}
      on:change={(e: Event) => p.onput({ runs: chosen(e) as NonNullable<Backing['runs']> })}
    >
      {#each RUNS as [value, text] (value)}<SelectItem {value} {text} />{/each}
    </Select>
  {:else}
    <Select
      labelText="Keep clear of services"
      size="sm"
      selected={b.rule}
      on:change={(e: Event) => p.onput({ rule: chosen(e) as NonNullable<Backing['rule']> })}
    >
      {#each RULES as [value, text] (value)}<SelectItem {value} {text} />{/each}
    </Select>
  {/if}
  <LengthField
    label="Clear of them by"
    value={b.clear_mm}
    least={1}
    onchange={(mm) => p.onput({ clear_mm: mm! })}
  />
  <LengthField
    label="No hole deeper than"
    value={b.deepest_mm ?? null}
    least={1}
    optional
    onchange={(mm) => p.onput({ deepest_mm: mm })}
  />
  {#if p.vehicle && p.of === 'walls'}
    <NumberField
      label="Driving throws it, g"
      most={20}
      value={b.driving_g ?? 0}
      onchange={(g) => p.onput({ driving_g: g! })}
    />
  {/if}
</div>
{#if b.kind === 'lath and plaster'}
  <p class="quiet">
    Old plaster: its paint may hold lead, its boards asbestos. Find out before you drill; drill slowly, as its
    keys break off.
  </p>
{/if}

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
    align-items: end;
    margin-bottom: 0.75rem;
  }
  p {
    font-size: 0.8125rem;
    margin-bottom: 0.5rem;
  }
</style>
