<!-- Units on the back wall as they are to stand, with the levels of the one that is looked at; as ghost and ink where a
     plan would follow what stands. -->
<script lang="ts">
  import type { Change, Check, PlaceSet, Unit } from '../../api/types';
  import { xPx, zPx, type Layout } from '../../drawing/layout';
  import { signOf, tally } from './set';
  import Vial from './Vial.svelte';

  interface Props {
    l: Layout;
    units: readonly Unit[];
    checks: readonly Check[];
    stands: PlaceSet['stands'];
    base: number;
    /** The unit that is looked at, and the check in hand. */
    of: string | null;
    lit: string | null;
    /** What would move, where that is looked at. */
    changes: readonly Change[] | null;
    exaggeration: number;
    onpick: (key: string) => void;
    onunit: (id: string) => void;
  }
  let p: Props = $props();
  const stood = $derived(new Map(p.stands.map((s) => [s.unit, s])));
  /** Of the unit that is looked at, what is read in one go with the check in hand: more would hide it. */
  const step = $derived(
    p.checks.find((c) => c.key === p.lit)?.step ??
      p.checks.find((c) => c.of === p.of && c.state !== 'right')?.step,
  );
  const mine = $derived(p.checks.filter((c) => c.of === p.of && c.step === step));
  const moved = $derived(
    new Map(
      (p.changes ?? [])
        .filter((c) => c.kind === 'place')
        .map((c) => [c.about, (c.after_mm ?? 0) - (c.before_mm ?? 0)]),
    ),
  );
  const raised = $derived.by(() => {
    const base = (p.changes ?? []).find((c) => c.kind === 'base');
    return base ? (base.after_mm ?? 0) - (base.before_mm ?? 0) : 0;
  });
  /** A unit as it stands, what it is out by drawn larger than it is. */
  function outline(u: Unit, dx: number, dz: number, rise: number): string {
    const k = p.exaggeration;
    const low = p.base + (u.over_base_mm ?? 0);
    const px = (x: number, z: number) =>
      `${xPx(p.l, x + dx * k)},${zPx(p.l, z + (dz + rise * ((x - u.x_mm) / u.width_mm - 0.5)) * k)}`;
    const right = u.x_mm + u.width_mm;
    return `M${px(u.x_mm, low)}L${px(right, low)}L${px(right, low + u.height_mm)}L${px(u.x_mm, low + u.height_mm)}Z`;
  }
  /** Levels at one spot stand under each other. */
  const vials = $derived.by(() => {
    const at: { check: Check; x: number; y: number }[] = [];
    for (const check of mine) {
      const x = xPx(p.l, check.at[0]);
      let y = zPx(p.l, p.base + check.at[1]);
      while (at.some((o) => Math.abs(o.x - x) < 50 && Math.abs(o.y - y) < 17)) y += 18;
      at.push({ check, x, y });
    }
    return at;
  });
  const label = (u: Unit, t: ReturnType<typeof tally>) =>
    `${u.id}${t.out ? ' ✗' : t.open === 0 && t.right ? ' ✓' : ''}`;
  const key = (e: KeyboardEvent, run: () => void) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    e.stopPropagation();
    run();
  };
</script>

{#each p.units as u (u.id)}
  {@const s = stood.get(u.id)}
  {@const t = tally(p.checks.filter((c) => c.of === u.id))}
  {@const x = xPx(p.l, u.x_mm + u.width_mm / 2)}
  {@const y = zPx(p.l, p.base + (u.over_base_mm ?? 0) + u.height_mm)}
  <g
    class="unit"
    class:here={p.of === u.id}
    class:out={t.out > 0}
    class:done={t.open === 0 && t.out === 0 && t.right > 0}
    role="button"
    tabindex="0"
    aria-label="{u.name}: {t.out} out, {t.open} open, {t.right} right{label(u, t) === u.id
      ? ''
      : `, ${label(u, t)}`}"
    onclick={(e) => (e.stopPropagation(), p.onunit(u.id))}
    onkeydown={(e) => key(e, () => p.onunit(u.id))}
  >
    {#if s}<path class="stands" d={outline(u, s.right_mm, s.up_mm, s.rise_mm)} />{/if}
    {#if p.changes}
      <path class="ghost" d={outline(u, 0, 0, 0)} />
      {#if !s}<path class="ink" d={outline(u, moved.get(u.id) ?? 0, raised, 0)} />{/if}
    {:else}
      <path class="plan" d={outline(u, 0, 0, 0)} />
    {/if}
    {#if p.of !== u.id}
      <text {x} y={y + Math.min(14, (u.height_mm * p.l.scale) / 2 + 4)} text-anchor="middle"
        >{label(u, t)}</text
      >
    {/if}
  </g>
{/each}
{#if !p.changes}
  {#each vials as v (v.check.key)}
    <g
      class="vial"
      role="button"
      tabindex="0"
      aria-label="{signOf(v.check)} {v.check.name}, {v.check.state}"
      aria-pressed={p.lit === v.check.key}
      onclick={(e) => (e.stopPropagation(), p.onpick(v.check.key))}
      onkeydown={(e) => key(e, () => p.onpick(v.check.key))}
    >
      <title>{v.check.name}</title>
      <Vial check={v.check} x={v.x} y={v.y} lit={p.lit === v.check.key} />
    </g>
  {/each}
{/if}

<style>
  .unit,
  .vial {
    cursor: pointer;
  }
  .plan {
    fill: var(--w-unit);
    fill-opacity: 0.55;
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .here .plan {
    fill-opacity: 0.85;
    stroke: var(--w-chalk);
    stroke-width: 2;
  }
  .out .plan {
    stroke: var(--w-stop);
  }
  .done .plan {
    stroke: var(--w-fine);
  }
  .stands {
    fill: var(--w-brass-fill);
    fill-opacity: 0.28;
    stroke: var(--w-brass);
    stroke-width: 1.4;
  }
  .ghost {
    fill: none;
    stroke: var(--w-line-strong);
    stroke-dasharray: 3 3;
  }
  .ink {
    fill: var(--w-chalk-wash);
    fill-opacity: 0.6;
    stroke: var(--w-chalk);
    stroke-width: 1.8;
  }
  text {
    font-size: 11px;
    fill: var(--w-ink-soft);
    pointer-events: none;
  }
</style>
