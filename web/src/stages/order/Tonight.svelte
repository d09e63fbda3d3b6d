<!-- Tonight: so many minutes, so many hands; the list that fits, drawn on one stick. -->
<script lang="ts">
  import type { AskedTonight, Person, PlannedStep } from '../../api/types';
  import Wood from '../../drawing/Wood.svelte';
  import { sayMinutes } from './order';

  interface Props {
    asked: AskedTonight | null;
    minutes: number;
    people: readonly Person[];
    there: readonly string[];
    ticked: ReadonlySet<string>;
    lit: string | null;
    onask: (minutes: number, there: string[]) => void;
    onpick: (key: string) => void;
    ondone: (step: PlannedStep) => void;
  }
  let { asked, minutes, people, there, ticked, lit, onask, onpick, ondone }: Props = $props();
  const CHOICES = [30, 60, 90, 120, 180, 240, 420];
  let width = $state(600);
  const steps = $derived(new Map((asked?.steps ?? []).map((s) => [s.step.key, s])));
  const list = $derived((asked?.tonight.steps ?? []).flatMap((k) => steps.get(k) ?? []));
  const begun = $derived(steps.get(asked?.tonight.begun ?? ''));
  const frees = $derived((asked?.tonight.frees ?? []).flatMap((k) => steps.get(k) ?? []));
  const stand = $derived(new Map(asked?.tonight.stand_ins ?? []));
  const scale = $derived((width - 4) / Math.max(minutes, 1));
  const spans = $derived.by(() => {
    let at = 0;
    const all = begun ? [...list, { ...begun, minutes: asked?.tonight.begun_minutes ?? 0 }] : list;
    return all.map((s, i) => {
      const from = at;
      at += s.minutes ?? 0;
      return { s, n: i + 1, x: from * scale, w: (s.minutes ?? 0) * scale };
    });
  });
  const toggle = (id: string) =>
    onask(minutes, there.includes(id) ? there.filter((p) => p !== id) : [...there, id]);
</script>

<div class="ask no-print" role="group" aria-label="What there is tonight">
  <span>I have</span>
  {#each CHOICES as n (n)}
    <button aria-pressed={n === minutes} onclick={() => onask(n, [...there])}>{sayMinutes(n)}</button>
  {/each}
  {#if people.length > 1}
    <span>and</span>
    {#each people as p (p.id)}
      <button aria-pressed={there.includes(p.id)} onclick={() => toggle(p.id)}>{p.name}</button>
    {/each}
  {/if}
</div>

{#if asked}
  <div class="stick" bind:clientWidth={null, (wide) => (width = wide || width)}>
    <svg {width} height="44" aria-hidden="true">
      <Wood box={{ x: 0, y: 6, w: minutes * scale, h: 30 }} way="long" />
      {#each spans as span (span.s.step.key)}
        <rect class:lit={lit === span.s.step.key} x={span.x} y="6" width={Math.max(span.w, 1)} height="30" />
        <path d="M{span.x},6l4,6l-4,6" />
        {#if span.w > 14}<text x={span.x + span.w / 2} y="26" text-anchor="middle">{span.n}</text>{/if}
      {/each}
    </svg>
  </div>
  {#if list.length || begun}
    <ol>
      {#each list as s, i (s.step.key)}
        <li class:lit={lit === s.step.key} class:done={ticked.has(s.step.key)}>
          <b class="figure n">{i + 1}</b>
          <button class="what" onclick={() => onpick(s.step.key)}>
            <span>{s.step.name}</span>
            <small>{stand.get(s.step.key) ? `alone: ${stand.get(s.step.key)}` : s.step.why}</small>
          </button>
          <span class="figure">{sayMinutes(s.minutes ?? 0)}</span>
          <button class="tick no-print" disabled={ticked.has(s.step.key)} onclick={() => ondone(s)}
            >{ticked.has(s.step.key) ? 'Done ✓' : 'Done'}</button
          >
        </li>
      {/each}
      {#if begun}
        <li class:lit={lit === begun.step.key}>
          <b class="figure n">{list.length + 1}</b>
          <button class="what" onclick={() => onpick(begun.step.key)}>
            <span>Begin: {begun.step.name}</span>
            <small>it may be left half done, and gone on with another day</small>
          </button>
          <span class="figure"
            >{sayMinutes(asked.tonight.begun_minutes ?? 0)} of {sayMinutes(begun.minutes ?? 0)}</span
          >
          <span></span>
        </li>
      {/if}
    </ol>
  {:else}
    <p class="empty">
      Nothing fits: what is left wants longer, more hands, or is not dry yet. Turn the minutes or the people
      above; the whole says what waits for what.
    </p>
  {/if}
  {#if frees.length}
    <h2>Then these may begin</h2>
    <ul class="frees">
      {#each frees as s (s.step.key)}
        <li>
          <button class="link" onclick={() => onpick(s.step.key)}>{s.step.name}</button>
          <span class="quiet">{sayMinutes(s.minutes ?? 0)}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if asked.tonight.exact === false}
    <p class="quiet">There are so many ways that not all were looked at; this is the best of those.</p>
  {/if}
{/if}

<style>
  .ask {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    align-items: center;
    margin-bottom: 0.5rem;
  }
  .ask button,
  .tick {
    border: 1px solid var(--w-line-strong);
    background: none;
    color: var(--w-ink);
    min-height: 40px;
    min-width: 44px;
    padding: 0 0.6rem;
    cursor: pointer;
    border-radius: var(--w-radius);
  }
  .ask [aria-pressed='true'] {
    background: var(--w-chalk-wash);
    border-color: var(--w-chalk);
    font-weight: 650;
  }
  .stick {
    min-width: 0;
    overflow: hidden;
  }
  svg {
    display: block;
  }
  rect {
    fill: var(--w-unit);
    fill-opacity: 0.6;
    stroke: var(--w-wood-ink);
    stroke-width: 0.8;
  }
  rect.lit {
    fill: var(--w-chalk-wash);
    fill-opacity: 1;
    stroke: var(--w-chalk);
    stroke-width: 2;
  }
  svg path {
    fill: var(--w-page);
    stroke: var(--w-wood-ink);
  }
  svg text {
    font-size: 13px;
    fill: var(--w-wood-ink);
    font-weight: 650;
  }
  ol {
    list-style: none;
    padding: 0;
    margin: 0.3rem 0 0;
  }
  ol li {
    display: grid;
    grid-template-columns: 1.6rem minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 0.6rem;
    border-bottom: 1px solid var(--w-line);
    padding: 0.35rem 0.2rem;
  }
  li.lit {
    background: var(--w-chalk-wash);
  }
  li.done .what span {
    text-decoration: line-through;
  }
  .n {
    text-align: right;
  }
  .what {
    background: none;
    border: 0;
    text-align: left;
    color: var(--w-ink);
    cursor: pointer;
    min-height: 40px;
    padding: 0;
  }
  .what span {
    display: block;
    font-weight: 600;
  }
  .what small {
    color: var(--w-ink-soft);
  }
  .tick:disabled {
    color: var(--w-fine);
    border-color: transparent;
    cursor: default;
  }
  h2 {
    font-size: 0.875rem;
    margin: 1rem 0 0.2rem;
  }
  .frees {
    padding: 0 0 0 1.2rem;
    margin: 0;
    font-size: 0.875rem;
  }
</style>
