<!-- The wall with its lining faded: studs as sure as they are, what was found of them, the units and their screws. -->
<script lang="ts">
  import type { Bay, BayHold, LengthUnit, Unit } from '../../api/types';
  import { xPx, zPx, type Layout } from '../../drawing/layout';
  import { showLength } from '../../entry/length';

  interface Props {
    l: Layout;
    bay: Bay;
    hold: BayHold;
    units: readonly Unit[];
    base: number;
    unit: LengthUnit;
    lit: string | null;
    onpick: (id: string) => void;
  }
  let p: Props = $props();
  const wide = $derived((p.bay.backing?.stud_mm ?? 45) * p.l.scale);
  const top = $derived(zPx(p.l, p.bay.height_mm));
  const foot = $derived(zPx(p.l, 0));
  const key = (e: KeyboardEvent, id: string) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    e.stopPropagation();
    p.onpick(id);
  };
</script>

{#each p.units as u (u.id)}
  <rect
    class="unit"
    x={xPx(p.l, u.x_mm)}
    y={zPx(p.l, p.base + (u.over_base_mm ?? 0) + u.height_mm)}
    width={u.width_mm * p.l.scale}
    height={u.height_mm * p.l.scale}
  />
{/each}
{#each p.hold.lines as line (line.at_mm)}
  <g class="stud" opacity={0.25 + 0.75 * line.chance}>
    <rect x={xPx(p.l, line.at_mm) - wide / 2} y={top} width={wide} height={foot - top} />
    <path
      class="doubt"
      d="M{xPx(p.l, line.at_mm - 2 * line.sd_mm) - wide / 2},{foot}v6M{xPx(p.l, line.at_mm + 2 * line.sd_mm) +
        wide / 2},{foot}v6"
    />
  </g>
{/each}
{#each p.bay.detections ?? [] as d (d.id)}
  {@const x = xPx(p.l, d.at[0] as number)}
  {@const y = zPx(p.l, d.at[1] as number)}
  <path
    class="found"
    class:odd={p.hold.odd.includes(d.id)}
    d={d.sees === 'miss'
      ? `M${x - 3},${y - 3}l6,6m0,-6l-6,6`
      : d.sees === 'left edge'
        ? `M${x},${y - 4}v8h3`
        : d.sees === 'right edge'
          ? `M${x},${y - 4}v8h-3`
          : `M${x - 3},${y}h6M${x},${y - 3}v6`}
    ><title>{d.method}: {d.sees}, {showLength(d.at[0] as number, p.unit, 0)} along</title></path
  >
{/each}
{#each p.hold.held as held (held.unit)}
  {#each held.points as point (point.order)}
    {@const id = `screw-${point.order}`}
    <g
      class="screw"
      class:lit={p.lit === id}
      class:unsure={point.bites < 0.9}
      role="button"
      tabindex="0"
      aria-label="Screw {point.order}, bites with {Math.floor(point.bites * 100)} %"
      onclick={() => p.onpick(id)}
      onkeydown={(e) => key(e, id)}
    >
      <circle
        class="touch"
        cx={xPx(p.l, point.at[0] as number)}
        cy={zPx(p.l, point.at[1] as number)}
        r="13"
      />
      <circle cx={xPx(p.l, point.at[0] as number)} cy={zPx(p.l, point.at[1] as number)} r="4.5" />
      <text x={xPx(p.l, point.at[0] as number) + 8} y={zPx(p.l, point.at[1] as number) + 4}
        >{point.order}</text
      >
    </g>
  {/each}
{/each}

<style>
  .unit {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1;
    stroke-dasharray: 5 3;
  }
  .stud rect {
    fill: var(--w-wood, #d9b98a);
    fill-opacity: 0.75;
    stroke: var(--w-wood-edge);
  }
  .doubt,
  .found {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.3;
  }
  .odd {
    stroke: var(--w-stop);
    stroke-width: 2;
  }
  .touch {
    fill: transparent;
  }
  .screw {
    cursor: pointer;
  }
  .screw circle:not(.touch) {
    fill: var(--w-chalk);
    stroke: var(--w-unit);
    stroke-width: 1.5;
  }
  .unsure circle:not(.touch) {
    fill: var(--w-unit);
    stroke: var(--w-stop);
    stroke-width: 2;
  }
  .lit circle:not(.touch) {
    stroke: var(--w-ink);
    stroke-width: 3;
  }
  text {
    font: 600 11px var(--w-mono);
    fill: var(--w-chalk);
    paint-order: stroke;
    stroke: var(--w-unit);
    stroke-width: 3px;
  }
</style>
