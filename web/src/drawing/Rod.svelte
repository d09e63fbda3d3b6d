<!-- A marked stick beside the drawing: its ticks are decisions and finds, and the way into them. -->
<script lang="ts">
  import Wood from './Wood.svelte';
  import type { Box } from './layout';
  import { labelPx, spread, widest, type Tick } from './rods';

  interface Props {
    box: Box;
    way: 'upright' | 'long';
    /** Pixel of a place along the rod. */
    toPx: (mm: number) => number;
    /** Length of the rod, mm, for its graduations. */
    length: number;
    ticks: readonly Tick[];
    lit: string | null;
    compact: boolean;
    /** Width of the drawing, px: no label of the long rod goes past it. */
    within: number;
    /** In how many rows the figures of the long rod are written. */
    rows?: number;
    onpick: (id: string) => void;
  }
  let { box, way, toPx, length, ticks, lit, compact, within, rows = 1, onpick }: Props = $props();

  const up = $derived(way === 'upright');
  const pitch = $derived(length > 1600 ? 100 : 50);
  const marks = $derived(Array.from({ length: Math.floor(length / pitch) + 1 }, (_, i) => i * pitch));
  const wanted = $derived(ticks.map((t) => toPx(t.at)));
  const ROW_PX = 12;
  const across = $derived(labelPx(widest(ticks), compact));
  const gap = $derived(up ? 13 : across / rows);
  /** Neighbours along the rod are written in turn in one row after the other. */
  const rank = $derived(wanted.map((at, i) => wanted.filter((x, k) => x < at || (x === at && k < i)).length));
  const places = $derived(
    up
      ? spread(wanted, gap, box.y + 4, box.y + box.h + 6)
      : spread(wanted, gap, Math.min(box.x, across / 2), Math.min(box.x + box.w + gap, within - across / 2)),
  );
</script>

<g class="rod" class:compact>
  <Wood {box} {way} />
  {#each marks as mm (mm)}
    {@const long = mm % (pitch * 5) === 0 ? 0.5 : 0.28}
    <path
      class="mark"
      d={up ? `M${box.x + box.w},${toPx(mm)}h${-box.w * long}` : `M${toPx(mm)},${box.y}v${box.h * long}`}
    />
  {/each}
  {#each ticks as tick, i (tick.id)}
    {@const at = wanted[i]!}
    {@const place = places[i]!}
    <g
      class="tick {tick.kind}"
      class:lit={lit === tick.id}
      role="button"
      tabindex="0"
      aria-label="{tick.what}, {tick.label}"
      onclick={() => onpick(tick.id)}
      onkeydown={(e) =>
        (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), e.stopPropagation(), onpick(tick.id))}
    >
      {#if up}
        <path d="M{box.x - 1},{at}h{box.w + 5}" />
        <path class="lead" d="M{box.x - 2},{at}L{box.x - 7},{place}h-2" />
        <rect class="touch" x={box.x - 64} y={place - 7} width="56" height="14" />
        <text class="figure" x={box.x - 11} y={place + 4} text-anchor="end">{tick.label}</text>
      {:else}
        <path d="M{at},{box.y - 5}v{box.h + 6}" />
        {@const down = box.y + box.h + (rank[i]! % rows) * ROW_PX}
        <path class="lead" d="M{at},{box.y + box.h + 2}L{place},{box.y + box.h + 8}V{down + 8}" />
        <rect class="touch" x={place - gap / 2} y={down + 6} width={gap} height="18" />
        <text class="figure" x={place} y={down + 20} text-anchor="middle">{tick.label}</text>
      {/if}
    </g>
  {/each}
</g>

<style>
  .mark {
    stroke: var(--w-wood-ink);
    stroke-opacity: 0.6;
    stroke-width: 0.8;
  }
  .tick {
    cursor: pointer;
    outline-offset: 1px;
  }
  .tick path {
    stroke: var(--w-ink);
    stroke-width: 1.8;
    fill: none;
  }
  .tick .lead {
    stroke-width: 0.8;
    stroke-opacity: 0.6;
  }
  .touch {
    fill: transparent;
  }
  text {
    font-size: 11.5px;
    fill: var(--w-ink);
  }
  .compact text {
    font-size: 9.5px;
  }
  .decided path {
    stroke: var(--w-chalk);
  }
  .decided text {
    fill: var(--w-chalk);
    font-weight: 600;
  }
  .place text {
    fill: var(--w-ink-soft);
  }
  .tick:hover text,
  .lit text {
    text-decoration: underline;
    text-underline-offset: 2px;
  }
  .lit path {
    stroke-width: 3;
  }
</style>
