<script lang="ts">
  import { onMount } from 'svelte';
  import type { Figure, Finding } from '../../api/types';
  import { Button } from '../../carbon';
  import BayDrawing from '../../drawing/BayDrawing.svelte';
  import type { Layout } from '../../drawing/layout';
  import { longTicks, type Tick } from '../../drawing/rods';
  import { showLength } from '../../entry/length';
  import { router } from '../../router.svelte';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import Answers from './Answers.svelte';
  import BackStart from './BackStart.svelte';
  import { Decision } from './decision.svelte';
  import FitMarks from './FitMarks.svelte';
  import LevelStart from './LevelStart.svelte';
  import ShimList from './ShimList.svelte';
  import Working from './Working.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally
  const decision = new Decision(params['job'] ?? '', params['bay'] ?? '');

  let wobble = $state(20);
  let lit = $state<string | null>(null);
  let tall = $state(800);
  let answers = $state<HTMLElement>();

  const unit = $derived(open.units);
  const bay = $derived(decision.bay);
  const plan = $derived(decision.plan);
  const place = $derived(decision.place);
  const findings = $derived(decision.fit?.findings ?? []);
  /** Where drawn heights count from: the base's own height over the mark, or nothing where no line ties the floor to it. */
  const base = $derived(plan?.base.tied ? plan.base.height.value_mm : 0);
  const backLine = $derived(
    plan?.back_line && plan.back_line.value_mm > -200 && plan.back_line.value_mm < 200
      ? plan.back_line.value_mm
      : 0,
  );

  const long = $derived(bay ? longTicks(bay, unit) : []);
  const upright = $derived.by<Tick[]>(() => {
    if (!plan || !bay) return [{ id: 'mark', at: 0, label: '0', kind: 'place', what: 'The mark' }];
    const heights = [...new Set(plan.packings.map((p) => Math.round(p.at[1] as number)))];
    const tops = [...new Set(plan.base.tops_mm.map((t) => Math.round(t * 10) / 10))];
    return [
      {
        id: 'base',
        at: base,
        label: showLength(plan.base.height.value_mm, unit),
        kind: 'decided',
        what: 'Underside of the run',
      },
      ...heights.map((z): Tick => ({
        id: `fix-${z}`,
        at: z,
        label: showLength(z, unit, 0),
        kind: 'found',
        what: 'A row of fixings',
      })),
      ...tops.map((z): Tick => ({
        id: `top-${z}`,
        at: z,
        label: showLength(z, unit),
        kind: 'decided',
        what: 'Top of the units',
      })),
    ];
  });

  const shown = $derived.by<{ title: string; figure: Figure } | null>(() => {
    if (!lit || !plan || !bay) return null;
    const name = (id: string) => bay.units?.find((u) => u.id === id)?.name ?? id;
    const shim = plan.shims.find((s) => s.support === lit);
    if (shim) return { title: `Under ${name(shim.unit)}, ${shim.corner}`, figure: shim.gap };
    const packing = plan.packings.find((p) => p.fixing === lit);
    if (packing)
      return {
        title: `Behind ${name(packing.unit)}, ${packing.side}, ${showLength(packing.at[1] as number, unit, 0)} up`,
        figure: packing.gap,
      };
    if (lit === 'base') return { title: 'Underside of the run', figure: plan.base.height };
    if (lit.startsWith('top-')) {
      const top = Number(lit.slice(4));
      return {
        title: 'Top of the units',
        figure: {
          value_mm: top,
          sd_mm: 0,
          working: [
            {
              label: 'Underside of the run',
              sign: 1,
              value_mm: plan.base.height.value_mm,
              sd_mm: 0,
              rests_on: [],
              surface: null,
              at: null,
            },
            {
              label: 'Height of the unit',
              sign: 1,
              value_mm: top - plan.base.height.value_mm,
              sd_mm: 0,
              rests_on: [],
              surface: null,
              at: null,
            },
          ],
        },
      };
    }
    const finding = findings.find((f) => f.code + f.title === lit);
    return finding?.figure?.working?.length ? { title: finding.title, figure: finding.figure } : null;
  });

  function pick(id: string | null) {
    lit = lit === id ? null : id;
  }

  /** A suspect reading is mended where it was taken; all other answers open their working. */
  function pickFinding(f: Finding) {
    if (f.code === 'take-again') router.go(`/jobs/${decision.job}/${decision.key}/gauge`);
    else if (f.figure?.working?.length) pick(f.code + f.title);
    else pick(f.concerns?.[0] ?? null);
  }

  $effect(() => {
    // the working opens above the answers, which may be scrolled away
    if (shown) answers?.scrollIntoView({ block: 'nearest' });
  });

  onMount(() => {
    keys.page = [
      { keys: ['u'], what: 'Undo the last decision', run: () => void decision.undo() },
      { keys: ['w', 'Escape'], what: 'Close the working', run: () => (lit = null) },
      { keys: ['p'], what: 'Print the shim list', run: () => print() },
      { keys: ['s'], what: 'Forget the marks of what changed', run: () => decision.seen() },
    ];
    void decision
      .load()
      .then(() => (document.title = `Fit · ${open.bay(decision.key)?.name ?? ''} · Wobble`));
    return () => decision.leave();
  });
</script>

<svelte:window bind:innerHeight={tall} />

{#snippet onwall(l: Layout)}
  {#if plan && bay}
    <FitMarks part="wall" {l} lineY={0} gain={0} {bay} {plan} {unit} {lit} back={backLine} onpick={pick} />
  {/if}
{/snippet}
{#snippet onribbon(l: Layout, lineY: number)}
  {#if plan && bay}
    <FitMarks
      part="ribbon"
      {l}
      {lineY}
      gain={wobble * l.scale}
      {bay}
      {plan}
      {unit}
      {lit}
      back={backLine}
      onpick={pick}
    />
  {/if}
{/snippet}
{#snippet onfloor(l: Layout)}
  {#if plan && bay}
    <FitMarks part="floor" {l} lineY={0} gain={0} {bay} {plan} {unit} {lit} back={backLine} onpick={pick} />
  {/if}
{/snippet}

{#if open.missing || (open.stored && !bay)}
  <main class="alone">
    <h1>There is no such bay</h1>
    <p><a href="/jobs/{decision.job}">Go to the job</a></p>
  </main>
{:else if bay && place && decision.fit && decision.now}
  <main>
    <section class="picture" aria-label="The run">
      <h1 class="print-only">{open.stored?.job.name} · {bay.name}</h1>
      <div class="bar">
        <span class="quiet"
          >{bay.name}, {plan ? 'shims under the run' : 'nothing to shim yet'}{unit === 'mm'
            ? ', mm'
            : ''}</span
        >
        <label class="wobble no-print">
          wobble <span class="figure">×{wobble}</span>
          <input type="range" min="1" max="60" bind:value={wobble} aria-label="Exaggeration" />
        </label>
      </div>
      <BayDrawing
        {bay}
        {place}
        {unit}
        title="{bay.name}: units, shims and packing"
        room={tall < 700 || tall > 1100 ? 560 : tall - 300}
        base={plan?.base.tied ? plan.base.height.value_mm : null}
        backReference={plan?.back_line?.value_mm ?? null}
        {upright}
        {long}
        {lit}
        exaggeration={wobble}
        onpick={pick}
        figures={!plan}
        {onwall}
        {onribbon}
        {onfloor}
      />
      {#if decision.fit.schools.length}
        <div class="turns no-print">
          {#if plan}
            <LevelStart
              {plan}
              datum={decision.now.datum}
              schools={decision.fit.schools}
              tallest={Math.max(0, ...(bay.units ?? []).map((u) => u.height_mm))}
              {unit}
              onturn={(datum) => decision.turn({ datum })}
              onkeep={() => decision.keep()}
            />
            <BackStart
              {plan}
              line={decision.now.back_line}
              {unit}
              onturn={(back_line) => decision.turn({ back_line })}
              onkeep={() => decision.keep()}
            />
          {:else}
            <Button
              size="small"
              kind="tertiary"
              on:click={() => {
                decision.turn({ datum: { rule: 'high spot', over_mm: 0 } });
                decision.keep();
              }}>Start level from the high spot</Button
            >
          {/if}
        </div>
      {/if}
      {#if plan}
        <div class="list">
          <ShimList {plan} {bay} {unit} before={decision.before} {lit} onpick={pick} />
        </div>
      {/if}
    </section>

    <section class="answers" bind:this={answers} aria-label="Answers">
      <div class="tools no-print">
        <h2>What the place says</h2>
        {#if decision.canUndo}<button onclick={() => void decision.undo()}>Undo</button>{/if}
        {#if plan}<button onclick={() => print()}>Print</button>{/if}
      </div>
      {#if shown}
        <div class="no-print">
          <Working title={shown.title} figure={shown.figure} {bay} {unit} onclose={() => (lit = null)} />
        </div>
      {/if}
      <Answers {findings} {unit} {lit} onpick={pickFinding} />
      {#if !bay.units?.length}
        <Button size="small" href="/jobs/{decision.job}/{decision.key}/place">Say what stands here</Button>
      {:else if findings.some((f) => f.code === 'no-floor')}
        <Button size="small" href="/jobs/{decision.job}/{decision.key}/gauge">Measure the floor</Button>
      {/if}
    </section>
  </main>
{/if}

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 400px;
    min-height: calc(100vh - 50px);
  }
  .alone {
    display: block;
    max-width: 34rem;
    margin: 20vh auto 0;
    min-height: 0;
  }
  .picture {
    padding: 0.75rem 1rem 3rem;
    min-width: 0;
  }
  .bar {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 1rem;
    font-size: 0.8125rem;
  }
  .wobble {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    white-space: nowrap;
  }
  .wobble input {
    width: 7rem;
    accent-color: var(--w-brass);
  }
  .answers {
    background: var(--w-sheet);
    border-left: 1px solid var(--w-line);
    padding: 0.75rem 1rem 2rem;
    min-width: 0;
  }
  .tools {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    min-height: 32px;
    margin-bottom: 0.25rem;
  }
  .tools h2 {
    font-size: 0.9375rem;
    flex: 1;
  }
  .tools button {
    border: 1px solid var(--w-line-strong);
    background: none;
    border-radius: var(--w-radius);
    color: var(--w-ink);
    height: 30px;
    padding: 0 0.7rem;
    cursor: pointer;
  }
  .tools button:hover {
    background: var(--w-hover);
  }
  .turns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 230px;
    gap: 1.5rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.5rem;
  }
  .list {
    margin-top: 1rem;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
    }
    .picture {
      display: contents;
    }
    .picture > .bar,
    .picture > :global(.drawing) {
      order: 1;
    }
    .bar {
      padding: 0.3rem 0.6rem 0;
    }
    .bar .quiet {
      display: none;
    }
    .answers {
      order: 2;
      border-left: 0;
      border-top: 1px solid var(--w-line);
    }
    .turns {
      order: 3;
      grid-template-columns: minmax(0, 1fr);
      margin: 0 1rem;
    }
    .list {
      order: 4;
      padding: 1rem;
      min-width: 0;
      margin: 0;
    }
  }
  @media print {
    main {
      display: block;
    }
    .answers {
      border: 0;
      background: none;
      padding: 1rem 0 0;
    }
  }
</style>
