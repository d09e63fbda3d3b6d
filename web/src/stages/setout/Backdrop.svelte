<!-- What is there before anything is set out: the wall as it is measured, side walls, steps, openings and what stays. -->
<script lang="ts">
  import type { LengthUnit, Place, SetOut, SurfaceName, SurfaceShape } from '../../api/types';
  import Face from '../../drawing/Face.svelte';
  import Openings from '../../drawing/Openings.svelte';
  import { facePx, xPx, zPx, type Layout } from '../../drawing/layout';
  import { path } from '../../drawing/ribbon';
  import { middle, valueAt } from '../../drawing/shape';
  import { showLength } from '../../entry/length';

  interface Props {
    l: Layout;
    said: SetOut;
    place: Place;
    wobble: number;
    unit: LengthUnit;
    compact: boolean;
    shapes: readonly SurfaceShape[];
    picked: readonly string[];
  }
  let p: Props = $props();
  const l = $derived(p.l);
  const said = $derived(p.said);
  const wall = $derived(l.wall);
  const top = $derived(l.top);
  const scale = $derived(l.scale);
  const compact = $derived(p.compact);
  const gain = $derived(p.wobble * scale);
  const x = (mm: number) => xPx(l, mm);
  const z = (mm: number) => zPx(l, mm);
  const shape = (name: SurfaceName) => p.shapes.find((s) => s.surface === name && s.n_readings > 0);
  const held = (v: number, most: number) => Math.max(-most, Math.min(most, v));

  /** A side wall as it was read at its front, leaning into the room or out of it. */
  function side(name: 'left' | 'right'): string | null {
    const found = shape(name);
    if (!found) return null;
    const at = Math.min(p.place.depth_mm * 0.8, found.first.at(-1) ?? 0);
    const said_mm = name === 'left' ? 0 : p.place.width_mm;
    const points = Array.from({ length: 25 }, (_, i) => {
      const up = (top * i) / 24;
      const by = held((valueAt(found, at, up).mean - said_mm) * gain, compact ? 8 : 16);
      return [x(said_mm) + by, z(up)] as const;
    });
    const edge = name === 'left' ? x(0) - 20 : x(p.place.width_mm) + 20;
    return `${path(points)}L${edge},${z(top)}V${z(0)}Z`;
  }
  const back = $derived(shape('back'));
</script>

{#if back}
  <Face
    shape={back}
    reference={middle(back)}
    proudSign={1}
    box={wall}
    toPx={(u, v) => facePx(l, 'back', u, v)}
    figures={false}
  />
{:else}
  <rect class="bare" x={wall.x} y={wall.y} width={wall.w} height={wall.h} />
{/if}
{#each ['left', 'right'] as const as name (name)}
  {@const d = side(name)}
  {#if d}<path class="side" {d} />
  {:else if p.place.surfaces.includes(name)}
    <path class="guessed" d="M{x(name === 'left' ? 0 : p.place.width_mm)},{wall.y}v{wall.h}" />
  {/if}
{/each}
<text class="caption" x={wall.x + 6} y={wall.y - 8}
  >{back ? 'back wall, as measured' : 'back wall, not measured yet'}</text
>
{#each p.place.steps ?? [] as s (s.id)}
  {@const how = `${s.name}, ${showLength(Math.abs(s.by_mm), p.unit, 0)} `}
  {#if s.surface === 'back'}
    {@const lies = s.axis === 'second'}
    {@const y = lies ? z(Math.min(s.to_mm, top)) : wall.y}
    <rect
      class="step"
      x={lies ? wall.x : x(s.from_mm)}
      {y}
      width={lies ? wall.w : (s.to_mm - s.from_mm) * scale}
      height={lies ? Math.max(z(s.from_mm) - y, 0) : wall.h}
    /><text class="caption" x={(lies ? wall.x : x(s.from_mm)) + 4} y={y + 14}
      >{how}{s.by_mm >= 0 ? 'proud' : 'back'}</text
    >
  {:else if s.surface === 'floor'}
    {@const lies = s.axis === 'second'}
    {@const from = lies ? wall.x : x(s.from_mm)}
    <rect
      class="step"
      x={from}
      y={Math.min(z(s.by_mm), z(0))}
      width={lies ? wall.w : (s.to_mm - s.from_mm) * scale}
      height={Math.abs(s.by_mm) * scale}
    /><text class="caption" x={from + 4} y={z(Math.max(s.by_mm, 0)) - 4}
      >{how}{s.by_mm >= 0 ? 'higher' : 'lower'}{lies
        ? `, ${showLength(s.from_mm, p.unit, 0)} to ${showLength(s.to_mm, p.unit, 0)} out`
        : ''}</text
    >
  {/if}
{/each}
<Openings openings={said.openings ?? []} {l} />
{#each said.existing ?? [] as e (e.id)}
  {@const y = z((e.up_mm ?? 0) + e.height_mm)}
  <g class="stays" class:picked={p.picked.includes(e.id)}>
    {#if e.clear_mm}
      <rect
        class="clear"
        x={x(e.x_mm - e.clear_mm)}
        y={y - e.clear_mm * scale}
        width={(e.width_mm + 2 * e.clear_mm) * scale}
        height={(e.height_mm + e.clear_mm) * scale}
      />
    {/if}
    <rect class="body" x={x(e.x_mm)} {y} width={e.width_mm * scale} height={e.height_mm * scale} />
    <rect
      fill="url(#hatch-stays)"
      x={x(e.x_mm)}
      {y}
      width={e.width_mm * scale}
      height={e.height_mm * scale}
    />
    <text
      class="caption"
      data-under="14"
      x={x(e.x_mm + e.width_mm / 2)}
      y={y + (e.height_mm * scale) / 2 + 4}
      text-anchor="middle">{e.name}</text
    >
  </g>
{/each}

<style>
  .bare {
    fill: var(--w-wall);
  }
  .side {
    fill: var(--w-earth);
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .guessed {
    stroke: var(--w-ink);
    stroke-width: 1.2;
    stroke-dasharray: 5 4;
  }
  .step {
    fill: var(--w-earth);
    fill-opacity: 0.7;
    stroke: var(--w-ink);
    stroke-width: 0.8;
  }
  .stays .body {
    fill: var(--w-earth);
    stroke: var(--w-ink-soft);
    stroke-dasharray: 5 3;
  }
  .clear {
    fill: none;
    stroke: var(--w-ink-soft);
    stroke-dasharray: 1 4;
  }
  .caption {
    font-size: 11px;
    font-style: italic;
    fill: var(--w-ink-soft);
    paint-order: stroke;
    stroke: var(--w-page);
    stroke-opacity: 0.75;
    stroke-width: 2.5px;
    pointer-events: none;
  }
</style>
