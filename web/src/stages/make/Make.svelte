<!-- Make: every part of a job, now or after what; out of which stock, at which setting, bought where. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { AimOutcome, Fact, Finding, Got, Made, MarkedPart, ToBuy, Workshop } from '../../api/types';
  import { newId } from '../../entry/ids';
  import Answers from '../../shell/Answers.svelte';
  import Missing from '../../shell/Missing.svelte';
  import Panes from '../../shell/Panes.svelte';
  import TwoColumns from '../../shell/TwoColumns.svelte';
  import { router } from '../../router.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { newest } from '../../state/newest';
  import { notices } from '../../state/notices.svelte';
  import { session } from '../../state/session.svelte';
  import { remembered } from '../../state/store';
  import { waiting } from '../../state/waiting.svelte';
  import BuyPane from './shop/BuyPane.svelte';
  import TripPane from './shop/TripPane.svelte';
  import FinishPane from './FinishPane.svelte';
  import PartPane from './PartPane.svelte';
  import Piles from './Piles.svelte';
  import SettingsPane from './SettingsPane.svelte';
  import SheetsPane from './sheets/SheetsPane.svelte';
  import WorkshopPane from './shop/WorkshopPane.svelte';
  import { boughtHere, liesOn, piles, pinned, withPending, type Tie } from './piles';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const id = params['job'] ?? '';
  const PANES = ['Now and not yet', 'Sheets', 'Settings', 'Buying', 'Finish', 'Workshop'] as const;
  const SEARCHES = 8;
  const PAPERS = [
    ['parts', 'parts list'],
    ['sheets', 'cut diagrams'],
    ['settings', 'settings'],
    ['labels', 'labels'],
    ['shopping', 'shopping list'],
    ['order', 'order'],
  ] as const;

  let made = $state.raw<Made | null>(null);
  let pane = $state<(typeof PANES)[number]>('Now and not yet');
  let lit = $state<string | null>(null);
  let aims = $state.raw<AimOutcome[] | null>(null);
  let searching = $state<number | null>(null);
  let stopped = false;

  const job = $derived(open.stored?.id === id ? open.stored.job : null);
  const pending = $derived(waiting.all.filter((k) => k.job === id));
  const parts = $derived(withPending(made?.parts ?? [], pending));
  const unitName = (place: string, unit: string) =>
    open.place(place)?.units.find((u) => u.id === unit)?.name ?? open.place(place)?.name ?? unit;
  const lying = $derived(piles(parts, unitName));
  const chosen = $derived(parts.find((p) => p.key === lit) ?? null);
  const beside = $derived(
    chosen ? parts.filter((p) => p.place === chosen.place && p.part.of[0] === chosen.part.of[0]) : [],
  );

  const listen = newest();
  const listenAims = newest();
  async function look() {
    try {
      const answer = await listen(remembered(`make ${id}`, () => calls.make(id)));
      if (answer) made = answer;
      if (answer && aims) await compareAims(); // what is compared follows what is changed
    } catch (fault) {
      notices.refused(fault);
    }
  }
  const fact = () => ({
    id: newId(),
    taken_at: new Date().toISOString(),
    taken_by: session.name,
    supersedes: null,
    aside: null,
  });
  const keep = (place: string, found: Fact) => waiting.keep(id, place, found);
  function cut(
    p: MarkedPart,
    came: 'right' | 'short' | 'wrong',
    count: number,
    size: [number, number] | null,
  ) {
    void keep(p.place, {
      ...fact(),
      fact: 'cut',
      part: p.part.id,
      count,
      came,
      size: size ?? (p.part.blank_mm[1] && came === 'right' ? p.part.blank_mm : null),
      thick_mm: null,
    } as Fact);
  }
  function known(tie: Tie, mm: number | null) {
    const keysOf = new Set(
      tie.parts.flatMap((p) => p.part.waits.filter((w) => w.words === tie.wait.words).map((w) => w.key)),
    );
    for (const what of tie.wait.measured ? [tie.wait.key] : keysOf)
      void keep(tie.place, { ...fact(), fact: 'known', what, value_mm: mm } as Fact);
  }
  function bought(line: ToBuy) {
    const place = job?.places[0]?.id;
    if (!place || !line.item) return;
    const count = line.packs - (line.bought ?? 0) - boughtHere(pending, line.item);
    // where it is bought is where it costs least, as is proposed
    const shop = made?.buying.baskets[0]?.lines.find((l) => l.item === line.item)?.shop ?? '';
    void keep(place, { ...fact(), fact: 'bought', item: line.item, count, shop } as Fact);
  }
  const putShop = (part: Partial<Workshop>) => {
    const was = job?.workshop;
    return was ? open.putWorkshop(was, { ...was, ...part }) : Promise.resolve(false);
  };
  function got(key: string, how: Got['how'] | 'made', price: number) {
    const others = (job?.workshop?.got ?? []).filter((g) => g.part !== key);
    void putShop({ got: how === 'made' ? others : [...others, { part: key, how, price }] });
  }
  const fronts = $derived(
    parts.filter((p) => ['door', 'drawer front'].includes(p.part.role) && p.state !== 'cut' && p.to_cut > 0),
  );
  /** Doors and fronts come from a maker: none is cut here, and the order lists them. */
  function orderFronts() {
    const now = fronts.map((p) => ({ part: p.key, how: 'bought' as const, price: 0 }));
    void putShop({ got: [...(job?.workshop?.got ?? []), ...now] });
  }
  async function compareAims() {
    try {
      aims = (await listenAims(calls.aims(id))) ?? aims;
    } catch (fault) {
      aims = null;
      notices.refused(fault);
    }
  }
  async function search() {
    stopped = false;
    for (let n = 0; n < SEARCHES && !stopped; n += 1) {
      searching = n / SEARCHES;
      try {
        const asked = open.stored?.revision;
        const found = await calls.searchLonger(id, 2 + n);
        // what was cut or bought meanwhile is not in it; the next one begins from that
        if (open.stored?.revision === asked) made = found;
      } catch (fault) {
        notices.refused(fault);
        break;
      }
    }
    searching = null;
  }
  const pick = (key: string) => (lit = lit === key ? null : key);
  function pickFinding(f: Finding) {
    const part = parts.find((p) => f.about.includes(p.key));
    if (part) lit = part.key;
    else if (['assumed-stock', 'other-thickness'].includes(f.code)) pane = 'Workshop';
    else if (['heavy-sheet', 'long-sheet'].includes(f.code)) pane = 'Sheets';
    else if (f.code === 'no-machine') pane = 'Settings';
    else if (['bought-whole', 'nothing-made', 'angled-by-hand'].includes(f.code)) {
      const place = job?.places.find((b) => b.units.some((u) => f.about.includes(u.id))) ?? job?.places[0];
      if (place) router.go(`/jobs/${id}/${place.id}/setout`);
    }
  }
  const on = $derived(made && lit ? liesOn(made.layout, lit) : null);
  const where = $derived(
    chosen
      ? [
          unitName(chosen.place, chosen.part.of[0] ?? ''),
          ...(on?.sheets.length ? [`on sheet ${on.sheets.join(', ')}`] : []),
          ...(on?.lengths.length ? [`on length ${on.lengths.join(', ')}`] : []),
        ].join(' · ')
      : '',
  );

  const here = inView();
  onMount(() => {
    keys.page = [
      { keys: ['p'], what: 'Print what is shown', run: () => print() },
      { keys: ['Escape'], what: 'Close the part', run: () => (lit = null) },
      ...PANES.map((name, i) => ({ keys: [String(i + 1)], what: name, run: () => (pane = name) })),
    ];
    const deaf = waiting.onArrival((j) => {
      if (j === id) void look();
    });
    // the code on a label opens its part
    lit = new URLSearchParams(location.search).get('part');
    void open.load(id).then(() => {
      if (!here()) return;
      document.title = `Make · ${open.stored?.job.name ?? ''} · Wobble`;
      if (open.stored) void look();
    });
    return () => {
      stopped = true;
      deaf();
    };
  });
  // whatever is decided anew, the answer follows
  let seen = 0;
  $effect(() => {
    const revision = open.stored?.id === id ? open.stored.revision : 0;
    if (revision && seen && revision !== seen) void look();
    seen = revision;
  });
</script>

{#snippet inHand()}
  {#if chosen}
    {#key chosen.key}
      <PartPane
        part={chosen}
        {beside}
        {where}
        got={job?.workshop?.got?.find((g) => g.part === chosen.key)}
        saves={made?.spared?.find((s) => s.key === chosen.key)?.saves}
        ongot={(how, price) => chosen && got(chosen.key, how, price)}
        oncut={(came, count, size) => chosen && cut(chosen, came, count, size)}
        onclose={() => (lit = null)}
      />
    {/key}
  {/if}
{/snippet}

{#if open.missing}
  <Missing what="job" to="/" way="Go to your jobs" />
{:else if job && made}
  {@const answer = made}
  {@const its = job}
  <TwoColumns chosen={chosen ? inHand : null}>
    {#snippet body()}
      <h1 class="print-only">{its.name} · {pane}</h1>
      <Panes
        label="Parts of making"
        names={PANES}
        chosen={pane}
        counts={{
          Sheets: answer.layout.sheets.length,
          Settings: answer.settings.length,
          Buying: answer.buying.list.length,
        }}
        onpick={(n) => (pane = n)}
      />
      {#if pane !== 'Workshop' && pane !== 'Finish' && parts.length}
        <p class="papers no-print">
          Paper:
          {#each PAPERS.filter(([what]) => what !== 'order' || lying.notMade.length) as [what, name] (what)}
            <a href="/api/jobs/{id}/papers/{what}.pdf" target="_blank" rel="noopener">{name}</a>
          {/each}
        </p>
      {/if}
      {#if pane === 'Now and not yet'}
        {#if parts.length}
          <Piles
            piles={lying}
            {lit}
            onpick={pick}
            oncut={(p) => cut(p, 'right', p.to_cut, null)}
            onknown={known}
          />
          <p class="no-print foot">
            <a href="/api/jobs/{id}/parts.csv" download>Save the parts list as CSV</a>
            {#if fronts.length}
              <button class="link" onclick={orderFronts}>Order doors and fronts from a maker</button>
            {/if}
          </p>
        {:else}
          <p class="empty">
            {#if !its.places?.length}This job has no place yet: <a href="/jobs/{id}/new">say what you build</a
              >.{/if}
            Nothing is made by you yet. Say of a box in
            <a href={its.places?.[0] ? `/jobs/${id}/${its.places[0].id}/setout` : `/jobs/${id}`}>Set out</a> that
            it is made, or add a shelf, a top or a frame: its parts come here by themselves.
          </p>
        {/if}
      {:else if pane === 'Sheets'}
        <SheetsPane
          job={id}
          layout={answer.layout}
          {lit}
          {searching}
          onpick={pick}
          onsearch={() => void search()}
          onstop={() => (stopped = true)}
          aim={its.workshop?.aim ?? 'fewest sheets'}
          {aims}
          oncompare={() => void compareAims()}
          onaim={(aim) => void putShop({ aim })}
          onpin={(sheets) => void putShop({ pinned: pinned(sheets) })}
        />
      {:else if pane === 'Settings'}
        <SettingsPane settings={answer.settings} {lit} onpick={pick} />
      {:else if pane === 'Buying'}
        <BuyPane
          buying={answer.buying}
          shops={its.workshop?.shops ?? []}
          pending={(item) => boughtHere(pending, item)}
          onbought={bought}
        />
        <TripPane job={id} />
      {:else if pane === 'Finish'}
        <FinishPane finish={answer.finish} />
      {:else}
        <WorkshopPane job={id} workshop={its.workshop!} />
      {/if}
    {/snippet}
    {#snippet told()}
      <Answers findings={answer.findings} {lit} onpick={pickFinding} marked />
      <p class="quiet">
        Sizes are finished sizes less banding; marks are written on every part as it is cut. Saws, routers and
        dust hurt: the makers' guards stay on.
      </p>
    {/snippet}
  </TwoColumns>
{/if}

<style>
  .papers {
    font-size: 0.8125rem;
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.8rem;
    margin-bottom: 0.5rem;
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 1.2rem;
    font-size: 0.875rem;
    margin-top: 0.8rem;
  }
  .quiet,
  .empty {
    font-size: 0.8125rem;
  }
</style>
