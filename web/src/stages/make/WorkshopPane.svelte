<!-- The workshop: stock as it is sold and as it measures, shops and prices, machines, saw and finish. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import { DEFAULTS, OPTIONS } from '../../api/fields';
  import type { Coats, Machine, Shop, StockItem, Workshop } from '../../api/types';
  import { Button, Select, SelectItem, TextInput } from '../../carbon';
  import LengthField from '../../entry/LengthField.svelte';
  import { newId } from '../../entry/ids';
  import { open } from '../../state/job.svelte';
  import { stockAt } from './piles';
  import { notices } from '../../state/notices.svelte';

  let { job, workshop: w }: { job: string; workshop: Workshop } = $props();
  const stock = $derived(w.stock ?? []);
  const shops = $derived(w.shops ?? []);
  const machines = $derived(w.machines ?? []);
  const coats = $derived(w.coats ?? []);
  const put = (part: Partial<Workshop>) => void open.putWorkshop(w, { ...w, ...part });
  const text = (e: Event) => (e.target as HTMLInputElement | HTMLSelectElement).value;
  const number = (e: Event) => Number(text(e).replace(',', '.'));
  const key = (kind: string) => `${kind}-${newId().slice(0, 8)}`;

  const item = (i: number, part: object) =>
    put({ stock: stock.map((s, k) => (k === i ? ({ ...s, ...part } as StockItem) : s)) });
  const shop = (i: number, part: Partial<Shop>) =>
    put({ shops: shops.map((s, k) => (k === i ? { ...s, ...part } : s)) });
  const machine = (i: number, part: Partial<Machine>) =>
    put({ machines: machines.map((m, k) => (k === i ? { ...m, ...part } : m)) });
  const coat = (i: number, part: Partial<Coats>) =>
    put({ coats: coats.map((c, k) => (k === i ? { ...c, ...part } : c)) });

  const NEW: Record<'sheet' | 'length' | 'pack' | 'tin', () => StockItem> = {
    sheet: () => ({ ...DEFAULTS.sheet, id: key('sheet'), name: 'Plywood 18' }) as unknown as StockItem,
    length: () =>
      ({ ...DEFAULTS.length, id: key('length'), name: 'Planed board 20 × 95' }) as unknown as StockItem,
    pack: () => ({ ...DEFAULTS.pack, id: key('pack'), name: 'box of screws' }) as unknown as StockItem,
    tin: () => ({ ...DEFAULTS.tin, id: key('tin'), name: 'Paint' }) as unknown as StockItem,
  };
  const add = (kind: keyof typeof NEW) => put({ stock: [...stock, NEW[kind]()] });
  function price(i: number, e: Event) {
    const said = text(e).trim();
    const value = said === '' ? null : number(e);
    if (value === null || (Number.isFinite(value) && value >= 0)) item(i, { price: value });
    else notices.add('error', `“${said}” is no price.`, 'Write digits with a point, without a currency.');
  }
  function offer(i: number, of: string, e: Event) {
    const said = text(e).trim();
    const others = (shops[i]?.prices ?? []).filter((o) => o.item !== of);
    const value = number(e);
    if (said === '') shop(i, { prices: others });
    else if (Number.isFinite(value) && value >= 0)
      shop(i, { prices: [...others, { item: of, price: value }] });
    else notices.add('error', `“${said}” is no price.`, 'Write digits with a point, without a currency.');
  }
  async function bring(e: Event, what: 'stock' | number) {
    const input = e.target as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    try {
      const read = await file.text();
      if (what === 'stock') put({ stock: (await calls.readStock(job, read)).stock });
      else {
        const found = await calls.readPrices(job, read);
        shop(what, { prices: found.offers });
        if (found.unknown.length)
          notices.add(
            'info',
            `${found.unknown.length} lines name nothing on the stock list.`,
            found.unknown.slice(0, 8).join(', '),
          );
      }
    } catch (fault) {
      notices.refused(fault);
    }
    input.value = '';
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
  const count = (e: Event) => Math.max(0, Math.round(number(e)) || 0);
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
    ><TextInput
      labelText="At hand"
      hideLabel
      size="sm"
      value={String(s.at_hand ?? 0)}
      on:blur={(e: FocusEvent) => count(e) !== s.at_hand && item(i, { at_hand: count(e) })}
    /></td
  >
  <td class="few"
    ><TextInput
      labelText="Price"
      hideLabel
      size="sm"
      value={s.price === null || s.price === undefined ? '' : String(s.price)}
      on:blur={(e: FocusEvent) => text(e) !== String(s.price ?? '') && price(i, e)}
    /></td
  >
  <td><button class="link" aria-label="Remove {s.name}" onclick={() => remove(i)}>Remove</button></td>
{/snippet}
{#snippet named(s: StockItem, i: number)}
  <td class="name"
    ><TextInput
      labelText="Name"
      hideLabel
      size="sm"
      value={s.name}
      on:blur={(e: FocusEvent) => text(e).trim() && text(e) !== s.name && item(i, { name: text(e).trim() })}
    /></td
  >
{/snippet}
{#snippet figure(label: string, value: number, field: string, i: number, least: number)}
  <td class="few"
    ><TextInput
      labelText={label}
      hideLabel
      size="sm"
      value={String(value)}
      on:blur={(e: FocusEvent) => number(e) > least && number(e) !== value && item(i, { [field]: number(e) })}
    /></td
  >
{/snippet}
{#if flat.length}
  <div class="scroll">
    <table class="fields-table">
      <thead>
        <tr
          ><th>Sheets and lengths</th><th>Of</th><th>Thick</th><th>Measures</th><th>Long</th><th>Wide</th><th
            >At hand</th
          ><th>Price</th><th></th></tr
        >
      </thead>
      <tbody>
        {#each flat as { s, i } (s.id)}
          <tr>
            {@render named(s, i)}
            <td
              ><TextInput
                labelText="Material"
                hideLabel
                size="sm"
                value={s.material ?? ''}
                on:blur={(e: FocusEvent) =>
                  text(e).trim() && text(e) !== s.material && item(i, { material: text(e).trim() })}
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
        <tr><th>Packs</th><th>Of</th><th>Size</th><th>In one</th><th>At hand</th><th>Price</th><th></th></tr>
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
            {@render figure('In one pack', s.holds ?? 100, 'holds', i, 0)}
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
          ><th></th></tr
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
            {@render figure('Litres', s.litres ?? 1, 'litres', i, 0)}
            {@render figure('m² a litre', s.m2_per_litre ?? 12, 'm2_per_litre', i, 0)}
            {@render figure('Dries, h', s.dries_h ?? 6, 'dries_h', i, -1)}
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
    >Bring a CSV <input type="file" accept=".csv,text/csv" onchange={(e) => void bring(e, 'stock')} /></label
  >
</div>

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
  <TextInput
    labelText="One person lifts, kg"
    size="sm"
    value={String(w.lifts_kg ?? 25)}
    on:blur={(e: FocusEvent) => number(e) >= 1 && number(e) !== w.lifts_kg && put({ lifts_kg: number(e) })}
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
    <TextInput
      labelText="Name"
      size="sm"
      value={m.name}
      on:blur={(e: FocusEvent) =>
        text(e).trim() && text(e) !== m.name && machine(i, { name: text(e).trim() })}
    />
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
    <TextInput
      labelText="Name"
      size="sm"
      value={s.name}
      on:blur={(e: FocusEvent) => text(e).trim() && text(e) !== s.name && shop(i, { name: text(e).trim() })}
    />
    <TextInput
      labelText="The trip costs"
      size="sm"
      value={String(s.trip ?? 0)}
      on:blur={(e: FocusEvent) => number(e) >= 0 && number(e) !== s.trip && shop(i, { trip: number(e) })}
    />
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
        <TextInput
          labelText={of.name}
          size="sm"
          value={String(s.prices?.find((o) => o.item === of.id)?.price ?? '')}
          on:blur={(e: FocusEvent) =>
            text(e) !== String(s.prices?.find((o) => o.item === of.id)?.price ?? '') && offer(i, of.id, e)}
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
