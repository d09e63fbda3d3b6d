<!-- A place cut through, upright or in plan, with a slider for where; pointing at it gives the values there. -->
<script lang="ts">
  import type { Place, Surveyed } from '../api/types';
  import { showLength, showSpread } from '../entry/length';
  import { SURFACE_NAMES } from '../entry/places';
  import { PROUD } from './layout';
  import { boxes, cuts, extent, nominal, paths, reach, type Way } from './section';
  import { usePlace } from '../state/place';

  interface Props {
    place: Place;
    surveyed: Surveyed;
    way: Way;
    room: number;
    exaggeration: number;
    /** Where the units stand: undersides over the mark and backs off the wall, mm. */
    base?: number;
    back?: number;
  }
  let p: Props = $props();
  const view = usePlace();
  let width = $state(800);
  let chosen = $state<Partial<Record<Way, number>>>({});
  let pointed = $state<[number, number] | null>(null);

  const far = $derived(reach(p.place, p.way));
  const at = $derived(Math.min(far, chosen[p.way] ?? (p.way === 'cut' ? far / 2 : Math.min(far, 600))));
  const size = $derived(extent(p.place, p.way));
  const MARGIN = 46;
  const scale = $derived(
    Math.min((width - 2 * MARGIN) / size.across, Math.max(160, p.room - 110) / size.up, 0.9),
  );
  const x0 = $derived((width - size.across * scale) / 2);
  const height = $derived(size.up * scale + 2 * MARGIN);
  /** A cut stands on its floor; a plan is seen from above with the back at the top, as one stands before it. */
  const px = $derived((across: number, up: number): [number, number] => [
    x0 + across * scale,
    p.way === 'cut' ? height - MARGIN - up * scale : MARGIN + up * scale,
  ]);
  const found = $derived(cuts(p.surveyed, p.way, at));
  const drawn = $derived(
    found.map((c) => ({ ...c, ...paths(c, p.exaggeration, nominal(p.place, c.surface), px) })),
  );
  const standing = $derived(boxes(p.place, p.way, at, p.base ?? 0, p.back ?? 0));
  const frame = $derived({ a: px(0, 0), b: px(size.across, size.up) });

  function point(event: PointerEvent) {
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    const across = (event.clientX - box.left - x0) / scale;
    const y = event.clientY - box.top;
    const up = (p.way === 'cut' ? height - MARGIN - y : y - MARGIN) / scale;
    pointed =
      across >= 0 && across <= size.across && up >= 0 && up <= size.up
        ? [Math.round(across / 10) * 10, Math.round(up / 10) * 10]
        : null;
  }

  /** What each surface does beside the pointer. */
  const told = $derived.by(() => {
    if (!pointed) return [];
    return found.map((c) => {
      const t = c.lies === 'across' ? pointed![0] : pointed![1];
      let i = 0;
      while (i < c.along.length - 1 && Math.abs(c.along[i + 1]! - t) < Math.abs(c.along[i]! - t)) i += 1;
      const by = (c.mean[i]! - c.reference) * PROUD[c.surface];
      return `${SURFACE_NAMES[c.surface]} ${showLength(Math.abs(by), view.unit)} ${showSpread(c.sd[i]!, view.unit)} ${by < 0 ? 'hollow' : 'proud'}`;
    });
  });
</script>

<div class="section" bind:clientWidth={null, (wide) => (width = wide || width)}>
  <label class="no-print">
    {p.way === 'cut' ? 'cut at' : 'plan at'}
    <b class="figure">{showLength(at, view.unit, 0)}</b>
    {p.way === 'cut' ? 'along' : 'up'}
    <input
      type="range"
      min="0"
      max={far}
      step={view.unit === 'in' ? 12.7 : 10}
      value={at}
      aria-label={p.way === 'cut' ? 'Where it is cut' : 'Height of the plan'}
      oninput={(e) => (chosen = { ...chosen, [p.way]: Number(e.currentTarget.value) })}
    />
  </label>
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    role="img"
    aria-label="{p.place.name}, {p.way === 'cut'
      ? `cut at ${showLength(at, view.unit, 0)} along`
      : `plan at ${showLength(at, view.unit, 0)} up`}"
    onpointermove={point}
    onpointerleave={() => (pointed = null)}
  >
    <rect
      class="room"
      x={Math.min(frame.a[0], frame.b[0])}
      y={Math.min(frame.a[1], frame.b[1])}
      width={Math.abs(frame.b[0] - frame.a[0])}
      height={Math.abs(frame.b[1] - frame.a[1])}
    />
    {#each standing as b (b.id)}
      {@const corner = px(b.across, p.way === 'cut' ? b.up + b.h : b.up)}
      <rect class="unit" x={corner[0]} y={corner[1]} width={b.w * scale} height={b.h * scale} />
      <text class="caption" x={corner[0] + (b.w * scale) / 2} y={corner[1] + (b.h * scale) / 2}>{b.name}</text
      >
    {/each}
    {#each drawn as c (c.surface)}
      <path class="band" d={c.band} />
      <path class="surface" d={c.line} />
    {/each}
    {#if pointed}
      {@const at = px(...pointed)}
      <path class="cross" d="M{at[0]},{frame.a[1]}V{frame.b[1]}M{frame.a[0]},{at[1]}H{frame.b[0]}" />
    {/if}
    <text class="caption" x={x0 + 4} y={p.way === 'cut' ? height - 8 : 14}
      >{p.way === 'cut' ? 'back wall at the left, room at the right' : 'back wall above, room below'}</text
    >
  </svg>
  <p class="quiet told" aria-live="polite">
    {#if told.length}{told.join(' · ')}{:else if !found.length}Nothing that it cuts is measured yet.{:else}Point
      at it for the values there; deviations from the middle of each surface are drawn ×{p.exaggeration}.{/if}
  </p>
</div>

<style>
  .section {
    width: 100%;
    min-width: 0;
    overflow: hidden;
  }
  label {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem;
    font-size: 0.875rem;
  }
  input {
    flex: 1;
    min-width: 8rem;
    accent-color: var(--w-ink);
    height: 28px;
  }
  svg {
    display: block;
  }
  .room {
    fill: var(--w-wall);
    fill-opacity: 0.45;
    stroke: var(--w-line-strong);
    stroke-dasharray: 2 4;
  }
  .unit {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .band {
    fill: var(--w-ink);
    fill-opacity: 0.13;
  }
  .surface {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 2;
  }
  .cross {
    stroke: var(--w-chalk);
    stroke-dasharray: 3 3;
    fill: none;
    pointer-events: none;
  }
  .caption {
    font-size: 11px;
    font-style: italic;
    fill: var(--w-ink-soft);
  }
  .unit + .caption {
    text-anchor: middle;
  }
  .told {
    font-size: 0.8125rem;
    min-height: 2.4em;
    margin: 0.2rem 0 0;
  }
</style>
