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

<main class="bench">
  <div class="left">{@render body()}</div>
  <section class="side" class:open={chosen} class:whole aria-label="Answers">
    {@render chosen?.()}
    <div class="told">{@render told()}</div>
  </section>
</main>

<style>
  @media (max-width: 900px) {
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
    .side {
      display: none;
    }
  }
</style>
