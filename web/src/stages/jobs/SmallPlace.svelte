<!-- A place drawn small: its units between two rods, over the floor as it runs, its wobble exaggerated. -->
<script lang="ts">
  import type { PlaceGlance } from '../../api/types';

  let { place }: { place: PlaceGlance } = $props();
  const HIGH = 100;
  const ROD = 6;
  const GAP = 4;
  const FLOOR = 14;
  /** As long as a place may be drawn beside its height: what is longer is drawn to this, as a boat's side is. */
  const LONGEST = 2.2;

  const wide = $derived(Math.min(LONGEST, Math.max(0.5, place.wide_mm / place.high_mm)) * HIGH);
  const x = $derived((mm: number) => ROD + GAP + (mm / place.wide_mm) * wide);
  const y = $derived((mm: number) => HIGH - (mm / place.high_mm) * HIGH);
  const floor = $derived.by(() => {
    const most = Math.max(2, ...place.floor_mm.map(Math.abs));
    return place.floor_mm.map((mm, i) => {
      const at = ROD + GAP + (i / (place.floor_mm.length - 1)) * wide;
      return `${at.toFixed(1)},${(HIGH + FLOOR / 2 - (mm / most) * (FLOOR / 2 - 2)).toFixed(1)}`;
    });
  });
  const left = ROD + GAP;
  const low = HIGH + FLOOR;
</script>

<svg viewBox="0 0 {left + wide} {low + GAP + ROD}" preserveAspectRatio="xMidYMid" aria-hidden="true">
  <rect class="rod" x="0" y="0" width={ROD} height={HIGH} />
  <rect class="rod" x={left} y={low + GAP} width={wide} height={ROD} />
  <rect class="wall" x={left} y="0" width={wide} height={HIGH} />
  {#if floor.length}
    <polygon class="ground" points="{left},{low} {floor.join(' ')} {left + wide},{low}" />
    <polyline class="floor" points={floor.join(' ')} />
  {:else}
    <line class="unread" x1={left} x2={left + wide} y1={HIGH + FLOOR / 2} y2={HIGH + FLOOR / 2} />
  {/if}
  {#each place.units as unit, i (i)}
    <rect
      class="unit"
      x={x(unit.x_mm)}
      y={y(unit.up_mm + unit.high_mm)}
      width={Math.max(1, x(unit.x_mm + unit.wide_mm) - x(unit.x_mm))}
      height={Math.max(1, y(unit.up_mm) - y(unit.up_mm + unit.high_mm))}
    />
    <line class="tick" x1={x(unit.x_mm)} x2={x(unit.x_mm)} y1={low + GAP} y2={low + GAP + ROD} />
    <line class="tick" x1="0" x2={ROD} y1={y(unit.up_mm + unit.high_mm)} y2={y(unit.up_mm + unit.high_mm)} />
  {/each}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    height: 100%;
    overflow: hidden;
  }
  .rod {
    fill: var(--w-wood);
    stroke: var(--w-wood-edge);
    stroke-width: 0.6;
  }
  .wall {
    fill: var(--w-sheet);
    stroke: var(--w-line-strong);
    stroke-width: 0.6;
  }
  .ground {
    fill: var(--w-line);
  }
  .floor {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.4;
  }
  .unread {
    stroke: var(--w-ink-soft);
    stroke-width: 1;
    stroke-dasharray: 3 3;
  }
  .unit {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.1;
  }
  .tick {
    stroke: var(--w-chalk);
    stroke-width: 1.2;
  }
</style>
