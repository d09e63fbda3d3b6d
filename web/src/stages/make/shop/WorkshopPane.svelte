<!-- The workshop: its stock, the saw, machines, shops and their prices, the finish. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import { DEFAULTS, OPTIONS } from '../../../api/fields';
  import type { Coats, Machine, Shop, Workshop } from '../../../api/types';
  import { Button, Select, SelectItem } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import NumberField from '../../../entry/NumberField.svelte';
  import { open } from '../../../state/job.svelte';
  import StockPane from './StockPane.svelte';
  import { key, readFile, text } from '../../../entry/inputs';
  import { notices } from '../../../state/notices.svelte';

  let { job, workshop: w }: { job: string; workshop: Workshop } = $props();
  const stock = $derived(w.stock ?? []);
  const shops = $derived(w.shops ?? []);
  const machines = $derived(w.machines ?? []);
  const coats = $derived(w.coats ?? []);
  const put = (part: Partial<Workshop>) => void open.putWorkshop(w, { ...w, ...part });

  const shop = (i: number, part: Partial<Shop>) =>
    put({ shops: shops.map((s, k) => (k === i ? { ...s, ...part } : s)) });
  const machine = (i: number, part: Partial<Machine>) =>
    put({ machines: machines.map((m, k) => (k === i ? { ...m, ...part } : m)) });
  const coat = (i: number, part: Partial<Coats>) =>
    put({ coats: coats.map((c, k) => (k === i ? { ...c, ...part } : c)) });

  function offer(i: number, of: string, price: number | null) {
    const others = (shops[i]?.prices ?? []).filter((o) => o.item !== of);
    shop(i, { prices: price === null ? others : [...others, { item: of, price }] });
  }
  async function bring(e: Event, i: number) {
    const read = await readFile(e);
    if (read === null) return;
    try {
      const found = await calls.readPrices(job, read);
      shop(i, { prices: found.offers });
      if (found.unknown.length)
        notices.add(
          'info',
          `${found.unknown.length} lines name nothing on the stock list.`,
          found.unknown.slice(0, 8).join(', '),
        );
    } catch (fault) {
      notices.refused(fault);
    }
  }
</script>

<StockPane {job} workshop={w} {put} />

<h2>Saw and sheets</h2>
<div class="grid">
  <LengthField label="Kerf" value={w.kerf_mm ?? 3} least={0} onchange={(mm) => put({ kerf_mm: mm! })} />
  <LengthField
    label="Trimmed off edges"
    value={w.trim_mm ?? 5}
    least={0}
    onchange={(mm) => put({ trim_mm: mm! })}
  />
  <LengthField
    label="Trimmed off ends"
    value={w.end_trim_mm ?? 10}
    least={0}
    onchange={(mm) => put({ end_trim_mm: mm! })}
  />
  <NumberField
    label="One person lifts, kg"
    least={1}
    most={200}
    value={w.lifts_kg ?? 25}
    onchange={(kg) => put({ lifts_kg: kg! })}
  />
  <LengthField
    label="The car takes, long"
    optional
    value={w.carries_mm?.[0] ?? null}
    least={100}
    onchange={(mm) => put({ carries_mm: mm ? [mm, w.carries_mm?.[1] ?? 1000] : null })}
  />
  <LengthField
    label="and wide"
    optional
    value={w.carries_mm?.[1] ?? null}
    least={100}
    onchange={(mm) => put({ carries_mm: mm ? [w.carries_mm?.[0] ?? 2000, mm] : null })}
  />
  <Select
    labelText="After price, lay out for"
    size="sm"
    selected={w.aim ?? 'fewest sheets'}
    on:change={(e: Event) => put({ aim: text(e) as NonNullable<Workshop['aim']> })}
  >
    {#each OPTIONS.aims as aim (aim)}<SelectItem value={aim} text={aim} />{/each}
  </Select>
</div>

<h2>Machines</h2>
{#each machines as m, i (m.id)}
  <div class="grid">
    <TextField value={m.name} ontext={(name) => machine(i, { name })} />
    <Select
      labelText="Kind"
      size="sm"
      selected={m.kind ?? 'table saw'}
      on:change={(e: Event) => machine(i, { kind: text(e) as NonNullable<Machine['kind']> })}
    >
      {#each OPTIONS.machineKinds as kind (kind)}<SelectItem value={kind} text={kind} />{/each}
    </Select>
    <LengthField
      label="Rips up to (0: any)"
      value={m.rip_mm ?? 0}
      least={0}
      onchange={(mm) => machine(i, { rip_mm: mm! })}
    />
    <LengthField
      label="Cross-cuts up to"
      value={m.cross_mm ?? 0}
      least={0}
      onchange={(mm) => machine(i, { cross_mm: mm! })}
    />
    <LengthField
      label="Thickest"
      value={m.thick_mm ?? 0}
      least={0}
      onchange={(mm) => machine(i, { thick_mm: mm! })}
    />
    <LengthField
      label="Longest led through"
      value={m.bed_mm ?? 0}
      least={0}
      onchange={(mm) => machine(i, { bed_mm: mm! })}
    />
    <button
      class="link"
      aria-label="Remove {m.name}"
      onclick={() => put({ machines: machines.filter((_, k) => k !== i) })}>Remove</button
    >
  </div>
{:else}
  <p class="empty">None named: settings are given without a machine.</p>
{/each}
<Button
  size="small"
  kind="ghost"
  on:click={() =>
    put({
      machines: [...machines, { ...(DEFAULTS.machine as unknown as Machine), id: key('m'), name: 'Saw' }],
    })}>Add a machine</Button
>

<h2>Shops</h2>
{#each shops as s, i (s.id)}
  <div class="grid">
    <TextField value={s.name} ontext={(name) => shop(i, { name })} />
    <NumberField label="The trip costs" value={s.trip ?? 0} onchange={(n) => shop(i, { trip: n! })} />
    <label class="file"
      >Bring its prices <input type="file" accept=".csv,text/csv" onchange={(e) => void bring(e, i)} /></label
    >
    <button
      class="link"
      aria-label="Remove {s.name}"
      onclick={() => put({ shops: shops.filter((_, k) => k !== i) })}>Remove</button
    >
  </div>
  <details>
    <summary>{s.prices?.length ?? 0} prices</summary>
    <div class="prices">
      {#each stock as of (of.id)}
        <NumberField
          label={of.name}
          optional
          value={s.prices?.find((o) => o.item === of.id)?.price ?? null}
          onchange={(n) => offer(i, of.id, n)}
        />
      {/each}
    </div>
  </details>
{:else}
  <p class="empty">None named: prices are those of the stock list.</p>
{/each}
{#if shops.length < 8}
  <Button
    size="small"
    kind="ghost"
    on:click={() => put({ shops: [...shops, { id: key('shop'), name: 'Shop', trip: 0, prices: [] }] })}
    >Add a shop</Button
  >
{/if}

<h2>Finish</h2>
{#each coats as c, i (i)}
  <div class="grid">
    <Select
      labelText="Finish"
      size="sm"
      selected={c.finish ?? 'paint'}
      on:change={(e: Event) => coat(i, { finish: text(e) as NonNullable<Coats['finish']> })}
    >
      {#each OPTIONS.finishKinds as kind (kind)}<SelectItem value={kind} text={kind} />{/each}
    </Select>
    <Select
      labelText="On"
      size="sm"
      selected={c.faces ?? 'seen'}
      on:change={(e: Event) => coat(i, { faces: text(e) as NonNullable<Coats['faces']> })}
    >
      <SelectItem value="seen" text="what is seen" />
      <SelectItem value="inside" text="insides" />
      <SelectItem value="all" text="all faces" />
    </Select>
    <Select
      labelText="Coats"
      size="sm"
      selected={String(c.number ?? 2)}
      on:change={(e: Event) => coat(i, { number: Number(text(e)) })}
    >
      {#each [1, 2, 3, 4, 5, 6] as n (n)}<SelectItem value={String(n)} text={String(n)} />{/each}
    </Select>
    <button
      class="link"
      aria-label="Remove {c.finish}"
      onclick={() => put({ coats: coats.filter((_, k) => k !== i) })}>Remove</button
    >
  </div>
{/each}
<Button
  size="small"
  kind="ghost"
  on:click={() => put({ coats: [...coats, { faces: 'seen', finish: 'paint', number: 2 }] })}
  >Add a finish</Button
>

<style>
  h2 {
    font-size: 1.0625rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.5rem;
    margin: 1.2rem 0 0.4rem;
  }
  h2:first-child {
    margin-top: 0;
  }
  p {
    font-size: 0.8125rem;
  }
  .file {
    font-size: 0.8125rem;
    min-width: 0;
    max-width: 100%;
  }
  .file input {
    display: block;
    width: 100%;
    max-width: 16rem;
  }
  .grid,
  .prices {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
    gap: 0.6rem;
    align-items: end;
    padding: 0.4rem 0;
  }
  summary {
    cursor: pointer;
    font-size: 0.875rem;
  }
</style>
