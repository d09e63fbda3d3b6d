<!-- What was noted in the place, newest first; what still waits on this device says so. -->
<script lang="ts">
  import type { Note } from '../../../api/types';
  import { spotWords, SURFACE_NAMES } from '../../../entry/places';
  import { usePlace } from '../../../state/place';

  let { notes, waiting }: { notes: readonly Note[]; waiting: readonly Note[] } = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  const ids = $derived(new Set(waiting.map((n) => n.id)));
  const all = $derived([...notes, ...waiting.filter((w) => !notes.some((n) => n.id === w.id))].toReversed());
  const when = (n: Note) =>
    new Date(n.taken_at).toLocaleString(undefined, {
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    });
</script>

{#if all.length}
  <section aria-label="Notes">
    <h2>Notes</h2>
    <ul>
      {#each all as n (n.id)}
        <li>
          {n.text}
          <small class="quiet">
            {#if n.surface && n.at}{SURFACE_NAMES[n.surface]}, {spotWords(
                n.surface,
                n.at as [number, number],
                unit,
              )} ·
            {/if}{when(n)}{n.taken_by ? `, ${n.taken_by}` : ''}{ids.has(n.id) ? ' · waiting to be sent' : ''}
          </small>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    max-width: 46rem;
    margin-bottom: 1rem;
  }
  h2 {
    font-size: 0.9375rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.4rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    border-bottom: 1px solid var(--w-line);
    padding: 0.35rem 0;
    font-size: 0.875rem;
    white-space: pre-wrap;
  }
  small {
    display: block;
    white-space: normal;
  }
</style>
