<!-- The whole as rods: a week is a stick, its evenings are hands on it, steps are notches. Where something dries hangs
     a cord; a gate is a peg that must be pulled. -->
<script lang="ts">
  import type { PlannedStep, SessionPlan } from '../../api/types';
  import Wood from '../../drawing/Wood.svelte';
  import { cords, isGate, NUMBER_WIDE, sayDay, sayHour, sayMinutes, weeks, type Notch } from './order';

  interface Props {
    sessions: readonly SessionPlan[];
    steps: readonly PlannedStep[];
    lit: string | null;
    onpick: (key: string) => void;
  }
  let { sessions, steps, lit, onpick }: Props = $props();
  let width = $state(700);
  const LEFT = 62;
  const HIGH = 26;
  const ROW = 104;
  const laid = $derived(weeks(sessions, steps, width - LEFT - 6));
  const gates = $derived(new Set(steps.filter((s) => isGate(s.step.key, steps)).map((s) => s.step.key)));
  const hung = $derived(cords(steps));
  const near = $derived(new Set(steps.find((s) => s.step.key === lit)?.before.map((t) => t.first) ?? []));
  const waits = $derived(
    new Set(steps.filter((s) => s.before.some((t) => t.first === lit)).map((s) => s.step.key)),
  );
  /** Where each step begins and ends on the page. */
  const ends = $derived.by(() => {
    const found = new Map<string, { x0: number; row0: number; x1: number; row1: number }>();
    laid.weeks.forEach((w, row) =>
      w.hands.forEach((h) =>
        h.notches.forEach((n) => {
          const had = found.get(n.step.step.key);
          const x1 = LEFT + n.x + n.w;
          if (!had) found.set(n.step.step.key, { x0: LEFT + n.x, row0: row, x1, row1: row });
          else found.set(n.step.step.key, { ...had, x1, row1: row });
        }),
      ),
    );
    return found;
  });
  const top = (row: number) => 34 + row * ROW;
  const tall = $derived(top(laid.weeks.length) + 4);
  const boxOf = (n: Notch, row: number) => {
    const h = HIGH / n.lanes;
    return { x: LEFT + n.x, y: top(row) + n.lane * h, w: Math.max(n.w, 2), h };
  };
  /** A cord hangs from where it dries to what waits; over the end of a rod it goes on at the next. */
  function cordPath(from: string, to: string): { d: string; x: number; y: number } | null {
    const a = ends.get(from);
    const b = ends.get(to);
    if (!a || !b) return null;
    const y = top(a.row1) + HIGH;
    const same = a.row1 === b.row0;
    const end = same ? b.x0 : Math.min(width - 8, a.x1 + 60);
    const sag = Math.min(26, 10 + Math.abs(end - a.x1) / 8);
    return {
      d: `M${a.x1},${y}Q${(a.x1 + end) / 2},${y + sag * 2} ${end},${same ? y : y + sag}`,
      x: (a.x1 + end) / 2,
      y: y + sag + 11,
    };
  }
  /** Cords with their labels, each written where no other stands already. */
  const drawn = $derived.by(() => {
    const taken: { x: number; y: number }[] = [];
    return hung.flatMap((c) => {
      const path = cordPath(c.from, c.to);
      if (!path) return [];
      const free = taken.every((t) => Math.abs(t.x - path.x) > 32 || Math.abs(t.y - path.y) > 12);
      if (free) taken.push(path);
      return [{ ...c, ...path, free }];
    });
  });
  const label = (s: PlannedStep) =>
    `${s.step.name}, ${s.stretches?.[0] ? `${sayDay(s.stretches[0].start)} ${sayHour(s.stretches[0].start)}` : ''}, ${sayMinutes(s.minutes ?? 0)}`;
</script>

<div class="rods" bind:clientWidth={null, (wide) => (width = wide || width)}>
  <svg
    {width}
    height={tall}
    viewBox="0 0 {width} {tall}"
    role="group"
    aria-label="Sessions and their steps, week by week"
  >
    {#each laid.weeks as week, row (week.monday)}
      <text class="week" x="0" y={top(row) + 12}>week of</text>
      <text class="week figure" x="0" y={top(row) + 25}>{sayDay(week.monday).slice(4)}</text>
      {#each week.hands as hand, i (i)}
        <Wood box={{ x: LEFT + hand.x, y: top(row), w: hand.w, h: HIGH }} way="long" />
        <text class="day" x={LEFT + hand.x + 1} y={top(row) - 18}
          >{hand.w > 64
            ? `${sayDay(hand.session.start)} ${sayHour(hand.session.start)}`
            : hand.w > 26
              ? sayDay(hand.session.start).slice(0, 3)
              : ''}</text
        >
        {#each hand.notches as n, i (i)}
          {@const b = boxOf(n, row)}
          {@const key = n.step.step.key}
          <g
            class="notch"
            class:lit={lit === key}
            class:near={near.has(key)}
            class:waits={waits.has(key)}
            role="button"
            tabindex="0"
            aria-label="{n.number} {label(n.step)}"
            aria-pressed={lit === key}
            onclick={() => onpick(key)}
            onkeydown={(e) =>
              (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), e.stopPropagation(), onpick(key))}
          >
            <title>{label(n.step)}</title>
            <rect x={b.x} y={b.y} width={b.w} height={b.h} />
            <path class="cut" d="M{b.x},{b.y}l3,4.5l-3,4.5" />
            {#if b.w > NUMBER_WIDE}
              <text class="figure" x={b.x + b.w / 2} y={b.y + b.h / 2 + 4} text-anchor="middle"
                >{n.number}</text
              >
            {/if}
            {#if n.last && gates.has(key)}
              <path class="peg" d="M{b.x + b.w},{top(row)}v-6" />
              <circle class="peg" cx={b.x + b.w} cy={top(row) - 8} r="3.4" />
            {/if}
          </g>
        {/each}
      {/each}
      {#each week.others as s, i (i)}
        <g
          class="other"
          class:lit={lit === s.step.key}
          role="button"
          tabindex="0"
          aria-label={label(s)}
          onclick={() => onpick(s.step.key)}
          onkeydown={(e) =>
            (e.key === 'Enter' || e.key === ' ') &&
            (e.preventDefault(), e.stopPropagation(), onpick(s.step.key))}
        >
          <text x={LEFT} y={top(row) + HIGH + 34 + i * 13}
            >{sayDay(s.stretches![0]!.start)}: {s.step.name}, somebody else</text
          >
        </g>
      {/each}
    {/each}
    {#each drawn as c, i (i)}
      {@const mine = lit === c.from || lit === c.to}
      <g class="cord" class:lit={mine}>
        <path d={c.d} />
        {#if c.free || mine}
          <text class="figure" x={c.x} y={c.y} text-anchor="middle"
            >{Math.round(c.hours)} h{mine ? ` ${c.why}` : ''}</text
          >
        {/if}
      </g>
    {/each}
  </svg>
</div>
<p class="legend quiet no-print">
  A stick is a week, its pieces are your sessions; each notch begins a step. A peg holds back what is cut
  after it, a cord hangs where something dries. Touch a notch: what it needs is <b class="n">edged</b>, what
  waits for it is
  <b class="w">dashed</b>.
</p>

<style>
  @media print {
    svg {
      width: 100%;
      height: auto;
    }
  }
  .rods {
    min-width: 0;
    overflow: hidden;
  }
  svg {
    display: block;
  }
  text {
    font-size: 11px;
    fill: var(--w-ink);
  }
  .week {
    fill: var(--w-ink-soft);
  }
  .day {
    fill: var(--w-ink-soft);
    font-size: 11px;
  }
  .notch {
    cursor: pointer;
  }
  .notch rect {
    fill: var(--w-unit);
    fill-opacity: 0.55;
    stroke: var(--w-wood-ink);
    stroke-opacity: 0.45;
    stroke-width: 0.7;
  }
  .notch .cut {
    fill: var(--w-page);
    stroke: var(--w-wood-ink);
    stroke-width: 1;
  }
  .notch text {
    fill: var(--w-wood-ink);
    font-size: 10.5px;
  }
  .notch:hover rect {
    fill-opacity: 0.9;
  }
  .lit rect {
    fill: var(--w-chalk);
    fill-opacity: 1;
    stroke: var(--w-chalk);
    stroke-opacity: 1;
  }
  .lit text {
    fill: var(--w-on-ink);
    font-weight: 700;
  }
  .near rect {
    stroke: var(--w-chalk);
    stroke-opacity: 1;
    stroke-width: 2.2;
  }
  .waits rect {
    stroke: var(--w-chalk);
    stroke-opacity: 1;
    stroke-width: 1.6;
    stroke-dasharray: 4 2.5;
  }
  .peg {
    fill: var(--w-brass);
    stroke: var(--w-brass);
    stroke-width: 1.6;
  }
  .cord path {
    fill: none;
    stroke: var(--w-slate);
    stroke-width: 1.2;
  }
  .cord text {
    fill: var(--w-slate);
    font-size: 10px;
  }
  .cord.lit path {
    stroke-width: 2.4;
  }
  .cord.lit text {
    fill: var(--w-slate);
    font-weight: 700;
  }
  .other {
    cursor: pointer;
  }
  .other text {
    fill: var(--w-mind);
  }
  .other.lit text {
    fill: var(--w-mind);
    text-decoration: underline;
  }
  .legend {
    font-size: 0.75rem;
    margin-top: 0.4rem;
  }
  .n {
    border: 2px solid var(--w-chalk);
    padding: 0 0.2rem;
  }
  .w {
    border: 1.5px dashed var(--w-chalk);
    padding: 0 0.2rem;
  }
</style>
