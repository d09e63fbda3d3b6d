<!-- What was typed here and what the server has, side by side, where they differ: the user says which holds. -->
<script lang="ts">
  import { Modal } from '../carbon';
  import { waiting, type Conflict } from '../state/waiting.svelte';

  const conflict = $derived(waiting.conflicts[0]);
  const mine = ({ kept }: Conflict) => kept.fact as unknown as Record<string, unknown>;
  /** What tells one fact from another, and says nothing of the thing itself. */
  const OWN = new Set(['id', 'supersedes', 'aside', 'taken_at', 'fact']);
  const NAMES: Record<string, string> = {
    at: 'Where',
    size: 'Size, mm',
    proud_mm: 'Stands proud, mm',
    treatment: 'What may be done',
    value_mm: 'Read, mm',
    text: 'Note',
    name: 'Name',
    kind: 'Kind',
    taken_by: 'By',
    surface: 'On the',
  };
  const show = (v: unknown): string =>
    Array.isArray(v) ? v.join(' × ') : v === null || v === undefined || v === '' ? '—' : String(v);
  const rows = $derived(
    conflict
      ? Object.keys({ ...conflict.theirs, ...mine(conflict) })
          .filter(
            (k) => !OWN.has(k) && JSON.stringify(conflict.theirs[k]) !== JSON.stringify(mine(conflict)[k]),
          )
          .map((k) => ({
            name: NAMES[k] ?? k,
            mine: show(mine(conflict)[k]),
            theirs: show(conflict.theirs[k]),
          }))
      : [],
  );
</script>

{#if conflict}
  <Modal
    open
    hasScrollingContent={false}
    modalHeading="“{show(mine(conflict)['name'] ?? 'A reading')}” was changed in two places"
    primaryButtonText="Keep mine"
    secondaryButtonText="Keep theirs"
    preventCloseOnClickOutside
    on:click:button--secondary={() => void waiting.settle(conflict, 'theirs')}
    on:submit={() => void waiting.settle(conflict, 'mine')}
  >
    <p>Both are here until you choose; nothing is lost before that.</p>
    <table class="fields-table">
      <thead><tr><th></th><th>Yours, from this device</th><th>On the server</th></tr></thead>
      <tbody>
        {#each rows as row (row.name)}
          <tr><td>{row.name}</td><td class="figure">{row.mine}</td><td class="figure">{row.theirs}</td></tr>
        {/each}
      </tbody>
    </table>
  </Modal>
{/if}

<style>
  p {
    margin-bottom: 0.75rem;
  }
  td {
    border-bottom: 1px solid var(--w-line);
  }
</style>
