<!-- A surface with its lining faded: studs or joists as sure as they are, what was found of them, what rests or hooks there,
     and the screws. -->
<script lang="ts">
  import { written } from '../../drawing/figures';
  import { SURE_TO_BITE } from '../../api/fields';
  import type { Backing, Place, PlaceHold, Detection, Fastener, SurfaceName, Unit } from '../../api/types';
  import { facePx, type Layout } from '../../drawing/layout';
  import { showLength } from '../../entry/length';
  import { box, labels, sign, studOutline } from './shapes';
  import { usePlace } from '../../state/place';

  interface Props {
    l: Layout;
    surface: SurfaceName;
    place: Place;
    backing: Backing;
    hold: PlaceHold;
    units: readonly Unit[];
    found: readonly Detection[];
    base: number;
    lit: string | null;
    onpick: (id: string) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const px = (u: number, v: number) => facePx(p.l, p.surface, u, v);
  const known = $derived(
    p.surface === 'back' ? p.hold.back : p.hold.elsewhere.find((k) => k.surface === p.surface),
  );
  const odd = $derived(
    new Set([...(known?.odd ?? []), ...(known?.against ?? []).flatMap((c) => c.detections)]),
  );
  const found = $derived(p.found.filter((d) => (d.surface ?? 'back') === p.surface));
  const points = $derived<Fastener[]>(p.hold.fasteners.filter((f) => f.surface === p.surface));
  const numbers = $derived(
    written(
      labels(p.l, p.surface, points).map((o) => ({ x: o.x, y: o.y, text: o.orders.join(', ') })),
      p.surface === 'left',
    ),
  );
  const rests = $derived(
    p.surface === 'back'
      ? [
          ...p.hold.ledgers.map((l) => ({
            id: l.id,
            u: l.start_mm,
            v: l.top_mm - l.high_mm,
            w: l.end_mm - l.start_mm,
            h: l.high_mm,
          })),
          ...p.hold.nailing.nailers.flatMap((n) =>
            n.rows.map((up) => ({
              id: `${n.id}-${up}`,
              u: n.low[0],
              v: up,
              w: n.high[0] - n.low[0],
              h: n.high[1] - n.low[1],
            })),
          ),
          ...p.hold.held.flatMap((h) => [
            ...(h.ground
              ? [
                  {
                    id: h.unit,
                    u: h.ground.start_mm,
                    v: h.ground.up_mm - 45,
                    w: h.ground.end_mm - h.ground.start_mm,
                    h: 90,
                  },
                ]
              : []),
            ...(h.batten
              ? p.units
                  .filter((u) => u.id === h.unit)
                  .map((u) => ({
                    id: u.id,
                    u: u.x_mm + 20,
                    v: h.batten!.top_mm - h.batten!.high_mm,
                    w: u.width_mm - 40,
                    h: h.batten!.high_mm,
                  }))
              : []),
          ]),
        ]
      : [],
  );

  const key = (e: KeyboardEvent, id: string) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    e.stopPropagation();
    p.onpick(id);
  };
</script>

{#if p.surface === 'back'}
  {#each p.units as u (u.id)}
    {@const [left, top] = px(u.x_mm, p.base + (u.over_base_mm ?? 0) + u.height_mm)}
    <path
      class="unit"
      d={box(p.l, p.surface, u.x_mm, p.base + (u.over_base_mm ?? 0), u.width_mm, u.height_mm)}
    />
    {#if u.width_mm * p.l.scale > 48 && u.height_mm * p.l.scale > 24}
      <text class="name" data-under="14" x={left + 4} y={top + 12}>{u.name.split(' ')[0]}</text>
    {/if}
  {/each}
{/if}
{#each known?.lines ?? [] as line, i (i)}
  <path
    class="stud"
    class:guessed={!line.found_by.length}
    opacity={0.25 + 0.75 * line.chance}
    d={studOutline(p.l, p.surface, line, p.backing.stud_mm, p.place, known?.runs ?? 'not known')}
    ><title
      >{p.surface === 'ceiling' || p.surface === 'floor' ? 'A joist' : 'A stud'}, {showLength(
        line.at_mm,
        view.unit,
        0,
      )}, {Math.floor(line.chance * 100)} %{line.double ? ', one of two' : ''}</title
    ></path
  >
  {#if p.surface === 'back'}
    {@const half = p.backing.stud_mm / 2 + 2 * line.sd_mm}
    <path class="doubt" d="M{px(line.at_mm - half, 0).join(',')}v6M{px(line.at_mm + half, 0).join(',')}v6" />
  {/if}
{/each}
{#each rests as r, i (i)}<path class="rest" d={box(p.l, p.surface, r.u, r.v, r.w, r.h)} />{/each}
{#each found as d (d.id)}
  {@const [dx, dy] = px(d.at[0] as number, d.at[1] as number)}
  <path
    class="found"
    class:odd={odd.has(d.id)}
    class:met={d.sees === 'something else'}
    d={sign(d.sees, dx, dy)}
    ><title>{d.found_by}: {d.sees}, {showLength(d.at[0] as number, view.unit, 0)}</title></path
  >
{/each}
{#if p.surface === 'ceiling'}
  {#each p.hold.overhead as o, i (i)}
    {#each o.hangers as h, i (i)}
      {@const [x, y] = px(h.at[0] as number, h.at[1] as number)}
      <circle class="eye" class:unsure={!h.enough} cx={x} cy={y} r="5"
        ><title>{h.corner}: {h.how}</title></circle
      >
    {/each}
  {/each}
{/if}
{#each points as point (point.order)}
  {@const id = `screw-${point.order}`}
  {@const [x, y] = px(point.at[0] as number, point.at[1] as number)}
  <g
    class="screw"
    class:lit={p.lit === id}
    class:unsure={point.bites < SURE_TO_BITE}
    role="button"
    tabindex="0"
    aria-label="Screw {point.order}, bites with {Math.floor(point.bites * 100)} %"
    onclick={(e) => (e.stopPropagation(), p.onpick(id))}
    onkeydown={(e) => key(e, id)}
  >
    <circle class="touch" cx={x} cy={y} r="13" />
    <circle cx={x} cy={y} r="4.5" />
  </g>
{/each}
{#each numbers as label, i (i)}
  <text x={label.x} y={label.y + 4}>{label.text}</text>
{/each}

<style>
  .unit {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1;
    stroke-dasharray: 5 3;
  }
  .name {
    font: 500 11px var(--w-sans, sans-serif);
    fill: var(--w-ink-soft);
  }
  .stud {
    fill: var(--w-wood, #d9b98a);
    fill-opacity: 0.75;
    stroke: var(--w-wood-edge);
  }
  .guessed {
    stroke-dasharray: 3 3;
    fill-opacity: 0.4;
  }
  .rest {
    fill: var(--w-brass);
    fill-opacity: 0.35;
    stroke: var(--w-brass);
  }
  .doubt,
  .found {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.3;
  }
  .odd {
    stroke: var(--w-mind);
    stroke-width: 2;
  }
  .met {
    fill: var(--w-stop);
    stroke: var(--w-stop);
  }
  .touch {
    fill: transparent;
  }
  .screw {
    cursor: pointer;
  }
  .screw circle:not(.touch),
  .eye {
    fill: var(--w-chalk);
    stroke: var(--w-unit);
    stroke-width: 1.5;
  }
  .unsure circle:not(.touch),
  .eye.unsure {
    fill: var(--w-unit);
    stroke: var(--w-stop);
    stroke-width: 2;
  }
  .lit circle:not(.touch) {
    stroke: var(--w-ink);
    stroke-width: 3;
  }
  text:not(.name) {
    font: 600 11px var(--w-mono);
    fill: var(--w-chalk);
    paint-order: stroke;
    stroke: var(--w-unit);
    stroke-width: 3px;
  }
</style>
