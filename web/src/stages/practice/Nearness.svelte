<!-- What was measured and planned, against how the made-up place really is. -->
<script lang="ts">
  import type { Practised } from '../../api/types';
  import { showLength } from '../../entry/length';
  import { SURFACE_NAMES } from '../../entry/places';
  import { open } from '../../state/job.svelte';
  import { usePlace } from '../../state/place';
  import { router } from '../../router.svelte';

  let { nearness }: { nearness: NonNullable<Practised['nearness']> } = $props();
  const view = usePlace();
  const units = $derived(open.place(router.current?.params['place'] ?? '')?.units ?? []);
  const named = (id: string) => units.find((u) => u.id === id)?.name ?? id;
  const length = (mm: number) => showLength(mm, view.unit);
</script>

{#if nearness.units.length}
  <table>
    <caption>How far the corners of a unit differ in height, {view.unit}</caption>
    <thead>
      <tr
        ><th scope="col">Unit</th><th scope="col">put down as it is</th><th scope="col"
          >packed by your plan</th
        ></tr
      >
    </thead>
    <tbody>
      {#each nearness.units as u (u.unit)}
        <tr>
          <th scope="row">{named(u.unit)}</th>
          <td class="figure">{length(u.bare_mm)}</td>
          <td class="figure">{length(u.packed_mm)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p>
    Of {nearness.shims_of} shims {nearness.shims_held} are right within twice the ± that stood beside them. About
    one in twenty may be out by more.
  </p>
{/if}
<table>
  <caption>Between the spots that you read, {view.unit}</caption>
  <thead>
    <tr
      ><th scope="col">Surface</th><th scope="col">usually off by</th><th scope="col">at most</th><th
        scope="col">inside twice its ±</th
      ></tr
    >
  </thead>
  <tbody>
    {#each nearness.surfaces as s (s.surface)}
      <tr>
        <th scope="row">{SURFACE_NAMES[s.surface]}</th>
        <td class="figure">{length(s.usual_mm)}</td>
        <td class="figure">{length(s.worst_mm)}</td>
        <td class="figure">{s.held} of {s.of}</td>
      </tr>
    {/each}
  </tbody>
</table>
<p class="quiet">
  What lies between two readings is known less well than what was read. Where it matters, read closer: Gauge
  says where one more reading tells most.
</p>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    margin: 0 0 0.75rem;
  }
  p {
    margin: 0 0 1rem;
  }
  caption {
    text-align: left;
    font-weight: 650;
    padding-bottom: 0.3rem;
  }
  th,
  td {
    text-align: left;
    padding: 0.35rem 0.5rem 0.35rem 0;
    border-bottom: 1px solid var(--w-line);
    font-weight: 400;
  }
  thead th {
    color: var(--w-ink-soft);
    font-size: 0.8125rem;
  }
</style>
