<!-- One thing that Wobble says: its mark (shape and colour), a few words, the figure, what it means, and the caution. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Explained from '../words/Explained.svelte';

  interface Props {
    mark: 'stop' | 'mind' | 'next' | 'fine';
    title: string;
    text: string;
    caution?: string;
    lit?: boolean;
    /** Whether it is new, or otherwise than at the last look. */
    news?: 'new' | 'changed' | undefined;
    figure?: Snippet | undefined;
    /** What touching it does; left out where there is nothing behind it. */
    onclick?: (() => void) | undefined;
  }
  let { mark, title, text, caution = '', lit = false, news, figure, onclick }: Props = $props();
  const id = $props.id();
  const words = { stop: 'Stops the job', mind: 'Mind this', next: 'Do this next', fine: 'Fine' };
</script>

<div class="answer {mark}" class:lit>
  <svg viewBox="0 0 14 14" width="14" height="14" role="img" aria-label={words[mark]}>
    {#if mark === 'stop'}<path d="M4 0.5h6L13.5 4v6L10 13.5H4L0.5 10V4Z" /><path class="bar" d="M3.5 7h7" />
    {:else if mark === 'mind'}<path d="M7 1 13.5 13H0.5Z" />
    {:else if mark === 'next'}<path d="M1 4.5h5V1l7.5 6L6 13V9.5H1Z" />
    {:else}<circle cx="7" cy="7" r="5.5" />{/if}
  </svg>
  <div class="say">
    <svelte:element
      this={onclick ? 'button' : 'div'}
      class="head inline"
      aria-describedby={onclick ? id : undefined}
      {onclick}
      role={onclick ? 'button' : undefined}
    >
      <span class="title"
        >{title}{#if news}<span class="news">{news}</span>{/if}</span
      >
      {#if figure}<span class="value">{@render figure()}</span>{/if}
    </svelte:element>
    <p class="text" {id}><Explained {text} /></p>
    {#if caution}<p class="caution">⚠ <Explained text={caution} /></p>{/if}
  </div>
</div>

<style>
  .answer {
    display: grid;
    grid-template-columns: 14px 1fr;
    gap: 0.7rem;
    border-top: 1px solid var(--w-line);
    padding: 0.55rem 0;
  }
  svg {
    margin-top: 0.3rem;
    fill: var(--w-fine);
  }
  .stop svg {
    fill: var(--w-stop);
  }
  .mind svg {
    fill: var(--w-mind);
  }
  .next svg {
    fill: var(--w-brass);
  }
  .bar {
    stroke: var(--w-sheet);
    stroke-width: 2;
  }
  .say {
    position: relative;
    line-height: 1.35;
  }
  @media (pointer: coarse) {
    .say {
      min-height: 44px;
    }
  }
  .head {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 0.6rem;
    width: 100%;
    min-height: 24px;
    text-align: left;
    background: none;
    border: 0;
    padding: 0;
    line-height: inherit;
    color: var(--w-ink);
  }
  button.head {
    cursor: pointer;
  }
  /* all of the answer can be touched; the words in it lie over that */
  button.head::after {
    content: '';
    position: absolute;
    inset: 0;
  }
  button.head:hover .title {
    text-decoration: underline;
    text-decoration-color: var(--w-chalk);
  }
  .title {
    font-weight: 650;
  }
  .news {
    margin-left: 0.5rem;
    padding: 0 0.35rem;
    border: 1px solid currentcolor;
    border-radius: var(--w-radius);
    font-size: 0.75rem;
    font-weight: 650;
    color: var(--w-brass);
  }
  .value {
    font-weight: 600;
  }
  .text,
  .caution {
    margin: 0;
    font-size: 0.875rem;
    color: var(--w-ink-soft);
  }
  .caution {
    font-size: 0.8125rem;
    color: var(--w-stop);
    margin-top: 0.15rem;
  }
  .lit {
    background: var(--w-chalk-wash);
    margin: 0 -0.5rem;
    padding-left: 0.5rem;
    padding-right: 0.5rem;
  }
</style>
