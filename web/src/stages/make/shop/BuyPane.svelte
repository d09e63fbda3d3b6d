<!-- What is bought: ticked off in the shop; and in which shops the whole costs least. -->
<script lang="ts">
  import type { Made, Shop, ToBuy } from '../../../api/types';

  interface Props {
    buying: Made['buying'];
    shops: readonly Shop[];
    /** How many of an item are ticked off here and not yet with the server. */
    pending: (item: string) => number;
    onbought: (line: ToBuy) => void;
  }
  let { buying, shops, pending, onbought }: Props = $props();
  const shop = (id: string) => shops.find((s) => s.id === id)?.name ?? id;
  const name = (item: string) => buying.list.find((b) => b.item === item)?.what ?? item;
  const left = (b: ToBuy) => Math.max(0, b.packs - (b.bought ?? 0) - (b.item ? pending(b.item) : 0));
  const amount = (n: number) => (Number.isInteger(n) ? String(n) : n.toFixed(2));
</script>

{#if buying.list.length}
  <table class="fields-table">
    <thead><tr><th>What</th><th>Needs</th><th>To buy</th><th>Each</th><td></td></tr></thead>
    <tbody>
      {#each buying.list as b, i (i)}
        <tr class:done={b.packs > 0 && left(b) === 0} class:quiet={b.packs === 0}>
          <td>{b.what}</td>
          <td class="figure">{amount(b.needs)} {b.unit}</td>
          <td class="figure">{!b.item ? '—' : b.packs ? `${left(b)} of ${b.packs}` : 'at hand'}</td>
          <td class="figure">{b.price === null || b.price === undefined ? '' : b.price.toFixed(2)}</td>
          <td class="no-print">
            {#if b.item && left(b) > 0}
              <button class="link" onclick={() => onbought(b)} aria-label="{b.what}: bought">Bought</button>
            {:else if !b.item}
              <span class="quiet">not on your stock list</span>
            {/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
{:else}
  <p class="quiet">Nothing is to be bought.</p>
{/if}
<h2>Where</h2>
<p class="why">{buying.why}</p>
<div class="baskets">
  {#each buying.baskets as k, i (i)}
    <section class:best={i === 0}>
      <h3>{k.shops.map(shop).join(' and ')}</h3>
      <p class="total">
        <b class="figure">{k.total.toFixed(2)}</b>
        <span class="quiet figure">goods {k.goods.toFixed(2)}, trips {k.trips.toFixed(2)}</span>
      </p>
      {#each k.shops as s, i (i)}
        <p class="quiet">{shop(s)}</p>
        <ul>
          {#each k.lines.filter((l) => l.shop === s) as l, i (i)}
            <li>
              <span>{l.packs} × {name(l.item)}</span>
              <span class="figure">{l.price.toFixed(2)}</span>
            </li>
          {:else}<li class="quiet">nothing</li>{/each}
        </ul>
      {/each}
      {#if k.lacking?.length}<p class="mind">Lacks {k.lacking.map(name).join(', ')}.</p>{/if}
    </section>
  {/each}
</div>

<style>
  td {
    font-size: 0.875rem;
    vertical-align: middle;
    border-top: 1px solid var(--w-line);
    height: 2.4rem;
  }
  td:first-child {
    overflow-wrap: anywhere;
    min-width: 7.5rem;
  }
  td:last-child {
    padding-right: 0;
  }
  li .figure {
    white-space: nowrap;
  }
  .done td:not(:last-child) {
    color: var(--w-ink-soft);
    text-decoration: line-through;
  }
  h2 {
    font-size: 1.0625rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.5rem;
    margin-top: 1.2rem;
  }
  h3 {
    font-size: 0.9375rem;
  }
  .why {
    font-size: 0.875rem;
    margin-bottom: 0.6rem;
  }
  .baskets {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(16rem, 100%), 1fr));
    gap: 0.75rem;
    align-items: start;
  }
  section {
    background: var(--w-sheet);
    border: 1px solid var(--w-line);
    padding: 0.6rem 0.75rem;
    min-width: 0;
  }
  .best {
    border-color: var(--w-chalk);
    border-width: 2px;
  }
  .total b {
    font-size: 1.3rem;
  }
  p {
    font-size: 0.8125rem;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0 0 0.4rem;
  }
  li span:first-child {
    min-width: 0;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 0.6rem;
    font-size: 0.8125rem;
  }
</style>
