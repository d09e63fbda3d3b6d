<!-- What stands in the place: the units on the wall, shims on the ribbon, supports on the floor. -->
<script lang="ts">
  import type { Place, Plan, Unit } from '../../api/types';
  import { nameAt, withRoom } from '../../drawing/figures';
  import { xPx, yPx, zPx, type Layout } from '../../drawing/layout';
  import { showLength } from '../../entry/length';
  import { usePlace } from '../../state/place';

  interface Props {
    part: 'wall' | 'ribbon' | 'floor';
    l: Layout;
    lineY: number;
    gain: number;
    place: Place;
    plan: Plan;
    lit: string | null;
    back: number;
    onpick: (id: string) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const base = $derived(p.plan.base.tied ? p.plan.base.height.value_mm : 0);
  const units = $derived(p.place.units ?? []);
  const stands = (u: Unit) =>
    (u.over_base_mm ?? 0) === 0 && u.standing?.on !== 'hung' && u.standing?.on !== 'cleats';
  /** Figures of two supports side by side take some 75 px at their usual size. */
  const tight = $derived(p.l.scale < 0.13);
  const small = $derived(p.l.scale < 0.1);
  const wide = (text: string) => text.length * (tight ? 6 : 7.3) + 4;
  /** The deepest first: a figure with no room stands in the list alone. */
  const figures = (marks: readonly { id: string; x: number; y: number; mm: number; left: boolean }[]) =>
    withRoom(
      marks
        .toSorted((a, b) => b.mm - a.mm)
        .map((m) => {
          const long = wide(showLength(m.mm, view.unit));
          return {
            id: m.id,
            y: m.y,
            from: m.left ? m.x + 8 : m.x - 8 - long,
            to: m.left ? m.x + 8 + long : m.x - 8,
          };
        }),
    );
  const below = $derived(
    figures(
      p.plan.shims.map((s) => ({
        id: s.support,
        x: xPx(p.l, s.at[0] as number),
        y: yPx(p.l, s.at[1] as number),
        mm: s.gap.value_mm,
        left: s.corner.endsWith('left'),
      })),
    ),
  );
  const behind = $derived(
    figures(
      p.plan.packings.map((k) => ({
        id: k.fixing,
        x: xPx(p.l, k.at[0] as number),
        y: zPx(p.l, k.at[1] as number),
        mm: k.gap.value_mm,
        left: k.side === 'left',
      })),
    ),
  );
  const marksIn = (u: Unit) =>
    p.plan.packings.filter((k) => k.unit === u.id).map((k) => zPx(p.l, k.at[1] as number));
  const key = (e: KeyboardEvent, id: string) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    e.stopPropagation();
    p.onpick(id);
  };
</script>

{#if p.part === 'wall'}
  {#each units as u (u.id)}
    {@const x = xPx(p.l, u.x_mm)}
    {@const y = zPx(p.l, base + (u.over_base_mm ?? 0) + u.height_mm)}
    {@const w = u.width_mm * p.l.scale}
    {@const h = u.height_mm * p.l.scale}
    <g class="unit">
      <rect {x} {y} width={w} height={h} />
      {#if h > 14}<path d="M{x + 3},{y + 3}h{w - 6}v{h - 8}h{-(w - 6)}Z" />
        <text x={x + w / 2} y={nameAt(y, h, small ? [] : marksIn(u)) + 5}
          >{small || u.name.length * 7.6 > w ? u.id : u.name}</text
        >{/if}
    </g>
  {/each}
  {#each p.plan.packings as k (k.fixing)}
    {@const x = xPx(p.l, k.at[0] as number)}
    {@const y = zPx(p.l, k.at[1] as number)}
    <g
      class="fixing"
      class:tight
      class:lit={p.lit === k.fixing}
      role="button"
      tabindex="-1"
      aria-label="Packing behind {k.unit}, {k.side}: {showLength(k.gap.value_mm, view.unit)}"
      onclick={() => p.onpick(k.fixing)}
      onkeydown={(e) => key(e, k.fixing)}
    >
      <circle class="touch" cx={x} cy={y} r="13" />
      <circle cx={x} cy={y} r={small ? 2.5 : 4} />
      {#if !small}
        <path d="M{x - 2.4},{y}h4.8M{x},{y - 2.4}v4.8" />
        {#if behind.has(k.fixing)}<text
            x={k.side === 'left' ? x + 8 : x - 8}
            y={y + 4}
            text-anchor={k.side === 'left' ? 'start' : 'end'}>{showLength(k.gap.value_mm, view.unit)}</text
          >{/if}
      {/if}
    </g>
  {/each}
{:else if p.part === 'ribbon'}
  {#each p.plan.shims.filter((s) => s.corner.startsWith('front')) as s (s.support)}
    {@const x = xPx(p.l, s.at[0] as number)}
    {@const depth = Math.max(-60, Math.min(p.l.ribbon.h - 12, s.gap.value_mm * p.gain))}
    {@const w = small ? 4 : 8}
    <g
      class="shim"
      class:cut={s.filling.kind === 'cut'}
      class:lit={p.lit === s.support}
      role="button"
      tabindex="-1"
      aria-label="Shim under {s.unit}, {s.corner}: {showLength(s.gap.value_mm, view.unit)}"
      onclick={() => p.onpick(s.support)}
      onkeydown={(e) => key(e, s.support)}
    >
      <rect class="touch" x={x - 9} y={p.lineY - 4} width="18" height={Math.max(14, depth + 8)} />
      <rect
        x={x - w / 2}
        y={depth < 0 ? p.lineY + depth : p.lineY}
        width={w}
        height={Math.max(1, Math.abs(depth))}
      />
    </g>
  {/each}
{:else}
  {#each units.filter(stands) as u (u.id)}
    <rect
      class="foot"
      x={xPx(p.l, u.x_mm)}
      y={yPx(p.l, p.back)}
      width={u.width_mm * p.l.scale}
      height={u.depth_mm * p.l.scale}
    />
    {@const toe = u.depth_mm - (u.toe_recess_mm ?? 60)}
    <path class="toe" d="M{xPx(p.l, u.x_mm)},{yPx(p.l, p.back + toe)}h{u.width_mm * p.l.scale}" />
  {/each}
  {@const [hx, hy] = p.plan.base.high_spot_at as [number, number]}
  {#if p.plan.base.stands}<path class="high" d="M{xPx(p.l, hx)},{yPx(p.l, hy) - 5}l5,9h-10Z"
      ><title>high spot</title></path
    >{/if}
  {#each p.plan.shims as s (s.support)}
    {@const x = xPx(p.l, s.at[0] as number)}
    {@const y = yPx(p.l, s.at[1] as number)}
    {@const left = s.corner.endsWith('left')}
    <g
      class="support"
      class:tight
      class:cut={s.filling.kind === 'cut'}
      class:bare={s.filling.kind === 'bare'}
      class:lit={p.lit === s.support}
      role="button"
      tabindex="0"
      aria-label="Shim under {s.unit}, {s.corner}: {showLength(s.gap.value_mm, view.unit)}"
      onclick={() => p.onpick(s.support)}
      onkeydown={(e) => key(e, s.support)}
    >
      <rect class="touch" x={x - 13} y={y - 13} width="26" height="26" />
      <rect class="pad" x={x - 4} y={y - 4} width="8" height="8" />
      {#if !small && below.has(s.support)}
        <text x={left ? x + 8 : x - 8} y={y + 4} text-anchor={left ? 'start' : 'end'}
          >{showLength(s.gap.value_mm, view.unit)}</text
        >
      {/if}
    </g>
  {/each}
{/if}

<style>
  text {
    font: 600 12px var(--w-mono);
    fill: var(--w-chalk);
    paint-order: stroke;
    stroke: var(--w-unit);
    stroke-width: 3px;
  }
  .unit rect {
    fill: var(--w-unit);
    fill-opacity: 0.8;
    stroke: var(--w-ink);
    stroke-width: 1.4;
  }
  .unit path {
    fill: none;
    stroke: var(--w-ink);
    stroke-opacity: 0.25;
  }
  .unit text {
    font: 650 14px var(--w-sans);
    fill: var(--w-ink);
    text-anchor: middle;
  }
  .tight text {
    font-size: 10px;
  }
  .touch {
    fill: transparent;
  }
  .fixing,
  .support,
  .shim {
    cursor: pointer;
    outline-offset: 0;
  }
  .fixing circle:not(.touch) {
    fill: var(--w-unit);
    stroke: var(--w-chalk);
    stroke-width: 1.4;
  }
  .fixing path {
    stroke: var(--w-chalk);
    stroke-width: 1.2;
  }
  .shim rect:not(.touch),
  .pad {
    fill: var(--w-chalk);
  }
  .cut rect:not(.touch) {
    fill: var(--w-stop);
  }
  .cut text {
    fill: var(--w-stop);
  }
  .bare .pad {
    fill: var(--w-unit);
    stroke: var(--w-chalk);
    stroke-width: 1.5;
  }
  .foot {
    fill: var(--w-unit);
    fill-opacity: 0.35;
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .toe {
    stroke: var(--w-ink);
    stroke-opacity: 0.4;
    stroke-dasharray: 4 3;
  }
  .high {
    fill: var(--w-brass);
    stroke: var(--w-unit);
  }
  .lit .pad,
  .shim.lit rect:not(.touch),
  .fixing.lit circle:not(.touch) {
    stroke: var(--w-ink);
    stroke-width: 3;
  }
</style>
