<!-- A text whose words of the trade can be touched: what one means is shown where it stands. -->
<script lang="ts">
  import { inWords } from './words';
  import { card } from './card.svelte';

  let { text }: { text: string } = $props();
</script>

{#each inWords(text) as part, i (i)}{#if part.word}<button
      type="button"
      class="word inline"
      aria-haspopup="dialog"
      onclick={(e) => card.show(part.word!, e.currentTarget)}>{part.text}</button
    >{:else}{part.text}{/if}{/each}

<style>
  .word {
    position: relative;
    z-index: 1;
    display: inline;
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    text-decoration: underline dotted var(--w-ink-soft);
    text-underline-offset: 0.2em;
    cursor: help;
  }
  /* a thumb reaches it a little above and below, and no line is moved for that */
  .word::after {
    content: '';
    position: absolute;
    inset: -0.6rem -0.2rem;
  }
  .word:hover {
    color: var(--w-chalk);
  }
  @media print {
    .word {
      text-decoration: none;
    }
  }
</style>
