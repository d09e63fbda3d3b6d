<!-- The stick of a rod, with its grain. -->
<script lang="ts">
  import type { Box } from './layout';

  let { box, way }: { box: Box; way: 'upright' | 'long' } = $props();
</script>

<rect x={box.x} y={box.y} width={box.w} height={box.h} rx="1.5" />
<path
  d={way === 'upright'
    ? `M${box.x + box.w * 0.35},${box.y + 3}V${box.y + box.h - 3}`
    : `M${box.x + 3},${box.y + box.h * 0.65}H${box.x + box.w - 3}`}
/>

<style>
  rect {
    fill: var(--w-wood);
    stroke: var(--w-wood-edge);
  }
  path {
    stroke: var(--w-wood-edge);
    stroke-opacity: 0.35;
    fill: none;
  }
</style>
