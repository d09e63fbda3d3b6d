<!-- Order: what comes next tonight; the whole as rods; day by day; when one works. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type {
    AskedTonight,
    Fact,
    FinishingOutcome,
    Finding,
    Planned,
    PlannedStep,
    Sessions,
  } from '../../api/types';
  import { newId } from '../../entry/ids';
  import Answers from '../../shell/Answers.svelte';
  import Missing from '../../shell/Missing.svelte';
  import Panes from '../../shell/Panes.svelte';
  import TwoColumns from '../../shell/TwoColumns.svelte';
  import PhotoTaker from '../../shell/PhotoTaker.svelte';
  import { router } from '../../router.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { newest } from '../../state/newest';
  import { notices } from '../../state/notices.svelte';
  import { session } from '../../state/session.svelte';
  import { remembered } from '../../state/store';
  import { waiting } from '../../state/waiting.svelte';
  import Days from './Days.svelte';
  import { moment, numbersOf, sayMinutes, sayWhen, tickedHere } from './order';
  import SessionsPane from './SessionsPane.svelte';
  import StepPane from './StepPane.svelte';
  import TimeRod from './TimeRod.svelte';
  import Tonight from './Tonight.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const id = params['job'] ?? '';
  const PANES = ['Tonight', 'The whole', 'Day by day', 'Sessions'] as const;

  let planned = $state.raw<Planned | null>(null);
  let asked = $state.raw<AskedTonight | null>(null);
  /** Whether there is an answer for tonight, or none to be had: what stands under it would move from under the finger. */
  let settled = $state(false);
  let pane = $state<(typeof PANES)[number]>('Tonight');
  let lit = $state<string | null>(null);
  let minutes = $state(90);
  let there = $state<string[]>([]);
  let outcomes = $state.raw<FinishingOutcome[] | null>(null);
  /** Whether ways to finish are compared: then each change compares them anew. */
  let compared = false;
  let now = $state(moment());

  const job = $derived(open.stored?.id === id ? open.stored.job : null);
  const sessions = $derived((job?.sessions ?? {}) as Sessions);
  const people = $derived(sessions.people ?? []);
  const pending = $derived(waiting.all.filter((k) => k.job === id));
  const ticked = $derived(tickedHere(pending));
  const steps = $derived(planned?.steps ?? []);
  const chosen = $derived(steps.find((s) => s.step.key === lit) ?? null);
  const left = $derived(steps.filter((s) => s.state !== 'done' && !ticked.has(s.step.key)));
  const numbers = $derived(numbersOf(steps));
  const next = $derived(
    left
      .filter((s) => s.stretches?.length)
      .toSorted((a, b) => a.stretches![0]!.start.localeCompare(b.stretches![0]!.start))[0] ?? null,
  );

  const here = inView();
  const listen = newest();
  const listenTonight = newest();
  const listenFinishing = newest();
  async function look() {
    now = moment();
    try {
      const answer = await listen(remembered(`order ${id}`, () => calls.order(id, now)));
      if (answer) planned = answer;
    } catch (fault) {
      notices.refused(fault);
    }
    if (here()) await Promise.all([askTonight(), compared && compare()]);
  }
  async function askTonight() {
    try {
      const body = { now: moment(), minutes, people: there, machines: [] };
      const answer = await listenTonight(remembered(`tonight ${id}`, () => calls.tonight(id, body as never)));
      if (answer) asked = answer;
    } catch (fault) {
      notices.refused(fault);
    }
    settled = true;
  }
  function turnTonight(n: number, who: string[]) {
    [minutes, there] = [n, who];
    void askTonight();
  }

  const fact = () => ({
    id: newId(),
    taken_at: new Date().toISOString(),
    taken_by: session.name,
    supersedes: null,
    aside: null,
  });
  const placeOf = (s: PlannedStep) => s.step.place || job?.places[0]?.id || '';
  async function done(s: PlannedStep, took: number | null, known = new Map<string, number | null>()) {
    const place = placeOf(s);
    const facts: Fact[] = [
      { ...fact(), fact: 'step', step: s.step.key, name: s.step.name, minutes: took } as Fact,
      ...[...known].map(([what, mm]) => ({ ...fact(), fact: 'known', what, value_mm: mm }) as Fact),
    ];
    if (s.step.kind === 'cut') facts.push(...(await cuts(s)));
    await waiting.keep(id, place, ...facts);
  }
  /** What a step cuts is cut when it is ticked: Make then counts those parts no more. */
  async function cuts(s: PlannedStep): Promise<Fact[]> {
    try {
      const made = await remembered(`make ${id}`, () => calls.make(id));
      return made.parts
        .filter((p) => (s.step.parts ?? []).includes(p.key) && p.to_cut > 0)
        .map(
          (p) =>
            ({
              ...fact(),
              fact: 'cut',
              part: p.part.id,
              count: p.to_cut,
              came: 'right',
              size: p.part.blank_mm[1] ? p.part.blank_mm : null,
              thick_mm: null,
            }) as Fact,
        );
    } catch (fault) {
      notices.refused(fault); // the step is ticked all the same; parts are ticked in Make
      return [];
    }
  }
  async function undo(s: PlannedStep) {
    for (const k of pending.filter((x) => x.fact.fact === 'step' && x.fact.step === s.step.key))
      await waiting.take(k.id);
  }
  function note(s: PlannedStep, kind: 'seen' | 'went wrong' | 'agreed' | 'open', text: string) {
    const found = { ...fact(), fact: 'note', text, kind, about: s.step.key, surface: null, at: null };
    void waiting.keep(id, placeOf(s), found as Fact);
    notices.add('info', 'The note is kept.', 'It is told in the record of the job.');
  }
  const put = (part: Partial<Sessions>) => void open.putSessions(sessions, { ...sessions, ...part });

  const pick = (key: string) => (lit = lit === key ? null : key);
  function pickFinding(f: Finding) {
    const key = f.about.find((k) => steps.some((s) => s.step.key === k));
    if (key) lit = key;
    else if (['sessions-assumed', 'no-session', 'late', 'step-unknown', 'dropped'].includes(f.code))
      pane = 'Sessions';
  }
  async function compare() {
    compared = true;
    try {
      outcomes = (await listenFinishing(calls.finishing(id, now))) ?? outcomes;
    } catch (fault) {
      [compared, outcomes] = [false, null];
      notices.refused(fault);
    }
  }

  onMount(() => {
    keys.page = [
      { keys: ['p'], what: 'Print what is shown', run: () => print() },
      { keys: ['Escape'], what: 'Close the step', run: () => (lit = null) },
      { keys: ['n'], what: 'The next step', run: () => (lit = next?.step.key ?? null) },
      ...PANES.map((name, i) => ({ keys: [String(i + 1)], what: name, run: () => (pane = name) })),
    ];
    const deaf = waiting.onArrival((j) => {
      if (j === id) void look();
    });
    void open.load(id).then(() => {
      if (!here()) return;
      document.title = `Order · ${open.stored?.job.name ?? ''} · Wobble`;
      const first = open.stored?.job.sessions?.people?.[0];
      there = first ? [first.id] : [];
      if (open.stored) void look();
    });
    return deaf;
  });
  let seen = 0;
  $effect(() => {
    const revision = open.stored?.id === id ? open.stored.revision : 0;
    if (revision && seen && revision !== seen) void look();
    seen = revision;
  });
</script>

{#snippet inHand()}
  {#if chosen}
    {#key chosen.step.key}
      <StepPane
        job={id}
        step={chosen}
        {steps}
        place={open.place(chosen.step.place ?? '')}
        {people}
        ticked={ticked.has(chosen.step.key)}
        {next}
        onpick={(key) => (lit = key)}
        ondone={(took, known) => void done(chosen, took, known)}
        onundo={() => void undo(chosen)}
        onbefore={(other) =>
          put({ turned: [...(sessions.turned ?? []), { first: chosen.step.key, then: other }] })}
        ondrop={() => {
          const key = chosen.step.key;
          lit = null;
          if (key.startsWith('own/')) put({ own: (sessions.own ?? []).filter((o) => `own/${o.id}` !== key) });
          else put({ dropped: [...(sessions.dropped ?? []), key] });
        }}
        onnote={(kind, text) => note(chosen, kind, text)}
        onclose={() => (lit = null)}
      >
        {#snippet more()}
          {#if chosen.step.place}
            <PhotoTaker job={id} place={chosen.step.place} about={chosen.step.key} of={chosen.step.name} />
            {#if ['set', 'top', 'fasten', 'fill', 'hang on', 'dry fit', 'assemble', 'doors', 'drawers'].includes(chosen.step.kind)}
              <p class="quiet no-print">
                <a href="/jobs/{id}/{chosen.step.place}/set">What is checked after it</a>
              </p>
            {/if}
          {/if}
        {/snippet}
      </StepPane>
    {/key}
  {/if}
{/snippet}

{#if open.missing}
  <Missing what="job" to="/" way="Go to your jobs" />
{:else if job && !job.places.length}
  <main class="page">
    <h1>Nothing to put in order yet</h1>
    <p>
      This job has no place. <a href="/jobs/{id}">Begin with one</a>: the steps follow from what stands there.
    </p>
  </main>
{:else if job && planned && settled}
  {@const plan = planned}
  {@const its = job}
  <TwoColumns chosen={chosen ? inHand : null} whole>
    {#snippet body()}
      <h1 class="print-only">{its.name} · {pane}</h1>
      {#if next}
        <p class="next">
          <span class="quiet">Next</span>
          <button class="what" onclick={() => (lit = next.step.key)}
            ><b>{next.step.name}</b>
            <span>{sayWhen(next.stretches![0]!.start)} · {sayMinutes(next.minutes ?? 0)}</span></button
          >
          {#if next.step.why}<span class="quiet">because {next.step.why}</span>{/if}
        </p>
      {/if}
      <Panes
        label="Parts of the order"
        names={PANES}
        chosen={pane}
        counts={{ 'The whole': left.length }}
        onpick={(n) => (pane = n)}
      />
      {#if pane === 'Tonight'}
        <Tonight
          {asked}
          {minutes}
          {people}
          {there}
          {ticked}
          {lit}
          onask={turnTonight}
          onpick={pick}
          ondone={(s) =>
            s.step.opens?.some((w) => w.measured)
              ? (lit = s.step.key)
              : void done(s, null, new Map((s.step.opens ?? []).map((w) => [w.key, null])))}
        />
      {:else if pane === 'The whole'}
        {#if plan.sessions.length}
          <TimeRod sessions={plan.sessions} {steps} {lit} onpick={pick} />
        {:else}
          <p class="empty">
            {left.length
              ? 'No session takes what is left: say when you work under “Sessions”.'
              : 'Every step is done.'}
          </p>
        {/if}
        <ol class="whole">
          {#each steps as s (s.step.key)}
            <li class:lit={lit === s.step.key} class:done={s.state === 'done' || ticked.has(s.step.key)}>
              <b class="figure">{numbers.get(s.step.key) ?? ''}</b>
              <button onclick={() => pick(s.step.key)}>{s.step.name}</button>
              <span class="quiet figure">{s.stretches?.[0] ? sayWhen(s.stretches[0].start) : s.state}</span>
            </li>
          {/each}
        </ol>
      {:else if pane === 'Day by day'}
        <p class="no-print papers">
          <a href="/api/jobs/{id}/order.ics?now={encodeURIComponent(now)}" download>Save as a calendar</a>
        </p>
        <Days job={id} {now} sessions={plan.sessions} {steps} {people} {lit} onpick={pick} />
      {:else}
        <SessionsPane
          {sessions}
          machines={its.workshop?.machines ?? []}
          {steps}
          {outcomes}
          oncompare={() => void compare()}
        />
      {/if}
    {/snippet}
    {#snippet told()}
      <Answers findings={plan.findings} {lit} onpick={pickFinding} marked />
      {#each plan.paces.filter((x) => x.pace.steps > 0) as x (x.person)}
        <p class="quiet">
          {x.name} takes {x.pace.factor.toFixed(2)} times the usual minutes ({x.pace.low.toFixed(2)} to {x.pace.high.toFixed(
            2,
          )}), from {x.pace.steps}
          {x.pace.steps === 1 ? 'step' : 'steps'} logged.
        </p>
      {/each}
      <p class="quiet">Times are planning figures: usual minutes, until the clock has said yours.</p>
      {#if left.length}
        <p class="no-print">
          <button class="link" onclick={() => router.go(`/jobs/${id}/make`)}>What to cut is in Make</button>
        </p>
      {/if}
    {/snippet}
  </TwoColumns>
{/if}

<style>
  .next {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.2rem 0.7rem;
    margin: 0 0 0.5rem;
  }
  .what {
    background: none;
    border: 0;
    color: var(--w-ink);
    text-align: left;
    cursor: pointer;
    padding: 0;
    min-height: 40px;
    font-size: 1.0625rem;
  }
  .what span {
    font-size: 0.875rem;
    color: var(--w-ink-soft);
  }
  .papers,
  .quiet,
  .empty {
    font-size: 0.8125rem;
  }
  .whole {
    margin: 0.8rem 0 0;
    padding: 0;
    list-style: none;
    columns: 2;
    column-gap: 1.5rem;
  }
  .whole li {
    display: flex;
    justify-content: space-between;
    gap: 0.6rem;
    break-inside: avoid;
    border-bottom: 1px solid var(--w-line);
    min-height: 34px;
    align-items: center;
    font-size: 0.8125rem;
  }
  .whole button {
    background: none;
    border: 0;
    color: var(--w-ink);
    text-align: left;
    cursor: pointer;
    padding: 0.2rem 0;
    min-width: 0;
  }
  .whole .figure {
    white-space: nowrap;
  }
  .whole b {
    flex: 0 0 1.5rem;
    text-align: right;
  }
  .whole button {
    flex: 1;
  }
  .whole .lit {
    background: var(--w-chalk-wash);
  }
  .whole .done button {
    text-decoration: line-through;
    color: var(--w-ink-soft);
  }
  @media screen and (max-width: 900px) {
    .whole {
      columns: 1;
    }
  }
  @media print {
    .whole li {
      min-height: 0;
      padding: 0.15rem 0;
      font-size: 0.75rem;
    }
  }
</style>
