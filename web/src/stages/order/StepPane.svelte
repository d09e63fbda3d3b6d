<!-- One step: why, how, what it needs and what waits for it; a clock, a tick; its turn. On a phone it fills the screen. -->
<script lang="ts">
  import { onMount, type Snippet } from 'svelte';
  import type { Person, Place, PlannedStep, Wait } from '../../api/types';
  import LengthField from '../../entry/LengthField.svelte';
  import { after, sayMinutes, sayWhen } from './order';
  import PlaceStrip from './PlaceStrip.svelte';
  import { minutesOf, ranMs, readClock, started, stopped, writeClock, type Clock } from './timer';

  interface Props {
    job: string;
    step: PlannedStep;
    steps: readonly PlannedStep[];
    place: Place | undefined;
    people: readonly Person[];
    ticked: boolean;
    /** The step that is next in the order, if any. */
    next: PlannedStep | null;
    onpick: (key: string) => void;
    ondone: (minutes: number | null, known: Map<string, number | null>) => void;
    onundo: () => void;
    onbefore: (other: string) => void;
    ondrop: () => void;
    onnote: (kind: 'seen' | 'went wrong' | 'agreed' | 'open', text: string) => void;
    onclose: () => void;
    more?: Snippet;
  }
  let p: Props = $props();
  const s = $derived(p.step.step);
  const waits = $derived(after(s.key, p.steps));
  const named = (key: string) => p.steps.find((x) => x.step.key === key)?.step.name ?? key;
  const who = (ids: readonly string[]) =>
    ids.map((id) => p.people.find((x) => x.id === id)?.name ?? 'you').join(' and ');
  const SORTS: Record<string, string> = {
    trap: 'it would be walled in',
    gate: 'it opens the way',
    trade: '',
    'way in': 'its way in',
    dries: 'dry first',
    said: 'you said so',
  };
  const done = $derived(p.step.state === 'done' || p.ticked);

  let clock = $state<Clock | null>(null);
  let now = $state(Date.now());
  const mine = $derived(clock?.step === s.key ? clock : null);
  const ran = $derived(mine ? Math.floor(ranMs(mine, now) / 1000) : 0);
  const clockText = $derived(`${Math.floor(ran / 60)}:${String(ran % 60).padStart(2, '0')}`);
  function turnClock() {
    now = Date.now();
    clock = mine?.since ? stopped(mine, now) : started(clock, s.key, now);
    writeClock(p.job, clock);
  }
  onMount(() => {
    clock = readClock(p.job);
    const beat = setInterval(() => (now = Date.now()), 1000);
    return () => clearInterval(beat);
  });

  let known = $state<Record<string, number | null>>({});
  const asks = $derived((s.opens ?? []) as Wait[]);
  const open = $derived(asks.filter((w) => w.measured && !known[w.key]));
  function finish() {
    const minutes = mine && ran > 20 ? minutesOf(mine, Date.now()) : null;
    if (mine) writeClock(p.job, (clock = null));
    p.ondone(minutes, new Map(asks.map((w) => [w.key, known[w.key] ?? null])));
  }

  let note = $state('');
  let kind = $state<'seen' | 'went wrong' | 'agreed' | 'open'>('went wrong');
  function keepNote() {
    if (!note.trim()) return;
    p.onnote(kind, note.trim());
    note = '';
  }
  let turning = $state(false);
  const others = $derived(
    p.steps.filter((x) => x.step.key !== s.key && x.state !== 'done' && x.step.place === s.place),
  );
</script>

<div class="step">
  <div class="top">
    <h2>{s.name}</h2>
    <button class="close no-print" aria-label="Close" onclick={p.onclose}>×</button>
  </div>
  <p class="when">
    {#if done}
      <b class="fine">done</b>
    {:else if p.step.state === 'not placed'}
      <b class="stop">in no session</b>
    {:else if p.step.stretches?.length}
      {#each p.step.stretches.slice(0, 4) as x, i (i)}{i ? '; ' : ''}{sayWhen(x.start)}{x.people.length
          ? `, ${who(x.people)}`
          : ''}{/each}
    {:else if p.step.state === 'ready'}
      may begin now
    {/if}
    · {sayMinutes(p.step.minutes || s.minutes || 0)}{(s.people ?? 1) > 1 ? ', two people' : ''}
  </p>
  {#if p.place}<PlaceStrip place={p.place} steps={p.steps} step={p.step} />{/if}
  {#if s.caution}<p class="caution stop">⚠ {s.caution}</p>{/if}
  {#if p.step.state === 'dries' && p.step.free_from}
    <p class="mind">What it waits for is dry {sayWhen(p.step.free_from)}.</p>
  {/if}
  {#if p.step.stand_in}<p>Alone: {p.step.stand_in}.</p>{/if}
  {#if s.how?.length}
    <ul class="how">
      {#each s.how as line, i (i)}<li>{line}</li>{/each}
    </ul>
  {/if}
  {#if s.bring?.length}<p class="bring"><b>Bring</b> {s.bring.join(' · ')}</p>{/if}
  {#if s.rests_h}<p>Then {s.rests_h} h until it is dry ({s.rests_why}).</p>{/if}
  {#if s.why}<p class="quiet">Because {s.why}.</p>{/if}

  {#if !done}
    {#if asks.length}
      <div class="asks no-print">
        {#each asks as w (w.key)}
          {#if w.measured}
            <LengthField
              label={w.words}
              value={known[w.key] ?? null}
              optional
              least={1}
              onchange={(mm) => (known = { ...known, [w.key]: mm })}
            />
          {/if}
        {/each}
      </div>
    {/if}
    <div class="act no-print">
      <button class="big" disabled={open.length > 0} onclick={finish}
        >{open.length ? `Measure ${open.length === 1 ? 'it' : `all ${open.length}`} first` : 'Done'}</button
      >
      <button class="clock" aria-pressed={!!mine?.since} onclick={turnClock}
        >{mine?.since ? 'Stop' : 'Start'} the clock
        <span class="figure">{mine ? clockText : ''}</span></button
      >
    </div>
  {:else if p.ticked}
    <p class="no-print"><button class="link" onclick={p.onundo}>Take the tick back</button></p>
  {/if}
  {#if p.next && done}
    <p class="no-print">
      Next: <button class="link" onclick={() => p.next && p.onpick(p.next.step.key)}
        >{p.next.step.name}</button
      >
    </p>
  {/if}

  {@render p.more?.()}

  {#if p.step.before.length}
    <h3>Before it</h3>
    <ul>
      {#each p.step.before as t, i (i)}
        <li>
          <button class="link" onclick={() => p.onpick(t.first)}>{named(t.first)}</button>
          <span class="quiet">{t.why}{SORTS[t.kind] ? ` (${SORTS[t.kind]})` : ''}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if waits.length}
    <h3>Waits for it</h3>
    <ul>
      {#each waits.slice(0, 12) as w (w.step.step.key)}
        <li>
          <button class="link" onclick={() => p.onpick(w.step.step.key)}>{w.step.step.name}</button>
          <span class="quiet">{w.tie.why}</span>
        </li>
      {/each}
      {#if waits.length > 12}<li class="quiet">and {waits.length - 12} more</li>{/if}
    </ul>
  {/if}

  <div class="note no-print">
    <label
      >Note
      <select bind:value={kind} aria-label="What sort of note">
        <option value="went wrong">went wrong, and why</option>
        <option value="agreed">agreed</option>
        <option value="open">open for the next job</option>
        <option value="seen">seen</option>
      </select>
    </label>
    <textarea rows="2" bind:value={note} aria-label="Note"></textarea>
    <button class="link" disabled={!note.trim()} onclick={keepNote}>Keep the note</button>
  </div>
  {#if !done}
    <p class="turn no-print">
      {#if turning}
        <label
          >Do it before
          <select
            aria-label="Do it before"
            onchange={(e) => {
              turning = false;
              if (e.currentTarget.value) p.onbefore(e.currentTarget.value);
            }}
          >
            <option value="">choose a step</option>
            {#each others as o (o.step.key)}<option value={o.step.key}>{o.step.name}</option>{/each}
          </select>
        </label>
      {:else}
        <button class="link" onclick={() => (turning = true)}>Do it before…</button>
      {/if}
      <button class="link" onclick={p.ondrop}>Leave it out</button>
    </p>
  {/if}
</div>

<style>
  .top {
    display: flex;
    justify-content: space-between;
    gap: 0.5rem;
  }
  h2 {
    font-size: 1.0625rem;
    margin: 0;
  }
  h3 {
    font-size: 0.875rem;
    margin: 0.8rem 0 0.1rem;
  }
  .close {
    background: none;
    border: 0;
    font-size: 1.4rem;
    color: var(--w-ink-soft);
    min-width: 40px;
    min-height: 40px;
    cursor: pointer;
  }
  p,
  li {
    font-size: 0.875rem;
    margin: 0.3rem 0;
  }
  .fine {
    color: var(--w-fine);
  }
  ul {
    margin: 0.2rem 0;
    padding-left: 1.1rem;
  }
  .how {
    list-style: square;
  }
  .how li {
    line-height: 1.4;
    font-variant-numeric: tabular-nums;
    margin: 0.1rem 0;
  }
  .bring {
    border-left: 3px solid var(--w-wood-edge);
    padding-left: 0.5rem;
  }
  .act {
    display: flex;
    gap: 0.5rem;
    margin: 0.6rem 0;
  }
  .act button {
    min-height: 48px;
    border-radius: var(--w-radius);
    cursor: pointer;
    font-size: 0.9375rem;
  }
  .big {
    flex: 1;
    background: var(--w-chalk);
    color: var(--w-on-ink);
    border: 0;
    font-weight: 700;
  }
  .big:disabled {
    background: none;
    color: var(--w-ink-soft);
    border: 1px dashed var(--w-line-strong);
  }
  .clock {
    background: none;
    border: 1px solid var(--w-line-strong);
    color: var(--w-ink);
    padding: 0 0.7rem;
  }
  .clock[aria-pressed='true'] {
    border-color: var(--w-chalk);
    background: var(--w-chalk-wash);
  }
  .note {
    margin-top: 0.8rem;
    border-top: 1px solid var(--w-line);
    padding-top: 0.5rem;
  }
  textarea {
    width: 100%;
    background: var(--w-page);
    color: var(--w-ink);
    border: 1px solid var(--w-line-strong);
    font: inherit;
    padding: 0.3rem;
    margin-top: 0.3rem;
  }
  select {
    background: var(--w-page);
    color: var(--w-ink);
    border: 1px solid var(--w-line-strong);
    min-height: 34px;
    max-width: 100%;
  }
  label {
    font-size: 0.8125rem;
  }
  .turn {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1rem;
  }
</style>
