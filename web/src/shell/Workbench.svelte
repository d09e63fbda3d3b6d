<!-- The bench of a stage: the drawing at the left with what belongs under it, and at the right what is asked and answered.
     On a phone the drawing comes first, as a strip about the spot where one is, that opens; then the right-hand side, so that
     what is typed and pressed is in view without scrolling; then what belongs under the drawing. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** What the drawing shows, in a few words. */
    caption: string;
    /** What deviations are multiplied by in the drawing. */
    wobble: number;
    side: Snippet;
    sideLabel: string;
    /** Given the height that the drawing may take, px. */
    picture: Snippet<[number]>;
    below: Snippet;
    /** Height of the window that is kept for what stands under the drawing, px. */
    keep: number;
    /** On a phone, what stands under the drawing comes before the right-hand side. */
    belowFirst?: boolean;
    /** What the strip of a phone is centred on, when that changes; nothing for a drawing that is always open. */
    about?: string | null;
  }
  let {
    caption,
    wobble = $bindable(),
    side,
    sideLabel,
    picture,
    below,
    keep,
    belowFirst = false,
    about,
  }: Props = $props();
  let tall = $state(800);
  let opened = $state(false);
  let frame = $state<HTMLElement>();
  let drawn = $state<HTMLElement>();
  let gone = $state(false);
  let folded = $state(false);
  /** So much of the drawing is in view while it is still looked at where it stands. */
  const SEEN = 0.35;
  const COPY_PX = 250;
  const strip = $derived(about !== undefined);

  /** Where the strip stands over the drawing: about the spot where one is. */
  $effect(() => {
    void about;
    if (made === 'answers' || !frame || opened || !strip) return;
    const held = frame;
    const settled = requestAnimationFrame(() => {
      const here = held.querySelector('[data-here]')?.getBoundingClientRect();
      const top = held.getBoundingClientRect().top;
      if (here) held.scrollTop += here.top + here.height / 2 - top - held.clientHeight / 2;
    });
    return () => cancelAnimationFrame(settled);
  });
  /** Where a part under the drawing is read, the drawing is at hand in the corner. */
  $effect(() => {
    if (!drawn) return;
    const watch = new IntersectionObserver(
      ([seen]) =>
        (gone = seen !== undefined && seen.intersectionRatio < SEEN && seen.boundingClientRect.top < 0),
      { threshold: [0, SEEN] },
    );
    watch.observe(drawn);
    return () => watch.disconnect();
  });
  /** One thing after the other, each seen before the next is made: the answers, the drawing, and what stands under it, which
   *  is long and mostly below. */
  const NARROW = '(max-width: 900px)';
  // over the answers, as on a phone, a drawing that comes after them would push them away
  const firstMade = () => (about === undefined && matchMedia(NARROW).matches ? 'drawing' : 'answers');
  let made = $state<'answers' | 'drawing' | 'all'>(firstMade());
  $effect(() => {
    if (made === 'all') return;
    const next = made === 'answers' ? 'drawing' : 'all';
    let after = 0;
    const frame = requestAnimationFrame(() => (after = window.setTimeout(() => (made = next))));
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(after);
    };
  });
  const room = $derived(tall < 700 || tall > 1100 ? 560 : tall - keep);
</script>

<svelte:window bind:innerHeight={tall} />

<main class="bench" class:below-first={belowFirst}>
  <div class="left">
    <section class="picture" aria-label="The place" bind:this={drawn}>
      <div class="bar no-print" class:strip class:opened>
        <span class="quiet">{caption}</span>
        {#if strip}
          <button class="chip fold" aria-expanded={opened} onclick={() => (opened = !opened)}
            >{opened ? 'Fold the drawing' : 'Drawing'}</button
          >
        {/if}
        <label>
          wobble
          <span class="turned">
            <span class="figure">×{wobble}</span>
            <input type="range" min="1" max="60" bind:value={wobble} aria-label="Exaggeration" />
          </span>
        </label>
      </div>
      <div class="frame" class:folded={strip && !opened} bind:this={frame}>
        {#if made === 'answers'}<div class="yet" style:height="{room}px"></div>{:else}{@render picture(
            room,
          )}{/if}
      </div>
    </section>
    <div class="below">
      {#if made === 'all' || belowFirst}{@render below()}{/if}
    </div>
  </div>
  <section class="side" class:under={gone && !folded} aria-label={sideLabel}>{@render side()}</section>
</main>
{#if gone}
  <div class="corner no-print">
    <button class="chip" aria-expanded={!folded} onclick={() => (folded = !folded)}
      >{folded ? 'The drawing' : 'Fold'}</button
    >
    {#if !folded}<div inert aria-hidden="true">{@render picture(COPY_PX)}</div>{/if}
  </div>
{/if}

<style>
  .bar,
  label {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 0.5rem 1rem;
    font-size: 0.8125rem;
    white-space: nowrap;
  }
  label {
    gap: 0.5rem;
  }
  /* what turns with the wobble is laid out and painted by itself: all else of the page stays as it is */
  .turned {
    position: relative;
    width: 10rem;
    height: 1.5rem;
  }
  .turned .figure,
  input {
    position: absolute;
    inset: 0 auto 0 0;
    contain: strict;
  }
  .turned .figure {
    width: 2.5rem;
    line-height: 1.5rem;
    text-align: right;
  }
  input {
    left: 3rem;
    width: 7rem;
    height: 1.5rem;
    accent-color: var(--w-brass);
  }
  .fold {
    display: none;
  }
  /* each painted by itself: what changes in one leaves the others as they were painted; a window over the page is in none */
  main:not(:has(:global(.bx--modal.is-visible))) :is(.side, .below) {
    isolation: isolate;
  }
  /* what is held in hand on a phone covers all */
  .side {
    z-index: 1;
  }
  .side.under {
    padding-bottom: 21rem;
  }
  .corner {
    position: fixed;
    right: 0;
    bottom: 0;
    z-index: 3;
    width: 395px;
    background: var(--w-page);
    border: 1px solid var(--w-line-strong);
    border-width: 1px 0 0 1px;
    padding: 0.25rem 0.75rem 0.5rem;
  }
  .corner button {
    position: absolute;
    left: 0.5rem;
    top: 0.35rem;
    z-index: 1;
  }
  /* the copy is looked at: what would turn it stays with the drawing */
  .corner :global(.views),
  .corner :global(.by),
  .corner :global(.caption) {
    display: none;
  }
  .corner:has([aria-expanded='false']) {
    width: auto;
    border: 0;
    background: none;
  }
  .corner:has([aria-expanded='false']) button {
    position: static;
    background: var(--w-sheet);
  }
  @media (max-width: 900px) {
    .corner {
      display: none;
    }
    .side.under {
      padding-bottom: 1rem;
    }
    .left {
      display: contents;
    }
    .bar {
      justify-content: flex-end;
      padding: 0.3rem 0.6rem 0;
    }
    .bar .quiet {
      display: none;
    }
    .fold {
      display: inline-flex;
      align-items: center;
      min-height: 44px;
    }
    .bar.strip {
      justify-content: space-between;
    }
    /* on the strip the button lies over its corner: a row of its own would cost the pad a key's height */
    .picture:has(.folded) {
      position: relative;
    }
    .bar.strip:not(.opened) {
      position: absolute;
      right: 0;
      bottom: 0;
      z-index: 2;
      padding: 0 0.4rem 0.3rem;
    }
    .bar.strip:not(.opened) label {
      display: none;
    }
    .bar.strip:not(.opened) .fold {
      background: var(--w-sheet);
    }
    .folded {
      height: 120px;
      overflow: hidden;
    }
    /* what a practice says over the page takes its room from the strip, not from the keys */
    :global(.practice) ~ main .folded {
      height: 56px;
    }
    .side {
      border-left: 0;
      border-top: 1px solid var(--w-line);
      padding: 0.5rem 0.6rem 1rem;
    }
    .below {
      order: 2;
      min-width: 0;
      padding: 0 0.75rem 3rem;
      border-top: 1px solid var(--w-line);
    }
    .below-first .side {
      order: 3;
    }
  }
  /* a phone on its side: the drawing waits behind its button, the hand has both halves */
  @media (max-width: 900px) and (max-height: 480px) {
    .folded {
      display: none;
    }
    .bar.strip:not(.opened) {
      position: fixed;
      right: auto;
      left: 0.6rem;
      bottom: 0.4rem;
      padding: 0;
    }
  }
  @media print {
    .left,
    .side {
      border: 0;
      background: none;
      padding: 0;
    }
    /* on paper there is no strip: the whole drawing, as wide as the sheet */
    .folded {
      height: auto;
      overflow: visible;
    }
    .frame :global(svg) {
      max-width: 100%;
    }
    .frame :global(.drawing > svg),
    .frame :global(.closer svg) {
      height: auto;
      max-height: 11cm;
    }
    .frame :global(h1) {
      font-size: 1.125rem;
    }
  }
</style>
