<!-- The place at a step: what stands by then in ink, what the step sets in chalk, what must come after dashed. -->
<script lang="ts">
  import type { Place, PlannedStep, Unit } from '../../api/types';

  interface Props {
    place: Place;
    steps: readonly PlannedStep[];
    step: PlannedStep;
  }
  let { place, steps, step }: Props = $props();
  const SETS = ['set', 'top', 'frame', 'line', 'put in'];
  const at = $derived(steps.findIndex((s) => s.step.key === step.step.key));
  const setBy = $derived(
    new Map(
      steps.flatMap((s, i) =>
        SETS.includes(s.step.kind) && s.step.place === place.id && s.step.of?.[0]
          ? [[s.step.of[0], s.state === 'done' ? -1 : i] as const]
          : [],
      ),
    ),
  );
  /** Units that this step would be walled in by: they are set after it, for that reason. */
  const closes = $derived(
    new Map(
      steps.flatMap((s) =>
        s.before
          .filter(
            (t) =>
              t.first === step.step.key && (t.kind === 'trap' || t.kind === 'way in') && t.firm !== false,
          )
          .map((t) => [s.step.of?.[0] ?? '', t.why] as const),
      ),
    ),
  );
  const units = $derived(
    (place.units ?? []).toSorted((a, b) => (a.over_base_mm ?? 0) - (b.over_base_mm ?? 0)),
  );
  const top = $derived(Math.max(600, ...units.map((u) => (u.over_base_mm ?? 0) + u.height_mm)) + 80);
  const wide = $derived(Math.max(place.width_mm, ...units.map((u) => u.x_mm + u.width_mm)));
  const kind = (u: Unit) => {
    if (step.step.of?.includes(u.id)) return 'here';
    const turn = setBy.get(u.id);
    if (turn === undefined) return 'later';
    return turn < at ? 'stands' : closes.has(u.id) ? 'closes' : 'later';
  };
</script>

<svg viewBox="-40 -20 {wide + 80} {top + 70}" role="img" aria-label="What stands when this is done">
  <path class="ground" d="M-40,{top}H{wide + 40}" />
  {#each units as u (u.id)}
    {@const y = top - (u.over_base_mm ?? 0) - u.height_mm}
    <g class={kind(u)}>
      <rect x={u.x_mm} {y} width={u.width_mm} height={u.height_mm} />
      <text
        x={u.x_mm + u.width_mm * (u.height_mm < wide / 26 ? 0.08 : 0.5)}
        y={y + u.height_mm / 2 + wide / 70}
        text-anchor="middle"
        style:font-size="{Math.max(wide / 26, 40)}px">{u.id}</text
      >
    </g>
  {/each}
</svg>
{#if closes.size}
  <p class="closes">
    {#each closes as [id, why] (id)}<span><b>{id}</b> comes after: {why}</span>{/each}
  </p>
{/if}

<style>
  svg {
    width: 100%;
    max-height: 190px;
    display: block;
    background: var(--w-page);
    border: 1px solid var(--w-line);
  }
  .ground {
    stroke: var(--w-ink);
    stroke-width: 6;
    vector-effect: non-scaling-stroke;
    stroke-width: 1.5px;
  }
  rect {
    fill: none;
    stroke: var(--w-line-strong);
    vector-effect: non-scaling-stroke;
    stroke-width: 1px;
  }
  text {
    fill: var(--w-ink-soft);
  }
  .stands rect {
    fill: var(--w-wood);
    stroke: var(--w-ink);
    stroke-width: 1.4px;
  }
  .stands text {
    fill: var(--w-wood-ink);
  }
  .here rect {
    fill: var(--w-chalk-wash);
    stroke: var(--w-chalk);
    stroke-width: 2.6px;
  }
  .here text {
    fill: var(--w-chalk);
    font-weight: 700;
  }
  .later rect {
    stroke-dasharray: 2 4;
  }
  .closes rect {
    stroke: var(--w-mind);
    stroke-dasharray: 7 4;
    stroke-width: 2px;
  }
  .closes text {
    fill: var(--w-mind);
  }
  p.closes {
    font-size: 0.8125rem;
    margin: 0.3rem 0;
  }
  p.closes span {
    display: block;
  }
</style>
