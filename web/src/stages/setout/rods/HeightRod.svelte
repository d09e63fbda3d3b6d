<!-- The upright rod with its stack of slabs: covering, base, box, board, cushion; the one that gives is drawn springy. -->
<script lang="ts">
  import Wood from '../../../drawing/Wood.svelte';
  import type { LaidStack, LengthUnit } from '../../../api/types';
  import { spread } from '../../../drawing/rods';
  import type { Box } from '../../../drawing/layout';
  import { atRod, stepOf } from './edges';
  import type { HeightTick } from './heights';

  interface Props {
    box: Box;
    z: (mm: number) => number;
    ticks: readonly HeightTick[];
    /** Width of the longest figure at the rod, px. */
    figures: number;
    stack: LaidStack | null;
    /** Room for slabs at the left, px; 0 on a phone. */
    slabs: number;
    unit: LengthUnit;
    scale: number;
    onraise: (of: NonNullable<HeightTick['of']>, at: number, dragged: boolean) => void;
    ondrop: (keep: boolean) => void;
    onpick: (unit: string) => void;
    ontypeheight: (of: NonNullable<HeightTick['of']>, at: number, x: number, y: number) => void;
    ontype: (member: string | null, mm: number, x: number, y: number) => void;
  }
  let p: Props = $props();
  const round = (mm: number) => atRod(mm, p.unit);

  const places = $derived(
    spread(
      p.ticks.map((t) => p.z(t.at)),
      13,
      p.box.y + 4,
      p.box.y + p.box.h + 8,
    ),
  );
  let held = $state.raw<{
    of: NonNullable<HeightTick['of']>;
    at: number;
    pointer: number;
    y: number;
    moved: boolean;
  } | null>(null);
  function take(event: PointerEvent, tick: HeightTick) {
    if (!tick.of || event.button !== 0) return;
    held = { of: tick.of, at: tick.at, pointer: event.pointerId, y: event.clientY, moved: false };
  }
  function move(event: PointerEvent) {
    if (event.pointerId !== held?.pointer) return;
    const by = held.y - event.clientY;
    if (!held.moved && Math.abs(by) < 3) return;
    held = { ...held, moved: true };
    const step = stepOf(p.unit);
    p.onraise(held.of, Math.max(0, Math.round((held.at + by / p.scale) / step) * step), true);
  }
  function letGo(event: PointerEvent, keep: boolean) {
    if (event.pointerId !== held?.pointer) return;
    const was = held;
    held = null;
    if (was.moved) p.ondrop(keep);
    else if (keep) p.onpick(was.of.unit);
  }
  function key(event: KeyboardEvent, tick: HeightTick, y: number) {
    if (!tick.of) return;
    const step = { ArrowDown: -1, ArrowUp: 1 }[event.key];
    if (step) p.onraise(tick.of, Math.max(0, tick.at + step * stepOf(p.unit, event.shiftKey)), false);
    else if (event.key === 'Enter') type(tick, y);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  function type(tick: HeightTick, y: number) {
    if (tick.of) p.ontypeheight(tick.of, tick.at, p.box.x - 30, y);
  }

  const left = $derived(p.box.x - 19 - p.figures - p.slabs);
  const springs = (y0: number, y1: number, at: number) => {
    const n = Math.max(3, Math.round(Math.abs(y1 - y0) / 11));
    return Array.from({ length: n + 1 }, (_, i) => {
      const y = y0 + ((y1 - y0) * i) / n;
      return `${i ? 'L' : 'M'}${i === 0 || i === n ? at : at + (i % 2 ? 9 : -9)},${y}`;
    }).join('');
  };
  const slabLabels = $derived(
    p.stack
      ? spread(
          p.stack.layers.map((l) => (p.z(l.low_mm) + p.z(l.high_mm)) / 2),
          26,
          p.box.y + 26,
          p.box.y + p.box.h,
        )
      : [],
  );
</script>

<svelte:window
  onpointermove={move}
  onpointerup={(e) => letGo(e, true)}
  onpointercancel={(e) => letGo(e, false)}
/>

<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
<g class="rod" onclick={(e) => e.stopPropagation()}>
  <Wood box={p.box} way="upright" />
  {#each p.ticks as tick, i (i)}
    <g
      class="tick"
      class:stays={tick.stays}
      class:moves={tick.of}
      role="slider"
      tabindex={tick.of ? 0 : -1}
      aria-label={tick.what}
      aria-valuenow={Math.round(tick.at)}
      aria-valuetext={round(tick.at)}
      aria-orientation="vertical"
      aria-disabled={!tick.of}
      onpointerdown={(e) => take(e, tick)}
      onkeydown={(e) => key(e, tick, places[i]!)}
      ondblclick={() => type(tick, places[i]!)}
    >
      <title>{tick.what}</title>
      <rect class="touch" x={p.box.x - 46} y={p.z(tick.at) - 8} width={p.box.w + 50} height="16" />
      <path d="M{p.box.x - 2},{p.z(tick.at)}h{p.box.w + 5}" />
      <path class="lead" d="M{p.box.x - 2},{p.z(tick.at)}L{p.box.x - 7},{places[i]}h-2" />
      <text class="figure" x={p.box.x - 11} y={places[i]! + 4} text-anchor="end">{round(tick.at)}</text>
    </g>
  {/each}
  {#if p.stack && p.slabs > 60}
    {@const high = Math.min(p.z(p.stack.layers.at(-1)?.high_mm ?? 0) - 22, Math.min(...slabLabels) - 18)}
    <g
      class="finished"
      role="button"
      tabindex="0"
      aria-label="finished {round(p.stack.finished_mm)}, the height of it all"
      onclick={() => p.ontype(null, p.stack!.finished_mm, left + 40, high + 10)}
      onkeydown={(e) =>
        e.key === 'Enter' &&
        (e.preventDefault(), e.stopPropagation(), p.ontype(null, p.stack!.finished_mm, left + 40, high + 10))}
    >
      <rect class="touch" x={left - 4} y={high - 14} width={p.slabs} height="20" />
      <text x={left} y={high}>finished <tspan class="figure">{round(p.stack.finished_mm)}</tspan></text>
    </g>
    {#each p.stack.layers as layer, i (i)}
      {@const y1 = p.z(layer.high_mm)}
      {@const y0 = p.z(layer.low_mm)}
      <g
        class="slab {layer.name}"
        class:gives={layer.gives}
        role="button"
        tabindex="0"
        aria-label="{layer.name} {round(layer.high_mm - layer.low_mm)}{layer.gives ? ' gives' : ''}"
        onclick={() => p.ontype(layer.name, layer.high_mm - layer.low_mm, left + 70, slabLabels[i]!)}
        onkeydown={(e) =>
          e.key === 'Enter' &&
          (e.preventDefault(),
          e.stopPropagation(),
          p.ontype(layer.name, layer.high_mm - layer.low_mm, left + 70, slabLabels[i]!))}
      >
        <rect x={left} y={Math.min(y0, y1)} width="34" height={Math.max(1.5, Math.abs(y0 - y1))} />
        {#if layer.gives}<path class="spring" d={springs(y0, y1, left + 17)} />{/if}
        <path class="lead" d="M{left + 34},{(y0 + y1) / 2}L{left + 40},{slabLabels[i]! - 4}" />
        <text x={left + 42} y={slabLabels[i]! - 2}>{layer.name + ' '}</text>
        <text class="figure mm" x={left + 42} y={slabLabels[i]! + 10}
          >{round(layer.high_mm - layer.low_mm)}{layer.gives ? ' gives' : ''}</text
        >
      </g>
    {/each}
  {/if}
</g>

<style>
  .tick {
    outline: none;
  }
  .tick.moves {
    cursor: ns-resize;
    touch-action: none;
  }
  .tick:focus-visible path {
    stroke-width: 5;
  }
  .tick:focus-visible text {
    text-decoration: underline;
  }
  .tick path {
    stroke: var(--w-chalk);
    stroke-width: 1.6;
    fill: none;
  }
  .tick.stays path {
    stroke: var(--w-ink);
  }
  .lead {
    stroke-width: 0.8 !important;
    stroke-opacity: 0.6;
    stroke: var(--w-ink-soft);
    fill: none;
  }
  text {
    font-size: 11.5px;
    fill: var(--w-ink);
  }
  .tick text {
    fill: var(--w-chalk);
    font-weight: 600;
  }
  .tick.stays text {
    fill: var(--w-ink-soft);
    font-weight: 400;
  }
  .touch {
    fill: transparent;
  }
  .slab,
  .finished {
    cursor: text;
  }
  .slab rect {
    fill: var(--w-unit);
    stroke: var(--w-ink);
  }
  .slab.base rect,
  .slab.covering rect {
    fill: var(--w-earth);
  }
  .slab.board rect,
  .slab.facing rect {
    fill: var(--w-brass-fill);
  }
  .slab.cushion rect {
    fill: var(--w-slate-fill);
    fill-opacity: 0.5;
  }
  .slab.gives rect {
    stroke: var(--w-chalk);
    stroke-width: 1.8;
  }
  .spring {
    stroke: var(--w-chalk);
    stroke-width: 1.6;
    fill: none;
  }
  .slab .mm {
    fill: var(--w-ink-soft);
  }
  .slab.gives .mm,
  .finished .figure {
    fill: var(--w-chalk);
    font-weight: 650;
  }
  .slab:focus-visible,
  .finished:focus-visible {
    outline: 2px solid var(--w-chalk);
  }
</style>
