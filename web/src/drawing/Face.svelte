<!-- A surface seen square on: contour bands of how far it stands proud or hollow, veiled where it is not known. -->
<script lang="ts">
  import type { SurfaceShape } from '../api/types';
  import { showLength } from '../entry/length';
  import { bands, veils, VEILS } from './bands';
  import type { Box } from './layout';
  import { extremes } from './shape';
  import { usePlace } from '../state/place';

  interface Props {
    shape: SurfaceShape;
    /** What deviations are counted from, mm. */
    reference: number;
    proudSign: 1 | -1;
    box: Box;
    toPx: (first: number, second: number) => [number, number];
    /** Whether the highest and lowest spot carry their figures. */
    figures?: boolean;
  }
  let { shape, reference, proudSign, box, toPx, figures = true }: Props = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  const uid = $props.id();

  const drawn = $derived(bands(shape, reference, proudSign, toPx));
  const hidden = $derived(veils(shape, toPx));
  const peaks = $derived(figures && shape.n_readings > 2 ? extremes(shape, reference, VEILS[0]!) : []);
</script>

<g class="face" clip-path="url(#{uid}-clip)">
  <clipPath id="{uid}-clip"><rect x={box.x} y={box.y} width={box.w} height={box.h} /></clipPath>
  <rect class="ground" x={box.x} y={box.y} width={box.w} height={box.h} />
  {#if shape.n_readings}
    {#each drawn.all as band (band.kind + band.from)}
      <path class={band.kind} d={band.d} />
      {#if band.from > drawn.step}<path d={band.d} fill="url(#hatch-{band.kind})" />{/if}
    {/each}
    {#each hidden as d, i (i)}<path class="veil" {d} />{/each}
    {#each peaks as peak, i (i)}
      {@const [x, y] = toPx(...peak.at)}
      {@const by = peak.by * proudSign}
      {#if Math.abs(by) > 0.5}
        <text
          class="peak figure"
          data-under="15 -15 26 -26"
          data-stay
          class:proud-ink={by > 0}
          class:hollow-ink={by < 0}
          x={Math.min(box.x + box.w - 26, Math.max(box.x + 26, x))}
          y={Math.min(box.y + box.h - 6, Math.max(box.y + 14, y + 4))}
          >{by > 0 ? '+' : '−'}{showLength(Math.abs(by), unit)}</text
        >
      {/if}
    {/each}
  {/if}
</g>

<style>
  .ground {
    fill: var(--w-wall);
  }
  .proud {
    fill: var(--w-brass-fill);
    fill-opacity: 0.2;
  }
  .hollow {
    fill: var(--w-slate-fill);
    fill-opacity: 0.22;
  }
  .veil {
    fill: var(--w-page);
    fill-opacity: 0.55;
  }
  .peak {
    font-size: 11px;
    text-anchor: middle;
    paint-order: stroke;
    stroke: var(--w-wall);
    stroke-width: 3px;
    font-weight: 600;
  }
  .proud-ink {
    fill: var(--w-brass);
  }
  .hollow-ink {
    fill: var(--w-slate);
  }
</style>
