<!-- Settings: one card each with one big number, in the order of work; on a phone one card at a time. -->
<script lang="ts">
  import type { Setting } from '../../api/types';
  import { showLength } from '../../entry/length';
  import { usePlace } from '../../state/place';
  import { bigNumber } from './piles';

  interface Props {
    settings: readonly Setting[];
    lit: string | null;
    onpick: (key: string) => void;
  }
  let { settings, lit, onpick }: Props = $props();
  const view = usePlace();
  let at = $state(0);
  let of = $state<Setting['work'] | null>(null);
  const works = $derived([...new Set(settings.map((s) => s.work))]);
  const some = $derived(settings.filter((s) => of === null || s.work === of));
  const here = $derived(Math.min(at, Math.max(some.length - 1, 0)));
  const big = (s: Setting) =>
    bigNumber(s).angle ? `${s.at_mm}°` : s.at_mm ? showLength(s.at_mm, view.unit) : '—';
</script>

{#if settings.length}
  <div class="works no-print" role="group" aria-label="Kinds of work">
    <button aria-pressed={of === null} onclick={() => ([of, at] = [null, 0])}>all</button>
    {#each works as w, i (i)}
      <button aria-pressed={of === w} onclick={() => ([of, at] = [w, 0])}
        >{w} <small class="figure">{settings.filter((s) => s.work === w).length}</small></button
      >
    {/each}
  </div>
  <div class="turn no-print">
    <button class="link" disabled={here === 0} onclick={() => (at = here - 1)}>Before</button>
    <span class="figure">{here + 1} of {some.length}</span>
    <button class="link" disabled={here === some.length - 1} onclick={() => (at = here + 1)}
      >Next setting</button
    >
  </div>
  <ol>
    {#each some as s, i (s.id)}
      <li class:here={i === here}>
        <div class="head">
          <span class="work">{s.work}</span>
          <span class="quiet">{s.machine || (s.instead ? 'no machine here' : '')}</span>
        </div>
        <p class="big"><span class="quiet">{bigNumber(s).label}</span> <b class="figure">{big(s)}</b></p>
        <p>{s.words}</p>
        {#if s.instead}<p class="mind">{s.instead}</p>{/if}
        {#if s.pieces.length}
          <p class="pieces">
            {#each s.pieces as p, i (i)}
              <button class:lit={lit === p.key} class:later={!p.ready} onclick={() => onpick(p.key)}
                ><b class="figure">{p.mark}</b>{#if p.count > 1}<small class="figure">
                    ×{p.count}</small
                  >{/if}</button
              >
            {/each}
          </p>
        {/if}
        <p class="caution stop">⚠ {s.caution}</p>
      </li>
    {/each}
  </ol>
{:else}
  <p class="quiet">Nothing is left to be cut.</p>
{/if}

<style>
  .works {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    margin-bottom: 0.6rem;
  }
  .works button {
    border: 1px solid var(--w-line-strong);
    background: none;
    color: var(--w-ink);
    min-height: 36px;
    padding: 0 0.6rem;
    cursor: pointer;
    border-radius: var(--w-radius);
    font-size: 0.8125rem;
  }
  .works [aria-pressed='true'] {
    background: var(--w-chalk-wash);
    border-color: var(--w-chalk);
  }
  .works small {
    color: var(--w-ink-soft);
  }
  ol {
    list-style: none;
    padding: 0;
    margin: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
    gap: 0.75rem;
  }
  li {
    background: var(--w-sheet);
    border: 1px solid var(--w-line);
    border-top: 4px solid var(--w-wood-edge);
    padding: 0.6rem 0.75rem;
    font-size: 0.8125rem;
    break-inside: avoid;
  }
  p {
    font-size: 0.8125rem;
    margin: 0.25rem 0;
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 0.5rem;
  }
  .work {
    font-weight: 650;
  }
  .big {
    display: flex;
    align-items: baseline;
    gap: 0.5rem;
  }
  .big b {
    font-size: 1.9rem;
    line-height: 1.1;
  }
  .pieces {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem;
  }
  .pieces button {
    border: 1px solid var(--w-line-strong);
    background: var(--w-unit);
    color: var(--w-ink);
    min-height: 30px;
    padding: 0 0.4rem;
    cursor: pointer;
    border-radius: var(--w-radius);
  }
  .pieces .later {
    border-style: dashed;
    color: var(--w-ink-soft);
  }
  .pieces .lit {
    background: var(--w-chalk-wash);
    border-color: var(--w-chalk);
  }
  .caution {
    font-size: 0.75rem;
  }
  .turn {
    display: none;
    justify-content: space-between;
    align-items: center;
    min-height: 44px;
  }
  @media (max-width: 760px) {
    .turn {
      display: flex;
    }
    ol {
      grid-template-columns: 1fr;
    }
    li {
      display: none;
      font-size: 1rem;
    }
    li.here {
      display: block;
    }
    .big b {
      font-size: 3.4rem;
    }
    .pieces button {
      min-height: 44px;
      min-width: 52px;
    }
    p,
    .caution {
      font-size: 0.9375rem;
    }
  }
  @media print {
    li {
      display: block;
    }
  }
</style>
