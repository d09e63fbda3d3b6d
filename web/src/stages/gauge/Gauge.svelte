<script lang="ts">
  import { onMount } from 'svelte';
  import type { Reading, SurfaceName } from '../../api/types';
  import Views from '../../drawing/Views.svelte';
  import Find from './forms/Find.svelte';
  import PhotoTaker from '../../shell/PhotoTaker.svelte';
  import Notes from './forms/Notes.svelte';
  import PlaceDrawing from '../../drawing/PlaceDrawing.svelte';
  import { facePx, PROUD, xPx, yPx, zPx, type Found, type Layout } from '../../drawing/layout';
  import { longTicks, type Tick } from '../../drawing/rods';
  import { middle, valueAt } from '../../drawing/shape';
  import { showLength, showSpread } from '../../entry/length';
  import { SURFACE_NAMES, spotWords } from '../../entry/places';
  import NumberPad from '../../entry/NumberPad.svelte';
  import Missing from '../../shell/Missing.svelte';
  import Workbench from '../../shell/Workbench.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { practising } from '../../state/practising.svelte';
  import { session } from '../../state/session.svelte';
  import { waiting } from '../../state/waiting.svelte';
  import { tools } from '../practice/tools';
  import GaugeAnswers from './GaugeAnswers.svelte';
  import Legend from './Legend.svelte';
  import LineChoice from './forms/LineChoice.svelte';
  import OtherReading from './forms/OtherReading.svelte';
  import ReadingList from './ReadingList.svelte';
  import { Round } from './round.svelte';
  import Seen from './Seen.svelte';
  import SetAside from './forms/SetAside.svelte';
  import StationCard from './StationCard.svelte';
  import StationMarks from './StationMarks.svelte';
  import Traits from './Traits.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally
  const round = new Round(params['job'] ?? '', params['place'] ?? '');

  let pad = $state<NumberPad>();
  let choice = $state<LineChoice>();
  let list = $state<HTMLElement>();
  let wobble = $state(20);
  let lit = $state<string | null>(null);
  let pointed = $state<string | null>(null);
  let other = $state(false);
  let finding = $state(false);
  let view = $state<'unfolded' | 'cut' | 'plan'>('unfolded');
  let doubtful = $state.raw<Reading | null>(null);

  const unit = $derived(open.units);
  const place = $derived(round.place);
  const surveyed = $derived(round.surveyed);
  const instruments = $derived(open.stored?.job.instruments ?? []);
  const HINTS = {
    floor: 'down from the line',
    ceiling: 'up from the line',
    back: 'from the plane to the wall',
    left: 'from the plane to the left wall',
    right: 'from the plane to the right wall',
    span: 'from the floor to the ceiling',
  };
  const upright = $derived<Tick[]>([
    { id: 'mark', at: 0, label: '0', kind: 'place', what: 'The mark' },
    ...[...new Set(round.stations.filter((s) => s.surface === 'back').map((s) => s.at[1]))].map(
      (z): Tick => ({
        id: `z-${z}`,
        at: z,
        label: showLength(z, unit, 0),
        kind: 'found',
        what: 'Height of a row of stations',
      }),
    ),
  ]);

  /** What is known of the spot under the pointer: from the middle of its surface, proud or hollow. */
  function told(found: Found): string | null {
    const shape = surveyed?.surfaces.find((s) => s.surface === found.surface);
    if (!shape?.n_readings) return null;
    const here = valueAt(shape, ...found.at);
    const by = (here.mean - middle(shape)) * PROUD[found.surface];
    const side = by < 0 ? 'hollow' : 'proud';
    return `${SURFACE_NAMES[found.surface]}, ${spotWords(found.surface, found.at, unit)}: ${showLength(Math.abs(by), unit)} ${showSpread(here.sd, unit)} ${side}`;
  }

  /** Do something to the round, then be ready for the next number. */
  function then(act: () => void) {
    act();
    pad?.focus();
  }

  function again(reading: Reading) {
    if (reading.fact === 'offset') then(() => round.goto(reading.surface, reading.at));
    else other = true;
  }

  function toBest() {
    const best = surveyed?.next_reading;
    if (best)
      then(() => (round.best ? round.go(round.best) : round.goto(best.surface, best.at as [number, number])));
  }

  const here = inView();
  onMount(() => {
    keys.page = [
      { keys: ['Enter'], what: 'Record what is typed and walk on' },
      { keys: ['ArrowRight', ']'], what: 'Next station', run: () => round.step(1) },
      { keys: ['ArrowLeft', '['], what: 'Station before', run: () => round.step(-1) },
      { keys: ['b'], what: 'Go to the station that tells most', run: toBest },
      { keys: ['u'], what: 'Take the last reading back', run: () => void round.undo() },
      { keys: ['m'], what: 'The line was moved', run: () => choice?.ask() },
      { keys: ['r'], what: 'All readings', run: () => list?.scrollIntoView() },
      { keys: ['f'], what: 'The place unfolded', run: () => (view = 'unfolded') },
      { keys: ['c'], what: 'The place cut upright', run: () => (view = 'cut') },
      { keys: ['v'], what: 'The place in plan', run: () => (view = 'plan') },
      { keys: ['n'], what: 'Found something, or a note', run: () => (finding = true) },
      { keys: ['l'], what: 'Another reading: a level, or across', run: () => (other = true) },
    ];
    void round.load().then(() => {
      if (!here()) return;
      document.title = `Gauge · ${open.place(round.key)?.name ?? ''} · Wobble`;
      pad?.focus();
    });
    const deaf = waiting.onArrival((job) => void (job === round.job && round.arrived()));
    practising.tools = tools(round, () => pad);
    return () => {
      practising.tools = null;
      deaf();
      round.leave();
    };
  });
</script>

{#snippet onface(surface: SurfaceName, l: Layout)}
  {#if surface === 'back' || surface === 'floor'}
    {#each place?.units ?? [] as u (u.id)}
      {@const tall = surface === 'back' ? u.height_mm : u.depth_mm}
      <rect
        class="ghost"
        x={xPx(l, u.x_mm)}
        y={surface === 'back' ? zPx(l, tall) : yPx(l, 0)}
        width={u.width_mm * l.scale}
        height={tall * l.scale}
      />
    {/each}
  {/if}
  <StationMarks
    {surface}
    stations={round.stations}
    loose={round.loose(surface)}
    target={round.target}
    best={round.best?.id ?? null}
    suspects={round.suspects}
    pending={round.pendingStations}
    toPx={(u, v) => facePx(l, surface, u, v)}
    onpick={(s) => then(() => round.go(s))}
  />
{/snippet}

{#if open.missing || (open.stored && !place)}
  <Missing what="place" to="/jobs/{round.job}" way="Go to the job" />
{:else if place && surveyed}
  <Workbench
    bind:wobble
    caption={pointed ?? 'from the high spot down, and from the middle of each wall'}
    keep={150}
    sideLabel="Take readings"
    about={round.target ? `${round.target.surface} ${round.target.at.join(' ')}` : ''}
  >
    {#snippet picture(room: number)}
      <h1 class="print-only">{open.stored?.job.name} · {place.name} · survey</h1>
      <Views bind:view {place} {surveyed} {room} exaggeration={wobble}>
        {#snippet unfolded(height: number)}
          <PlaceDrawing
            place={{ ...place, obstacles: round.obstacles }}
            {surveyed}
            room={height}
            title="{place.name}: stations and what they say"
            base={null}
            backReference={null}
            {upright}
            long={longTicks(place, unit)}
            {lit}
            exaggeration={wobble}
            onpick={(id) => (lit = lit === id ? null : id)}
            onpoint={(found) => (pointed = found ? told(found) : null)}
            onspot={(found) => then(() => round.goto(found.surface, found.at))}
            {onface}
          />
        {/snippet}
      </Views>
    {/snippet}
    {#snippet below()}
      <Legend />
      <Notes notes={place.notes ?? []} waiting={round.pendingNotes} />
      <PhotoTaker job={round.job} place={round.key} about={lit ?? ''} of={place.name} />
      <Traits job={round.job} place={round.key} {surveyed} {instruments} readings={place.readings} />
      <section class="list" bind:this={list} aria-label="Readings">
        <h2>Readings</h2>
        <ReadingList
          {place}
          {surveyed}
          waiting={round.pending}
          onagain={again}
          onaside={(r) => (doubtful = r)}
          onback={(r) => void round.putBack(r)}
          ondrop={(r) => void waiting.take(r.id)}
        />
        {#if !place.readings.length && !round.pending.length}
          <p class="quiet">None yet. Type the first one and press Enter.</p>
        {/if}
      </section>
    {/snippet}
    {#snippet side()}
      <div class="entry no-print">
        <StationCard {round} />
        {#if round.target}
          <LineChoice
            spans={round.spans}
            bind:this={choice}
            {place}
            {surveyed}
            surface={round.target.surface}
            line={round.line}
            {instruments}
            instrument={round.instrument}
            online={(id) => then(() => round.choose(id))}
            oninstrument={(id) => (round.instrument = id)}
          />
          <NumberPad
            bind:this={pad}
            label={HINTS[round.spans ? 'span' : round.target.surface]}
            hint={HINTS[round.spans ? 'span' : round.target.surface]}
            disabled={!round.instrument || !(round.line || round.spans)}
            onenter={(mm, typed) => void round.record(mm, typed)}
          />
        {/if}
        <div class="said" aria-live="polite">
          {#if round.last}
            {@const v = round.lastVerdict}
            <p class:doubted={v?.verdict === 'take again'}>
              Recorded <span class="figure">{round.last.entered}</span>{#if !v}, waiting for the others{:else if v.verdict === 'agrees'}:
                it agrees{:else}: it stands <span class="figure">{showLength(Math.abs(v.by_mm), unit)}</span> from
                what the others say{/if}.
              {#if round.canUndo}<button class="link" onclick={() => void round.undo()}>Undo</button>{/if}
            </p>
          {/if}
        </div>
        <div>
          <Seen {place} {surveyed} readings={place.readings} onagain={again} />
          <GaugeAnswers {round} onagain={again} onbest={toBest} />
        </div>
        <div class="more">
          <button class="link" onclick={() => list?.scrollIntoView()}
            >All readings <span class="figure">{place.readings.length}</span></button
          >
          <button class="link" onclick={() => (other = true)}>Level, or across…</button>
          <button class="link" onclick={() => (finding = true)}>Found…</button>
        </div>
      </div>
    {/snippet}
  </Workbench>

  {#if doubtful}
    <SetAside
      onclose={() => (doubtful = null)}
      onaside={(reason) => {
        const reading = doubtful;
        doubtful = null;
        if (reading) void round.setAside(reading, reason);
      }}
    />
  {/if}
  {#if finding}
    <Find
      {place}
      by={session.name}
      from={round.target}
      onclose={() => (finding = false)}
      onobstacle={(m) => void waiting.keep(round.job, round.key, m)}
      onnote={(n) => void waiting.keep(round.job, round.key, n)}
    />
  {/if}
  {#if other}
    <OtherReading
      {place}
      job={round.job}
      {instruments}
      instrument={round.instrument}
      by={session.name}
      from={round.target}
      onclose={() => (other = false)}
      onreading={(r) => void round.add(r)}
      onphone={() => round.withPhone()}
    />
  {/if}
{/if}

<style>
  .ghost {
    fill: var(--w-unit);
    fill-opacity: 0.28;
    stroke: var(--w-ink);
    stroke-opacity: 0.5;
    stroke-dasharray: 5 4;
    pointer-events: none;
  }
  .list {
    max-width: 46rem;
  }
  .list h2 {
    font-size: 0.9375rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.4rem;
  }
  .entry {
    display: flex;
    flex-direction: column;
    gap: 0.6rem;
  }
  /* a phone on its side: where one is and what is typed at the left, the keys at the right */
  @media (max-width: 900px) and (max-height: 480px) {
    .entry {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
      align-items: start;
    }
    .entry :global(.pad) {
      grid-column: 2;
      grid-row: 1 / 6;
    }
  }
  .doubted {
    color: var(--w-stop);
  }
  .said {
    min-height: 1.4rem;
    font-size: 0.9375rem;
  }
  .more {
    display: flex;
    justify-content: space-between;
    border-top: 1px solid var(--w-line);
    padding-top: 0.4rem;
  }
</style>
