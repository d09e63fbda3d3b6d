<!-- All sheets and boards: small ones to choose from, one large as on trestles, walked through cut by cut; a longer search. -->
<script lang="ts">
  import type { AimOutcome, LaidLength, LaidSheet, Layout } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import { usePlace } from '../../../state/place';
  import SheetDrawing from './SheetDrawing.svelte';

  interface Props {
    job: string;
    layout: Layout;
    lit: string | null;
    /** How far a longer search is, 0 to 1; null while there is none. */
    searching: number | null;
    onpick: (key: string) => void;
    onsearch: () => void;
    onstop: () => void;
    /** What the layout is made for after price, and what each aim comes to once that was asked. */
    aim: AimOutcome['aim'];
    aims: readonly AimOutcome[] | null;
    oncompare: () => void;
    onaim: (aim: AimOutcome['aim']) => void;
    /** Sheets that stay as they are from now on. */
    onpin: (sheets: readonly LaidSheet[]) => void;
  }
  let { job, layout, lit, searching, onpick, onsearch, onstop, onpin, aim, aims, oncompare, onaim }: Props =
    $props();
  const view = usePlace();
  let chosen = $state(0);
  let step = $state<number | null>(null);
  const at = $derived(Math.min(chosen, Math.max(layout.sheets.length - 1, 0)));
  const sheet = $derived(layout.sheets[at]);
  const cut = $derived(sheet && step !== null ? sheet.cuts[step] : undefined);
  const used = $derived(layout.groups.reduce((n, g) => n + g.used, 0));
  const least = $derived(layout.groups.reduce((n, g) => n + g.least, 0));
  function show(i: number) {
    chosen = i;
    step = null;
  }
  function walk(by: number) {
    if (!sheet) return;
    const next = (step ?? -1) + by;
    step = next < 0 || next >= sheet.cuts.length ? null : next;
  }
  const free = (b: LaidLength) => b.parts.reduce((n, p) => n + p.long_mm, 0);
</script>

<p class="sum">
  <b>{used} in use</b>; no layout does with fewer than {least}.
  <span class="quiet"
    >{layout.sawn_m.toFixed(0)} m sawn in sheets, {layout.settings} settings{#if layout.price},
      {layout.price.toFixed(2)} in all{/if}.</span
  >
  <span class="search no-print">
    {#if searching !== null}
      <progress value={searching}></progress>
      <button class="link" onclick={onstop}>Stop, keep the best</button>
    {:else if used > least}
      <button class="link" onclick={onsearch}>Look longer for a better one</button>
    {/if}
  </span>
</p>
{#if layout.sheets.length}
  {#if aims}
    <table class="fields-table aims no-print">
      <thead
        ><tr
          ><th>Laid out for</th><th>Sheets</th><th>Price</th><th>Metres sawn</th><th>Settings</th><td
          ></td></tr
        ></thead
      >
      <tbody>
        {#each aims as a (a.aim)}
          <tr class:own={a.aim === aim}>
            <td>{a.aim}</td>
            <td class="figure">{a.sheets}</td>
            <td class="figure">{a.price ? a.price.toFixed(2) : '—'}</td>
            <td class="figure">{a.sawn_m.toFixed(0)}</td>
            <td class="figure">{a.settings}</td>
            <td>
              {#if a.aim === aim}<span class="quiet">chosen</span>{:else}<button
                  class="link"
                  aria-label="Lay out for {a.aim}"
                  onclick={() => onaim(a.aim)}>Choose</button
                >{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="sum no-print">
      Laid out for {aim}.
      <button class="link" onclick={oncompare}>Hold all three aims beside each other</button>
    </p>
  {/if}
{/if}
{#if sheet}
  <div class="thumbs no-print" role="group" aria-label="Sheets">
    {#each layout.sheets as s, i (i)}
      <button aria-pressed={i === at} onclick={() => show(i)} class:has={s.parts.some((p) => p.key === lit)}>
        <b>{i + 1}</b> <span class="figure">{s.thick_mm}{s.pinned ? '⚲' : ''}</span>
      </button>
    {/each}
  </div>
  <div class="screen-only"><SheetDrawing {sheet} number={at + 1} {lit} upto={step} {onpick} /></div>
  <div class="walk no-print">
    <button class="link" onclick={() => walk(-1)} disabled={step === null}>Back</button>
    <span>
      {#if cut && step !== null}
        Cut <b>{step + 1}</b> of {sheet.cuts.length}: {cut.axis === 'x' ? 'across' : 'along'}, at
        <b class="figure">{showLength(cut.at_mm - cut.at[cut.axis === 'x' ? 0 : 1], view.unit)}</b>
        from the {cut.axis === 'x' ? 'left' : 'lower'} edge of the piece of
        <span class="figure"
          >{showLength(cut.size[0], view.unit, 0)} × {showLength(cut.size[1], view.unit, 0)}</span
        >
      {:else}
        {sheet.cuts.length} cuts, in the order of their numbers
      {/if}
    </span>
    <button class="link" onclick={() => walk(1)}>{step === null ? 'Walk through' : 'Next cut'}</button>
    {#if sheet.pinned}
      <span><b>stays as it is</b></span>
      <button class="link" onclick={() => onpin(layout.sheets.filter((s) => s.pinned && s !== sheet))}
        >Let it go</button
      >
    {:else if !sheet.assumed}
      <button class="link" onclick={() => onpin(layout.sheets.filter((s) => s.pinned || s === sheet))}
        >Keep this sheet as it is</button
      >
    {/if}
    <span class="files">
      <a href="/api/jobs/{job}/sheets/{at + 1}.svg" download>SVG</a>
      <a href="/api/jobs/{job}/sheets/{at + 1}.dxf" download>DXF</a>
    </span>
  </div>
  <p class="caution stop no-print">
    ⚠ Sheet and offcut both supported, guard on, blade just through the sheet; nobody behind the blade.
  </p>
  <div class="print-only">
    {#each layout.sheets as s, i (i)}<SheetDrawing
        sheet={s}
        number={i + 1}
        lit={null}
        upto={null}
        {onpick}
      />{/each}
  </div>
{/if}
{#if layout.lengths.length}
  <h2>Boards and lengths</h2>
  <ul>
    {#each layout.lengths as b, i (i)}
      <li>
        <span class="what">
          <b>{i + 1}</b>
          {b.name}, <span class="figure">{showLength(b.long_mm, view.unit, 0)}</span>
          {#if b.assumed}<span class="mind">assumed</span>{/if}
        </span>
        <span class="board">
          {#each b.parts as p, k (k)}
            <button
              style="flex: {p.long_mm} 0 0"
              class:lit={lit === p.key}
              class:later={!p.ready}
              onclick={() => onpick(p.key)}
              aria-label="{p.mark} {showLength(p.long_mm, view.unit, 0)}"
            >
              <b>{p.mark}</b> <span class="figure">{showLength(p.long_mm, view.unit, 0)}</span>
            </button>
          {/each}
          {#if b.rest_mm > 1}<span class="rest figure" style="flex: {Math.max(b.long_mm - free(b), 1)} 0 0"
              >{showLength(b.rest_mm, view.unit, 0)}</span
            >{/if}
        </span>
      </li>
    {/each}
  </ul>
{/if}
{#if !layout.sheets.length && !layout.lengths.length}
  <p class="quiet">Nothing is left to be cut from stock.</p>
{/if}

<style>
  .sum {
    font-size: 0.875rem;
    margin-bottom: 0.5rem;
  }
  .aims {
    max-width: 40rem;
    margin-bottom: 0.6rem;
  }
  .aims td {
    vertical-align: middle;
    border-top: 1px solid var(--w-line);
  }
  .own td {
    font-weight: 650;
  }
  .search {
    margin-left: 0.5rem;
  }
  progress {
    width: 8rem;
    accent-color: var(--w-chalk);
  }
  .thumbs {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    margin-bottom: 0.5rem;
  }
  .thumbs button {
    border: 1px solid var(--w-line-strong);
    background: var(--w-raised);
    color: var(--w-ink);
    min-width: 44px;
    min-height: 36px;
    cursor: pointer;
    border-radius: var(--w-radius);
    font-size: 0.8125rem;
  }
  .thumbs .figure {
    color: var(--w-ink-soft);
    font-size: 0.75rem;
  }
  .thumbs [aria-pressed='true'] {
    outline: 2px solid var(--w-chalk);
  }
  .has {
    background: var(--w-chalk-wash) !important;
  }
  .walk {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1rem;
    align-items: center;
    font-size: 0.875rem;
    margin-top: 0.3rem;
  }
  .files {
    margin-left: auto;
    display: flex;
    gap: 0.8rem;
  }
  .caution {
    font-size: 0.8125rem;
    margin: 0.3rem 0 1rem;
  }
  h2 {
    font-size: 1.0625rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.5rem;
    margin-top: 1rem;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  li {
    padding: 0.4rem 0;
    border-top: 1px solid var(--w-line);
  }
  .what {
    font-size: 0.8125rem;
  }
  .board {
    display: flex;
    height: 34px;
    border: 1px solid var(--w-wood-edge);
    background: var(--w-wood);
    overflow: hidden;
  }
  .board button {
    border: 0;
    border-right: 3px solid var(--w-wood-edge);
    background: var(--w-unit);
    color: var(--w-ink);
    cursor: pointer;
    min-width: 0;
    overflow: hidden;
    white-space: nowrap;
    font-size: 0.75rem;
    padding: 0 0.2rem;
  }
  .board .later {
    background: color-mix(in srgb, var(--w-unit) 55%, var(--w-wood));
    border-right-style: dashed;
  }
  .board .lit {
    background: var(--w-chalk-wash);
  }
  .rest {
    display: grid;
    place-items: center;
    font-size: 0.75rem;
    color: var(--w-wood-ink);
    min-width: 0;
    overflow: hidden;
  }
  @media print {
    .screen-only {
      display: none;
    }
  }
</style>
