<!-- A place: its size, its surfaces and what will stand in it. Made anew, or changed. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { calls } from '../../../api/calls';
  import type { Obstacle, Place } from '../../../api/types';
  import { Button } from '../../../carbon';
  import { changed, foundOut } from '../../../entry/facts';
  import { newId } from '../../../entry/ids';
  import { router } from '../../../router.svelte';
  import Missing from '../../../shell/Missing.svelte';
  import { inView } from '../../../state/inview';
  import { open } from '../../../state/job.svelte';
  import { keys } from '../../../state/keys.svelte';
  import { notices } from '../../../state/notices.svelte';
  import { session } from '../../../state/session.svelte';
  import { newKey } from '../../setout/begin/key';
  import { waiting } from '../../../state/waiting.svelte';
  import Obstacles from './Obstacles.svelte';
  import Steps from './Steps.svelte';
  import PlaceFields from './PlaceFields.svelte';
  import { usual } from '../../../entry/usual';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const id = params['job'] ?? '';
  // svelte-ignore state_referenced_locally
  const key = params['place'] ?? '';
  const blank = {
    id: '',
    name: 'North wall',
    width_mm: 2400,
    depth_mm: 600,
    height_mm: 2400,
    kind: 'open',
    frame: 'gravity',
    character: 'typical',
    surfaces: ['floor', 'back'],
    units: [],
    facts: [],
    ...foundOut([]),
  };
  // a job that is open already is drawn as it is from the start
  const known = untrack(() => (key && open.stored?.id === id ? open.place(key) : undefined)) ?? null;
  let draft = $state.raw<Place>(known ?? (blank as unknown as Place));
  let saved = $state.raw<Place | null>(known);
  // boxes that are ticked from the start say so once, which changes nothing
  const dirty = $derived(draft !== saved && JSON.stringify(draft) !== JSON.stringify(saved));
  const others = $derived((open.stored?.job.places ?? []).filter((b) => b.id !== draft.id));

  onMount(() => {
    keys.page = [];
    void open.load(id).then(() => {
      if (!here()) return;
      const found = key ? open.place(key) : undefined;
      // what was typed while it came stays
      if (found && (!saved || !dirty)) draft = saved = found;
      else if (!key) draft = usual(draft, open.units);
      document.title = `${found?.name ?? 'New place'} · Wobble`;
    });
  });

  const here = inView();
  let busy = $state(false);
  const set = (part: Partial<Place>) => (draft = { ...draft, ...part });
  /** What was seen is never written over: a change is a fact of its own, and what is gone is set aside. */
  async function keepObstacles(key: string, seen: readonly Obstacle[], now: readonly Obstacle[]) {
    const before = new Map(seen.map((o) => [o.id, o]));
    const fresh = now.filter((o) => before.get(o.id) !== o);
    const facts = fresh.map((o) => {
      const was = before.get(o.id);
      return was ? changed(o, was, newId()) : o;
    });
    if (facts.length) await waiting.keep(id, key, ...facts);
    for (const gone of seen.filter((o) => !now.some((n) => n.id === o.id))) {
      if (await waiting.take(gone.id)) continue;
      try {
        await calls.setAside(id, key, gone.id, 'taken off the list', session.name);
      } catch (fault) {
        notices.refused(fault);
      }
    }
  }

  async function save(then: 'stay' | 'gauge') {
    if (busy) return;
    busy = true;
    const sent = draft;
    const place = { ...sent, id: key || newKey(sent.name, open.stored?.job.places ?? []) };
    const seen = saved?.obstacles ?? [];
    const kept = await open.putPlace(saved, place);
    if (kept) await keepObstacles(place.id, seen, sent.obstacles);
    // where nothing is kept another device may have taken the name: the next try is made with what there is now
    if (kept || !key) await open.renew(id);
    busy = false;
    if (!kept || !here()) return;
    saved = open.place(place.id) ?? place;
    if (key && draft !== sent) return; // typed while it was sent: it stays, to be kept next
    draft = saved;
    if (then === 'gauge' || !key)
      router.go(`/jobs/${id}/${place.id}/${then === 'gauge' ? 'gauge' : 'place'}`);
    else notices.add('success', 'The place is kept.');
  }
</script>

{#if open.missing}
  <Missing what="job" to="/" way="Go to your jobs" />
{:else if open.stored && key && !saved}
  <Missing what="place" to="/jobs/{id}" way="Go to the job" />
{:else if open.stored}
  <!-- a place that is being made takes nothing more: the page goes on to it -->
  <main class="page" style:max-width="76rem" inert={busy && !key}>
    <h1>{key ? draft.name : 'Add a place'}</h1>
    <section>
      <h2>The place</h2>
      <PlaceFields place={draft} {others} onchange={set} />
    </section>
    <Steps steps={draft.steps ?? []} surfaces={draft.surfaces ?? []} onchange={(steps) => set({ steps })} />
    <Obstacles
      obstacles={draft.obstacles}
      surfaces={draft.surfaces}
      onchange={(obstacles) => set({ obstacles })}
      pictures={key ? { job: id, place: key } : null}
    />
    <div class="end">
      <Button
        disabled={busy || !dirty || !draft.name.trim() || !(draft.surfaces ?? []).length}
        on:click={() => void save(key ? 'stay' : 'gauge')}
      >
        {key ? 'Keep changes' : 'Keep, then measure'}
      </Button>
      {#if key}<Button kind="tertiary" href="/jobs/{id}/{key}/setout">Set out what stands here</Button>{/if}
      {#if dirty && saved}<Button kind="ghost" on:click={() => saved && (draft = saved)}>Undo changes</Button
        >{/if}
    </div>
  </main>
{/if}

<style>
  .end {
    display: flex;
    flex-wrap: wrap;
    gap: 0.75rem;
  }
</style>
