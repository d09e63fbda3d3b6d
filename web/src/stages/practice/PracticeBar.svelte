<!-- Over the pages of a made-up place: what to try next, with the simulated instruments. It can be left at any time. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { Button, Modal } from '../../carbon';
  import { router } from '../../router.svelte';
  import { open } from '../../state/job.svelte';
  import { LESSONS, practising, type Lesson } from '../../state/practising.svelte';
  import { waiting } from '../../state/waiting.svelte';
  import Explained from '../../words/Explained.svelte';
  import Nearness from './Nearness.svelte';

  let { job, place }: { job: string; place: string } = $props();
  let shown = $state(false);
  let busy = $state(false);
  const told = $derived(practising.told);
  const lesson = $derived(practising.lesson);
  const stage = $derived(router.current?.route.path.split('/').at(-1) ?? '');
  const to = (where: string) => `/jobs/${job}/${place}/${where}`;
  const left = $derived(told ? told.of - told.read : 0);
  const TITLES: Record<Lesson, string> = {
    read: 'Read three spots',
    rest: 'Let the apprentice go on',
    again: 'Take one again',
    fit: 'See what goes under',
    list: 'The list to carry',
    truth: 'How near you came',
  };
  const words = $derived.by<Record<Lesson, string>>(() => ({
    read: `The laser draws a level line through the room. A rule on the spot shows how far the floor is from it: read it, then Record. ${told?.read ?? 0} of 3.`,
    rest: `The drawing shows where you have been. ${left} stations are left; the apprentice reads them for you.`,
    again:
      'One reading stands apart from its neighbours: somebody misread the rule. Touch “Measure again”, read it, Record.',
    fit: 'Each support has its figure, with the ± that it is known to. Move “Where level starts” and watch what it costs.',
    list: 'Below the drawing stands every support with the pieces that go under it. Print it, or take it along on the phone.',
    truth:
      'This corner is made up, so for once somebody knows how it really is. See how near the readings came.',
  }));

  $effect(() => {
    void open.stored?.revision;
    untrack(() => void practising.open(job, place));
  });
  onMount(() => waiting.onArrival((of) => void (of === job && practising.open(job, place))));

  async function doing(act: () => Promise<void>) {
    busy = true;
    try {
      await act();
    } finally {
      busy = false;
    }
  }
</script>

{#if told}
  <aside class="practice no-print" aria-label="Practice">
    {#if practising.left}
      <p class="quiet">A practice in a made-up corner.</p>
      <button class="link" onclick={() => practising.leave(false)}>Go on with it</button>
    {:else}
      <ol aria-hidden="true">
        {#each LESSONS as l (l)}
          <li class:past={lesson === null || LESSONS.indexOf(l) < LESSONS.indexOf(lesson)}></li>
        {/each}
      </ol>
      <div class="words" aria-live="polite">
        {#if lesson}
          <strong>{TITLES[lesson]}</strong>
          <span><Explained text={words[lesson]} /></span>
        {:else}
          <strong>That is the whole way.</strong>
          <span>Your own place goes the same way: set out, gauge, fit. Or try another corner.</span>
        {/if}
      </div>
      <div class="acts">
        {#if lesson === null}
          <Button size="small" href="/">To your jobs</Button>
          <button class="link" onclick={() => (shown = true)}>How near</button>
        {:else if lesson === 'truth'}
          <Button size="small" on:click={() => (shown = true)}>Show me</Button>
        {:else if lesson === 'fit' || lesson === 'list'}
          {#if stage !== 'fit'}
            <Button size="small" href={to('fit')}>To Fit</Button>
          {:else}
            <Button size="small" on:click={() => practising.saw(lesson)}>Seen</Button>
          {/if}
        {:else if stage !== 'gauge'}
          <Button size="small" href={to('gauge')}>To Gauge</Button>
        {:else if lesson === 'rest'}
          <Button
            size="small"
            disabled={busy || !practising.tools}
            on:click={() => void doing(() => practising.tools!.rest())}
            >{busy ? 'The apprentice reads…' : 'Let him read'}</Button
          >
        {:else}
          <Button
            size="small"
            disabled={busy || !practising.tools}
            on:click={() => void doing(() => practising.tools!.here())}>Read it here</Button
          >
        {/if}
        <button class="link" onclick={() => practising.leave(true)}>Leave</button>
      </div>
    {/if}
  </aside>
  {#if shown && told.nearness}
    <Modal
      open
      passiveModal
      modalHeading="How near you came"
      on:close={() => {
        shown = false;
        practising.saw('truth');
      }}
    >
      <Nearness nearness={told.nearness} />
    </Modal>
  {/if}
{/if}

<style>
  .practice {
    display: flex;
    align-items: center;
    gap: 0.4rem 1rem;
    padding: 0.4rem 1rem;
    background: var(--w-wood);
    border-bottom: 1px solid var(--w-line-strong);
    font-size: 0.9375rem;
  }
  /* a rod with a notch for each lesson */
  ol {
    list-style: none;
    display: flex;
    gap: 5px;
    margin: 0;
    padding: 0 0 0 2px;
    border-bottom: 3px solid var(--w-ink-soft);
  }
  li {
    width: 3px;
    height: 9px;
    background: var(--w-ink-soft);
    opacity: 0.4;
  }
  li.past {
    height: 15px;
    background: var(--w-chalk);
    opacity: 1;
    margin-top: -6px;
  }
  .words {
    flex: 1;
    min-width: 0;
    line-height: 1.3;
  }
  .acts {
    display: flex;
    align-items: center;
    gap: 0.75rem;
  }
  p {
    margin: 0;
  }
  @media (max-width: 900px) {
    .practice {
      padding: 0.3rem 0.6rem;
      font-size: 0.8125rem;
      flex-wrap: wrap;
    }
    ol {
      display: none;
    }
    .words {
      flex-basis: 100%;
    }
    .acts {
      flex: 1;
      justify-content: space-between;
    }
  }
</style>
