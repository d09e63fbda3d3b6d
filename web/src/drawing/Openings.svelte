<!-- Doors and windows in the back, and where the wall ends: nothing is fixed there, and the wall is read around them. -->
<script lang="ts">
  import type { SetOut } from '../api/types';
  import { showLength } from '../entry/length';
  import { usePlace } from '../state/place';
  import { xPx, zPx, type Layout } from './layout';

  let { openings, l }: { openings: readonly NonNullable<SetOut['openings']>[number][]; l: Layout } = $props();
  const view = usePlace();
  /** From so wide on an opening is written in more than its name. */
  const ROOMY_PX = 200;
</script>

{#each openings as o (o.id)}
  {@const sill = o.sill_mm ?? 0}
  {@const high = Math.min(o.height_mm, l.top - sill)}
  {#if high > 0}
    {@const wide = o.width_mm * l.scale}
    <g class="opening" class:none={o.kind === 'no wall'}>
      <rect x={xPx(l, o.x_mm)} y={zPx(l, sill + high)} width={wide} height={high * l.scale} />
      {#if (o.kind ?? 'window') === 'window'}
        <path d="M{xPx(l, o.x_mm) - 6},{zPx(l, sill)}h{wide + 12}" />
      {/if}
      <text data-under="14" x={xPx(l, o.x_mm + o.width_mm / 2)} y={zPx(l, sill + high) + 16}
        >{o.name}{o.covering_mm && wide > ROOMY_PX
          ? `, covering ${showLength(o.covering_mm, view.unit, 0)} out`
          : ''}</text
      >
    </g>
  {/if}
{/each}

<style>
  .opening {
    pointer-events: none;
  }
  rect {
    fill: var(--w-sheet);
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .none rect {
    stroke-dasharray: 6 4;
  }
  path {
    stroke: var(--w-ink);
    stroke-width: 3.5;
  }
  text {
    font-size: 11px;
    font-style: italic;
    fill: var(--w-ink-soft);
    text-anchor: middle;
  }
</style>
