<!-- What is set out, between its two rods: the wall as it is measured behind, what stays, openings, and every piece. -->
<script lang="ts">
  import type { Edge, LaidStack, LengthUnit, Move, Place, SurfaceName } from '../../api/types';
  import Hatches from '../../drawing/Hatches.svelte';
  import Obstacles from '../../drawing/Obstacles.svelte';
  import { givingWay } from '../../drawing/figures';
  import type { Layout } from '../../drawing/layout';
  import { path } from '../../drawing/ribbon';
  import { profile } from '../../drawing/shape';
  import { showLength } from '../../entry/length';
  import Backdrop from './Backdrop.svelte';
  import { atRod, marked } from './rods/edges';
  import EdgeRod from './rods/EdgeRod.svelte';
  import HeightRod from './rods/HeightRod.svelte';
  import { heightTicks, raised } from './rods/heights';
  import PieceMark from './PieceMark.svelte';
  import type { SettingOut } from './setting-out.svelte';
  import TypeHere from './rods/TypeHere.svelte';

  interface Props {
    setting: SettingOut;
    place: Place;
    stack: LaidStack | null;
    room: number;
    wobble: number;
    unit: LengthUnit;
    lit: string | null;
    onlight: (id: string | null) => void;
  }
  let p: Props = $props();
  let width = $state(800);
  const compact = $derived(width < 560);
  const said = $derived(p.setting.said!);
  const laid = $derived(p.setting.laid!);
  const shapes = $derived(p.setting.surveyed?.surfaces ?? []);
  const shape = (name: SurfaceName) => shapes.find((s) => s.surface === name && s.n_readings > 0);

  /** As high as something stands, opens or stays, so that the drawing is as large as can be; never over the ceiling. */
  const reach = $derived(
    Math.max(
      600,
      ...laid.units.map((u) => (u.unit.over_base_mm ?? 0) + u.unit.height_mm),
      ...(said.existing ?? []).map((e) => (e.up_mm ?? 0) + e.height_mm),
      ...(said.openings ?? []).map((o) => (o.sill_mm ?? 0) + o.height_mm),
      ...(said.heights ?? []).map((s) => s.beside_mm ?? 0),
    ),
  );
  const top = $derived(Math.min(p.place.height_mm, reach * 1.06 + 60));
  /** What is written at the rods takes its room before the drawing does. */
  const CHAR_PX = 6.9;
  const longest = (words: readonly string[]) => Math.max(3, ...words.map((w) => w.length)) * CHAR_PX;
  const heights = $derived(heightTicks(said, laid, p.stack?.id ?? null, top, p.place.steps));
  const figures = $derived(longest(heights.map((t) => atRod(t.at, p.unit))));
  const slabs = $derived(
    compact || !p.stack
      ? 0
      : 54 +
          longest(p.stack.layers.map((s) => atRod(s.high_mm - s.low_mm, p.unit) + (s.gives ? ' gives' : ''))),
  );
  const along = $derived(
    marked(laid, {
      width_mm: p.place.width_mm,
      within: width,
      unit: p.unit,
      compact,
      picked: p.setting.picked,
      lit: p.lit,
    }),
  );
  const m = $derived(
    compact
      ? { left: 13 + 12 + 15 + figures, right: 18, head: 30, rod: 13 }
      : { left: 22 + 26 + 19 + figures + slabs, right: 40, head: 34, rod: 22 },
  );
  const RIBBON = 26;
  const FOOT = $derived(86 + (along.rows - 1) * 13);
  const scale = $derived(
    Math.min(
      Math.max(120, width - m.left - m.right) / p.place.width_mm,
      Math.max(140, p.room - m.head - RIBBON - FOOT) / top,
    ),
  );
  const wall = $derived({
    x: m.left + Math.max(0, (width - m.left - m.right - p.place.width_mm * scale) / 2),
    y: m.head,
    w: p.place.width_mm * scale,
    h: top * scale,
  });
  const floorY = $derived(wall.y + wall.h);
  const height = $derived(floorY + RIBBON + FOOT);
  const x = (mm: number) => wall.x + mm * scale;
  const z = (mm: number) => floorY - mm * scale;
  const l = $derived<Layout>({
    width,
    height,
    scale,
    wall,
    ribbon: { x: wall.x, y: floorY, w: wall.w, h: RIBBON },
    floor: { x: wall.x, y: floorY, w: wall.w, h: 0 },
    faces: { back: wall },
    upright: { x: wall.x - m.rod - (compact ? 12 : 26), y: wall.y, w: m.rod, h: wall.h },
    long: { x: wall.x, y: floorY + RIBBON + 6, w: wall.w, h: m.rod },
    rows: 1,
    top,
  });

  const gain = $derived(p.wobble * scale);
  const held = (v: number, most: number) => Math.max(-most, Math.min(most, v));
  /** The floor as it was read at its front, its deviation from where the run would stand exaggerated. */
  const floorLine = $derived.by(() => {
    const floor = shape('floor');
    if (!floor) return null;
    const at = profile(floor, p.place.depth_mm * 0.8);
    const high = Math.max(...at.filter((s) => s.sd < 6).map((s) => s.mean), -1e6);
    const line = at.map((s) => [x(s.at), floorY + held((high - s.mean) * gain, RIBBON - 6)] as const);
    return path(line) + `L${wall.x + wall.w},${floorY + RIBBON}H${wall.x}Z`;
  });
  /** What is typed where it is drawn. */
  let typing = $state.raw<{
    label: string;
    mm: number;
    x: number;
    y: number;
    set: (mm: number) => void;
  } | null>(null);
  function typeEdge(
    what: { edge: Edge; at: number } | { unit: string; wide: number },
    px: number,
    py: number,
  ) {
    const at = { x: Math.min(Math.max(px, 70), width - 70), y: Math.min(py, height - 24) };
    if ('edge' in what)
      typing = {
        label: 'Edge at',
        mm: what.at,
        ...at,
        set: (mm) => void p.setting.do({ move: 'type', edge: what.edge, at_mm: mm } as Move),
      };
    else
      typing = {
        label: 'Wide',
        mm: what.wide,
        ...at,
        set: (mm) => void p.setting.do({ move: 'type width', unit: what.unit, wide_mm: mm } as Move),
      };
  }
  function typeLayer(member: string | null, mm: number, px: number, py: number) {
    const id = p.stack?.id;
    typing = {
      label: member ?? 'Finished height',
      mm,
      x: Math.max(px, 74),
      y: py,
      set: (value) =>
        void p.setting.change({
          heights: (said.heights ?? []).map((s) => {
            if (s.id !== id) return s;
            if (member === null) return { ...s, finished_mm: value };
            const members = s.members.map((k) => (k.name === member ? { ...k, high_mm: value } : k));
            // a number typed on the one that gives makes it a number: nothing gives until another is chosen
            return { ...s, members, gives: s.gives === member ? null : s.gives };
          }),
        }),
    };
  }
  function raise(of: { unit: string; part: 'top' | 'underside' }, at: number, dragged: boolean) {
    const from = dragged ? p.setting.from : said;
    const units = (from.units ?? []).map((u) => (u.id === of.unit ? { ...u, ...raised(u, of.part, at) } : u));
    if (dragged) p.setting.dragTo({ ...from, units });
    else void p.setting.change({ units });
  }
  const release = (rules: readonly string[]) => {
    for (const rule of rules) void p.setting.do({ move: 'release', rule } as Move);
  };
  const inOrder = $derived(
    laid.units.toSorted((a, b) =>
      (b.unit.out_mm ?? 0) + b.unit.depth_mm < (a.unit.out_mm ?? 0) + a.unit.depth_mm ? 1 : -1,
    ),
  );
  const uprightLine = $derived(p.stack ? z(p.stack.layers.at(-1)?.high_mm ?? 0) : null);
</script>

<div class="drawing" bind:clientWidth={null, (wide) => (width = wide || width)}>
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    role="group"
    aria-label="{p.place.name}, set out"
    onclick={() => p.setting.pick(null)}
    {@attach givingWay(l, laid, p.lit, p.setting.picked)}
  >
    <defs>
      <Hatches />
      <pattern
        id="hatch-stays"
        width="8"
        height="8"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
        ><path d="M0 0V8" stroke="var(--w-ink-soft)" stroke-opacity="0.4" /></pattern
      >
    </defs>
    <Backdrop
      {l}
      {said}
      place={p.place}
      wobble={p.wobble}
      unit={p.unit}
      {compact}
      {shapes}
      picked={p.setting.picked}
    />
    {#each inOrder as u (u.unit.id)}
      <PieceMark
        laid={u}
        {x}
        {z}
        {scale}
        picked={p.setting.picked.includes(u.unit.id)}
        lit={p.lit === u.unit.id}
        onpick={(more) => p.setting.pick(u.unit.id, more)}
      />
    {/each}
    <Obstacles obstacles={p.place.obstacles} surface="back" {l} />
    {#if floorLine}<path class="floor" d={floorLine} />
    {:else}<rect class="floor" x={wall.x} y={floorY} width={wall.w} height={RIBBON - 14} />{/if}
    <path class="edge" d="M{wall.x - 8},{floorY}H{wall.x + wall.w + 8}" />
    {#if uprightLine !== null && slabs}
      <path class="level" d="M{l.upright.x + l.upright.w},{uprightLine}H{wall.x + wall.w}" />
    {/if}
    {#if p.stack}
      {@const beside = (said.heights ?? []).find((s) => s.id === p.stack?.id)}
      {#if beside?.beside_mm && beside.beside_mm <= top}
        <path class="beside" d="M{wall.x},{z(beside.beside_mm)}H{wall.x + wall.w}" />
        <text class="caption" x={wall.x + wall.w - 4} y={z(beside.beside_mm) - 5} text-anchor="end"
          >{beside.beside}, {showLength(beside.beside_mm, p.unit, 0)}</text
        >
      {/if}
    {/if}
    <HeightRod
      box={l.upright}
      {z}
      stack={p.stack}
      ticks={heights}
      {figures}
      {slabs}
      unit={p.unit}
      {scale}
      onraise={raise}
      ondrop={(keep) => void p.setting.drop(keep)}
      onpick={(id) => p.setting.pick(id)}
      ontypeheight={(of, mm, px, py) =>
        (typing = {
          label: of.part === 'top' ? 'Top at' : 'Underside at',
          mm,
          x: Math.max(px, 74),
          y: py,
          set: (value) => raise(of, value, false),
        })}
      ontype={typeLayer}
    />
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <g onclick={(e) => e.stopPropagation()}>
      <EdgeRod
        box={l.long}
        {laid}
        rules={said.rules ?? []}
        marked={along}
        {scale}
        within={width}
        unit={p.unit}
        picked={p.setting.picked}
        {compact}
        lit={p.lit}
        ondrag={(move) => p.setting.drag(move)}
        ondrop={(keep) => void p.setting.drop(keep)}
        onmove={(move) => void p.setting.do(move)}
        ontype={typeEdge}
        onrelease={release}
        onpick={(id) => p.setting.pick(id)}
        onlight={p.onlight}
      />
    </g>
  </svg>
  {#if typing}
    {@const now = typing}
    {#key now}
      <TypeHere
        label={now.label}
        mm={now.mm}
        x={now.x}
        y={now.y}
        onset={now.set}
        onclose={() => (typing = null)}
      />
    {/key}
  {/if}
</div>

<style>
  .drawing {
    position: relative;
    width: 100%;
    min-width: 0;
    overflow: hidden;
  }
  svg {
    display: block;
    font-family: var(--w-sans);
    user-select: none;
  }
  .floor {
    fill: var(--w-earth);
    stroke: var(--w-ink);
    stroke-width: 1;
  }
  .edge {
    stroke: var(--w-ink);
    stroke-width: 1.2;
    fill: none;
  }
  .level {
    stroke: var(--w-chalk);
    stroke-width: 1;
    stroke-dasharray: 9 4;
    fill: none;
    pointer-events: none;
  }
  .beside {
    stroke: var(--w-slate);
    stroke-width: 1.4;
    stroke-dasharray: 2 4;
    fill: none;
    pointer-events: none;
  }
  .caption {
    font-size: 11px;
    font-style: italic;
    fill: var(--w-ink-soft);
    paint-order: stroke;
    stroke: var(--w-page);
    stroke-opacity: 0.75;
    stroke-width: 2.5px;
    pointer-events: none;
  }
  @media print {
    svg {
      width: 100%;
      height: auto;
    }
  }
</style>
