<!-- A sheet as on trestles: parts with their marks, cuts numbered in the order in which the saw makes them, offcuts kept in
     view. What may not be cut yet is drawn dashed. -->
<script lang="ts">
  import type { LaidSheet } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import { usePlace } from '../../../state/place';
  import { numberSpots } from '../piles';

  interface Props {
    sheet: LaidSheet;
    number: number;
    lit: string | null;
    /** How many of its cuts are made, as one goes through them; all are drawn. */
    upto: number | null;
    onpick: (key: string) => void;
  }
  let { sheet: s, number, lit, upto, onpick }: Props = $props();
  const view = usePlace();
  const LEG = 90;
  const EDGE = 60;
  const flip = (y: number, high: number) => s.wide_mm - y - high;
  const font = $derived(Math.max(34, s.long_mm / 52));
  const parts = $derived(
    s.parts.map((p, i) => {
      const [w, h] = p.turned ? [p.wide_mm, p.long_mm] : [p.long_mm, p.wide_mm];
      return { ...p, id: `${p.key} ${i}`, x: p.x_mm, y: flip(p.y_mm, h), w, h };
    }),
  );
  const cuts = $derived(
    s.cuts.map((c, i) => {
      const [x, y] = c.at;
      const [w, h] = c.size;
      const across = c.axis === 'x';
      return across
        ? { i, x1: c.at_mm, x2: c.at_mm, y1: flip(y, h), y2: flip(y, h) + h, long: h }
        : { i, x1: x, x2: x + w, y1: flip(c.at_mm, 0), y2: flip(c.at_mm, 0), long: w };
    }),
  );
  /** A number stands where its cut begins, or where along it there is room; on short ones there is none. */
  const long = $derived(cuts.filter((c) => c.long > font * 2.2));
  const spots = $derived(
    numberSpots(
      long,
      font * 1.3,
      parts.map((p): [number, number] => [p.x + p.w / 2, p.y + p.h / 2]),
    ),
  );
  const numbered = $derived(long.map((c, k) => ({ ...c, x: spots[k]![0], y: spots[k]![1] })));
  const before = $derived(new Set(s.before ?? []));
  const offcuts = $derived(s.rests.filter((r) => Math.min(...r.size) > 80));
</script>

<figure>
  <svg
    viewBox="{-EDGE} {-EDGE} {s.long_mm + 2 * EDGE} {s.wide_mm + 2 * EDGE + LEG}"
    role="group"
    aria-label="Sheet {number}: {s.parts.length} parts, {s.cuts.length} cuts"
  >
    <defs>
      <pattern
        id="off-{number}"
        width="26"
        height="26"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V26" class="hatch" />
      </pattern>
    </defs>
    {#each [0.18, 0.82] as at (at)}
      <path
        class="leg"
        d="M{s.long_mm * at - 40} {s.wide_mm} l-45 {LEG + EDGE} M{s.long_mm * at + 40} {s.wide_mm} l45 {LEG +
          EDGE}"
      />
    {/each}
    <rect class="sheet" width={s.long_mm} height={s.wide_mm} />
    {#each offcuts as r, i (i)}
      <rect
        x={r.at[0]}
        y={flip(r.at[1], r.size[1])}
        width={r.size[0]}
        height={r.size[1]}
        fill="url(#off-{number})"
      />
    {/each}
    {#each parts as p (p.id)}
      <g
        class="part"
        class:lit={lit === p.key}
        class:later={!p.ready}
        role="button"
        tabindex="0"
        aria-label="{p.mark} {showLength(p.long_mm, view.unit, 0)} × {showLength(p.wide_mm, view.unit, 0)}"
        onclick={() => onpick(p.key)}
        onkeydown={(e) => (e.key === 'Enter' || e.key === ' ') && onpick(p.key)}
      >
        <rect x={p.x} y={p.y} width={p.w} height={p.h} />
        {#if Math.min(p.w, p.h) > font * 1.1}
          <text x={p.x + p.w / 2} y={p.y + p.h / 2 + font * 0.1} font-size={font} text-anchor="middle"
            >{p.mark}</text
          >{' '}
          {#if p.h > font * 2.6 && p.w > font * 6}
            <text
              class="size"
              x={p.x + p.w / 2}
              y={p.y + p.h / 2 + font * 1.1}
              font-size={font * 0.75}
              text-anchor="middle"
              >{showLength(p.long_mm, view.unit, 0)} × {showLength(p.wide_mm, view.unit, 0)}</text
            >
          {/if}
        {/if}
      </g>
    {/each}
    {#each cuts as c (c.i)}
      <path class="cut" class:made={upto !== null && c.i < upto} d="M{c.x1} {c.y1}L{c.x2} {c.y2}" />
    {/each}
    {#each numbered as c (c.i)}
      <g class="no" class:next={upto === c.i}>
        {#if before.has(c.i)}
          <rect x={c.x - font * 0.6} y={c.y - font * 0.6} width={font * 1.2} height={font * 1.2} />
        {:else}
          <circle cx={c.x} cy={c.y} r={font * 0.62} />
        {/if}
        <text x={c.x} y={c.y + font * 0.26} font-size={font * 0.72} text-anchor="middle">{c.i + 1}</text>
      </g>
    {/each}
  </svg>
  <figcaption>
    <b>Sheet {number}</b>
    {s.name},
    <span class="figure">{showLength(s.long_mm, view.unit, 0)} × {showLength(s.wide_mm, view.unit, 0)}</span>
    {#if s.assumed}<span class="mind">assumed</span>{/if}
    <span class="quiet figure">{s.weight_kg.toFixed(0)} kg</span>
    {#if before.size}
      <span class="quiet"
        >■ cut {s.bought === false ? 'where it stands' : 'where it is bought'}: then {s.bought === false
          ? 'one lifts'
          : 'one lifts and the car takes'} each piece</span
      >
    {/if}
  </figcaption>
</figure>

<style>
  figure {
    margin: 0;
  }
  svg {
    width: 100%;
    height: auto;
    display: block;
  }
  .sheet {
    fill: var(--w-wood);
    stroke: var(--w-wood-edge);
    stroke-width: 5;
  }
  .leg {
    stroke: var(--w-wood-edge);
    stroke-width: 16;
    fill: none;
  }
  .hatch {
    stroke: var(--w-wood-edge);
    stroke-width: 3;
  }
  .part {
    cursor: pointer;
  }
  .part rect {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 3;
  }
  .later rect {
    stroke-dasharray: 22 14;
    fill: color-mix(in srgb, var(--w-unit) 55%, var(--w-wood));
  }
  .lit rect {
    fill: var(--w-chalk-wash);
    stroke: var(--w-chalk);
    stroke-width: 7;
  }
  text {
    fill: var(--w-ink);
    font-family: var(--w-mono);
  }
  .size {
    fill: var(--w-ink-soft);
  }
  .cut {
    stroke: var(--w-chalk);
    stroke-width: 4;
  }
  .cut.made {
    stroke: var(--w-line-strong);
  }
  .no :is(circle, rect) {
    fill: var(--w-chalk);
  }
  .no text {
    fill: var(--w-on-ink);
  }
  .no.next :is(circle, rect) {
    fill: var(--w-brass);
  }
  figcaption {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.6rem;
    font-size: 0.875rem;
  }
  @media print {
    figure {
      break-inside: avoid;
    }
  }
</style>
