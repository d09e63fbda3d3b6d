<!-- How far a job or a place is: a notch in a rod for every stage, cut as deep as it is done; a broken one is to be mended. -->
<script lang="ts">
  import type { StageAt } from '../../api/types';
  import Notch from '../../shell/Notch.svelte';
  import { NAMES, said, stateOf, wayTo } from '../../shell/progress';

  interface Props {
    job: string;
    /** Where the stages of a place are; without one they are told, and lead nowhere. */
    place?: string | undefined;
    stages: readonly StageAt[];
  }
  let { job, place, stages }: Props = $props();
</script>

<ul class="notches" aria-label="How far it is">
  {#each stages as at (at.stage)}
    {@const state = stateOf(at)}
    <li>
      <a href={wayTo(job, at.stage, place)} title={said(at)}>
        <div class="rod"><Notch {state} /></div>
        <span>{NAMES[at.stage]}</span>
        {#if state === 'none' || state === 'done'}
          <span class="bx--visually-hidden">{state === 'done' ? 'done' : 'not begun'}</span>
        {/if}
        {#if state === 'some' || state === 'stop'}
          <span class="figure">{state === 'stop' ? `${at.stops} to mend` : `${at.done}/${at.of}`}</span>
        {/if}
      </a>
    </li>
  {/each}
</ul>

<style>
  .notches {
    list-style: none;
    margin: 0;
    padding: 0;
    display: flex;
    flex-wrap: wrap;
    border: 0;
  }
  li {
    min-width: 4rem;
  }
  a {
    display: block;
    min-height: 2.25rem;
    padding-right: 0.75rem;
    color: var(--w-ink-soft);
    font-size: 0.75rem;
    text-decoration: none;
    white-space: nowrap;
  }
  a:hover span:first-of-type {
    text-decoration: underline;
  }
  .rod {
    width: calc(100% + 0.75rem);
    background: linear-gradient(var(--w-wood-edge), var(--w-wood-edge)) 0 0 / 100% 2px no-repeat;
  }
  @media (pointer: coarse) {
    a {
      min-height: 44px;
    }
  }
  @media (max-width: 760px) {
    li {
      min-width: 0;
      flex: 1 1 auto;
    }
    .figure {
      display: none;
    }
  }
</style>
