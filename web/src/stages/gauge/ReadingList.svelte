<!-- Every reading of the place, newest first: what it says, whether it agrees, and what became of it. -->
<script lang="ts">
  import type { Place, Surveyed, Reading } from '../../api/types';
  import { showLength } from '../../entry/length';
  import { readingValue, readingWords } from '../../entry/places';
  import { usePlace } from '../../state/place';

  interface Props {
    place: Place;
    surveyed: Surveyed;
    waiting: readonly Reading[];
    onagain: (reading: Reading) => void;
    onaside: (reading: Reading) => void;
    onback: (reading: Reading) => void;
    ondrop: (reading: Reading) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const verdicts = $derived(new Map(p.surveyed.verdicts.map((v) => [v.reading, v])));
  const replaced = $derived(
    new Set([...(p.place.readings ?? []), ...p.waiting].filter((r) => !r.aside).map((r) => r.supersedes)),
  );
  const rows = $derived([...(p.place.readings ?? []).map((reading, i) => ({ reading, n: i + 1 }))].reverse());
  const time = (r: Reading) =>
    new Date(r.taken_at).toLocaleString(undefined, {
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    });
  const ROW_PX = 52;
</script>

<ol style:contain-intrinsic-height="auto {(rows.length + p.waiting.length) * ROW_PX}px">
  {#each p.waiting as reading (reading.id)}
    <li class="waits">
      <span class="figure n">…</span>
      <span class="where">{readingWords(reading, view.unit)}<small>waiting to be sent</small></span>
      <span class="figure value">{readingValue(reading, view.unit)}</span>
      <span class="do no-print"><button class="link" onclick={() => p.ondrop(reading)}>Discard</button></span>
    </li>
  {/each}
  {#each rows as { reading, n } (reading.id)}
    {@const verdict = verdicts.get(reading.id)}
    {@const doubted = verdict?.verdict === 'take again'}
    {@const out = reading.aside
      ? `set aside: ${reading.aside.reason}`
      : replaced.has(reading.id)
        ? 'taken again since'
        : ''}
    <li class:doubted class:out={out !== ''} id="reading-{reading.id}">
      <span class="figure n">{n}</span>
      <span class="where">
        {readingWords(reading, view.unit)}
        <small>
          {#if out}{out}{:else if doubted && verdict}
            <b
              >✕ {showLength(Math.abs(verdict.by_mm), view.unit)}
              {verdict.by_mm > 0 ? 'more' : 'less'} than the others say</b
            >{:else}
            agrees within {showLength(Math.abs(verdict?.by_mm ?? 0), view.unit)}{/if}
          · {time(reading)}{reading.taken_by ? `, ${reading.taken_by}` : ''}{reading.note
            ? ` · ${reading.note}`
            : ''}
        </small>
      </span>
      <span class="figure value">{readingValue(reading, view.unit)}</span>
      <span class="do no-print">
        {#if reading.aside}
          <button class="link" onclick={() => p.onback(reading)}>Put back</button>
        {:else if !out}
          {#if reading.fact === 'offset'}<button class="link" onclick={() => p.onagain(reading)}>Again</button
            >{/if}
          <button class="link" onclick={() => p.onaside(reading)}>Set aside</button>
        {/if}
      </span>
    </li>
  {/each}
</ol>

<style>
  ol {
    /* hundreds of rows that are out of view cost nothing while the drawing is turned */
    content-visibility: auto;
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 1.8rem minmax(0, 1fr) auto auto;
    gap: 0.5rem;
    align-items: center;
    border-bottom: 1px solid var(--w-line);
    padding: 0.35rem 0;
    min-height: 44px;
    font-size: 0.875rem;
  }
  .n {
    color: var(--w-ink-soft);
    font-size: 0.75rem;
  }
  small {
    display: block;
    color: var(--w-ink-soft);
    font-size: 0.75rem;
  }
  b {
    color: var(--w-stop);
    font-weight: 600;
  }
  .out .where,
  .out .value {
    text-decoration: line-through;
    text-decoration-color: var(--w-line-strong);
    color: var(--w-ink-soft);
  }
  .out small {
    text-decoration: none;
    display: inline-block;
  }
  .waits .n {
    color: var(--w-mind);
  }
  @media print {
    ol {
      content-visibility: visible;
      columns: 2;
      column-gap: 1.5rem;
    }
    li {
      min-height: 0;
      padding: 0.15rem 0;
      grid-template-columns: 1.8rem 1fr auto;
      font-size: 0.75rem;
      break-inside: avoid;
    }
    small {
      font-size: 0.6875rem;
    }
  }
  .do {
    display: flex;
    flex-wrap: wrap;
    justify-content: end;
    gap: 0.2rem;
  }
  .do button {
    font-size: 0.8125rem;
  }
</style>
