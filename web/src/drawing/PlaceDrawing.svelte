<!-- A place between its two rods: back wall, the floor's ribbon, and the floor folded down below it.
     What stands or is measured there is drawn by the stage, through `on*` snippets that are given the layout. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Place, Surveyed, SurfaceName } from '../api/types';
  import { givingWay } from './figures';
  import Closer from './Closer.svelte';
  import Face from './Face.svelte';
  import Hatches from './Hatches.svelte';
  import Obstacles from './Obstacles.svelte';
  import Openings from './Openings.svelte';
  import { facePx, layout, PROUD, spotAt, xPx, zPx, type Found, type Layout } from './layout';
  import { ribbon, ribbonLine } from './ribbon';
  import Rod from './Rod.svelte';
  import { labelPx, widest, type Tick } from './rods';
  import { middle, profile, type Sample } from './shape';

  interface Props {
    place: Place;
    surveyed: Surveyed;
    title: string;
    /** Height that the drawing may take, px. */
    room: number;
    /** Where the ribbon's line stands, mm; the highest known floor if null. */
    base: number | null;
    /** Where the back's deviations are counted from, mm; its middle if null. */
    backReference: number | null;
    upright: readonly Tick[];
    long: readonly Tick[];
    lit: string | null;
    exaggeration: number;
    onpick: (id: string) => void;
    onspot?: (found: Found) => void;
    /** Told the spot under the pointer, and null when it leaves. */
    onpoint?: (found: Found | null) => void;
    figures?: boolean;
    /** What stands or is measured on a face, drawn over it. */
    onface?: Snippet<[SurfaceName, Layout]>;
    onribbon?: Snippet<[Layout, number]>;
  }
  const CAPTIONS = {
    left: 'left wall',
    right: 'right wall',
    ceiling: 'ceiling, folded up',
    back: '',
    floor: '',
  };
  /** How far the floor may be drawn over the line, px: it then stands in the units, which must be cut down. */
  const RISE = 60;
  let props: Props = $props();
  const { place, surveyed } = $derived(props);
  let width = $state(800);
  let near = $state(1);
  const compact = $derived(width < 560);

  const floor = $derived(surveyed.surfaces.find((s) => s.surface === 'floor'));
  const known = $derived(floor && floor.n_readings > 0 ? floor : null);
  const depths = $derived.by(() => {
    const depth =
      Math.max(...(place.units ?? []).map((u) => u.depth_mm - (u.toe_recess_mm ?? 60)), 0) ||
      place.depth_mm * 0.85;
    return [Math.min(40, place.depth_mm), Math.min(depth, place.depth_mm)] as const;
  });
  const rows = $derived(known ? depths.map((y) => profile(known, y)) : []);
  const line = $derived(
    props.base ??
      (known
        ? Math.max(
            ...rows
              .flat()
              .filter((s) => s.sd < 4)
              .map((s) => s.mean),
            -1e9,
          )
        : 0),
  );
  const reference = $derived(line > -1e8 ? line : known ? middle(known) : 0);
  const lowest = $derived(Math.max(2, ...rows.flat().map((s) => Math.min(reference - s.mean + s.sd, 40))));

  // Only as much of the wall as something stands on or was measured at; a break line says that it goes on.
  const reach = $derived(
    Math.max(
      ...(place.units ?? []).map((u) => u.height_mm + 260),
      ...surveyed.stations.filter((s) => s.surface === 'back').map((s) => s.at[1] + 260),
      ...place.obstacles.filter((m) => m.surface === 'back').map((m) => m.at[1] + m.size[1] + 80),
      600,
    ),
  );
  const whole = $derived(place.surfaces.some((s) => s !== 'back' && s !== 'floor'));
  const top = $derived(whole ? place.height_mm : Math.min(place.height_mm, reach));
  const written = $derived({
    up: labelPx(widest(props.upright), compact) - 4,
    along: labelPx(widest(props.long), compact),
    labels: props.long.length,
  });
  const first = $derived(sized(120, 1));
  /** In coarse steps: within one, turning the wobble redraws the ribbon and leaves all else as it stands. */
  const STEP = 24;
  const ribbonHeight = $derived(
    Math.min(
      compact ? 64 : 116,
      Math.ceil(Math.max(compact ? 30 : 44, lowest * props.exaggeration * first.scale + 20) / STEP) * STEP,
    ),
  );
  const afar = $derived(sized(ribbonHeight, 1));
  const l = $derived(near > 1 ? sized(ribbonHeight, near) : afar);
  const gain = $derived(props.exaggeration * l.scale);

  function sized(ribbonPx: number, nearer: number): Layout {
    return layout({
      width,
      room: props.room,
      near: nearer,
      written,
      placeWidth: place.width_mm,
      placeDepth: place.depth_mm,
      top,
      ribbon: ribbonPx,
      surfaces: place.surfaces,
      compact,
    });
  }

  const lineY = $derived(l.ribbon.y + 8);
  const spec = (samples: readonly Sample[]) => ({
    samples,
    reference,
    gain,
    x: (mm: number) => xPx(l, mm),
    y: lineY,
    reach: [-RISE, l.ribbon.h - 10] as [number, number],
    bottom: l.ribbon.y + l.ribbon.h,
  });
  const rear = $derived(rows[0] && ribbonLine(spec(rows[0])));
  const front = $derived(rows[1] && ribbon(spec(rows[1])));

  /** What stands over the line, in the units, is drawn over the wall. */
  const over = $derived(rows[1]?.some((s) => s.mean > reference) ? front?.body : undefined);

  /** The line that a lit tick draws through the drawing. */
  const guide = $derived.by(() => {
    const up = props.upright.find((t) => t.id === props.lit);
    if (up) return `M${l.upright.x + l.upright.w},${zPx(l, up.at)}H${l.wall.x + l.wall.w}`;
    const along = props.long.find((t) => t.id === props.lit);
    return along ? `M${xPx(l, along.at)},${l.wall.y}V${l.long.y}` : null;
  });

  /** The spot under the pointer, to the centimetre. */
  function spotOf(event: MouseEvent): Found | null {
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    const spot = spotAt(l, event.clientX - box.left, event.clientY - box.top);
    const round = (mm: number) => Math.round(mm / 10) * 10;
    return spot && { surface: spot.surface, at: [round(spot.at[0]), round(spot.at[1])] };
  }

  function touched(event: MouseEvent) {
    const spot = spotOf(event);
    if (spot) props.onspot?.(spot);
  }
</script>

<div class="drawing">
  <Closer bind:near bind:width height={afar.height}>
    <!-- by itself, under all else: each step of the wobble paints this anew, and nothing of what stands over it -->
    {#if front}
      <svg
        class="ribbon under"
        width={l.width}
        height={l.height}
        viewBox="0 0 {l.width} {l.height}"
        aria-hidden="true"
      >
        <path class="body" d={front.body} />
        <path class="far" d={front.far} />
        <path class="near" d={front.near} />
        <path class="rear" d={rear} />
        <path class="front" d={front.line} />
        <path class="chalk" d="M{l.ribbon.x - 6},{lineY}H{l.ribbon.x + l.ribbon.w + 6}" />
      </svg>
    {/if}
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
    <svg
      {@attach givingWay(l, props.lit, surveyed, place)}
      width={l.width}
      height={l.height}
      viewBox="0 0 {l.width} {l.height}"
      role="group"
      aria-label={props.title}
      onclick={touched}
      onpointermove={(e) => props.onpoint?.(spotOf(e))}
      onpointerleave={() => props.onpoint?.(null)}
    >
      <defs>
        <Hatches />
        <clipPath id="over-line"
          ><rect x="0" y={lineY - RISE - 2} width={l.width} height={RISE + 2} /></clipPath
        >
      </defs>

      {#each place.surfaces as name (name)}
        {@const box = l.faces[name]}
        {@const shape = surveyed.surfaces.find((s) => s.surface === name)}
        {#if box && shape && name !== 'floor'}
          <Face
            {shape}
            reference={name === 'back' ? (props.backReference ?? middle(shape)) : middle(shape)}
            proudSign={PROUD[name]}
            {box}
            toPx={(u, v) => facePx(l, name, u, v)}
            figures={props.figures ?? true}
          />
          {#if name !== 'back'}
            <rect class="edge" x={box.x} y={box.y} width={box.w} height={box.h} />
            <text class="caption" data-under="16" x={box.x + 4} y={box.y - 4}>{CAPTIONS[name]}</text>
            {@render props.onface?.(name, l)}
            <Obstacles obstacles={place.obstacles} surface={name} {l} />
          {/if}
        {/if}
      {/each}
      {#if !l.faces.back}<rect
          class="bare"
          x={l.wall.x}
          y={l.wall.y}
          width={l.wall.w}
          height={l.wall.h}
        />{/if}
      <path
        class="edge"
        d="M{l.wall.x},{l.wall.y}V{l.wall.y + l.wall.h}M{l.wall.x + l.wall.w},{l.wall.y}V{l.wall.y +
          l.wall.h}"
      />
      {#if top < place.height_mm}
        {@const w = l.wall.w / 12}
        <path
          class="break"
          d="M{l.wall.x},{l.wall.y}{Array.from(
            { length: 12 },
            (_, i) => `q${w / 4},${i % 2 ? 5 : -5} ${w / 2},0t${w / 2},0`,
          ).join('')}"
        />
      {/if}
      <text
        class="caption"
        data-under="16"
        x={l.wall.x + 6}
        y={l.faces.ceiling ? l.wall.y + 12 : l.wall.y - 5}>back wall, from the room</text
      >
      <Openings openings={place.openings ?? []} {l} />
      {@render props.onface?.('back', l)}
      <Obstacles obstacles={place.obstacles} surface="back" {l} />

      <g class="ribbon">
        {#if over}
          <g clip-path="url(#over-line)">
            <path class="over" d={over} />
            <path d={over} fill="url(#hatch-proud)" />
            <path class="front" d={front?.line} />
          </g>
        {:else if !known}
          <path class="chalk unknown" d="M{l.ribbon.x - 6},{lineY}H{l.ribbon.x + l.ribbon.w + 6}" />
          <text class="caption" x={l.ribbon.x + l.ribbon.w / 2} y={lineY + 20} text-anchor="middle"
            >the floor is not measured yet</text
          >
        {/if}
        {@render props.onribbon?.(l, lineY)}
      </g>

      {#if floor}
        <Face
          shape={floor}
          reference={props.base ?? middle(floor)}
          proudSign={1}
          box={l.floor}
          toPx={(x, y) => facePx(l, 'floor', x, y)}
          figures={props.figures ?? true}
        />
      {:else}
        <rect class="bare" x={l.floor.x} y={l.floor.y} width={l.floor.w} height={l.floor.h} />
      {/if}
      <rect class="edge" x={l.floor.x} y={l.floor.y} width={l.floor.w} height={l.floor.h} />
      <text class="caption" x={l.floor.x + l.floor.w - 6} y={l.floor.y - 5} text-anchor="end"
        >floor, folded down</text
      >
      {@render props.onface?.('floor', l)}
      <Obstacles obstacles={place.obstacles} surface="floor" {l} />

      {#if guide}<path class="guide" d={guide} />{/if}
      <Rod
        box={l.upright}
        way="upright"
        toPx={(z) => zPx(l, z)}
        length={top}
        ticks={props.upright}
        lit={props.lit}
        {compact}
        within={l.width}
        onpick={props.onpick}
      />
      <Rod
        box={l.long}
        way="long"
        toPx={(x) => xPx(l, x)}
        length={place.width_mm}
        ticks={props.long}
        lit={props.lit}
        {compact}
        within={l.width}
        rows={l.rows}
        onpick={props.onpick}
      />
    </svg>
  </Closer>
</div>

<style>
  .drawing {
    width: 100%;
    min-width: 0;
    overflow: hidden;
  }
  svg {
    display: block;
    position: relative;
    z-index: 1;
    font-family: var(--w-sans);
  }
  .under {
    position: absolute;
    inset: 0;
    z-index: 0;
    pointer-events: none;
  }
  @media print {
    svg {
      width: 100%;
      height: auto;
    }
  }
  .bare {
    fill: var(--w-wall);
  }
  .edge {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .break {
    fill: none;
    stroke: var(--w-line-strong);
  }
  .caption {
    font-size: 11px;
    fill: var(--w-ink-soft);
    font-style: italic;
    paint-order: stroke;
    stroke: var(--w-page);
    stroke-opacity: 0.7;
    stroke-width: 2.5px;
  }
  .guide {
    stroke: var(--w-chalk);
    stroke-width: 1.5;
    stroke-dasharray: 8 3;
    fill: none;
    pointer-events: none;
  }
  .ribbon .body {
    fill: var(--w-earth);
  }
  .ribbon .far,
  .ribbon .near {
    fill: var(--w-ink);
    fill-opacity: 0.1;
  }
  .ribbon .over {
    fill: var(--w-brass-fill);
    fill-opacity: 0.6;
  }
  .ribbon .front {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.8;
  }
  .ribbon .rear {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1;
    stroke-dasharray: 5 3;
  }
  .ribbon .chalk {
    stroke: var(--w-chalk);
    stroke-width: 1.5;
  }
  .ribbon .unknown {
    stroke-dasharray: 2 5;
  }
</style>
