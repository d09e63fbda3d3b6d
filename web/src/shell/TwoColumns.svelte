<!-- A page of a whole job: its parts at the left; at the right what is chosen, and what is told. On a phone what is chosen
     lies over the page, as much of it as it wants. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    body: Snippet;
    /** What is chosen, if anything is. */
    chosen: Snippet | null;
    told: Snippet;
    /** On a phone, what is chosen fills the whole screen. */
    whole?: boolean;
  }
  let { body, chosen, told, whole = false }: Props = $props();
</script>

<main>
  <div class="left">{@render body()}</div>
  <section class="side" class:open={chosen} class:whole aria-label="Answers">
    {@render chosen?.()}
    <div class="told">{@render told()}</div>
  </section>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 395px;
    min-height: calc(100vh - 50px);
  }
  .left {
    min-width: 0;
    padding: 0.75rem 1rem 3rem;
  }
  .side {
    background: var(--w-sheet);
    border-left: 1px solid var(--w-line);
    padding: 0.75rem 1rem 2rem;
    min-width: 0;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      min-height: 0;
    }
    .side {
      border-left: 0;
      border-top: 1px solid var(--w-line);
    }
    .side.open {
      position: fixed;
      inset: auto 0 0 0;
      max-height: 72vh;
      overflow-y: auto;
      box-shadow: 0 -6px 24px rgb(0 0 0 / 25%);
      z-index: 5;
    }
    .side.open.whole {
      inset: 0;
      max-height: none;
      box-shadow: none;
    }
    .open .told {
      display: none;
    }
  }
  @media print {
    main {
      display: block;
    }
    .side {
      display: none;
    }
  }
</style>
