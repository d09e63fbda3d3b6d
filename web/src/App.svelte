<script lang="ts">
  import { onMount, untrack, type Component } from 'svelte';
  import { askAhead } from './api/ahead';
  import { Refused } from './api/client';
  import { router } from './router.svelte';
  import Coming from './shell/Coming.svelte';
  import Conflicts from './shell/Conflicts.svelte';
  import Expired from './shell/Expired.svelte';
  import Head from './shell/Head.svelte';
  import KeyList from './shell/KeyList.svelte';
  import NoticeList from './shell/NoticeList.svelte';
  import { footed } from './shell/paper';
  import SignIn from './stages/jobs/SignIn.svelte';
  import { open } from './state/job.svelte';
  import { keys } from './state/keys.svelte';
  import { notices } from './state/notices.svelte';
  import WordCard from './words/WordCard.svelte';
  import { createPlace } from './state/place';
  import { session } from './state/session.svelte';
  import { photos } from './state/photos.svelte';
  import { underWay } from './api/underway.svelte';
  import { waiting } from './state/waiting.svelte';

  createPlace(() => open.units);
  let unreachable = $state('');

  async function load() {
    unreachable = '';
    try {
      await session.load();
      if (session.who?.user) askAhead(location.pathname);
    } catch (fault) {
      unreachable = fault instanceof Refused ? `${fault.message} ${fault.fault.mend}` : String(fault);
    }
  }

  onMount(() => {
    void load();
    return router.start();
  });

  // what was typed on an earlier visit belongs to whoever typed it, so it is taken up at each sign-in
  const user = $derived(session.who?.user);
  $effect(() => {
    const name = user;
    if (name) untrack(() => (void waiting.open(name), void photos.open()));
  });

  /** The made-up place in view, if it is one. */
  const practised = $derived.by(() => {
    const { job = '', place = '' } = router.current?.params ?? {};
    return open.stored?.id === job && open.place(place)?.practice ? { job, place } : null;
  });

  /** A page with what its address names: until the next one is there, this one keeps what it was opened with. */
  const shownAt = async ({ route, params }: NonNullable<typeof router.current>) => ({
    page: (await route.load()).default as Component<{ params: Record<string, string> }>,
    params,
    key: route.path + Object.values(params).join('/'),
  });

  /** Paper outlives what it was printed from: it says of which revision it is. */
  function paper() {
    const place = open.stored?.job.places?.find((p) => p.id === router.current?.params['place']);
    const date = new Date().toLocaleDateString(undefined, { day: 'numeric', month: 'long', year: 'numeric' });
    const job = open.stored;
    footed([job?.job.name, place?.name, job ? `revision ${job.revision}` : undefined, date]);
  }

  function unhandled(event: PromiseRejectionEvent) {
    if (event.reason instanceof Refused) {
      event.preventDefault();
      notices.refused(event.reason);
    }
  }
</script>

<svelte:window onkeydown={(e) => keys.press(e)} onunhandledrejection={unhandled} onbeforeprint={paper} />

{#if unreachable}
  <main class="alone">
    <p>{unreachable}</p>
    <button onclick={() => void load()}>Try again</button>
  </main>
{:else if session.who && (!session.who.user || router.joining)}
  <SignIn />
{:else if session.who}
  <Head />
  {#if practised}
    {#await import('./stages/practice/PracticeBar.svelte') then bar}
      <bar.default {...practised} />
    {/await}
  {/if}
  {#if router.current}
    {#await underWay.watch(shownAt(router.current)) then shown}
      {#key shown.key}
        <shown.page params={shown.params} />
      {/key}
    {:catch}
      <main class="alone">
        <h1>This page could not be fetched</h1>
        <p>
          The connection was lost, or there is a newer Wobble on the server. Nothing that was typed is lost.
        </p>
        <p><button class="chip" onclick={() => location.reload()}>Try again</button></p>
      </main>
    {/await}
  {:else}
    <main class="alone">
      <h1>There is no such page</h1>
      <p><a href="/">Go to your jobs</a></p>
    </main>
  {/if}
  <KeyList />
  <WordCard />
  <Conflicts />
  <Expired />
{/if}
<NoticeList />
<Coming />

<style>
  .alone {
    max-width: 34rem;
    margin: 20vh auto 0;
    padding: 0 1.5rem;
  }
</style>
