<!-- How far a job or a place is: a notch in a rod for every stage, cut as deep as it is done; a broken one is to be mended. -->
<script lang="ts">
  import type { StageAt } from '../../api/types';
  import { NAMES, said, stateOf, wayTo } from './glance';

  interface Props {
    job: string;
    /** Where the stages of a place are; without one they are told, and lead nowhere. */
    place?: string | undefined;
    stages: readonly StageAt[];
  }
  let { job, place, stages }: Props = $props();
  const CUT = {
    none: 'M9 0V3',
    some: 'M5 0L9 6L13 0',
    done: 'M4 0L9 12L14 0',
    stop: 'M4 0L8 5L10 4L14 0M7 9L11 12',
  };
</script>

<ul class="notches" aria-label="How far it is">
  {#each stages as at (at.stage)}
    {@const state = stateOf(at)}
    <li>
      <a href={wayTo(job, at.stage, place)} title={said(at)}>
        <svg class={state} viewBox="0 0 18 14" preserveAspectRatio="xMinYMin" aria-hidden="true"
          ><path d={CUT[state]} /></svg
        >
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
  svg {
    display: block;
    width: calc(100% + 0.75rem);
    height: 14px;
    background: linear-gradient(var(--w-wood-edge), var(--w-wood-edge)) 0 0 / 100% 2px no-repeat;
  }
  path {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.6;
  }
  .done path {
    stroke: var(--w-chalk);
    fill: var(--w-chalk);
  }
  .stop path {
    stroke: var(--w-stop);
  }
  .none path {
    stroke: var(--w-ink-soft);
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
