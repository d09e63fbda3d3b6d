<!-- The stock: what is on the shelf and what the shops sell, as it is sold and as it measures; CSV in and out. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../../api/calls';
  import { DEFAULTS, OPTIONS } from '../../../api/fields';
  import type { StockItem, Workshop } from '../../../api/types';
  import { Button, Select, SelectItem } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import NumberField from '../../../entry/NumberField.svelte';
  import { notices } from '../../../state/notices.svelte';
  import { merged, stockAt } from '../piles';
  import { key, readFile, text } from '../../../entry/inputs';

  interface Props {
    job: string;
    workshop: Workshop;
    put: (part: Partial<Workshop>) => void;
  }
  let { job, workshop: w, put }: Props = $props();
  const stock = $derived(w.stock ?? []);
  const shops = $derived(w.shops ?? []);
  const machines = $derived(w.machines ?? []);
  const item = (i: number, part: object) =>
    put({ stock: stock.map((s, k) => (k === i ? ({ ...s, ...part } as StockItem) : s)) });
  const NEW: Record<'sheet' | 'length' | 'pack' | 'tin', () => StockItem> = {
    sheet: () => ({ ...DEFAULTS.sheet, id: key('sheet'), name: 'Plywood 18' }) as unknown as StockItem,
    length: () =>
      ({ ...DEFAULTS.length, id: key('length'), name: 'Planed board 20 × 95' }) as unknown as StockItem,
    pack: () => ({ ...DEFAULTS.pack, id: key('pack'), name: 'box of screws' }) as unknown as StockItem,
    tin: () => ({ ...DEFAULTS.tin, id: key('tin'), name: 'Paint' }) as unknown as StockItem,
  };
  const add = (kind: keyof typeof NEW) => put({ stock: [...stock, NEW[kind]()] });
  /** What a table has is taken over by its ids; what it does not name stays, and so do a board's defects. */
  async function bring(e: Event) {
    const read = await readFile(e);
    if (read === null) return;
    try {
      put({ stock: merged(stock, (await calls.readStock(job, read)).stock) });
    } catch (fault) {
      notices.refused(fault);
    }
  }
  const flat = $derived(stockAt(stock, ['sheet', 'length']));
  const packs = $derived(stockAt(stock, ['pack']));
  const tins = $derived(stockAt(stock, ['tin']));
  const remove = (i: number) =>
    put({
      stock: stock.filter((_, k) => k !== i),
      shops: shops.map((p) => ({ ...p, prices: (p.prices ?? []).filter((o) => o.item !== stock[i]?.id) })),
    });
  let others = $state.raw<{ id: string; name: string }[]>([]);
  onMount(() => {
    void calls
      .jobs()
      .then((jobs) => (others = jobs.filter((j) => j.id !== job)))
      .catch(() => undefined); // without a connection there is nothing to take over from
  });
  /** Stock, shops and machines of another job beside one's own; what is of the same id stays as it is here. */
  async function takeOver(e: Event) {
    const from = text(e);
    if (!from) return;
    try {
      const theirs = (await calls.job(from)).job.workshop;
      const more = <T extends { id: string }>(own: readonly T[], found: readonly T[] | undefined) => [
        ...own,
        ...(found ?? []).filter((f) => !own.some((o) => o.id === f.id)),
      ];
      put({
        stock: more(stock, theirs?.stock),
        shops: more(shops, theirs?.shops),
        machines: more(machines, theirs?.machines),
      });
    } catch (fault) {
      notices.refused(fault);
    }
  }
</script>

<h2>Stock</h2>
<p class="quiet">
  What is on your shelf and what your shop sells. Thickness as you measure it goes into every sum of a way of
  building that names the sheet.
</p>
{#if !stock.length}
  <p class="empty">Nothing yet: usual trade sizes are assumed. Add what your shop sells, or bring a list.</p>
{/if}
{#snippet end(s: StockItem, i: number)}
  <td class="few"
    ><NumberField
      label="At hand"
      bare
      whole
      value={s.at_hand ?? 0}
      onchange={(n) => item(i, { at_hand: n! })}
    /></td
  >
  <td class="few"
    ><NumberField
      label="Price"
      bare
      optional
      value={s.price ?? null}
      onchange={(n) => item(i, { price: n })}
    /></td
  >
  <td><button class="link" aria-label="Remove {s.name}" onclick={() => remove(i)}>Remove</button></td>
{/snippet}
{#snippet named(s: StockItem, i: number)}
  <td class="name"><TextField bare value={s.name} ontext={(name) => item(i, { name })} /></td>
{/snippet}
{#snippet figure(label: string, value: number, field: string, i: number, least: number)}
  <td class="few"><NumberField {label} bare {value} {least} onchange={(n) => item(i, { [field]: n! })} /></td>
{/snippet}
{#if flat.length}
  <div class="scroll">
    <table class="fields-table">
      <thead>
        <tr
          ><th>Sheets and lengths</th><th>Of</th><th>Thick</th><th>Measures</th><th>Long</th><th>Wide</th><th
            >At hand</th
          ><th>Price</th><td></td></tr
        >
      </thead>
      <tbody>
        {#each flat as { s, i } (s.id)}
          <tr>
            {@render named(s, i)}
            <td
              ><TextField
                bare
                label="Material"
                value={s.material ?? ''}
                ontext={(material) => item(i, { material })}
              /></td
            >
            <td class="few"
              ><LengthField
                label="Thick"
                bare
                value={s.thick_mm ?? 18}
                least={0.5}
                onchange={(mm) => item(i, { thick_mm: mm })}
              /></td
            >
            <td class="few">
              {#if s.sold_as === 'sheet'}
                <LengthField
                  label="Measures"
                  bare
                  optional
                  value={s.measured_mm ?? null}
                  least={0.5}
                  onchange={(mm) => item(i, { measured_mm: mm })}
                />
              {/if}
            </td>
            <td class="few"
              ><LengthField
                label="Long"
                bare
                value={s.long_mm ?? 0}
                least={10}
                onchange={(mm) => item(i, { long_mm: mm })}
              /></td
            >
            <td class="few"
              ><LengthField
                label="Wide"
                bare
                value={s.wide_mm ?? 0}
                least={5}
                onchange={(mm) => item(i, { wide_mm: mm })}
              /></td
            >
            {@render end(s, i)}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
{#if packs.length}
  <div class="scroll">
    <table class="fields-table">
      <thead>
        <tr><th>Packs</th><th>Of</th><th>Size</th><th>In one</th><th>At hand</th><th>Price</th><td></td></tr>
      </thead>
      <tbody>
        {#each packs as { s, i } (s.id)}
          <tr>
            {@render named(s, i)}
            <td>
              <Select
                labelText="Of"
                hideLabel
                size="sm"
                selected={s.of ?? 'screws'}
                on:change={(e: Event) => item(i, { of: text(e) })}
              >
                {#each OPTIONS.packOfs as of (of)}<SelectItem value={of} text={of} />{/each}
              </Select>
            </td>
            <td class="few"
              ><LengthField
                label="Size"
                bare
                value={s.size_mm ?? 0}
                least={0}
                onchange={(mm) => item(i, { size_mm: mm })}
              /></td
            >
            {@render figure('In one pack', s.holds ?? 100, 'holds', i, 0.001)}
            {@render end(s, i)}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
{#if tins.length}
  <div class="scroll">
    <table class="fields-table">
      <thead>
        <tr
          ><th>Tins</th><th>Of</th><th>Litres</th><th>m² a litre</th><th>Dries, h</th><th>At hand</th><th
            >Price</th
          ><td></td></tr
        >
      </thead>
      <tbody>
        {#each tins as { s, i } (s.id)}
          <tr>
            {@render named(s, i)}
            <td>
              <Select
                labelText="Of"
                hideLabel
                size="sm"
                selected={s.kind ?? 'paint'}
                on:change={(e: Event) => item(i, { kind: text(e) })}
              >
                {#each OPTIONS.finishKinds as of (of)}<SelectItem value={of} text={of} />{/each}
              </Select>
            </td>
            {@render figure('Litres', s.litres ?? 1, 'litres', i, 0.001)}
            {@render figure('m² a litre', s.m2_per_litre ?? 12, 'm2_per_litre', i, 0.001)}
            {@render figure('Dries, h', s.dries_h ?? 6, 'dries_h', i, 0)}
            {@render end(s, i)}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
<div class="row">
  <Button size="small" kind="ghost" on:click={() => add('sheet')}>Add a sheet</Button>
  <Button size="small" kind="ghost" on:click={() => add('length')}>Add a length</Button>
  <Button size="small" kind="ghost" on:click={() => add('pack')}>Add a pack</Button>
  <Button size="small" kind="ghost" on:click={() => add('tin')}>Add a tin</Button>
  <a href="/api/jobs/{job}/stock.csv" download>Save as CSV</a>
  {#if others.length}
    <Select labelText="Take over from another job" hideLabel size="sm" selected="" on:change={takeOver}>
      <SelectItem value="" text="Take over from another job" />
      {#each others as o (o.id)}<SelectItem value={o.id} text={o.name} />{/each}
    </Select>
  {/if}
  <label class="file"
    >Bring a CSV <input type="file" accept=".csv,text/csv" onchange={(e) => void bring(e)} /></label
  >
</div>

<style>
  h2 {
    font-size: 1.0625rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.5rem;
    margin: 0 0 0.4rem;
  }
  p {
    font-size: 0.8125rem;
  }
  /* hidden labels stand absolutely: here, and not on the page */
  .scroll {
    position: relative;
    overflow-x: auto;
  }
  .scroll table {
    min-width: 40rem;
    margin-bottom: 0.8rem;
  }
  .few {
    width: 5rem;
  }
  .name {
    width: 13rem;
  }
  td:nth-child(2) {
    min-width: 7.5rem;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 0.8rem;
    font-size: 0.875rem;
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
  .scroll {
    max-width: 100%;
    min-width: 0;
  }
</style>
