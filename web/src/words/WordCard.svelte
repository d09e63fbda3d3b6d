<!-- What a word means, beside where it stands: closed by Escape, by a touch elsewhere, or by scrolling on. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { card } from './card.svelte';

  let box = $state<HTMLElement>();
  let at = $state({ left: 0, top: 0 });
  const EDGE = 8;

  $effect(() => {
    const { by, word } = card;
    if (!by || !word) return;
    void tick().then(() => {
      if (!box) return;
      box.showPopover();
      const [here, own] = [by.getBoundingClientRect(), box.getBoundingClientRect()];
      const below = here.bottom + EDGE;
      at = {
        left: Math.max(EDGE, Math.min(here.left, innerWidth - own.width - EDGE)),
        top: below + own.height > innerHeight ? Math.max(EDGE, here.top - own.height - EDGE) : below,
      };
    });
  });

  function closed(event: ToggleEvent) {
    if (event.newState !== 'closed') return;
    const by = card.by;
    card.close();
    by?.focus({ preventScroll: true });
  }
</script>

{#if card.word}
  <div
    bind:this={box}
    popover="auto"
    role="dialog"
    aria-label={card.word.word}
    style:left="{at.left}px"
    style:top="{at.top}px"
    ontoggle={closed}
  >
    <strong>{card.word.word}</strong>
    <p>{card.word.means}</p>
    <a href="/words" onclick={() => box?.hidePopover()}>All words</a>
  </div>
{/if}

<style>
  div {
    position: fixed;
    inset: auto;
    margin: 0;
    width: min(20rem, calc(100vw - 16px));
    padding: 0.6rem 0.8rem;
    border: 1px solid var(--w-ink);
    border-radius: var(--w-radius);
    background: var(--w-raised);
    color: var(--w-ink);
    font-size: 0.9375rem;
    line-height: 1.4;
  }
  p {
    margin: 0.2rem 0 0.4rem;
  }
  a {
    font-size: 0.8125rem;
  }
</style>
