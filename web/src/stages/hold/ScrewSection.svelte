<!-- One screw in its true length: through rail, packing and lining into what holds. -->
<script lang="ts">
  import type { Backing, Fastener } from '../../api/types';
  import { showLength, showSpread } from '../../entry/length';
  import { usePlace } from '../../state/place';

  interface Props {
    point: Fastener;
    backing: Backing;
  }
  let p: Props = $props();
  const view = usePlace();
  const packed = $derived(Math.max(0, p.point.packing.value_mm));
  const behind = $derived(
    { 'metal studs': 'metal stud', masonry: 'wall' }[p.backing.kind as string] ?? 'stud',
  );
  const parts = $derived([
    { kind: 'rail', what: p.point.part, mm: p.point.through_mm },
    { kind: 'packing', what: 'packing', mm: packed },
    { kind: 'lining', what: 'lining', mm: p.backing.lining_mm },
    { kind: 'stud', what: behind, mm: p.backing.deep_mm },
  ]);
  const starts = $derived(parts.map((_, i) => parts.slice(0, i).reduce((sum, q) => sum + q.mm, 0)));
  const whole = $derived(parts.reduce((sum, q) => sum + q.mm, 0));
  const k = $derived(340 / Math.max(whole, p.point.screw_mm));
</script>

<svg
  viewBox="-4 0 352 74"
  width="100%"
  role="img"
  aria-label="Screw {p.point.order} in a section, {p.point.screw_mm} long"
>
  {#each parts as part, i (i)}
    <rect class={part.kind} x={starts[i]! * k} y="8" width={Math.max(part.mm * k, 0.5)} height="40" />
    <text x={starts[i]! * k + (part.mm * k) / 2} y="62">{part.mm * k > 26 ? part.what : ''}</text>
  {/each}
  <path
    class="screw"
    d="M0,18l5,8h{p.point.screw_mm * k - 13}l8,2l-8,2h{-(p.point.screw_mm * k - 13)}l-5,8Z"
  />
</svg>
<p class="quiet">
  {p.point.shank_mm} × {showLength(p.point.screw_mm, view.unit, 0)} reaches
  <b class="figure">{showLength(p.point.reach_mm, view.unit)}</b>
  into the {behind} behind {showLength(packed, view.unit)}
  {showSpread(p.point.packing.sd_mm, view.unit)} of packing.
  {p.point.pilot_mm
    ? `Hole there ${showLength(p.point.pilot_mm, view.unit)}`
    : 'It makes its own hole there'}, through the {p.point.part}
  {showLength(p.point.clearance_mm, view.unit)}.
</p>
<p class="quiet figure">
  {(p.point.long.working ?? []).map((s) => `${s.label} ${showLength(s.value_mm, view.unit)}`).join(' + ')}
  = {showLength(p.point.long.value_mm, view.unit)} at least
</p>

<style>
  rect {
    stroke: var(--w-ink);
    stroke-width: 0.8;
    fill: var(--w-unit);
  }
  .packing {
    fill: var(--w-chalk-wash);
  }
  .lining {
    fill: var(--w-wall);
  }
  .stud {
    fill: var(--w-wood, #d9b98a);
  }
  .screw {
    fill: var(--w-ink);
    stroke: none;
  }
  text {
    font-size: 10px;
    text-anchor: middle;
    fill: var(--w-ink-soft);
  }
  p {
    font-size: 0.8125rem;
    margin-bottom: 0.35rem;
  }
</style>
