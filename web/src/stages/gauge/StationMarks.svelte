<!-- The stations on one face: open, read, doubted, next and best. -->
<script lang="ts">
  import type { Station, SurfaceName } from '../../api/types';

  interface Props {
    surface: SurfaceName;
    stations: readonly Station[];
    /** Spots of standing readings that belong to no station. */
    loose: readonly { id: string; at: readonly [number, number]; suspect: boolean }[];
    target: { surface: SurfaceName; at: readonly [number, number] } | null;
    best: string | null;
    suspects: ReadonlySet<string>;
    pending: ReadonlySet<string>;
    toPx: (first: number, second: number) => [number, number];
    onpick: (station: Station) => void;
  }
  let p: Props = $props();
  const mine = $derived(p.stations.filter((s) => s.surface === p.surface));
  const state = (s: Station) =>
    s.read_by && p.suspects.has(s.read_by)
      ? 'doubted'
      : s.read_by
        ? 'read'
        : p.pending.has(s.id)
          ? 'pending'
          : 'open';
  const words = { doubted: 'measure again', read: 'read', pending: 'waiting', open: 'not read yet' };
</script>

{#each p.loose as spot (spot.id)}
  {@const [x, y] = p.toPx(...spot.at)}
  {#if spot.suspect}
    <path class="cross" d="M{x - 5},{y - 5}l10,10m0,-10l-10,10" />
  {:else}
    <rect class="loose" x={x - 2.6} y={y - 2.6} width="5.2" height="5.2" />
  {/if}
{/each}
{#each mine as s (s.id)}
  {@const [x, y] = p.toPx(...(s.at as [number, number]))}
  {@const st = state(s)}
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
  <g
    class="station {st}"
    role="img"
    aria-label="{s.id}, {words[st]}"
    onclick={(e) => {
      e.stopPropagation();
      p.onpick(s);
    }}
  >
    <circle class="touch" cx={x} cy={y} r="14" />
    {#if p.best === s.id}<circle class="pulse" cx={x} cy={y} r="8" />{/if}
    {#if st === 'doubted'}
      <path class="cross" data-mark d="M{x - 6},{y - 6}l12,12m0,-12l-12,12" />
    {:else}
      <circle class="dot" data-mark cx={x} cy={y} r="4.2" />
    {/if}
  </g>
{/each}
{#if p.target?.surface === p.surface}
  {@const [x, y] = p.toPx(...p.target.at)}
  <g class="target" data-here>
    <circle cx={x} cy={y} r="9.5" />
    <path d="M{x - 16},{y}h5.5M{x + 10.5},{y}h5.5M{x},{y - 16}v5.5M{x},{y + 10.5}v5.5" />
  </g>
{/if}

<style>
  .station {
    cursor: pointer;
  }
  .touch {
    fill: transparent;
  }
  .dot {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 1.4;
  }
  .open .dot {
    stroke-dasharray: 2 1.6;
  }
  .read .dot {
    fill: var(--w-ink);
  }
  .pending .dot {
    fill: var(--w-mind);
    stroke: var(--w-mind);
  }
  .loose {
    fill: var(--w-ink);
  }
  .cross {
    stroke: var(--w-stop);
    stroke-width: 3;
    fill: none;
  }
  .station:hover .dot {
    stroke: var(--w-chalk);
    stroke-width: 2.4;
  }
  .target circle,
  .target path {
    fill: none;
    stroke: var(--w-chalk);
    stroke-width: 2.4;
  }
  .pulse {
    fill: none;
    stroke: var(--w-brass);
    stroke-width: 2.5;
    /* three times, and it stands still: what moves all the time is painted all the time */
    animation: pulse 1.8s ease-out 3;
  }
  @keyframes pulse {
    from {
      r: 5px;
      stroke-opacity: 1;
    }
    to {
      r: 16px;
      stroke-opacity: 0;
    }
  }
  @media (prefers-reduced-motion: reduce) {
    .pulse {
      r: 11px;
      stroke-dasharray: 3 3;
    }
  }
</style>
