<!-- The run to scale, so that a slip in a size is seen. -->
<script lang="ts">
  import type { Place, Unit } from '../../../api/types';

  let { place }: { place: Place } = $props();
  const units = $derived(place.units ?? []);
  const over = (u: Unit) => u.over_base_mm ?? 0;
  const tall = $derived(Math.max(...units.map((u) => over(u) + u.height_mm), 300));
  const wide = $derived(Math.max(place.width_mm, ...units.map((u) => u.x_mm + u.width_mm)));
  const overlaps = $derived(
    units.filter((u) =>
      units.some(
        (v) =>
          v !== u &&
          u.x_mm < v.x_mm + v.width_mm - 0.05 &&
          v.x_mm < u.x_mm + u.width_mm - 0.05 &&
          over(u) < over(v) + v.height_mm - 0.05 &&
          over(v) < over(u) + u.height_mm - 0.05,
      ),
    ),
  );
</script>

<svg viewBox="-20 -20 {wide + 40} {tall + 60}" style:max-height="11rem" aria-hidden="true">
  <path class="wall" d="M0 {-20}V{tall}H{place.width_mm}V{-20}" />
  {#each units as u (u.id)}
    <rect
      class:over={overlaps.includes(u)}
      x={u.x_mm}
      y={tall - over(u) - u.height_mm}
      width={u.width_mm}
      height={u.height_mm}
    />
    {#if u.height_mm > 100}<text
        x={u.x_mm + u.width_mm / 2}
        y={tall - over(u) - u.height_mm / 2}
        font-size={Math.min(tall / 9, 90)}>{u.name}</text
      >{/if}
  {/each}
</svg>
{#if overlaps.length}
  <p class="mind">
    {overlaps.map((u) => u.name).join(' and ')} stand in the same place. Move one, or make it narrower.
  </p>
{/if}

<style>
  svg {
    display: block;
    width: 100%;
    margin-bottom: 0.75rem;
  }
  .wall {
    fill: var(--w-wall);
    stroke: var(--w-ink);
    stroke-width: 8;
  }
  rect {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 4;
  }
  .over {
    stroke: var(--w-stop);
    stroke-dasharray: 24 12;
  }
  text {
    fill: var(--w-ink);
    text-anchor: middle;
    dominant-baseline: middle;
    font-family: var(--w-sans);
  }
  .mind {
    color: var(--w-stop);
    margin-bottom: 0.5rem;
  }
</style>
