<script lang="ts">
  import { onMount } from 'svelte';
  import type { Reading } from '../../api/types';
  import { Modal, TextInput } from '../../carbon';
  import BayDrawing from '../../drawing/BayDrawing.svelte';
  import { xPx, yPx, zPx, type Layout } from '../../drawing/layout';
  import { longTicks, type Tick } from '../../drawing/rods';
  import { showLength, showSpread } from '../../entry/length';
  import Measure from '../../entry/Measure.svelte';
  import NumberPad from '../../entry/NumberPad.svelte';
  import { spotWords, SURFACE_NAMES } from '../../entry/places';
  import { neighbour } from '../../entry/walk';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { session } from '../../state/session.svelte';
  import { waiting } from '../../state/waiting.svelte';
  import LineChoice from './LineChoice.svelte';
  import OtherReading from './OtherReading.svelte';
  import ReadingList from './ReadingList.svelte';
  import { Round } from './round.svelte';
  import StationMarks from './StationMarks.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally
  const round = new Round(params['job'] ?? '', params['bay'] ?? '');

  let pad = $state<NumberPad>();
  let choice = $state<LineChoice>();
  let wobble = $state(20);
  let lit = $state<string | null>(null);
  let listed = $state(false);
  let other = $state(false);
  let doubtful = $state.raw<Reading | null>(null);
  let reason = $state('');
  let tall = $state(800);

  const unit = $derived(open.units);
  const bay = $derived(round.bay);
  const place = $derived(round.place);
  const tools = $derived(open.stored?.job.instruments ?? []);
  const suspects = $derived((place?.verdicts ?? []).filter((v) => v.verdict === 'take again'));
  const readings = $derived(new Map((bay?.readings ?? []).map((r) => [r.id, r])));
  const number = $derived(round.stations.findIndex((s) => s.id === round.target?.station) + 1);
  const left = $derived(round.stations.filter((s) => !s.read_by && !round.pendingStations.has(s.id)).length);
  const best = $derived(place?.next_reading ?? null);
  const bestStation = $derived(round.stations.find((s) => s.id === best?.station));

  const stationReadings = $derived(new Set(round.stations.map((s) => s.read_by).filter(Boolean)));
  const standing = $derived(new Set((place?.verdicts ?? []).map((v) => v.reading)));
  const loose = (surface: 'floor' | 'back') =>
    (bay?.readings ?? []).flatMap((r) =>
      r.kind === 'offset' && r.surface === surface && standing.has(r.id) && !stationReadings.has(r.id)
        ? [{ id: r.id, at: r.at as [number, number], suspect: round.suspects.has(r.id) }]
        : [],
    );

  const long = $derived(bay ? longTicks(bay, unit) : []);
  const upright = $derived<Tick[]>([
    { id: 'mark', at: 0, label: '0', kind: 'place', what: 'The mark' },
    ...[...new Set(round.stations.filter((s) => s.surface === 'back').map((s) => s.at[1] as number))].map(
      (z): Tick => ({
        id: `z-${z}`,
        at: z,
        label: showLength(z, unit, 0),
        kind: 'found',
        what: 'Height of a row of stations',
      }),
    ),
  ]);

  function again(reading: Reading) {
    if (reading.kind === 'offset') round.goto(reading.surface, reading.at as [number, number]);
    listed = false;
    pad?.focus();
  }

  onMount(() => {
    keys.page = [
      { keys: ['Enter'], what: 'Record what is typed and walk on' },
      { keys: ['ArrowRight', ']'], what: 'Next station', run: () => step(1) },
      { keys: ['ArrowLeft', '['], what: 'Station before', run: () => step(-1) },
      {
        keys: ['b'],
        what: 'Go to the station that tells most',
        run: () => bestStation && round.go(bestStation),
      },
      { keys: ['u'], what: 'Take the last reading back', run: () => void round.undo() },
      { keys: ['m'], what: 'The line was moved', run: () => choice?.ask() },
      { keys: ['r'], what: 'All readings', run: () => (listed = !listed) },
      { keys: ['l'], what: 'Another reading: a level, or across', run: () => (other = true) },
    ];
    void round.load().then(() => {
      document.title = `Gauge · ${open.bay(round.key)?.name ?? ''} · Wobble`;
      pad?.focus();
    });
    const deaf = waiting.onArrival((job) => void (job === round.job && round.arrived()));
    return () => {
      deaf();
      round.leave();
    };
  });

  function step(by: 1 | -1) {
    const to = neighbour(round.stations, round.target?.station ?? null, by);
    if (to) round.go(to);
  }
</script>

<svelte:window bind:innerHeight={tall} />

{#snippet onwall(l: Layout)}
  {#each bay?.units ?? [] as u (u.id)}
    <rect
      class="ghost"
      x={xPx(l, u.x_mm)}
      y={zPx(l, u.height_mm)}
      width={u.width_mm * l.scale}
      height={u.height_mm * l.scale}
    />
  {/each}
  <StationMarks
    surface="back"
    stations={round.stations}
    loose={loose('back')}
    target={round.target}
    best={bestStation?.id ?? null}
    suspects={round.suspects}
    pending={round.pendingStations}
    toPx={(x, z) => [xPx(l, x), zPx(l, z)]}
    onpick={(s) => (round.go(s), pad?.focus())}
  />
{/snippet}
{#snippet onfloor(l: Layout)}
  {#each bay?.units ?? [] as u (u.id)}
    <rect
      class="ghost"
      x={xPx(l, u.x_mm)}
      y={yPx(l, 0)}
      width={u.width_mm * l.scale}
      height={u.depth_mm * l.scale}
    />
  {/each}
  <StationMarks
    surface="floor"
    stations={round.stations}
    loose={loose('floor')}
    target={round.target}
    best={bestStation?.id ?? null}
    suspects={round.suspects}
    pending={round.pendingStations}
    toPx={(x, y) => [xPx(l, x), yPx(l, y)]}
    onpick={(s) => (round.go(s), pad?.focus())}
  />
{/snippet}

{#snippet list()}
  {#if bay && place}
    <ReadingList
      {bay}
      {place}
      waiting={round.pending}
      {unit}
      onagain={again}
      onaside={(r) => ((doubtful = r), (reason = ''))}
      onback={(r) => void round.putBack(r)}
      ondrop={(r) => void waiting.take(r.id)}
    />
    {#if !bay.readings?.length && !round.pending.length}<p class="quiet">
        None yet. Type the first one and press Enter.
      </p>{/if}
  {/if}
{/snippet}

{#if open.missing || (open.stored && !bay)}
  <main class="alone">
    <h1>There is no such bay</h1>
    <p><a href="/jobs/{round.job}">Go to the job</a></p>
  </main>
{:else if bay && place}
  <main>
    <section class="picture" aria-label="The bay">
      <div class="bar">
        <span class="quiet">from the high spot down, and from the middle of the wall</span>
        <label class="wobble">
          wobble <span class="figure">×{wobble}</span>
          <input type="range" min="1" max="60" bind:value={wobble} aria-label="Exaggeration" />
        </label>
      </div>
      <BayDrawing
        {bay}
        {place}
        {unit}
        title="{bay.name}: stations and what they say"
        room={tall < 700 || tall > 1100 ? 560 : tall - 150}
        base={null}
        backReference={null}
        {upright}
        {long}
        {lit}
        exaggeration={wobble}
        onpick={(id) => (lit = lit === id ? null : id)}
        onspot={(surface, at) => (round.goto(surface, at), pad?.focus())}
        {onwall}
        {onfloor}
      />
      <p class="legend quiet">
        <svg width="16" height="12" aria-hidden="true"
          ><rect class="l-proud" width="16" height="12" /><rect
            width="16"
            height="12"
            fill="url(#hatch-proud)"
          /></svg
        >
        + proud
        <svg width="16" height="12" aria-hidden="true"
          ><rect class="l-hollow" width="16" height="12" /><rect
            width="16"
            height="12"
            fill="url(#hatch-hollow)"
          /></svg
        >
        − hollow
        <span><i class="l-read"></i> read</span> <span><i class="l-open"></i> open</span>
        <span class="l-cross">✕ measure again</span>
        <span>tap anywhere to measure there</span>
      </p>
      <div class="list">
        <h2>Readings</h2>
        {@render list()}
      </div>
    </section>

    <section class="entry" aria-label="Take readings">
      {#if round.target}
        <div class="card">
          <div class="where">
            <button class="step" onclick={() => step(-1)} aria-label="Station before">‹</button>
            <div>
              <h1>
                {SURFACE_NAMES[round.target.surface]}
                <span class="quiet"
                  >{number ? `${number} of ${round.stations.length}` : 'a spot of your own'}</span
                >
              </h1>
              <p class="figure spot">{spotWords(round.target.surface, round.target.at, unit)}</p>
            </div>
            <button class="step" onclick={() => step(1)} aria-label="Next station">›</button>
          </div>
          {#if round.here?.kind === 'offset'}
            <p class="here" class:doubted={round.suspects.has(round.here.id)}>
              Read <span class="figure">{showLength(round.here.value_mm, unit)}</span>{round.suspects.has(
                round.here.id,
              )
                ? ', which disagrees'
                : ''}.
              <label><input type="checkbox" bind:checked={round.replaces} /> the new one replaces it</label>
            </p>
          {/if}
        </div>
        <LineChoice
          bind:this={choice}
          {bay}
          {place}
          surface={round.target.surface}
          {unit}
          line={round.line}
          instruments={tools}
          instrument={round.instrument}
          online={(id) => (round.choose(id), pad?.focus())}
          oninstrument={(id) => (round.instrument = id)}
        />
        <NumberPad
          bind:this={pad}
          {unit}
          label="Distance from the line to the {round.target.surface}"
          hint={round.target.surface === 'floor' ? 'down from the line' : 'out from the line to the wall'}
          disabled={!round.line || !round.instrument}
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
            {#if round.canUndo}<button onclick={() => void round.undo()}>Undo</button>{/if}
          </p>
        {/if}
      </div>

      <div class="answers">
        {#each suspects as v (v.reading)}
          {@const r = readings.get(v.reading)}
          {#if r}
            <button class="answer stop" onclick={() => again(r)}>
              <b>Measure again <Measure mm={Math.abs(v.by_mm)} sd={v.sd_mm} {unit} /></b>
              <span>
                {r.kind === 'offset'
                  ? `${SURFACE_NAMES[r.surface]}, ${spotWords(r.surface, r.at as [number, number], unit)}`
                  : 'A level reading'} does not agree with its neighbours.{v.looks_like
                  ? ` It looks like a slip of ${v.looks_like}.`
                  : ''}
              </span>
            </button>
          {/if}
        {/each}
        {#if best && bestStation && best.station !== round.target?.station}
          <button class="answer next" onclick={() => (round.go(bestStation), pad?.focus())}>
            <b
              >Tells most <span class="figure"
                >{showSpread(best.worst_sd_now_mm, unit)} → {showSpread(best.worst_sd_then_mm, unit)}</span
              ></b
            >
            <span
              >{SURFACE_NAMES[bestStation.surface]}, {spotWords(
                bestStation.surface,
                bestStation.at as [number, number],
                unit,
              )}: no other reading makes the floor better known.</span
            >
          </button>
        {/if}
        {#if !suspects.length && standing.size > 3}
          <p class="answer fine">
            <b
              >{left ? `${left} stations to go` : 'The round is done'}
              <span class="figure">{standing.size}</span></b
            >
            <span
              >All {standing.size} readings agree.{left
                ? ''
                : ' Go on to Fit, or measure where you are in doubt.'}</span
            >
          </p>
        {/if}
      </div>
      <div class="more">
        <button onclick={() => (listed = true)}
          >All readings <span class="figure">{bay.readings?.length ?? 0}</span></button
        >
        <button onclick={() => (other = true)}>Level, or across…</button>
      </div>
    </section>
  </main>

  {#if listed}
    <Modal
      open
      passiveModal
      size="lg"
      hasScrollingContent
      modalHeading="All readings"
      on:close={() => (listed = false)}
    >
      {@render list()}
    </Modal>
  {/if}
  {#if doubtful}
    <Modal
      open
      size="sm"
      modalHeading="Set the reading aside"
      primaryButtonText="Set aside"
      primaryButtonDisabled={!reason.trim()}
      secondaryButtonText="Keep it"
      on:click:button--secondary={() => (doubtful = null)}
      on:close={() => (doubtful = null)}
      on:submit={() => {
        if (doubtful) void round.setAside(doubtful, reason.trim());
        doubtful = null;
      }}
    >
      <TextInput labelText="Why" placeholder="The rule stood on a pipe clip" bind:value={reason} />
      <p class="quiet small">It stays on record with your reason, and can be put back.</p>
    </Modal>
  {/if}
  {#if other}
    <OtherReading
      {bay}
      {unit}
      instruments={tools}
      instrument={round.instrument}
      by={session.name}
      onclose={() => (other = false)}
      from={round.target}
      onreading={(r) => void round.add(r)}
    />
  {/if}
{/if}

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 390px;
    min-height: calc(100vh - 50px);
  }
  .alone {
    display: block;
    max-width: 34rem;
    margin: 20vh auto 0;
    min-height: 0;
  }
  .picture {
    padding: 0.75rem 1rem;
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
  .ghost {
    fill: var(--w-unit);
    fill-opacity: 0.28;
    stroke: var(--w-ink);
    stroke-opacity: 0.5;
    stroke-dasharray: 5 4;
    pointer-events: none;
  }
  .legend {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    align-items: center;
    font-size: 0.8125rem;
    margin: 0.25rem 0 0;
  }
  .legend svg {
    margin-right: -0.5rem;
  }
  .l-proud {
    fill: var(--w-brass-fill);
    fill-opacity: 0.5;
  }
  .l-hollow {
    fill: var(--w-slate-fill);
    fill-opacity: 0.5;
  }
  .legend i {
    display: inline-block;
    width: 9px;
    height: 9px;
    border-radius: 50%;
    border: 1.5px solid var(--w-ink);
  }
  .l-read {
    background: var(--w-ink);
  }
  .legend i.l-open {
    border-style: dashed;
    background: var(--w-unit);
  }
  .l-cross {
    color: var(--w-stop);
  }
  .list {
    margin-top: 1rem;
    max-width: 46rem;
  }
  .list h2 {
    font-size: 0.9375rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.4rem;
  }
  .entry {
    background: var(--w-sheet);
    border-left: 1px solid var(--w-line);
    padding: 0.75rem 1rem 1.5rem;
    display: flex;
    flex-direction: column;
    gap: 0.75rem;
    min-width: 0;
  }
  .where {
    display: grid;
    grid-template-columns: 44px 1fr 44px;
    text-align: center;
    align-items: center;
  }
  .where h1 {
    font-size: 1.125rem;
  }
  .where h1 span {
    font-weight: 400;
  }
  .spot {
    font-size: 1.25rem;
    font-weight: 600;
  }
  .step {
    height: 52px;
    border: 1px solid var(--w-line);
    border-radius: var(--w-radius);
    background: none;
    color: var(--w-ink);
    font-size: 1.5rem;
    cursor: pointer;
  }
  .step:hover {
    background: var(--w-hover);
  }
  .here {
    margin-top: 0.4rem;
    font-size: 0.875rem;
    text-align: center;
  }
  .here label {
    white-space: nowrap;
  }
  .here input {
    accent-color: var(--w-chalk);
  }
  .doubted {
    color: var(--w-stop);
  }
  .said {
    min-height: 1.4rem;
    font-size: 0.9375rem;
  }
  .said button,
  .more button {
    background: none;
    border: 0;
    color: var(--w-chalk);
    cursor: pointer;
    padding: 0.2rem 0.4rem;
    min-height: 28px;
  }
  .said button:hover,
  .more button:hover {
    text-decoration: underline;
  }
  .answers {
    display: grid;
  }
  .answer {
    display: block;
    width: 100%;
    text-align: left;
    background: none;
    border: 0;
    border-top: 1px solid var(--w-line);
    padding: 0.6rem 0 0.6rem 1.4rem;
    color: var(--w-ink);
    position: relative;
    font-size: 0.875rem;
  }
  button.answer {
    cursor: pointer;
  }
  button.answer:hover {
    background: var(--w-hover);
  }
  .answer b {
    display: flex;
    justify-content: space-between;
    font-size: 1rem;
    font-weight: 650;
  }
  .answer::before {
    content: '';
    position: absolute;
    left: 0.1rem;
    top: 0.95rem;
    width: 11px;
    height: 11px;
    background: var(--w-fine);
    border-radius: 50%;
  }
  .answer.stop::before {
    background: var(--w-stop);
    border-radius: 0;
  }
  .answer.next::before {
    background: var(--w-brass);
    border-radius: 0;
    clip-path: polygon(0 100%, 50% 0, 100% 100%);
  }
  .more {
    display: flex;
    justify-content: space-between;
    border-top: 1px solid var(--w-line);
    padding-top: 0.4rem;
  }
  .small {
    font-size: 0.875rem;
    margin-top: 0.5rem;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      min-height: 0;
    }
    .picture {
      padding: 0.3rem 0.4rem 0;
    }
    .bar .quiet,
    .list,
    .legend {
      display: none;
    }
    .bar {
      justify-content: flex-end;
    }
    .entry {
      border-left: 0;
      border-top: 1px solid var(--w-line);
      padding: 0.5rem 0.6rem 1rem;
      gap: 0.5rem;
    }
  }
</style>
