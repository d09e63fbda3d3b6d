<!-- The long rod: every edge is a tick that is held and moved, nudged by arrow keys or typed; what it follows is its sign.
     Beneath, each piece has an arc with its width, or with the rule that gives it. -->
<script lang="ts">
  import Wood from '../../../drawing/Wood.svelte';
  import type { Edge, LaidOut, LengthUnit, Rule, RuleSaid } from '../../../api/types';
  import { spread } from '../../../drawing/rods';
  import type { Box } from '../../../drawing/layout';
  import { showLength } from '../../../entry/length';
  import { atRod, brought, dragged, stepOf, type Marked, type Tick } from './edges';
  import type { Move } from '../../../api/types';

  interface Props {
    box: Box;
    laid: LaidOut;
    rules: readonly Rule[];
    marked: Marked;
    scale: number;
    within: number;
    unit: LengthUnit;
    picked: readonly string[];
    compact: boolean;
    lit: string | null;
    ondrag: (move: Move) => void;
    ondrop: (keep: boolean) => void;
    onmove: (move: Move) => void;
    ontype: (what: { edge: Edge; at: number } | { unit: string; wide: number }, x: number, y: number) => void;
    onrelease: (rules: readonly string[]) => void;
    onpick: (unit: string) => void;
    onlight: (id: string | null) => void;
  }
  let p: Props = $props();
  const NEAR_PX = 7;

  const x = (mm: number) => p.box.x + mm * p.scale;
  const ROW_PX = 13;
  const ticks = $derived(p.marked.ticks);
  const labels = $derived(p.marked.labels);
  const told = $derived(p.marked.told);
  const round = (mm: number) => atRod(mm, p.unit);
  const shown = $derived(ticks.map((_, i) => i).filter((i) => told[i]));
  const rowOf = $derived(new Map(shown.map((i, k) => [i, k % p.marked.rows])));
  const places = $derived.by(() => {
    const found = spread(
      shown.map((i) => x(ticks[i]!.at)),
      p.marked.gap / p.marked.rows,
      p.marked.gap / 2,
      p.within - p.marked.gap / 2,
    );
    const out = ticks.map((t) => x(t.at));
    shown.forEach((i, k) => (out[i] = found[k]!));
    return out;
  });
  /** One arc for each piece of a row: those on the floor, or of what is picked. */
  const arcs = $derived.by(() => {
    const seen: { id: string; from: number; to: number; rule: RuleSaid | null; name: string }[] = [];
    for (const { unit } of p.laid.units) {
      const from = unit.x_mm;
      const to = unit.x_mm + unit.width_mm;
      if (seen.some((s) => from < s.to - 1 && to > s.from + 1) && !p.picked.includes(unit.id)) continue;
      if (p.picked.includes(unit.id)) {
        for (let i = seen.length - 1; i >= 0; i -= 1) {
          const s = seen[i]!;
          if (from < s.to - 1 && to > s.from + 1) seen.splice(i, 1);
        }
      }
      const said = p.rules.find(
        (r) =>
          (r.rule === 'equal' && r.units.includes(unit.id)) ||
          ((r.rule === 'wide' || r.rule === 'as wide as') && r.unit === unit.id),
      );
      const centred = p.rules.find((r) => r.rule === 'centred' && r.units.includes(unit.id));
      const rule = p.laid.rules.find((r) => r.id === (said ?? centred)?.id) ?? null;
      seen.push({ id: unit.id, from, to, rule, name: unit.name });
    }
    return seen;
  });

  // the tick under the finger may become one with another, so the finger is followed on the page, not on the tick
  let held = $state.raw<{
    tick: Tick;
    edge: Edge;
    pointer: number;
    left: number;
    off: number;
    moved: boolean;
  } | null>(null);
  let over = $state.raw<{ at: number; name: string } | null>(null);

  const place = (event: PointerEvent, left: number) => (event.clientX - left - p.box.x) / p.scale;
  function take(event: PointerEvent, tick: Tick) {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement;
    if (!tick.edge || !svg || event.button !== 0) return;
    const { left } = svg.getBoundingClientRect();
    held = {
      tick,
      edge: tick.edge,
      pointer: event.pointerId,
      left,
      off: place(event, left) - tick.at,
      moved: false,
    };
    p.onlight(tick.id);
  }
  function move(event: PointerEvent) {
    if (event.pointerId !== held?.pointer) return;
    const at = place(event, held.left) - held.off;
    if (!held.moved && Math.abs(at - held.tick.at) * p.scale < 3) return;
    held = { ...held, moved: true };
    const moving = [...new Set(held.tick.edges.map((e) => e.of))];
    const to = brought(at, NEAR_PX / p.scale, p.laid.snaps, moving, p.unit);
    over = { at: to.at, name: to.to?.name ?? '' };
    p.ondrag(dragged(held.edge, to));
  }
  function letGo(event: PointerEvent, keep: boolean) {
    if (event.pointerId !== held?.pointer) return;
    const was = held;
    held = null;
    over = null;
    if (was.moved) p.ondrop(keep);
    else if (keep) p.onpick(was.edge.of);
  }
  function key(event: KeyboardEvent, tick: Tick, at: number) {
    if (!tick.edge) return;
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (step) {
      const mm = Math.max(0, tick.at + step * stepOf(p.unit, event.shiftKey));
      p.onmove({ move: 'drag', edge: tick.edge, at_mm: mm, to: null } as Move);
    } else if (event.key === 'Enter') type(tick, at);
    else if (event.key === 'Delete' || event.key === 'Backspace') p.onrelease(ruled(tick));
    else if (event.key === 'Escape' && held) {
      held = null;
      over = null;
      p.ondrop(false);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
  const ruled = (tick: Tick) =>
    p.rules
      .filter(
        (r) =>
          (r.rule === 'lined up' || r.rule === 'at') &&
          tick.edges.some((e) => e.of === r.edge.of && e.edge === r.edge.edge),
      )
      .map((r) => r.id);
  function type(tick: Tick, at: number) {
    if (tick.edge) p.ontype({ edge: tick.edge, at: tick.at }, at, p.box.y + p.box.h + 14);
  }
  const words = (tick: Tick) =>
    tick.edges.length
      ? tick.edges
          .map((e) => `${e.edge} edge of ${p.laid.units.find((u) => u.unit.id === e.of)?.unit.name ?? e.of}`)
          .join(', ')
      : tick.at === 0
        ? 'Left corner'
        : 'Right corner';
</script>

<svelte:window
  onpointermove={move}
  onpointerup={(e) => letGo(e, true)}
  onpointercancel={(e) => letGo(e, false)}
/>

<g class="rod" class:compact={p.compact}>
  <Wood box={{ ...p.box, x: p.box.x - 6, w: p.box.w + 12 }} way="long" />
  {#each ticks as tick, i (tick.id)}
    {@const at = x(tick.at)}
    {@const label = places[i]!}
    <g
      class="tick {tick.held}"
      class:lit={p.lit === tick.id || tick.edges.some((e) => p.picked.includes(e.of))}
      class:moves={tick.edge}
      role="slider"
      tabindex={tick.edge ? 0 : -1}
      aria-label={words(tick)}
      aria-valuenow={Math.round(tick.at)}
      aria-valuetext={labels[i]}
      aria-orientation="horizontal"
      aria-disabled={!tick.edge}
      onpointerdown={(e) => take(e, tick)}
      onfocus={() => p.onlight(tick.id)}
      onblur={() => p.onlight(null)}
      onkeydown={(e) => key(e, tick, label)}
      ondblclick={() => type(tick, label)}
    >
      <rect class="touch" x={at - 9} y={p.box.y - 12} width="18" height={p.box.h + 16} />
      <path d="M{at},{p.box.y - 7}V{p.box.y + p.box.h + 3}" />
      {#if told[i]}
        {@const down = p.box.y + p.box.h + (rowOf.get(i) ?? 0) * ROW_PX}
        <path class="lead" d="M{at},{p.box.y + p.box.h + 3}L{label},{p.box.y + p.box.h + 9}V{down + 9}" />
        <text class="figure" x={label} y={down + 21}>{labels[i]}</text>
      {/if}
    </g>
  {/each}
  {#if over}
    <g class="over">
      <path d="M{x(over.at)},{p.box.y - 30}V{p.box.y + p.box.h}" />
      <text x={Math.min(Math.max(x(over.at), 60), p.within - 60)} y={p.box.y - 34}
        >{showLength(over.at, p.unit, 0)}{over.name ? ` · ${over.name}` : ''}</text
      >
    </g>
  {/if}
  {#each arcs as arc (arc.id)}
    {@const figure = `${arc.rule ? `${arc.rule.sign} ` : ''}${round(arc.to - arc.from)}`}
    {@const a = x(arc.from) + 3}
    {@const b = x(arc.to) - 3}
    {@const y = p.box.y + p.box.h + 30 + (p.marked.rows - 1) * ROW_PX}
    {#if b - a > 20}
      <g
        class="arc"
        class:picked={p.picked.includes(arc.id)}
        class:bad={arc.rule?.stands === 'contradicts'}
        role="button"
        tabindex="0"
        aria-label="{arc.rule ? `${arc.rule.sign} ` : ''}{round(
          arc.to - arc.from,
        )}, width of {arc.name}{arc.rule ? `, ${arc.rule.words}` : ''}"
        onclick={() => p.ontype({ unit: arc.id, wide: arc.to - arc.from }, (a + b) / 2, y + 8)}
        onkeydown={(e) =>
          (e.key === 'Enter' || e.key === ' ') &&
          (e.preventDefault(),
          e.stopPropagation(),
          p.ontype({ unit: arc.id, wide: arc.to - arc.from }, (a + b) / 2, y + 8))}
      >
        {#if arc.rule}<title>{arc.rule.words}</title>{/if}
        <rect class="touch" x={a} y={y - 4} width={b - a} height="26" />
        <path d="M{a},{y}Q{(a + b) / 2},{y + 9} {b},{y}" />
        {#if b - a + 6 > figure.length * (p.compact ? 5.8 : 6.8)}
          <text class="figure" x={(a + b) / 2} y={y + 19}>{figure}</text>
        {/if}
      </g>
    {/if}
  {/each}
</g>

<style>
  .tick {
    outline: none;
  }
  .tick.moves {
    cursor: ew-resize;
    touch-action: none;
  }
  .tick path {
    stroke: var(--w-ink);
    stroke-width: 1.6;
    fill: none;
  }
  .tick .lead {
    stroke-width: 0.8;
    stroke-opacity: 0.6;
  }
  .touch {
    fill: transparent;
    stroke: none;
  }
  text {
    font-size: 11.5px;
    fill: var(--w-ink);
    text-anchor: middle;
  }
  .compact text {
    font-size: 10px;
  }
  .rule path,
  .drawn path {
    stroke: var(--w-chalk);
  }
  .rule path {
    stroke-width: 2.4;
  }
  .rule text,
  .drawn text {
    fill: var(--w-chalk);
    font-weight: 600;
  }
  .stays text {
    fill: var(--w-ink-soft);
  }
  .lit path {
    stroke-width: 3.4;
  }
  .tick:focus-visible path {
    stroke-width: 5;
  }
  .tick:focus-visible text {
    text-decoration: underline;
  }
  .over path {
    stroke: var(--w-brass);
    stroke-dasharray: 6 3;
    stroke-width: 1.5;
  }
  .over text {
    fill: var(--w-brass);
    font-weight: 650;
    paint-order: stroke;
    stroke: var(--w-page);
    stroke-width: 4px;
  }
  .arc {
    cursor: text;
  }
  .arc path {
    stroke: var(--w-brass);
    stroke-width: 1.4;
    fill: none;
  }
  .arc text {
    fill: var(--w-brass);
  }
  .arc.picked text {
    font-weight: 700;
  }
  .arc.bad path,
  .arc.bad text {
    stroke: var(--w-stop);
    stroke-width: 1;
    fill: none;
  }
  .arc:focus-visible {
    outline: 2px solid var(--w-chalk);
  }
  @media print {
    .touch {
      display: none;
    }
  }
</style>
