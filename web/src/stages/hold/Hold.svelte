<!-- Hold: what lies behind the lining, and how every unit is fastened to it. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { Backing, BayFit, BayHold, Detection, Held, Place, SurfaceName } from '../../api/types';
  import { Button, Select, SelectItem } from '../../carbon';
  import BayDrawing from '../../drawing/BayDrawing.svelte';
  import type { Layout } from '../../drawing/layout';
  import { longTicks, type Tick } from '../../drawing/rods';
  import { showLength } from '../../entry/length';
  import { newId } from '../../entry/ids';
  import LengthField from '../../entry/LengthField.svelte';
  import Answer from '../../shell/Answer.svelte';
  import Missing from '../../shell/Missing.svelte';
  import Wide from '../../shell/Wide.svelte';
  import Workbench from '../../shell/Workbench.svelte';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { notices } from '../../state/notices.svelte';
  import HoldMarks from './HoldMarks.svelte';
  import ScrewSection from './ScrewSection.svelte';

  let { params }: { params: Record<string, string> } = $props();
  const job = $derived(params['job'] ?? '');
  const key = $derived(params['bay'] ?? '');
  const BACKING: Backing = {
    kind: 'wood studs',
    lining_mm: 12.5,
    stud_mm: 45,
    deep_mm: 90,
    wood: 'spruce-pine-fir',
    clear_mm: 50,
  };
  const KINDS = ['wood studs', 'metal studs', 'masonry', 'lath and plaster', 'ribs and battens'] as const;
  const METHODS = ['scanner', 'magnet', 'knock', 'trial hole', 'nail seen'] as const;
  const SEES = ['centre', 'left edge', 'right edge', 'screw', 'hit', 'miss'] as const;

  let hold = $state.raw<BayHold | null>(null);
  let fit = $state.raw<BayFit | null>(null);
  let place = $state.raw<Place | null>(null);
  let lit = $state<string | null>(null);
  let wobble = $state(20);
  let method = $state<(typeof METHODS)[number]>('scanner');
  let sees = $state<(typeof SEES)[number]>('left edge');
  let along = $state<number | null>(null);
  let up = $state<number>(1200);

  const bay = $derived(open.bay(key));
  const unit = $derived(open.units);
  const backing = $derived(bay?.backing ?? BACKING);
  const base = $derived(fit?.plan?.base.tied ? fit.plan.base.height.value_mm : 0);
  const points = $derived((hold?.held ?? []).flatMap((h) => h.points));
  const chosen = $derived(points.find((q) => `screw-${q.order}` === lit) ?? null);
  const name = (id: string) => bay?.units.find((u) => u.id === id)?.name ?? id;
  const long = $derived<Tick[]>([
    ...(bay ? longTicks({ ...bay, units: [] }, unit) : []),
    ...(hold?.lines ?? []).map((line) => ({
      id: `stud-${line.at_mm.toFixed(0)}`,
      at: line.at_mm,
      label: showLength(line.at_mm, unit, 0),
      kind: 'found' as const,
      what: 'A stud',
    })),
  ]);

  async function look() {
    try {
      [hold, fit, place] = await Promise.all([
        calls.hold(job, key),
        fit ?? calls.fit(job, key),
        place ?? calls.gauge(job, key),
      ]);
    } catch (fault) {
      notices.refused(fault);
    }
  }
  async function change(send: Parameters<typeof open.change>[0]) {
    if (await open.change(send)) await look();
  }
  const find = (d: Pick<Detection, 'at' | 'method' | 'sees'>) =>
    change((id) =>
      calls.addDetections(id, key, [{ ...d, id: newId(), taken_at: new Date().toISOString(), taken_by: '' }]),
    );
  function add() {
    if (along === null) return;
    void find({ at: [along, up], method, sees });
    along = null;
  }
  const put = (part: Partial<Backing>) =>
    void change((id, revision) => calls.putBacking(id, key, revision, { ...backing, ...part }));
  const ledgerWords = (l: NonNullable<Held['ledger']>) =>
    `Ledger ${showLength(l.thick_mm, unit, 0)} thick, its top ${showLength(l.top_mm, unit)} up, from ${showLength(l.start_mm, unit, 0)} to ${showLength(l.end_mm, unit, 0)}; two screws of 8 × ${showLength(l.screw_mm, unit, 0)} into each of ${l.studs.length} studs carry ${Math.floor(l.carries_n)} N, of which it takes ${Math.ceil(l.use * 100)} %.`;
  const pick = (id: string | null) => (lit = lit === id ? null : id);

  onMount(() => {
    keys.page = [
      { keys: ['p'], what: 'Print the drilling list', run: () => print() },
      { keys: ['w', 'Escape'], what: 'Close the section', run: () => (lit = null) },
    ];
    void open.load(job).then(() => {
      document.title = `Hold · ${open.bay(key)?.name ?? ''} · Wobble`;
      if (open.bay(key)) void look();
    });
  });
</script>

{#snippet onface(surface: SurfaceName, l: Layout)}
  {#if surface === 'back' && bay && hold}
    <HoldMarks {l} {bay} {hold} units={fit?.units ?? bay.units} {base} {unit} {lit} onpick={pick} />
  {/if}
{/snippet}

{#if open.missing || (open.stored && !bay)}
  <Missing what="bay" to="/jobs/{job}" way="Go to the job" />
{:else if bay && hold && place}
  {@const known = hold}
  {@const here = place}
  {@const spacing = hold.spacings[0]}
  <Workbench bind:wobble caption="{bay.name}, the lining faded" keep={300} sideLabel="Answers">
    {#snippet picture(height: number)}
      <h1 class="print-only">{open.stored?.job.name} · {bay.name} · drilling list</h1>
      <BayDrawing
        {bay}
        place={here}
        {unit}
        room={height}
        title="{bay.name}: studs and screws"
        {base}
        backReference={fit?.plan?.back_line?.value_mm ?? null}
        upright={[]}
        {long}
        {lit}
        exaggeration={wobble}
        onpick={pick}
        figures={false}
        {onface}
      />
    {/snippet}
    {#snippet below()}
      <h2>Drilling list <small class="stop">⚠ detect, isolate, then drill</small></h2>
      {#if points.length}
        <Wide label="Drilling list">
          <table class="facts">
            <thead
              ><tr
                ><th>No.</th><th>Unit</th><th class="value">Along</th><th class="value">Up</th><th
                  class="value">Bites</th
                ><th class="value">Screw</th><th class="value">Packing</th><th class="no-print">It…</th><th
                  >First</th
                ></tr
              ></thead
            >
            <tbody>
              {#each points as q (q.order)}
                <tr class:lit={lit === `screw-${q.order}`}>
                  <td class="figure">{q.order}</td>
                  <td><button onclick={() => pick(`screw-${q.order}`)}>{name(q.unit)}</button></td>
                  <td class="value figure">{showLength(q.at[0] as number, unit, 0)}</td>
                  <td class="value figure">{showLength(q.at[1] as number, unit, 0)}</td>
                  <td class="value figure" class:stop={q.bites < 0.9}>{Math.floor(q.bites * 100)} %</td>
                  <td class="value figure">5 × {showLength(q.screw_mm, unit, 0)}</td>
                  <td class="value figure">{showLength(Math.max(0, q.packing.value_mm), unit)}</td>
                  <td class="no-print">
                    <span class="taps">
                      <button
                        class="chip"
                        aria-label="Screw {q.order} bit"
                        onclick={() => void find({ at: q.at, method: 'trial hole', sees: 'hit' })}>bit</button
                      >
                      <button
                        class="chip"
                        aria-label="Screw {q.order} missed"
                        onclick={() => void find({ at: q.at, method: 'trial hole', sees: 'miss' })}
                        >missed</button
                      >
                    </span>
                  </td>
                  <td>{q.check}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </Wide>
      {:else}
        <p class="quiet">
          {known.held.length
            ? 'No screw can be placed yet: find the studs, or take what stands beside each unit.'
            : 'Fit comes first: once the units stand, their screws are placed on the studs that you find.'}
        </p>
      {/if}
    {/snippet}
    {#snippet side()}
      {#if chosen}
        <h2>Screw {chosen.order}, {name(chosen.unit)}</h2>
        <ScrewSection point={chosen} {backing} {unit} />
      {/if}
      <h2>What is behind it</h2>
      <p class="quiet">
        {#if !known.lines.length}Nothing found yet: walk the rail's height with a scanner and check with a
          magnet.{:else}
          {known.lines.length} studs, {spacing?.mm
            ? `${showLength(spacing.mm, unit, 0)} apart (${Math.floor(spacing.weight * 100)} %)`
            : 'standing anyhow'}.
          {#if known.odd.length}{known.odd.length} of what was found fits no stud: a pipe, a batten?{/if}
        {/if}
      </p>
      <div class="fields no-print">
        <Select
          labelText="The wall is"
          size="sm"
          selected={backing.kind}
          on:change={(e: Event) => put({ kind: (e.target as HTMLSelectElement).value as Backing['kind'] })}
        >
          {#each KINDS as k (k)}<SelectItem value={k} text={k} />{/each}
        </Select>
        <LengthField
          label="Lining"
          value={backing.lining_mm}
          {unit}
          least={0}
          onchange={(mm) => put({ lining_mm: mm! })}
        />
        <LengthField
          label="Studs wide"
          value={backing.stud_mm}
          {unit}
          least={1}
          onchange={(mm) => put({ stud_mm: mm! })}
        />
        <LengthField
          label="Clear of services"
          value={backing.clear_mm}
          {unit}
          least={1}
          onchange={(mm) => put({ clear_mm: mm! })}
        />
      </div>
      <div class="fields no-print">
        <Select
          labelText="Found by"
          size="sm"
          selected={method}
          on:change={(e: Event) => (method = (e.target as HTMLSelectElement).value as typeof method)}
        >
          {#each METHODS as m (m)}<SelectItem value={m} text={m} />{/each}
        </Select>
        <Select
          labelText="It shows"
          size="sm"
          selected={sees}
          on:change={(e: Event) => (sees = (e.target as HTMLSelectElement).value as typeof sees)}
        >
          {#each SEES as s (s)}<SelectItem value={s} text={s} />{/each}
        </Select>
        <LengthField label="Along" value={along} {unit} optional onchange={(mm) => (along = mm)} />
        <LengthField label="Up" value={up} {unit} least={0} onchange={(mm) => (up = mm!)} />
        <Button size="small" disabled={along === null} on:click={add}>Found</Button>
      </div>
      {#each known.held as h (h.unit)}
        {#snippet use()}<span class="figure">{Math.ceil(h.use * 100)} %</span>{/snippet}
        <Answer
          mark={h.enough ? (h.instead ? 'mind' : 'fine') : h.points.length ? 'mind' : 'stop'}
          title="{name(h.unit)}: {h.points.length} screw{h.points.length === 1 ? '' : 's'}"
          text={[...h.working, h.instead, h.ledger ? ledgerWords(h.ledger) : ''].filter(Boolean).join(' ')}
          caution={h.caution}
          figure={h.points.length ? use : undefined}
        />
        {#if h.points.length}<meter min="0" max="1" high="0.9" optimum="0" value={Math.min(1, h.use)}
            >{Math.ceil(h.use * 100)} % of a screw's capacity</meter
          >{/if}
      {/each}
      <p class="quiet">
        Planning figures, by the dowel equations with the gap of packing and lining; the screws' maker and the
        local code go first. Wiring, gas and structure are for the licensed trades.
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
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
    align-items: end;
    margin-bottom: 0.75rem;
  }
  .stop {
    color: var(--w-stop);
  }
  .lit td {
    background: var(--w-chalk-wash);
  }
  .taps {
    display: flex;
    gap: 0.35rem;
  }
  meter {
    width: 100%;
    height: 10px;
  }
</style>
