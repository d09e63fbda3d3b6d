<!-- Other jobs that are bought for on the same trip: what is alike is one need, each shop is gone to once. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { JobLine, Trip } from '../../../api/types';
  import { newest } from '../../../state/newest';
  import { notices } from '../../../state/notices.svelte';

  let { job }: { job: string } = $props();
  let others = $state.raw<readonly JobLine[]>([]);
  let chosen = $state<string[]>([]);
  let trip = $state.raw<Trip | null>(null);
  const listen = newest();
  const what = $derived(new Map(trip?.lines.map((l) => [l.item, l.what])));
  const shop = $derived(new Map(trip?.shops.map((s) => [s.id, s.name])));
  const best = $derived(trip?.baskets[0]);

  $effect(() => {
    calls.jobs().then(
      (all) => (others = all.filter((j) => j.id !== job)),
      (fault: unknown) => notices.refused(fault),
    );
  });

  async function turn(id: string) {
    chosen = chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id];
    try {
      const answer = await listen(chosen.length ? calls.trip(job, chosen) : Promise.resolve(null));
      if (answer !== undefined) trip = answer;
    } catch (fault) {
      notices.refused(fault);
    }
  }
</script>

<section aria-label="On the same trip">
  <h2>On the same trip</h2>
  {#if others.length}
    <div class="jobs no-print" role="group" aria-label="Other jobs to buy for">
      {#each others as j (j.id)}
        <button
          class="chip"
          aria-pressed={chosen.includes(j.id)}
          disabled={chosen.length >= 7 && !chosen.includes(j.id)}
          onclick={() => void turn(j.id)}>{j.name}</button
        >
      {/each}
    </div>
  {:else}
    <p class="quiet">There is no other job: what is bought for several at once is found here then.</p>
  {/if}
  {#if trip && chosen.length}
    <p>{trip.why}</p>
    {#if trip.left_out.length}<p class="mind">
        Not looked for at {trip.left_out.join(', ')}: eight shops are tried.
      </p>{/if}
    <table class="facts">
      <thead><tr><th>What</th><th class="value">Packs</th><th>For</th><th>Where</th></tr></thead>
      <tbody>
        {#each trip.lines as l, i (i)}
          {@const at = best?.lines.find((b) => b.item === l.item)}
          <tr>
            <td>{what.get(l.item)}</td>
            <td class="value figure">{l.packs}</td>
            <td
              >{l.shares
                .filter((s) => s.packs)
                .map((s) => `${s.job} ${s.packs}`)
                .join(', ')}</td
            >
            <td>{at ? `${shop.get(at.shop) ?? ''}, ${at.price.toFixed(2)}` : 'lacking'}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</section>

<style>
  h2 {
    font-size: 1.0625rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.5rem;
    margin-top: 1.2rem;
  }
  .jobs {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
  }
  p {
    font-size: 0.875rem;
    margin: 0.5rem 0;
  }
  table {
    margin-top: 0.5rem;
  }
</style>
