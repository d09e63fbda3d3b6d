<!-- The bench of a stage: the drawing at the left with what belongs under it, and at the right what is asked and answered.
     On a phone the drawing comes first, then the right-hand side, then what belongs under the drawing. -->
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
  }: Props = $props();
  let tall = $state(800);
  const room = $derived(tall < 700 || tall > 1100 ? 560 : tall - keep);
</script>

<svelte:window bind:innerHeight={tall} />

<main class:below-first={belowFirst}>
  <div class="left">
    <section class="picture" aria-label="The place">
      <div class="bar no-print">
        <span class="quiet">{caption}</span>
        <label>
          wobble <span class="figure">×{wobble}</span>
          <input type="range" min="1" max="60" bind:value={wobble} aria-label="Exaggeration" />
        </label>
      </div>
      {@render picture(room)}
    </section>
    <div class="below">{@render below()}</div>
  </div>
  <section class="side" aria-label={sideLabel}>{@render side()}</section>
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
  input {
    width: 7rem;
    accent-color: var(--w-brass);
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
  @media print {
    main {
      display: block;
    }
    .left,
    .side {
      border: 0;
      background: none;
      padding: 0;
    }
  }
</style>
