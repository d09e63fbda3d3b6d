<!-- A starter drawn in a few strokes: what its usual answers make, standing in a crooked place. -->
<script lang="ts">
  import type { StarterTold } from '../../../api/types';

  let { starter }: { starter: StarterTold } = $props();
  const W = 200;
  const H = 116;
  const reach = $derived(
    Math.min(starter.high_mm, Math.max(900, ...starter.sketch.map((s) => s.at.z_mm + s.at.high_mm)) * 1.12),
  );
  const scale = $derived(Math.min((W - 34) / starter.wide_mm, (H - 26) / reach));
  const left = $derived((W - starter.wide_mm * scale) / 2);
  const x = (mm: number) => left + mm * scale;
  const z = (mm: number) => H - 14 - mm * scale;
  /** Every place leans a little its own way, always the same. */
  const lean = $derived([...starter.id].reduce((n, c) => (n * 31 + c.charCodeAt(0)) % 97, 7));
  const off = (k: number) => (((lean * (k + 3)) % 13) - 6) * 0.9;
  const has = (s: string) => starter.walls.includes(s);
  const floor = $derived(
    `M${x(0) - 12},${H - 14 + off(1)}C${x(starter.wide_mm * 0.3)},${H - 14 - off(2)} ${x(starter.wide_mm * 0.7)},${H - 14 + off(3)} ${x(starter.wide_mm) + 12},${H - 14 - off(4) * 0.6}`,
  );
  const order = (kind: string) => (kind === 'window' || kind === 'door' ? 0 : kind === 'stays' ? 1 : 2);
</script>

<svg viewBox="0 0 {W} {H}" width={W} height={H} aria-hidden="true">
  {#if has('left')}
    <path
      class="wall"
      d="M{x(0) + off(5)},8C{x(0) - off(6) * 0.4},{H * 0.4} {x(0)},{H * 0.7} {x(0)},{H - 14}"
    />
  {/if}
  {#if has('right')}
    <path
      class="wall"
      d="M{x(starter.wide_mm) - off(7)},8C{x(starter.wide_mm) + off(8) * 0.4},{H * 0.4} {x(
        starter.wide_mm,
      )},{H * 0.7} {x(starter.wide_mm)},{H - 14}"
    />
  {/if}
  {#if has('ceiling')}
    <path
      class="wall"
      d="M{x(0) - 8},{7 + off(9) * 0.5}Q{W / 2},{7 - off(2) * 0.6} {x(starter.wide_mm) + 8},{7 -
        off(4) * 0.5}"
    />
  {/if}
  {#each starter.sketch.toSorted((a, b) => order(a.kind) - order(b.kind)) as s, i (i)}
    <rect
      class={s.kind.replace(' ', '-')}
      x={x(s.at.x_mm)}
      y={z(s.at.z_mm + s.at.high_mm)}
      width={Math.max(1.5, s.at.wide_mm * scale)}
      height={Math.max(1.5, s.at.high_mm * scale)}
    />
    {#if s.kind === 'boarding' || s.kind === 'batten wall' || s.kind === 'peg wall'}
      {#each [1, 2, 3, 4, 5] as k (k)}
        {@const y = z(s.at.z_mm + (s.at.high_mm * k) / 6)}
        <path
          class="line"
          class:dots={s.kind === 'peg wall'}
          d="M{x(s.at.x_mm)},{y}h{s.at.wide_mm * scale}"
        />
      {/each}
    {/if}
  {/each}
  {#if has('floor')}<path class="ground" d={floor} />{/if}
</svg>

<style>
  svg {
    width: 100%;
    height: auto;
    display: block;
  }
  .wall,
  .ground {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 2.2;
    stroke-linecap: round;
  }
  .wall {
    stroke-width: 1.4;
    stroke: var(--w-ink-soft);
  }
  rect {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 1;
  }
  .top,
  .shelf,
  .platform,
  .rack,
  .batten-wall,
  .boarding {
    fill: var(--w-brass-fill);
    fill-opacity: 0.8;
  }
  .line {
    stroke: var(--w-ink);
    stroke-width: 0.8;
    fill: none;
  }
  .dots {
    stroke-dasharray: 1 6;
    stroke-width: 2;
  }
  .cushion {
    fill: var(--w-slate-fill);
    fill-opacity: 0.6;
  }
  .stays {
    fill: var(--w-earth);
    stroke-dasharray: 3 2;
  }
  .window,
  .door {
    fill: var(--w-sheet);
    stroke: var(--w-ink-soft);
  }
  .panel {
    fill: var(--w-wood-edge);
  }
</style>
