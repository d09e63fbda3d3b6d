<script lang="ts">
  import { router } from '../router.svelte';
  import { open } from '../state/job.svelte';
  import { keys } from '../state/keys.svelte';
  import { session } from '../state/session.svelte';
  import { NAMES, theme } from '../state/theme.svelte';
  import { photos } from '../state/photos.svelte';
  import { underWay } from '../api/underway.svelte';
  import { waiting } from '../state/waiting.svelte';
  import { Modal } from '../carbon';
  import { notices } from '../state/notices.svelte';
  import { planned } from '../state/planned.svelte';
  import Mark from './Mark.svelte';
  import Notch from './Notch.svelte';
  import { said, stateOf } from './progress';
  import WaitingList from './WaitingList.svelte';

  const params = $derived(router.current?.params ?? {});
  /** On a page of a job, also before it is here: what stands at the end of the head keeps its place. */
  const inside = $derived(params['job'] !== undefined);
  const job = $derived(params['job'] === open.stored?.id ? open.stored : null);
  const place = $derived(job?.job.places.find((b) => b.id === params['place']));
  const stage = $derived(router.current?.route.path.split('/').at(-1) ?? '');
  /** The place that one came from to a page of the whole job; the first where there was none. */
  let last = $state('');
  $effect(() => {
    if (place) last = place.id;
  });
  const ofJob = $derived(['make', 'order', 'record'].includes(stage));
  const near = $derived(
    place ?? (ofJob ? (job?.job.places.find((b) => b.id === last) ?? job?.job.places[0]) : undefined),
  );
  const stages = $derived(
    job && near
      ? [
          { key: 'place', name: 'Place', to: `/jobs/${job.id}/${near.id}/place`, n: 0 },
          { key: 'setout', name: 'Set out', to: `/jobs/${job.id}/${near.id}/setout`, n: near.units.length },
          { key: 'gauge', name: 'Gauge', to: `/jobs/${job.id}/${near.id}/gauge`, n: near.readings.length },
          { key: 'fit', name: 'Fit', to: `/jobs/${job.id}/${near.id}/fit`, n: 0 },
          { key: 'hold', name: 'Hold', to: `/jobs/${job.id}/${near.id}/hold`, n: 0 },
          { key: 'make', name: 'Make', to: `/jobs/${job.id}/make`, n: 0 },
          { key: 'order', name: 'Order', to: `/jobs/${job.id}/order`, n: 0 },
          { key: 'set', name: 'Set', to: `/jobs/${job.id}/${near.id}/set`, n: 0 },
        ]
      : [],
  );
  const n = $derived(waiting.all.length + photos.all.length);

  $effect(() => {
    void job?.revision;
    if (job && near) return planned.look(job.id, near.id);
    return undefined;
  });

  let listed = $state(false);
  let leaving = $state(false);

  async function signOut() {
    leaving = false;
    try {
      await session.signOut();
      router.go('/', true);
    } catch (fault) {
      notices.refused(fault);
    }
  }
</script>

<header class="head no-print">
  <a class="brand" href="/" aria-label="Wobble, your jobs"><Mark /></a>
  {#if job}
    <nav class="crumbs" aria-label="Where you are">
      <a href="/jobs/{job.id}">{job.job.name}</a>
      {#if place || (ofJob && job.job.places.length > 1)}
        <span aria-hidden="true" class="slash">/</span>
        <span class="place">{place ? place.name : 'all places'}</span>
      {/if}
    </nav>
  {/if}
  {#if stages.length}
    <nav class="stages" aria-label="Stages">
      {#each stages as s (s.key)}
        {@const at = near && planned.stages.find((one) => one.stage === s.key)}
        <a
          href={s.to}
          aria-current={stage === s.key ? 'page' : undefined}
          title={[place || !near || ['make', 'order'].includes(s.key) ? '' : near.name, at ? said(at) : '']
            .filter(Boolean)
            .join(': ') || undefined}
        >
          {#if at && stateOf(at) !== 'none'}
            <span class="notch"><Notch state={stateOf(at)} /></span>
          {/if}
          {s.name}{#if s.n}<span class="figure n">{s.n}</span>{/if}
        </a>
      {/each}
    </nav>
  {/if}
  <div class="end">
    <button class="kept" class:waits={n > 0} disabled={!n} title="What waits" onclick={() => (listed = true)}>
      <span class="sign" aria-hidden="true"></span><span role="status">{n ? `${n} waiting` : 'kept'}</span>
    </button>
    <button onclick={() => theme.turn()} aria-label={NAMES[theme.next]} title={NAMES[theme.next]}>
      <svg viewBox="0 0 20 20" width="18" height="18" aria-hidden="true">
        <circle cx="10" cy="10" r="6.4" fill="none" stroke="currentColor" stroke-width="1.6" />
        {#if theme.next === 'glare'}
          <path
            d="M10 0.4V2 M10 18v1.6 M0.4 10H2 M18 10h1.6 M3.2 3.2l1.1 1.1 M15.7 15.7l1.1 1.1 M3.2 16.8l1.1-1.1 M15.7 4.3l1.1-1.1"
            stroke="currentColor"
            stroke-width="1.6"
          />
        {:else if theme.next === 'dark'}
          <path d="M10 3.6 A6.4 6.4 0 0 1 10 16.4Z" fill="currentColor" />
        {/if}
      </svg>
    </button>
    <button class="wide" onclick={() => (keys.listed = true)} aria-label="Keys" title="Keys"
      ><kbd>?</kbd></button
    >
    {#if !inside}<a class="me" href="/me">{session.name}</a>{/if}
    <button
      class="out"
      class:inside
      onclick={() => (n ? (leaving = true) : void signOut())}
      title="Sign out {session.name}">Sign out</button
    >
  </div>
  {#if underWay.told !== 'still'}
    <div class="under-way" role="progressbar" aria-label="Being fetched or worked out"></div>
  {/if}
</header>
{#if listed}<WaitingList onclose={() => (listed = false)} />{/if}
{#if leaving}
  <Modal
    open
    modalHeading="{n} {n === 1 ? 'thing waits' : 'things wait'} on this device"
    primaryButtonText="Sign out"
    secondaryButtonText="Stay"
    on:submit={() => void signOut()}
    on:click:button--secondary={() => (leaving = false)}
    on:close={() => (leaving = false)}
  >
    <p>
      What was typed and has not reached the server stays here for {session.name}, and goes when {session.name}
      signs in on this device again.{waiting.loose.size
        ? ` ${waiting.loose.size} of them this device could not keep: they are lost when the page closes.`
        : ''}
    </p>
  </Modal>
{/if}

<style>
  .head {
    position: relative;
    z-index: 2;
    display: flex;
    align-items: stretch;
    gap: 0 1.1rem;
    /* larger letters make a second row, and hide nothing */
    flex-wrap: wrap;
    min-height: 50px;
    padding: 0 1rem;
    background: var(--w-sheet);
    border-bottom: 1px solid var(--w-line);
  }
  /* a bubble that has not come to rest */
  .head .under-way {
    position: absolute;
    inset: auto 0 -2px 0;
    height: 4px;
    min-height: 0;
    overflow: hidden;
    pointer-events: none;
  }
  @media (max-width: 760px) {
    /* the head may be far above what is turned */
    .head .under-way {
      position: fixed;
      inset: 0 0 auto 0;
    }
  }
  .under-way::before {
    content: '';
    width: 4.5rem;
    height: 4px;
    border-radius: 2px;
    background: var(--w-chalk);
    margin: 0 auto;
    animation: settle 1.8s ease-in-out infinite alternate;
  }
  @keyframes settle {
    from {
      translate: -22vw 0;
    }
    to {
      translate: 22vw 0;
    }
  }
  .head > * {
    display: flex;
    align-items: center;
  }
  .brand {
    text-decoration: none;
    flex: none;
  }
  .crumbs {
    gap: 0.5rem;
    min-width: 0;
    flex: 1 1 7rem;
    white-space: nowrap;
    overflow: hidden;
  }
  .crumbs a {
    color: var(--w-ink-soft);
    text-decoration: none;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .crumbs a:hover {
    text-decoration: underline;
  }
  @media (pointer: coarse) {
    /* as high as a thumb wants it, and a block: only that ends in dots where it is cut */
    .crumbs a {
      display: block;
      line-height: 44px;
    }
  }
  .slash {
    color: var(--w-line-strong);
  }
  .place {
    font-weight: 600;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .stages {
    gap: 0.15rem;
    align-items: stretch;
    flex-wrap: wrap;
  }
  .stages a {
    display: flex;
    align-items: center;
    gap: 0.4rem;
    min-height: 44px;
    padding: 0 0.85rem;
    color: var(--w-ink-soft);
    text-decoration: none;
    border-bottom: 3px solid transparent;
    border-top: 3px solid transparent;
  }
  /* the edge of the head is a rod: how far each stage is, is cut into it */
  .stages a {
    position: relative;
  }
  .notch {
    position: absolute;
    top: -3px;
    left: 50%;
    translate: -50% 0;
  }
  .stages a:hover {
    color: var(--w-ink);
    background: var(--w-hover);
  }
  .stages a[aria-current] {
    color: var(--w-ink);
    font-weight: 650;
    border-bottom-color: var(--w-chalk);
  }
  .n {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
    font-weight: 400;
  }
  .end {
    gap: 0.4rem;
    margin-left: auto;
    flex: none;
  }
  .end button {
    background: none;
    border: 0;
    color: var(--w-ink-soft);
    min-width: 34px;
    min-height: 34px;
    cursor: pointer;
    display: grid;
    place-items: center;
    border-radius: var(--w-radius);
  }
  .end button:hover {
    background: var(--w-hover);
    color: var(--w-ink);
  }
  .me {
    color: var(--w-ink-soft);
    font-size: 0.8125rem;
    padding: 0 0.5rem;
    white-space: nowrap;
  }
  .end .kept {
    display: flex;
    padding: 0 0.4rem;
    align-items: center;
    gap: 0.4rem;
    font-size: 0.8125rem;
    color: var(--w-fine);
    white-space: nowrap;
  }
  .kept .sign {
    width: 8px;
    height: 8px;
    border-radius: 50%;
    background: currentColor;
  }
  .end .kept.waits {
    color: var(--w-mind);
    font-weight: 650;
  }
  .kept.waits .sign {
    border-radius: 0;
    transform: rotate(45deg);
  }
  @media (min-width: 761px) and (max-width: 1000px) {
    .stages a {
      padding: 0 0.45rem;
      white-space: nowrap;
    }
    .end .wide,
    .end .inside {
      display: none;
    }
  }
  @media (max-width: 760px) {
    .head {
      gap: 0 0.6rem;
      padding: 0 0.6rem;
    }
    .head > * {
      min-height: 44px;
    }
    .brand :global(svg) {
      width: 78px;
    }
    .stages {
      order: 4;
      flex: none;
      width: calc(100% + 1.2rem);
      gap: 0;
      border-top: 1px solid var(--w-line);
      margin: 0 -0.6rem;
      padding: 0 0.3rem;
    }
    .stages a {
      flex: 1 1 auto;
      justify-content: center;
      padding: 0 0.3rem;
      white-space: nowrap;
    }
    /* eight stages in one row: how many there are is on the page itself */
    .n {
      display: none;
    }
    .crumbs a + .slash + .place {
      flex: 0 1 auto;
      min-width: 50%;
    }
    .end .wide {
      display: none;
    }
    /* there is room for it on the page of jobs, one tap away */
    .end .inside {
      display: none;
    }
  }
</style>
