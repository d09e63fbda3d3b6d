<!-- All words of the trade as Wobble uses them, looked through by typing. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { TextInput } from '../carbon';
  import { keys } from '../state/keys.svelte';
  import { WORDS } from './words';

  let sought = $state('');
  const shown = $derived(
    WORDS.filter((w) =>
      `${w.word} ${(w.also ?? []).join(' ')} ${w.means}`.toLowerCase().includes(sought.trim().toLowerCase()),
    ).toSorted((a, b) => a.word.localeCompare(b.word)),
  );
  onMount(() => {
    keys.page = [];
    document.title = 'Words · Wobble';
  });
</script>

<main class="page">
  <h1>Words</h1>
  <TextInput labelText="Find a word" placeholder="scribe" size="sm" bind:value={sought} />
  {#if !shown.length}<p class="quiet">Wobble does not use that word.</p>{/if}
  <dl>
    {#each shown as w (w.word)}
      <div>
        <dt>{w.word}</dt>
        <dd>{w.means}</dd>
      </div>
    {/each}
  </dl>
</main>

<style>
  h1 {
    font-size: 1.75rem;
    margin-bottom: 1rem;
  }
  dl {
    columns: 24rem 2;
    column-gap: 2.5rem;
    margin: 1.25rem 0;
  }
  dl > div {
    break-inside: avoid;
    border-top: 1px solid var(--w-line);
    padding: 0.5rem 0;
  }
  dt {
    font-weight: 650;
  }
  dd {
    margin: 0;
    line-height: 1.4;
  }
</style>
