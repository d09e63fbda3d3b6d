<!-- A piece seen from the front, in the drawing: its body by what it is, its cells, doors and drawers. -->
<script lang="ts">
  import type { LaidUnit } from '../../api/types';

  interface Props {
    laid: LaidUnit;
    x: (mm: number) => number;
    z: (mm: number) => number;
    scale: number;
    picked: boolean;
    lit: boolean;
    onpick: (more: boolean) => void;
  }
  let { laid, x, z, scale, picked, lit, onpick }: Props = $props();
  const u = $derived(laid.unit);
  const box = $derived({
    x: x(u.x_mm),
    y: z((u.over_base_mm ?? 0) + u.height_mm),
    w: Math.max(2, u.width_mm * scale),
    h: Math.max(2, u.height_mm * scale),
  });
  const cx = (mm: number) => box.x + mm * scale;
  const cz = (mm: number) => box.y + box.h - mm * scale;
  const base = $derived(
    u.standing?.on === 'toe-kick box' || u.standing?.on === 'base frame' ? (u.standing.height_mm ?? 0) : 0,
  );
  const legs = $derived(u.standing?.on === 'legs');
  const short = $derived(u.name.length * 6.4 > box.w - 6 ? u.id : u.name);
  /** A panel with an arched head, or an arch cut out of it: its curve is the arc over its whole width. */
  const arch = $derived.by(() => {
    const c = u.curve;
    if (!c || !laid.arch_mm) return '';
    const rise = c.rise_mm * scale;
    const radius = laid.arch_mm * scale;
    const [left, right, top, foot] = [box.x, box.x + box.w, box.y, box.y + box.h];
    const upper = c.edge === 'upper';
    const out = (c.way ?? 'out') === 'out';
    const at = upper ? top + (out ? rise : 0) : foot - (out ? rise : 0);
    const arc = `A${radius},${radius} 0 0 ${out ? 1 : 0} `;
    return upper
      ? `M${left},${foot}V${at}${arc}${right},${at}V${foot}Z`
      : `M${right},${top}V${at}${arc}${left},${at}V${top}Z`;
  });
  const upright = $derived(box.h > 14);
</script>

<!-- svelte-ignore a11y_click_events_have_key_events -->
<g
  class="piece {u.kind?.replace(' ', '-')}"
  class:picked
  class:lit
  role="button"
  tabindex="-1"
  aria-label={u.name}
  onclick={(e) => (e.stopPropagation(), onpick(e.shiftKey || e.ctrlKey || e.metaKey))}
>
  {#if legs && laid.frame}
    {@const deep = Math.min(
      box.h,
      ((laid.unit.body?.body === 'framing' ? (laid.unit.body.deck_mm ?? 18) : 18) + 70) * scale,
    )}
    <rect class="body" x={box.x} y={box.y} width={box.w} height={deep} />
    <path
      class="legs"
      d="M{box.x + 4},{box.y + deep}V{box.y + box.h}M{box.x + box.w - 4},{box.y + deep}V{box.y + box.h}"
    />
    <rect class="touch" x={box.x} y={box.y} width={box.w} height={box.h} />
  {:else if arch}
    <path class="body" d={arch} />
  {:else}
    <rect class="body" x={box.x} y={box.y} width={box.w} height={box.h} />
  {/if}
  {#if base}<rect class="base" x={box.x} y={cz(base)} width={box.w} height={base * scale} />{/if}
  {#if laid.boards && u.body?.body === 'boarding'}
    {#each laid.boards.at as at, i (i)}
      {#if u.body.runs === 'up'}<path class="line" d="M{cx(at)},{box.y}V{box.y + box.h}" />
      {:else}<path class="line" d="M{box.x},{cz(at)}H{box.x + box.w}" />{/if}
    {/each}
  {:else if laid.boards}
    {#each laid.boards.at as at, i (i)}<path class="line" d="M{cx(at)},{box.y}V{box.y + box.h}" />{/each}
  {/if}
  {#if laid.hanging}
    {#each laid.hanging.at as at, i (i)}<path
        class="batten"
        d="M{box.x},{cz(at + 10)}H{box.x + box.w}"
      />{/each}
    {#if u.body?.body === 'hanging wall'}
      {#each u.body.hangs ?? [] as t (t.id)}
        <path class="hook" d="M{cx(t.at[0])},{cz(t.at[1])}v10q0,6 5,4"><title>{t.name}</title></path>
      {/each}
    {/if}
  {/if}
  {#if laid.frame && !legs}
    {#each laid.frame.members as m, i (i)}
      <path class="line" d="M{cx(m.at_mm)},{box.y}V{box.y + box.h}" />
    {/each}
  {/if}
  {#if box.w > 16 && box.h > 16}
    {#each laid.cells.filter((c) => c.leaf) as c (c.path)}
      {@const r = {
        x: cx(c.rect.x_mm),
        y: cz(c.rect.z_mm + c.rect.high_mm),
        w: c.rect.wide_mm * scale,
        h: c.rect.high_mm * scale,
      }}
      {#if r.w > 1 && r.h > 1}
        <rect class="cell" x={r.x} y={r.y} width={r.w} height={r.h} />
        {#each c.shelves_at ?? [] as at, i (i)}<path class="shelf" d="M{r.x},{cz(at)}h{r.w}" />{/each}
        {#each c.drawers ?? [] as d, i (i)}
          {#if d.high_mm > 0 && d.wide_mm > 0}
            <rect
              class="drawer"
              x={r.x + (r.w - d.wide_mm * scale) / 2}
              y={cz(d.z_mm + d.high_mm)}
              width={d.wide_mm * scale}
              height={d.high_mm * scale}
            />
          {/if}
        {/each}
      {/if}
    {/each}
    {#each laid.cells.flatMap((c) => c.door ?? []) as d, i (i)}
      {@const r = {
        x: cx(d.at.x_mm),
        y: cz(d.at.z_mm + d.at.high_mm),
        w: d.at.wide_mm * scale,
        h: d.at.high_mm * scale,
      }}
      {#if r.w > 2 && r.h > 2}
        <rect class="door" x={r.x} y={r.y} width={r.w} height={r.h} />
        {#if d.hangs === 'left' || d.hangs === 'right'}
          {@const hx = d.hangs === 'left' ? r.x : r.x + r.w}
          <path
            class="hinge"
            d="M{hx},{r.y + r.h * 0.15}v{r.h * 0.12}M{hx},{r.y + r.h * 0.73}v{r.h * 0.12}"
          />
        {:else}
          {@const hy = d.hangs === 'up' ? r.y : r.y + r.h}
          <path
            class="hinge"
            d="M{r.x + r.w * 0.15},{hy}h{r.w * 0.12}M{r.x + r.w * 0.73},{hy}h{r.w * 0.12}"
          />
        {/if}
      {/if}
    {/each}
  {/if}
  {#if box.w > 12 && upright}
    <text x={box.x + box.w / 2} y={box.y + Math.min(box.h / 2 + 4, 22)}>{short}</text>
  {/if}
</g>

<style>
  .piece {
    cursor: pointer;
  }
  .body {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 1.3;
  }
  .touch {
    fill: transparent;
    stroke: none;
  }
  .top .body,
  .shelf .body,
  .platform .body,
  .rack .body {
    fill: var(--w-brass-fill);
  }
  .base {
    fill: var(--w-earth);
    stroke: var(--w-ink);
    stroke-width: 0.8;
  }
  .cushion .body {
    fill: var(--w-slate-fill);
    fill-opacity: 0.45;
    stroke-dasharray: 4 3;
    rx: 5px;
  }
  .stored .body,
  .boarding .body,
  .trim .body,
  .batten-wall .body,
  .peg-wall .body {
    fill-opacity: 0.35;
    stroke-dasharray: 4 3;
  }
  .legs,
  .line,
  .batten {
    stroke: var(--w-ink);
    stroke-width: 0.8;
    fill: none;
  }
  .batten {
    stroke: var(--w-brass);
    stroke-width: 2.5;
  }
  .hook {
    stroke: var(--w-ink);
    stroke-width: 1.6;
    fill: none;
  }
  .legs {
    stroke-width: 3;
  }
  .cell {
    fill: none;
    stroke: var(--w-ink-soft);
    stroke-width: 0.6;
  }
  .shelf {
    stroke: var(--w-ink-soft);
    stroke-width: 1;
    stroke-dasharray: 4 2;
    fill: none;
  }
  .drawer {
    fill: var(--w-wall);
    fill-opacity: 0.5;
    stroke: var(--w-ink-soft);
    stroke-width: 0.8;
  }
  .door {
    fill: none;
    stroke: var(--w-ink-soft);
    stroke-width: 0.8;
  }
  .hinge {
    stroke: var(--w-brass);
    stroke-width: 2.4;
    fill: none;
  }
  text {
    font: 600 12px var(--w-sans);
    fill: var(--w-ink);
    text-anchor: middle;
    paint-order: stroke;
    stroke: var(--w-unit);
    stroke-width: 3px;
    pointer-events: none;
  }
  .picked .body {
    stroke: var(--w-chalk);
    stroke-width: 2.6;
  }
  .lit .body {
    fill: var(--w-chalk-wash);
  }
</style>
