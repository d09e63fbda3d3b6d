<!-- Hold: what lies behind the lining, and how every unit is fastened to it. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type {
    Backing,
    PlaceFit,
    PlaceHold,
    Behind,
    Detection,
    Finding,
    Surveyed,
    Fastener,
    SurfaceName,
  } from '../../api/types';
  import PlaceDrawing from '../../drawing/PlaceDrawing.svelte';
  import type { Found, Layout } from '../../drawing/layout';
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
  import { BACKING, CEILING, FLOOR } from './backing';
  import BackingForm from './BackingForm.svelte';
  import DrillList from './DrillList.svelte';
  import FoundForm from './FoundForm.svelte';
  import FurringPane from './panes/FurringPane.svelte';
  import GridPane from './panes/GridPane.svelte';
  import HoldMarks from './HoldMarks.svelte';
  import OverheadPane from './panes/OverheadPane.svelte';
  import Rests from './panes/Rests.svelte';
  import ScrewSection from './ScrewSection.svelte';
  import { metAt } from './shapes';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const job = params['job'] ?? '';
  // svelte-ignore state_referenced_locally
  const key = params['place'] ?? '';
  const PANES = ['Drilling list', 'Rests and joins', 'Overhead', 'Flatten', 'Hang things on'] as const;

  let hold = $state.raw<PlaceHold | null>(null);
  let fit = $state.raw<PlaceFit | null>(null);
  let surveyed = $state.raw<Surveyed | null>(null);
  let lit = $state<string | null>(null);
  let wobble = $state(20);
  /** Whether it is asked what the walls are made of: at first, where nobody has said. */
  let asking = $state(false);
  let pane = $state<(typeof PANES)[number]>('Drilling list');
  let at = $state<{ surface: Behind; along: number | null; up: number }>({
    surface: 'back',
    along: null,
    up: 1200,
  });

  const place = $derived(open.place(key));
  const unit = $derived(open.units);
  const backing = $derived(place?.backing ?? BACKING);
  const overhead = $derived(place?.overhead ?? CEILING);
  const underfoot = $derived(place?.underfoot ?? FLOOR);
  const backings = $derived({ walls: backing, ceiling: overhead, floor: underfoot });
  const base = $derived(fit?.plan?.base.tied ? fit.plan.base.height.value_mm : 0);
  const points = $derived<Fastener[]>((hold?.fasteners ?? []).filter((f) => f.surface));
  const chosen = $derived(points.find((q) => `screw-${q.order}` === lit) ?? null);
  const name = (id: string) => place?.units.find((u) => u.id === id)?.name ?? id;
  const pending = $derived(waiting.detections(job, key));
  const waits = $derived(new Set(pending.map((d) => d.id)));
  const found = $derived([...(place?.detections ?? []).filter((d) => !waits.has(d.id)), ...pending]);
  const long = $derived<Tick[]>([
    ...(place ? longTicks({ ...place, units: [] }, unit) : []),
    ...(hold?.back.lines ?? []).map((line) => ({
      id: `stud-${line.at_mm.toFixed(0)}`,
      at: line.at_mm,
      label: showLength(line.at_mm, unit, 0),
      kind: 'found' as const,
      what: 'A stud',
    })),
  ]);

  const here = inView();
  const listen = newest();
  async function look() {
    if (!here()) return;
    try {
      const answers = await listen(
        Promise.all([
          remembered(`hold ${job} ${key}`, () => calls.hold(job, key)),
          fit ?? remembered(`fit ${job} ${key}`, () => calls.fit(job, key)),
          surveyed ?? remembered(`gauge ${job} ${key}`, () => calls.gauge(job, key)),
        ]),
      );
      if (answers) [hold, fit, surveyed] = answers;
    } catch (fault) {
      notices.refused(fault);
    }
  }
  const find = (d: Pick<Detection, 'surface' | 'at' | 'found_by' | 'sees'>) =>
    waiting.keep(job, key, {
      ...d,
      fact: 'detection',
      id: newId(),
      taken_at: new Date().toISOString(),
      taken_by: session.name,
      supersedes: null,
      aside: null,
    });
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
  async function put(of: 'walls' | 'ceiling' | 'floor', part: Partial<Backing>) {
    const field = ({ walls: 'backing', ceiling: 'overhead', floor: 'underfoot' } as const)[of];
    const was = {
      backing: place?.backing ?? null,
      overhead: place?.overhead ?? null,
      underfoot: place?.underfoot ?? null,
    };
    const now = { ...was, [field]: { ...backings[of], ...part } };
    if (await open.edit(`made of ${key}`, (id, edit) => calls.putBacking(id, key, edit), was, now))
      await look();
  }
  /** What a finding is about is lit: its first screw. */
  function pickFinding(f: Finding) {
    const screw = points.find((q) => f.about.includes(q.id));
    if (screw) pick(`screw-${screw.order}`);
  }
  const pick = (id: string | null) => (lit = lit === id ? null : id);
  /** A tap said again takes the first answer back. */
  async function met(q: Fastener, sees: 'hit' | 'miss' | 'something else') {
    const before = metAt(q, found);
    if (before) await take(before.id);
    if (before?.sees !== sees)
      await find({ surface: q.surface ?? 'back', at: q.at, found_by: 'trial hole', sees });
  }
  function touched(spot: Found) {
    at = { surface: spot.surface, along: spot.at[0], up: spot.at[1] };
  }
  onMount(() => {
    keys.page = [
      { keys: ['p'], what: 'Print the drilling list', run: () => print() },
      { keys: ['w', 'Escape'], what: 'Close the section', run: () => (lit = null) },
    ];
    const deaf = waiting.onArrival((j) => {
      if (j === job) void open.renew(job).then(look);
    });
    void open.load(job).then(() => {
      if (!here()) return;
      document.title = `Hold · ${open.place(key)?.name ?? ''} · Wobble`;
      asking = !open.place(key)?.backing;
      if (open.place(key)) void look();
    });
    return deaf;
  });
</script>

{#snippet onface(surface: SurfaceName, l: Layout)}
  {#if place && hold}
    <HoldMarks
      {l}
      {surface}
      {place}
      backing={surface === 'ceiling' ? overhead : surface === 'floor' ? underfoot : backing}
      {hold}
      units={fit?.units ?? place.units}
      {found}
      {base}
      {lit}
      onpick={pick}
    />
  {/if}
{/snippet}

{#if open.missing || (open.stored && !place)}
  <Missing what="place" to="/jobs/{job}" way="Go to the job" />
{:else if place && hold && surveyed}
  {@const known = hold}
  {@const here = surveyed}
  {@const spacing = hold.back.spacings[0]}
  <Workbench
    bind:wobble
    caption="{place.name}, the lining faded"
    keep={300}
    sideLabel="Answers"
    belowFirst={points.length > 0}
    about={lit ?? ''}
  >
    {#snippet picture(height: number)}
      <h1 class="print-only">{open.stored?.job.name} · {place.name} · drilling list</h1>
      <PlaceDrawing
        {place}
        surveyed={here}
        room={height}
        title="{place.name}: studs and screws"
        {base}
        backReference={fit?.plan?.back_line?.value_mm ?? null}
        upright={[]}
        {long}
        {lit}
        exaggeration={wobble}
        onpick={pick}
        onspot={touched}
        figures={false}
        {onface}
      />
    {/snippet}
    {#snippet below()}
      <Panes
        label="Parts of the hold"
        names={PANES}
        chosen={pane}
        counts={{
          'Drilling list': points.length,
          'Rests and joins':
            known.held.filter((h) => h.ledger || h.batten || h.ground).length + known.cleats.length,
          Overhead: known.overhead.length,
        }}
        onpick={(n) => (pane = n)}
      />
      {#if pane === 'Drilling list'}
        <h2>Drilling list <small class="stop">⚠ detect, isolate, then drill</small></h2>
        {#if points.length}
          <DrillList
            {points}
            {name}
            {lit}
            met={(q) => metAt(q, found)?.sees ?? null}
            onpick={pick}
            onmet={(q, sees) => void met(q, sees)}
          />
        {:else}
          <p class="quiet">
            {known.held.length
              ? 'No screw can be placed yet: find the studs, or take what stands beside each unit.'
              : 'Fit comes first: once the units stand, their screws are placed on the studs that you find.'}
          </p>
        {/if}
        {#each known.plates as plate, i (i)}<p class="mind">{plate.text}</p>{/each}
        <div class="print-only">
          <Rests hold={known} {name} />
          {#if known.overhead.length}<OverheadPane hold={known} {name} />{/if}
        </div>
      {:else if pane === 'Rests and joins'}
        <Rests hold={known} {name} />
      {:else if pane === 'Overhead'}
        <OverheadPane hold={known} {name} />
      {:else if pane === 'Flatten'}
        <FurringPane {job} place={key} high={place.height_mm} known={known.back} />
      {:else}
        <GridPane high={place.height_mm} wide={place.width_mm} />
      {/if}
    {/snippet}
    {#snippet side()}
      {#if chosen}
        <h2>Screw {chosen.order}, {name(chosen.unit)}</h2>
        <ScrewSection point={chosen} {backing} />
      {/if}
      <h2>What is behind it</h2>
      <p class="quiet">
        {#if backing.kind === 'masonry'}Anchors hold wherever the wall is sound; keep them from edges and
          joints.
        {:else if !known.back.lines.length}Nothing found yet: walk the rail's height with a scanner and check
          with a magnet; touch the drawing where you find something.{:else}
          {known.back.lines.length} studs, {spacing?.mm
            ? `${showLength(spacing.mm, unit, 0)} apart (${Math.floor(spacing.weight * 100)} %)`
            : 'standing anyhow'}.
        {/if}
      </p>
      <FoundForm
        surfaces={place.surfaces}
        {found}
        {waits}
        {at}
        onat={(next) => (at = next)}
        onfound={(d) => void find(d)}
        ontake={(id) => void take(id)}
      />
      <details class="no-print" bind:open={asking}>
        <summary>What the walls are made of</summary>
        <BackingForm
          of="walls"
          {backing}
          vehicle={place.kind === 'vehicle'}
          onput={(part) => void put('walls', part)}
        />
      </details>
      {#each ['ceiling', 'floor'] as const as of (of)}
        {#if place.surfaces.includes(of)}
          <details class="no-print">
            <summary>What the {of} is made of</summary>
            <BackingForm
              {of}
              backing={backings[of]}
              vehicle={place.kind === 'vehicle'}
              onput={(part) => void put(of, part)}
            />
          </details>
        {/if}
      {/each}
      <Answers findings={known.findings} {lit} onpick={pickFinding} marked />
      {#each known.held.filter((h) => h.fasteners.length) as h, i (i)}
        <details class="no-print">
          <summary>{name(h.unit)}: how {Math.ceil(h.use * 100)} % comes about</summary>
          <meter min="0" max="1" high="0.9" optimum="0" value={Math.min(1, h.use)}
            >{Math.ceil(h.use * 100)} % of a screw's capacity</meter
          >
          {#each h.working.slice(1) as step, i (i)}<p class="quiet">{step}</p>{/each}
        </details>
      {/each}
      <p class="quiet">
        Planning figures, by the dowel equations with the gap of packing and lining; the makers of screws and
        anchors and the local code go first. Wiring, gas and structure are for the licensed trades.
      </p>
    {/snippet}
  </Workbench>
{/if}

<style>
  h2 {
    font-size: 0.9375rem;
    margin: 0.25rem 0;
  }
  p {
    font-size: 0.8125rem;
    margin-bottom: 0.5rem;
  }
  summary {
    cursor: pointer;
    padding: 0.5rem 0;
    font-weight: 600;
    font-size: 0.875rem;
  }
  meter {
    width: 100%;
    height: 10px;
  }
</style>
