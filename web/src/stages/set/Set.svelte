<!-- Set: what is checked as it is set, what to do where it is out, and the plan that follows what stands. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type {
    Check,
    Fact,
    Finding,
    Otherwise,
    PlaceFit,
    PlaceHold,
    PlaceSet,
    Proposal,
    Surveyed,
    SurfaceName,
  } from '../../api/types';
  import PlaceDrawing from '../../drawing/PlaceDrawing.svelte';
  import type { Layout } from '../../drawing/layout';
  import { longTicks, type Tick } from '../../drawing/rods';
  import { newId } from '../../entry/ids';
  import { showLength } from '../../entry/length';
  import Answers from '../../shell/Answers.svelte';
  import Missing from '../../shell/Missing.svelte';
  import Panes from '../../shell/Panes.svelte';
  import Workbench from '../../shell/Workbench.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { newest } from '../../state/newest';
  import { notices } from '../../state/notices.svelte';
  import { session } from '../../state/session.svelte';
  import { remembered } from '../../state/store';
  import { waiting } from '../../state/waiting.svelte';
  import BeforeAfter from './BeforeAfter.svelte';
  import CheckPane from './CheckPane.svelte';
  import CheckSheet from './CheckSheet.svelte';
  import OtherwisePane from './OtherwisePane.svelte';
  import PhotoTaker from '../../shell/PhotoTaker.svelte';
  import { asSet, isOut, next, tally, within, withPending } from './set';
  import SetMarks from './SetMarks.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const job = params['job'] ?? '';
  // svelte-ignore state_referenced_locally
  const key = params['place'] ?? '';
  const PANES = ['Checks', 'Before and after', 'Found otherwise'] as const;

  let found = $state.raw<PlaceSet | null>(null);
  let fit = $state.raw<PlaceFit | null>(null);
  let hold = $state.raw<PlaceHold | null>(null);
  let surveyed = $state.raw<Surveyed | null>(null);
  let proposal = $state.raw<Proposal | null>(null);
  let pane = $state<(typeof PANES)[number]>('Checks');
  let lit = $state<string | null>(null);
  let of = $state<string | null>(null);
  let wobble = $state(20);

  const place = $derived(open.place(key));
  const unit = $derived(open.units);
  const units = $derived(fit?.units ?? place?.units ?? []);
  const base = $derived(fit?.plan?.base.tied ? fit.plan.base.height.value_mm : 0);
  const pending = $derived(waiting.all.filter((k) => k.job === job && k.place === key));
  const checks = $derived(withPending(found?.checks ?? [], pending));
  const chosen = $derived(checks.find((c) => c.key === lit) ?? null);
  const advice = $derived(found?.advice.find((a) => a.of === chosen?.of));
  const all = $derived(tally(checks));
  const groups = $derived(
    units
      .map((u) => ({ u, some: checks.filter((c) => c.of === u.id) }))
      .filter((g) => g.some.length)
      .toSorted((a, b) => checks.indexOf(a.some[0]!) - checks.indexOf(b.some[0]!)),
  );
  const upright = $derived<Tick[]>(
    [...new Set(units.map((u) => Math.round(base + (u.over_base_mm ?? 0) + u.height_mm)))].map((at) => ({
      id: `top-${at}`,
      at,
      label: showLength(at, unit, 0),
      kind: 'decided' as const,
      what: 'Top',
    })),
  );
  const long = $derived<Tick[]>(place ? longTicks({ ...place, units: [...units] }, unit) : []);

  const here = inView();
  const listen = newest();
  const listenProposal = newest();
  async function look() {
    if (!here()) return;
    try {
      const answers = await listen(
        Promise.all([
          remembered(`set ${job} ${key}`, () => calls.set(job, key)),
          remembered(`fit ${job} ${key}`, () => calls.fit(job, key)),
          remembered(`hold ${job} ${key}`, () => calls.hold(job, key)),
          surveyed ?? remembered(`gauge ${job} ${key}`, () => calls.gauge(job, key)),
        ]),
      );
      if (answers) [found, fit, hold, surveyed] = answers;
      if (pane === 'Before and after') await propose();
    } catch (fault) {
      notices.refused(fault);
    }
  }
  async function propose() {
    try {
      const answer = await listenProposal(
        remembered(`proposal ${job} ${key}`, () => calls.proposal(job, key)),
      );
      if (answer) proposal = answer;
    } catch (fault) {
      notices.refused(fault);
    }
  }
  $effect(() => {
    if (pane === 'Before and after' && !proposal) void propose();
  });

  function read(check: Check, value: { mm: number } | { came: 'right' | 'wrong' }) {
    proposal = null;
    const fact = asSet(check, session.name, value);
    void waiting.keep(job, key, fact);
    // what is right leads to the next; what is out stays in hand, with what to do
    const then = isOut(check, fact) ? null : next(checks, check);
    if (then) choose(then.key);
  }
  function choose(which: string | null) {
    lit = which;
    const check = checks.find((c) => c.key === which);
    if (check) of = check.of;
  }
  function chooseUnit(id: string) {
    of = id;
    const open_ = checks.find((c) => c.of === id && c.state !== 'right') ?? checks.find((c) => c.of === id);
    lit = open_?.key ?? null;
  }
  async function follow() {
    if (!proposal?.readings.length) return;
    await waiting.keep(job, key, {
      fact: 'followed',
      id: newId(),
      taken_at: new Date().toISOString(),
      taken_by: session.name,
      supersedes: null,
      aside: null,
      readings: [...proposal.readings],
    } as Fact);
    proposal = null;
    notices.add(
      'info',
      'The plan follows what stands.',
      'Shims, fillers, parts and steps are worked out from it.',
    );
  }
  async function otherwise(said: Pick<Otherwise, 'what'> & Partial<Otherwise>) {
    await waiting.keep(job, key, {
      fact: 'otherwise',
      id: newId(),
      taken_at: new Date().toISOString(),
      taken_by: session.name,
      supersedes: null,
      aside: null,
      of: '',
      surface: null,
      at: null,
      count: null,
      text: '',
      ...said,
    } as Fact);
  }
  async function take(id: string) {
    if (await waiting.take(id)) return;
    try {
      await calls.setAside(job, key, id, 'taken back', session.name);
      await open.renew(job);
      await look();
    } catch (fault) {
      notices.refused(fault);
    }
  }
  function pickFinding(f: Finding) {
    const check = checks.find((c) => f.about.includes(c.key));
    if (check) choose(check.key);
    else if (f.code === 'stands-otherwise') pane = 'Before and after';
    else if (f.code === 'found-otherwise') pane = 'Found otherwise';
  }

  onMount(() => {
    keys.page = [
      { keys: ['p'], what: 'Print the checks', run: () => print() },
      { keys: ['Escape'], what: 'Close the check', run: () => (lit = null) },
      {
        keys: ['n'],
        what: 'The next open check',
        run: () => choose(checks.find((c) => c.state === 'open')?.key ?? null),
      },
    ];
    const deaf = waiting.onArrival((j) => {
      if (j === job) void open.renew(job).then(look);
    });
    void open.load(job).then(() => {
      if (!here()) return;
      document.title = `Set · ${open.place(key)?.name ?? ''} · Wobble`;
      if (open.place(key)) void look();
    });
    return deaf;
  });
</script>

{#snippet onface(surface: SurfaceName, l: Layout)}
  {#if surface === 'back' && found}
    <SetMarks
      {l}
      {units}
      {checks}
      stands={found.stands}
      {base}
      {of}
      {lit}
      changes={pane === 'Before and after' ? (proposal?.changes ?? []) : null}
      exaggeration={wobble}
      onpick={choose}
      onunit={chooseUnit}
    />
  {/if}
{/snippet}

{#if open.missing || (open.stored && !place)}
  <Missing what="place" to="/jobs/{job}" way="Go to the job" />
{:else if place && found && surveyed}
  {@const here = surveyed}
  {@const answer = found}
  <Workbench
    bind:wobble
    caption="{place.name}, as it stands over its plan"
    keep={300}
    sideLabel="Answers"
    about={lit ?? ''}
  >
    {#snippet picture(height: number)}
      <h1 class="print-only">{open.stored?.job.name} · {place.name} · checks</h1>
      <PlaceDrawing
        {place}
        surveyed={here}
        room={height}
        title="{place.name}: what is checked"
        {base}
        backReference={fit?.plan?.back_line?.value_mm ?? null}
        {upright}
        {long}
        {lit}
        exaggeration={wobble}
        onpick={(id) => (lit = lit === id ? null : id)}
        figures={false}
        {onface}
      />
    {/snippet}
    {#snippet below()}
      <Panes
        label="Parts of setting"
        names={PANES}
        chosen={pane}
        counts={{
          Checks: all.open + all.out,
          'Before and after': answer.pending.length,
          'Found otherwise': answer.otherwise.length,
        }}
        onpick={(n) => (pane = n)}
      />
      <CheckSheet {groups} />
      {#if pane === 'Checks'}
        {#if checks.length}
          {#each groups as g (g.u.id)}
            {@const t = tally(g.some)}
            <details class="no-print" open={of === g.u.id || t.out > 0}>
              <summary
                ><b>{g.u.name}</b>
                <span class="quiet">{t.right} right, {t.open} open</span>{#if t.out}{' '}<b class="stop"
                    >{t.out} out</b
                  >{/if}</summary
              >
              <ul>
                {#each g.some as c (c.key)}
                  <li class:lit={lit === c.key} class={c.state}>
                    <button onclick={() => choose(c.key)}>
                      <span class="sign" aria-hidden="true"
                        >{c.state === 'right' ? '✓' : c.state === 'out' ? '✗' : '○'}</span
                      >
                      {within(c.name, g.u.name)}
                    </button>
                    <span class="figure"
                      >{c.readings?.length && c.readings.at(-1)?.value_mm !== null
                        ? showLength(c.readings.at(-1)!.value_mm!, unit)
                        : ''}</span
                    >
                  </li>
                {/each}
              </ul>
            </details>
          {/each}
        {:else}
          <p class="empty">
            Nothing to check yet: nothing is to stand here. <a href="/jobs/{job}/{key}/setout"
              >Set something out</a
            >; its checks come by themselves.
          </p>
        {/if}
      {:else if pane === 'Before and after'}
        <BeforeAfter
          {proposal}
          pending={answer.pending.map((id) => units.find((u) => u.id === id)?.name ?? id)}
          onfollow={() => void follow()}
        />
      {:else}
        <OtherwisePane
          {place}
          {units}
          screws={hold?.fasteners ?? []}
          found={answer.otherwise}
          onfound={(said) => void otherwise(said)}
          ontake={(id) => void take(id)}
        />
      {/if}
    {/snippet}
    {#snippet side()}
      {#if chosen}
        {@const then = next(checks, chosen)}
        <div class="hand">
          <CheckPane
            check={chosen}
            advice={pending.length ? undefined : advice}
            onread={(value) => read(chosen, value)}
            onnext={then ? () => choose(then.key) : null}
            onclose={() => (lit = null)}
          />
          <PhotoTaker {job} place={key} about={chosen.key} of={chosen.name} />
        </div>
      {/if}
      <Answers findings={answer.findings} {lit} onpick={pickFinding} marked />
      {#if !chosen && checks.length}
        <p>
          <button
            class="begin no-print"
            onclick={() => choose(checks.find((c) => c.state !== 'right')?.key ?? checks[0]!.key)}
            >{all.right ? 'Go on checking' : 'Begin with the first check'}</button
          >
        </p>
      {/if}
      <p class="quiet no-print record"><a href="/jobs/{job}/record">The record of this job</a></p>
    {/snippet}
  </Workbench>
{/if}

<style>
  .record {
    line-height: 2;
  }
  summary {
    cursor: pointer;
    min-height: 40px;
    display: flex;
    gap: 0.6rem;
    align-items: center;
    font-size: 0.9375rem;
    border-bottom: 1px solid var(--w-line);
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0 0 0.4rem;
    columns: 2;
    column-gap: 1.5rem;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 0.5rem;
    align-items: center;
    break-inside: avoid;
    font-size: 0.8125rem;
    min-height: 32px;
  }
  li button {
    background: none;
    border: 0;
    color: var(--w-ink);
    text-align: left;
    cursor: pointer;
    padding: 0.2rem 0;
    min-height: 32px;
  }
  .sign {
    display: inline-block;
    width: 1.1rem;
  }
  .right .sign {
    color: var(--w-fine);
  }
  .out .sign,
  .out .figure {
    color: var(--w-stop);
  }
  li.lit {
    background: var(--w-chalk-wash);
  }
  .begin {
    min-height: 48px;
    width: 100%;
    background: var(--w-chalk);
    color: var(--w-on-ink);
    border: 0;
    border-radius: var(--w-radius);
    font-weight: 700;
    cursor: pointer;
  }
  .quiet {
    font-size: 0.8125rem;
  }
  @media (max-width: 900px) {
    ul {
      columns: 1;
    }
    .hand {
      position: fixed;
      inset: 0;
      z-index: 5;
      overflow-y: auto;
      background: var(--w-sheet);
      padding: 0.75rem 1rem 2rem;
    }
  }
</style>
