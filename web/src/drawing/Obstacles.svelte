<!-- What is in the way on a face: its outline, hatched where nothing may be drilled, and its kind. -->
<script lang="ts">
  import type { Obstacle, SurfaceName } from '../api/types';
  import { facePx, type Layout } from './layout';

  let { obstacles, surface, l }: { obstacles: readonly Obstacle[]; surface: SurfaceName; l: Layout } =
    $props();
  /** Signs that every font has; an outlet shows its two holes. */
  const SIGNS: Partial<Record<Obstacle['kind'], string>> = {
    outlet: '··',
    switch: '/',
    wire: '~',
    pipe: 'o',
    valve: 'x',
    vent: '=',
  };

  function box(m: Obstacle) {
    const [x0, y0] = facePx(l, surface, m.at[0], m.at[1]);
    const [x1, y1] = facePx(l, surface, m.at[0] + m.size[0], m.at[1] + m.size[1]);
    return {
      x: Math.min(x0, x1),
      y: Math.min(y0, y1),
      w: Math.max(3, Math.abs(x1 - x0)),
      h: Math.max(3, Math.abs(y1 - y0)),
    };
  }
</script>

{#each obstacles.filter((m) => m.surface === surface) as m (m.id)}
  {@const b = box(m)}
  <g class="obstacle" class:gone={m.treatment === 'remove'}>
    <title>{m.name}: {m.kind}, {m.treatment}</title>
    <rect x={b.x} y={b.y} width={b.w} height={b.h} />
    {#if SIGNS[m.kind] && b.h > 9}<text x={b.x + b.w / 2} y={b.y + b.h / 2 + 4}>{SIGNS[m.kind]}</text>{/if}
    {#if b.w > 60}<text class="name" data-under={b.h + 15} x={b.x + 4} y={b.y - 3}>{m.name}</text>{/if}
  </g>
{/each}

<style>
  .obstacle {
    pointer-events: none;
  }
  rect {
    fill: var(--w-unit);
    fill-opacity: 0.85;
    stroke: var(--w-stop);
    stroke-width: 1.6;
  }
  .gone rect {
    stroke-dasharray: 3 3;
    fill: none;
  }
  text {
    font: 700 13px var(--w-mono);
    fill: var(--w-stop);
    text-anchor: middle;
  }
  .name {
    text-anchor: start;
    font: 400 11px var(--w-sans);
    paint-order: stroke;
    stroke: var(--w-wall);
    stroke-width: 3px;
  }
</style>
