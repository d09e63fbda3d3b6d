<script lang="ts">
  import { onMount } from 'svelte';
  import type { Figure, Finding, SurfaceName } from '../../api/types';
  import { Button } from '../../carbon';
  import Views from '../../drawing/Views.svelte';
  import PlaceDrawing from '../../drawing/PlaceDrawing.svelte';
  import type { Layout } from '../../drawing/layout';
  import { longTicks } from '../../drawing/rods';
  import { router } from '../../router.svelte';
  import { keyOf } from '../../shell/findings';
  import Missing from '../../shell/Missing.svelte';
  import Panes from '../../shell/Panes.svelte';
  import Workbench from '../../shell/Workbench.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import Answers from '../../shell/Answers.svelte';
  import CutoutsPane from './panes/CutoutsPane.svelte';
  import BackStart from './panes/BackStart.svelte';
  import Compare from './panes/Compare.svelte';
  import { Decision } from './decision.svelte';
  import DividePane from './panes/DividePane.svelte';
  import FeetList from './panes/FeetList.svelte';
  import FitMarks from './FitMarks.svelte';
  import Flats from './panes/tops/Flats.svelte';
  import Hangers from './panes/tops/Hangers.svelte';
  import Mouldings from './panes/tops/Mouldings.svelte';
  import GoingIn from './panes/GoingIn.svelte';
  import LevelStart from './panes/LevelStart.svelte';
  import Lines from './panes/Lines.svelte';
  import ShimList from './ShimList.svelte';
  import SidesPane from './panes/SidesPane.svelte';
  import { drawnBase, opened, uprightTicks } from './ticks';
  import Ways from './panes/Ways.svelte';
  import Working from './Working.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally
  const decision = new Decision(params['job'] ?? '', params['place'] ?? '');

  let wobble = $state(20);
  let lit = $state<string | null>(null);
  let view = $state<'unfolded' | 'cut' | 'plan'>('unfolded');
  let answers = $state<HTMLElement>();

  const unit = $derived(open.units);
  const kept = $derived(decision.place);
  /** The place with its units where the split puts them. */
  const place = $derived(
    kept && decision.fit ? { ...kept, units: decision.fit.units as typeof kept.units } : kept,
  );
  const plan = $derived(decision.plan);
  const surveyed = $derived(decision.surveyed);
  const findings = $derived(decision.fit?.findings ?? []);
  /** The back line is drawn where a plane ties the wall to the corner; else the units are drawn against it. */
  const back = $derived(
    plan?.back_line && Math.abs(plan.back_line.value_mm) < 200 ? plan.back_line.value_mm : 0,
  );
  const upright = $derived(uprightTicks(plan, unit, place?.units));
  let direct = $state.raw<{ title: string; figure: Figure } | null>(null);
  const shown = $derived(direct ?? (decision.fit && place ? opened(lit, decision.fit, place, unit) : null));
  const PANES = ['Level', 'Sides', 'Cut lines', 'Tops', 'Going in', 'Cut-outs', 'Compare', 'Divide'] as const;
  let pane = $state<(typeof PANES)[number]>('Level');
  const figure = (title: string, of: Figure) => (direct = { title, figure: of });
  const close = () => ((lit = null), (direct = null));
  const counts = $derived<Partial<Record<(typeof PANES)[number], number>>>({
    'Cut lines': decision.fit?.scribes.length ?? 0,
    Tops: decision.fit?.flats.length ?? 0,
    'Cut-outs': decision.fit?.cutouts.length ?? 0,
    Compare: kept?.alternatives?.length ?? 0,
  });
  const tallest = $derived(decision.fit?.run_height_mm ?? 0);
  const pages = $derived(`/jobs/${decision.job}/${decision.key}`);

  function pick(id: string | null) {
    direct = null;
    lit = lit === id ? null : id;
  }

  /** A suspect reading is mended where it was taken; all other answers open their working. */
  function pickFinding(f: Finding) {
    if (f.code === 'take-again') router.go(`${pages}/gauge`);
    else if (f.figure?.working.length) pick(keyOf(f));
    else pick(f.about[0] ?? null);
  }

  $effect(() => {
    // the working opens above the answers, which may be scrolled away
    if (shown) answers?.scrollIntoView({ block: 'nearest' });
  });

  const here = inView();
  onMount(() => {
    keys.page = [
      { keys: ['u'], what: 'Undo the last decision', run: () => void decision.undo() },
      { keys: ['f'], what: 'The place unfolded', run: () => (view = 'unfolded') },
      { keys: ['c'], what: 'The place cut upright', run: () => (view = 'cut') },
      { keys: ['v'], what: 'The place in plan', run: () => (view = 'plan') },
      { keys: ['w', 'Escape'], what: 'Close the working', run: close },
      { keys: ['p'], what: 'Print the shim list', run: () => print() },
      { keys: ['s'], what: 'Forget the marks of what changed', run: () => decision.seen() },
    ];
    void decision.load().then(() => {
      if (here()) document.title = `Fit · ${open.place(decision.key)?.name ?? ''} · Wobble`;
    });
    return () => {
      decision.leave();
    };
  });
</script>

{#snippet marks(part: 'wall' | 'ribbon' | 'floor', l: Layout, lineY: number)}
  {#if plan && place}
    <FitMarks {part} {l} {lineY} gain={wobble * l.scale} {place} {plan} {lit} {back} onpick={pick} />
  {/if}
{/snippet}
{#snippet onface(surface: SurfaceName, l: Layout)}
  {#if surface === 'back'}{@render marks('wall', l, 0)}{/if}
  {#if surface === 'floor'}{@render marks('floor', l, 0)}{/if}
{/snippet}
{#snippet onribbon(l: Layout, lineY: number)}{@render marks('ribbon', l, lineY)}{/snippet}

{#if open.missing || (open.stored && !place)}
  <Missing what="place" to="/jobs/{decision.job}" way="Go to the job" />
{:else if place && surveyed && decision.fit && decision.now}
  {@const fit = decision.fit}
  {@const now = decision.now}
  <Workbench
    bind:wobble
    caption="{place.name}, {plan ? 'shims under the run' : 'nothing to shim yet'}{unit === 'mm'
      ? ', mm'
      : ''}"
    keep={300}
    sideLabel="Answers"
  >
    {#snippet picture(room: number)}
      <h1 class="print-only">{open.stored?.job.name} · {place.name}</h1>
      <Views
        bind:view
        {place}
        {surveyed}
        {room}
        exaggeration={wobble}
        base={plan?.base.tied ? plan.base.height.value_mm : 0}
        {back}
      >
        {#snippet unfolded(height: number)}
          <PlaceDrawing
            {place}
            {surveyed}
            room={height}
            title="{place.name}: units, shims and packing"
            base={plan?.base.tied ? drawnBase(plan) : null}
            backReference={plan?.back_line?.value_mm ?? null}
            {upright}
            long={longTicks(place, unit)}
            {lit}
            exaggeration={wobble}
            onpick={pick}
            figures={!plan}
            {onface}
            {onribbon}
          />
        {/snippet}
      </Views>
    {/snippet}
    {#snippet below()}
      {#if plan}
        <Panes
          label="Parts of the fit"
          names={PANES}
          chosen={pane}
          {counts}
          onpick={(name) => (pane = name)}
        />
        {#if pane === 'Level'}
          <div class="turns no-print">
            <LevelStart
              {plan}
              datum={now.datum}
              methods={fit.methods}
              {tallest}
              onturn={(datum) => decision.turn({ datum })}
              onkeep={() => decision.keep()}
            />
            <BackStart
              {plan}
              line={now.back_line}
              onturn={(back_line) => decision.turn({ back_line })}
              onkeep={() => decision.keep()}
            />
          </div>
          <Ways
            {fit}
            datum={now.datum}
            line={now.back_line}
            onturn={(back_line) => decision.turn({ back_line })}
            onkeep={() => decision.keep()}
          />
          <FeetList {fit} onfigure={figure} />
          <ShimList job={decision.job} {plan} {place} before={decision.before} {lit} onpick={pick} />
          <p class="no-print rods">
            To carry to the place, at full size: <a href="{pages}/rods/long">the long rod</a>,
            <a href="{pages}/rods/upright">the upright rod</a>.
          </p>
        {:else if pane === 'Sides'}
          <SidesPane
            {fit}
            closing={now.closing}
            before={decision.before}
            onturn={(closing) => decision.turn({ closing })}
            onkeep={() => decision.keep()}
            onfigure={figure}
          />
        {:else if pane === 'Cut lines'}
          <Lines
            scribes={fit.scribes}
            before={decision.before}
            files="/api/jobs/{decision.job}/places/{decision.key}/scribes"
            pages="{pages}/fit"
          />
        {:else if pane === 'Tops'}
          <Flats {fit} onfigure={figure} />
          <Hangers {fit} onfigure={figure} />
          <Mouldings {fit} onfigure={figure} />
        {:else if pane === 'Going in'}
          <GoingIn {fit} job="/jobs/{decision.job}" />
        {:else if pane === 'Cut-outs'}
          <CutoutsPane {fit} {place} />
        {:else if pane === 'Compare'}
          <Compare {decision} {place} />
        {:else}
          <DividePane long={Math.max(0, ...place.units.map((u) => u.width_mm))} />
        {/if}
      {:else if fit.methods.length}
        <Button
          size="small"
          kind="tertiary"
          on:click={() => {
            decision.turn({ datum: { rule: 'high spot', over_mm: 0 } });
            decision.keep();
          }}>Start level from the high spot</Button
        >
      {/if}
    {/snippet}
    {#snippet side()}
      <div class="tools no-print" bind:this={answers}>
        <h2>What the place says</h2>
        {#if decision.canUndo}<button class="chip" onclick={() => void decision.undo()}>Undo</button>{/if}
        {#if plan}<button class="chip" onclick={() => print()}>Print</button>{/if}
      </div>
      {#if shown}
        <div class="no-print">
          <Working title={shown.title} figure={shown.figure} {place} onclose={close} />
        </div>
      {/if}
      <Answers {findings} {lit} onpick={pickFinding} marked />
      {#if !place.units.length}
        <Button size="small" href="{pages}/setout">Set out what stands here</Button>
      {:else if findings.some((f) => f.code === 'no-floor')}
        <Button size="small" href="{pages}/gauge">Measure the floor</Button>
      {/if}
    {/snippet}
  </Workbench>
{/if}

<style>
  .rods {
    margin-top: 1rem;
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
  .turns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 230px;
    gap: 1.5rem;
    padding: 0 0 1rem;
  }
  @media (max-width: 900px) {
    .turns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
