<!-- What was typed here and what the server has, side by side, where they differ: the user says which holds. -->
<script lang="ts">
  import { Modal } from '../carbon';
  import { open } from '../state/job.svelte';
  import { usePlace } from '../state/place';
  import { waiting } from '../state/waiting.svelte';
  import { ofEdit, ofFact } from './sides';

  const view = usePlace();
  const conflict = $derived(waiting.conflicts[0]);
  const clash = $derived(open.clash);
  const shown = $derived(
    conflict ? ofFact(conflict, view.unit) : clash ? ofEdit(clash.sides, view.unit) : null,
  );
  function choose(side: 'yours' | 'theirs') {
    if (conflict) void waiting.settle(conflict, side === 'yours' ? 'mine' : 'theirs');
    else clash?.choose(side);
  }
</script>

{#if shown}
  <Modal
    open
    hasScrollingContent={false}
    modalHeading={shown.title}
    primaryButtonText="Keep mine"
    secondaryButtonText="Keep theirs"
    preventCloseOnClickOutside
    on:click:button--secondary={() => choose('theirs')}
    on:submit={() => choose('yours')}
    on:close={() => !conflict && clash?.choose(null)}
  >
    <p>
      Both are here until you choose; nothing is lost before that. What only one of you changed is kept either
      way.
    </p>
    <table class="fields-table">
      <thead><tr><td></td><th>Yours, from this device</th><th>On the server</th></tr></thead>
      <tbody>
        {#each shown.rows as row, i (i)}
          <tr><td>{row.name}</td><td class="figure">{row.yours}</td><td class="figure">{row.theirs}</td></tr>
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
