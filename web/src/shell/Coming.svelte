<!-- In place of a page that is not here yet, or does not come; where there is a page, it is not shown. -->
<script lang="ts">
  import { router } from '../router.svelte';
  import { underWay } from '../api/underway.svelte';

  /** Who asks for nothing and has no page by then has none to come. */
  const GIVEN_UP_MS = 1500;
  let nothing = $state(false);
  $effect(() => {
    void router.current;
    nothing = false;
    if (underWay.told !== 'still') return undefined;
    const given = setTimeout(() => (nothing = !document.querySelector('main:not(.coming)')), GIVEN_UP_MS);
    return () => clearTimeout(given);
  });
</script>

<main class="coming no-print">
  <div aria-live="polite">
    {#if underWay.told === 'under way'}
      <h1>Fetching what stands here…</h1>
    {:else if underWay.told === 'long'}
      <h1>Still fetching what stands here…</h1>
      <p>The connection is slow, or the server is busy.</p>
    {:else if nothing}
      <h1>What stands here could not be fetched</h1>
      <p>Nothing that was typed is lost.</p>
      <p><button class="chip" onclick={() => location.reload()}>Try again</button></p>
    {/if}
  </div>
</main>

<style>
  .coming {
    max-width: 34rem;
    margin: 20vh auto 0;
    padding: 0 1.5rem;
    color: var(--w-ink-soft);
  }
  h1 {
    font-size: 1.25rem;
    margin-bottom: 0.5rem;
  }
  :global(main) ~ .coming {
    display: none;
  }
</style>
