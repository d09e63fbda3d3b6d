<!-- A carcass opened: seen from the front between its own two rods, and, where it is tall, from the end. -->
<script lang="ts">
  import type { LaidUnit, LengthUnit } from '../../../api/types';
  import { spread } from '../../../drawing/rods';
  import { showLength } from '../../../entry/length';

  interface Props {
    laid: LaidUnit;
    unit: LengthUnit;
    chosen: string;
    onchoose: (path: string) => void;
  }
  let p: Props = $props();
  let width = $state(340);
  const u = $derived(p.laid.unit);
  const tall = $derived(u.height_mm > u.width_mm * 1.4);
  const leaves = $derived(p.laid.cells.filter((c) => c.leaf));
  const round = (mm: number) => showLength(mm, p.unit, Math.abs(mm - Math.round(mm)) < 0.05 ? 0 : 1);
  const MOST = 300;
  const FOOT = 44;
  const END = 12;
  const LEFT = $derived(
    Math.max(
      3,
      ...leaves
        .flatMap((c) => [c.rect.z_mm, c.rect.z_mm + c.rect.high_mm, ...(c.shelves_at ?? [])])
        .map((mm) => round(mm).length),
    ) *
      6.7 +
      28,
  );
  const scale = $derived(
    Math.min(
      (width - LEFT - 14 - (tall ? END : 0)) / (u.width_mm + (tall ? u.depth_mm : 0)),
      MOST / u.height_mm,
    ),
  );
  const w = $derived(u.width_mm * scale);
  const h = $derived(u.height_mm * scale);
  const x = (mm: number) => LEFT + mm * scale;
  const z = (mm: number) => 8 + h - mm * scale;
  const marks = (at: number[]) =>
    [...new Set(at.map((mm) => Math.round(mm * 10) / 10))].toSorted((a, b) => a - b);
  const across = $derived(marks(leaves.flatMap((c) => [c.rect.x_mm, c.rect.x_mm + c.rect.wide_mm])));
  const up = $derived(
    marks(leaves.flatMap((c) => [c.rect.z_mm, c.rect.z_mm + c.rect.high_mm, ...(c.shelves_at ?? [])])),
  );
  const wide = $derived(Math.max(3, ...across.map((mm) => round(mm).length)) * 6.6 + 5);
  const acrossAt = $derived(spread(across.map(x), wide, LEFT - 10, width - wide / 2));
  const upAt = $derived(spread(up.map(z), 12, 10, h + 14));
  const base = $derived(
    u.standing?.on === 'toe-kick box' || u.standing?.on === 'base frame' ? (u.standing.height_mm ?? 0) : 0,
  );
  const endX = $derived(LEFT + w + END + 8);
</script>

<div class="carcass" bind:clientWidth={null, (wide) => (width = wide || width)}>
  <svg {width} height={h + 8 + FOOT} role="group" aria-label="{u.name} from the front">
    <rect class="rod" x={LEFT - 17} y="8" width="11" height={h} />
    <rect class="rod" x={LEFT} y={h + 14} width={w} height="11" />
    <rect class="body" x={LEFT} y="8" width={w} height={h} />
    {#if base}<rect class="base" x={LEFT} y={z(base)} width={w} height={base * scale} />{/if}
    {#each leaves as c (c.path)}
      {@const r = {
        x: x(c.rect.x_mm),
        y: z(c.rect.z_mm + c.rect.high_mm),
        w: Math.max(0, c.rect.wide_mm * scale),
        h: Math.max(0, c.rect.high_mm * scale),
      }}
      <g
        class="cell"
        class:chosen={p.chosen === c.path}
        role="button"
        tabindex="0"
        aria-pressed={p.chosen === c.path}
        aria-label="Cell {c.path || 'whole'}, {c.fill}, {round(c.rect.wide_mm)} by {round(c.rect.high_mm)}"
        onclick={() => p.onchoose(c.path)}
        onkeydown={(e) =>
          (e.key === 'Enter' || e.key === ' ') &&
          (e.preventDefault(), e.stopPropagation(), p.onchoose(c.path))}
      >
        <rect x={r.x} y={r.y} width={r.w} height={r.h} />
        {#if c.seen.wide_mm < c.rect.wide_mm - 0.5 || c.seen.high_mm < c.rect.high_mm - 0.5}
          <rect
            class="seen"
            x={x(c.seen.x_mm)}
            y={z(c.seen.z_mm + c.seen.high_mm)}
            width={Math.max(0, c.seen.wide_mm * scale)}
            height={Math.max(0, c.seen.high_mm * scale)}
          />
        {/if}
        {#each c.shelves_at ?? [] as at, i (i)}<path class="shelf" d="M{r.x},{z(at)}h{r.w}" />{/each}
        {#each c.drawers ?? [] as d, i (i)}
          {#if d.wide_mm > 0 && d.high_mm > 0}
            <rect
              class="drawer"
              x={r.x + (r.w - d.wide_mm * scale) / 2}
              y={z(d.z_mm + d.high_mm)}
              width={d.wide_mm * scale}
              height={d.high_mm * scale}
            />
            {#if d.high_mm * scale > 13}
              <text x={r.x + r.w / 2} y={z(d.z_mm + d.high_mm / 2) + 4}>{round(d.high_mm)}</text>
            {/if}
          {/if}
        {/each}
        {#if c.fill === 'nothing' && r.w > 40 && r.h > 16}
          <text class="quiet" x={r.x + r.w / 2} y={r.y + r.h / 2 + 4}
            >{round(c.rect.wide_mm)} × {round(c.rect.high_mm)}</text
          >
        {/if}
      </g>
    {/each}
    {#each p.laid.cells.flatMap((c) => c.door ?? []) as d, i (i)}
      <rect
        class="door"
        x={x(d.at.x_mm)}
        y={z(d.at.z_mm + d.at.high_mm)}
        width={Math.max(0, d.at.wide_mm * scale)}
        height={Math.max(0, d.at.high_mm * scale)}
      />
      {@const hx = d.hangs === 'right' ? x(d.at.x_mm + d.at.wide_mm) : x(d.at.x_mm)}
      {#if d.hangs === 'left' || d.hangs === 'right'}
        <path
          class="hinge"
          d="M{hx},{z(d.at.z_mm + d.at.high_mm * 0.85)}v9M{hx},{z(d.at.z_mm + d.at.high_mm * 0.2)}v9"
        />
      {/if}
    {/each}
    {#each across as mm, i (i)}
      <path class="tick" d="M{x(mm)},{h + 10}v17L{acrossAt[i]},{h + 32}" />
      <text class="figure" x={acrossAt[i]} y={h + 43}>{round(mm)}</text>
    {/each}
    {#each up as mm, i (i)}
      <path class="tick" d="M{LEFT - 4},{z(mm)}h-15L{LEFT - 22},{upAt[i]}" />
      <text class="figure up" x={LEFT - 24} y={upAt[i]! + 4}>{round(mm)}</text>
    {/each}
    {#if tall}
      <g class="end">
        <rect class="body" x={endX} y="8" width={u.depth_mm * scale} height={h} />
        {#if base}<rect
            class="base"
            x={endX + (u.toe_recess_mm ?? 0) * scale}
            y={z(base)}
            width={(u.depth_mm - (u.toe_recess_mm ?? 0)) * scale}
            height={base * scale}
          />{/if}
        {#each leaves as c (c.path)}
          {#each [c.rect.z_mm, ...(c.shelves_at ?? [])] as at, i (i)}
            <path
              class="shelf"
              d="M{endX + (u.depth_mm - c.deep_mm) * scale * 0},{z(at)}h{c.deep_mm * scale}"
            />
          {/each}
        {/each}
        <text class="quiet" x={endX + (u.depth_mm * scale) / 2} y={h + 22}>from the end</text>
        <text class="figure" x={endX + (u.depth_mm * scale) / 2} y={h + 36}>{round(u.depth_mm)}</text>
      </g>
    {/if}
  </svg>
</div>

<style>
  .carcass {
    width: 100%;
  }
  .rod {
    fill: var(--w-wood);
    stroke: var(--w-wood-edge);
  }
  .body {
    fill: var(--w-brass-fill);
    fill-opacity: 0.35;
    stroke: var(--w-ink);
    stroke-width: 1.4;
  }
  .base {
    fill: var(--w-earth);
    stroke: var(--w-ink);
    stroke-width: 0.8;
  }
  .cell {
    cursor: pointer;
  }
  .cell > rect:first-child {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 0.8;
  }
  .cell.chosen > rect:first-child {
    fill: var(--w-chalk-wash);
    stroke: var(--w-chalk);
    stroke-width: 2.4;
  }
  .cell:focus-visible {
    outline: 2px solid var(--w-chalk);
  }
  .seen {
    fill: none;
    stroke: var(--w-brass);
    stroke-dasharray: 3 2;
  }
  .drawer {
    fill: var(--w-wall);
    stroke: var(--w-ink-soft);
  }
  .shelf {
    stroke: var(--w-ink-soft);
    stroke-width: 2;
    fill: none;
  }
  .door {
    fill: none;
    stroke: var(--w-ink-soft);
    stroke-dasharray: 7 3;
    pointer-events: none;
  }
  .hinge {
    stroke: var(--w-brass);
    stroke-width: 3;
    fill: none;
  }
  .tick {
    stroke: var(--w-chalk);
    stroke-width: 1.2;
    fill: none;
  }
  text {
    font-size: 11px;
    fill: var(--w-ink);
    text-anchor: middle;
    pointer-events: none;
  }
  text.up {
    text-anchor: end;
  }
  text.quiet {
    fill: var(--w-ink-soft);
  }
</style>
