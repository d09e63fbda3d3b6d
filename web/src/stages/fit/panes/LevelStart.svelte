<!-- Where level starts: one slider over what it costs, and the two methods beside each other. -->
<script lang="ts">
  import type { Datum, Plan, DatumMethod } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import { path } from '../../../drawing/ribbon';
  import { markOf, showLength } from '../../../entry/length';
  import LengthField from '../../../entry/LengthField.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    plan: Plan;
    datum: Datum;
    methods: readonly DatumMethod[];
    tallest: number;
    onturn: (datum: Datum) => void;
    onkeep: () => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const W = 340;
  const H = 74;
  const mark = $derived(markOf(view.unit));
  /** Whole marks, so that the slider stands on them; the costs are known from 12 below to 20 above. */
  const LOW = $derived(-Math.floor(12 / mark) * mark);
  const HIGH = $derived(Math.floor(20 / mark) * mark);
  /** What the scale names at either side of the high spot. */
  const NAMED = $derived(view.unit === 'in' ? 6 * mark : 10);

  // From what is asked, not from the last answer: a slider that waited for the server would lose key presses.
  const over = $derived(
    p.datum.rule === 'high spot'
      ? p.datum.over_mm
      : p.datum.top_mm -
          p.datum.cushion_mm -
          p.tallest -
          (p.plan.base.height.value_mm - p.plan.base.over_high_spot.value_mm),
  );
  /** Whether a height was asked for: where nothing stands on the floor there is nothing else to choose. */
  const asked = $derived(p.datum.rule === 'fixed top' || p.datum.over_mm !== 0);
  const held = $derived(Math.max(LOW, Math.min(HIGH, over)));
  const most = $derived(
    Math.max(4, ...p.plan.trades.map((t) => Math.max(t.largest_shim_mm, t.deepest_cut_mm))),
  );
  const x = (mm: number) => ((mm - LOW) / (HIGH - LOW)) * W;
  const y = (mm: number) => H - 4 - (mm / most) * (H - 16);
  const shim = $derived(path(p.plan.trades.map((t) => [x(t.over_mm), y(t.largest_shim_mm)] as const)));
  const cut = $derived(path(p.plan.trades.map((t) => [x(t.over_mm), y(t.deepest_cut_mm)] as const)));
  const sure = $derived(p.plan.base.sure_over_mm);
  const count = $derived({
    shimmed: p.plan.shims.filter((s) => s.filling.kind === 'stack' || s.filling.kind === 'block').length,
    bare: p.plan.shims.filter((s) => s.filling.kind === 'bare').length,
    cut: p.plan.shims.filter((s) => s.filling.kind === 'cut').length,
    largest: Math.max(0, ...p.plan.shims.map((s) => s.gap.value_mm)),
  });

  /** The slider stands for the height over the high spot; under a fixed top the same move moves the top. */
  function turn(mm: number) {
    if (p.datum.rule === 'high spot') p.onturn({ rule: 'high spot', over_mm: mm });
    else p.onturn({ ...p.datum, top_mm: Math.round((p.datum.top_mm + mm - over) / mark) * mark });
  }
</script>

<section aria-labelledby="level-start">
  <h2 id="level-start">Where level starts</h2>
  {#if !p.plan.base.stands}
    <p class="none">
      Nothing stands on the floor here: no shims and no cuts hang on this.
      {#if p.plan.base.tied}Heights count from
        <b class="figure">{showLength(p.plan.base.height.value_mm, view.unit)}</b> over the datum mark.{/if}
    </p>
  {/if}
  {#if p.plan.base.stands || asked}
    <div class="columns">
      <div class="methods" role="group" aria-label="Methods">
        {#each p.methods as method (method.method)}
          {@const chosen = method.method === p.datum.rule}
          <button
            class:chosen
            aria-pressed={chosen}
            onclick={() => (p.onturn(method.datum as Datum), p.onkeep())}
          >
            <b
              >{method.method === 'high spot'
                ? 'From the high spot'
                : `Top at ${showLength((method.datum as { top_mm: number }).top_mm, view.unit, 1)}`}</b
            >
            <span
              >{method.cost.n_shims} shims, to
              <span class="figure">{showLength(method.cost.largest_shim_mm, view.unit)}</span>{method.cost
                .n_cut
                ? `, ${method.cost.n_cut} cut`
                : ''}</span
            >
            <span class="quiet">{method.proposed ? 'proposed: ' : ''}{method.reason}</span>
          </button>
        {/each}
        {#if p.datum.rule === 'fixed top'}
          {@const top = p.datum}
          <div class="exact">
            <LengthField
              label="Top over the mark"
              value={top.top_mm}
              least={1}
              onchange={(mm) => (p.onturn({ ...top, top_mm: mm! }), p.onkeep())}
            />
            <Select
              labelText="to meet"
              size="sm"
              selected={top.to}
              on:change={(e: Event) => (
                p.onturn({ ...top, to: (e.target as HTMLSelectElement).value as typeof top.to }),
                p.onkeep()
              )}
            >
              {#each ['a height', 'a neighbour', 'a sill', 'a worktop', 'a table', 'a seat'] as to (to)}<SelectItem
                  value={to}
                  text={to}
                />{/each}
            </Select>
            {#if top.to === 'a seat'}
              <LengthField
                label="Cushion on it"
                value={top.cushion_mm}
                least={0}
                onchange={(mm) => (p.onturn({ ...top, cushion_mm: mm! }), p.onkeep())}
              />
            {/if}
          </div>
        {/if}
      </div>
      {#if p.plan.base.stands}<div>
          <div class="curve">
            <svg viewBox="0 0 {W} {H}" width="100%" height={H} preserveAspectRatio="none" aria-hidden="true">
              <rect class="sure" x={x(sure)} y="0" width={W - x(sure)} height={H - 4} />
              <path class="ground" d="M0,{H - 4}H{W}" />
              <path class="zero" d="M{x(0)},0V{H - 4}" />
              <path class="shim" d={shim} />
              <path class="cut" d={cut} />
              <path class="at" d="M{x(held)},0V{H}" />
            </svg>
            <span class="tag cut-tag">cut off the base</span>
            <span class="tag shim-tag">largest shim</span>
          </div>
          <input
            type="range"
            min={LOW}
            max={HIGH}
            step={mark}
            value={held}
            aria-label="Height over the high spot"
            aria-valuetext="{showLength(over, view.unit)} over the high spot"
            oninput={(e) => turn(Number(e.currentTarget.value))}
            onchange={() => p.onkeep()}
          />
          <div class="scale quiet figure" aria-hidden="true">
            <span style:left="{(x(-NAMED) / W) * 100}%">−{showLength(NAMED, view.unit, 0)}</span><span
              style:left="{(x(0) / W) * 100}%">high spot</span
            ><span style:left="{(x(NAMED) / W) * 100}%">+{showLength(NAMED, view.unit, 0)}</span>
          </div>
          <p class="now">
            <span><b class="figure">{showLength(over, view.unit)}</b> over the high spot</span>
            <span
              ><b class="figure">{count.shimmed}</b> shimmed, <b class="figure">{count.bare}</b>
              bare{#if count.cut}, <b class="figure cutting">{count.cut}</b> cut{/if}</span
            >
            <span>largest <b class="figure">{showLength(count.largest, view.unit)}</b></span>
          </p>
        </div>{/if}
    </div>
  {/if}
</section>

<style>
  h2 {
    font-size: 0.9375rem;
    margin-bottom: 0.5rem;
  }
  .none {
    font-size: 0.875rem;
    max-width: 34rem;
    margin-bottom: 0.5rem;
  }
  .columns {
    display: grid;
    grid-template-columns: 205px minmax(0, 1fr);
    gap: 1rem;
  }
  .methods {
    display: grid;
    gap: 0.4rem;
    align-content: start;
  }
  .methods button {
    text-align: left;
    display: flex;
    flex-direction: column;
    gap: 0.1rem;
    padding: 0.3rem 0.6rem;
    background: var(--w-raised);
    border: 1px solid var(--w-line-strong);
    border-radius: var(--w-radius);
    color: var(--w-ink);
    font-size: 0.8125rem;
    cursor: pointer;
  }
  .methods .chosen {
    border: 2px solid var(--w-chalk);
    padding: calc(0.3rem - 1px) calc(0.6rem - 1px);
  }
  .methods b {
    font-size: 0.875rem;
  }
  .exact {
    max-width: 12rem;
    display: grid;
    gap: 0.4rem;
  }
  .curve {
    position: relative;
    padding: 0 8px;
  }
  svg {
    display: block;
    overflow: visible;
  }
  .sure {
    fill: var(--w-chalk-wash);
  }
  .ground {
    stroke: var(--w-line-strong);
  }
  .zero {
    stroke: var(--w-line-strong);
    stroke-dasharray: 2 3;
  }
  .shim,
  .cut {
    fill: none;
    stroke: var(--w-chalk);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }
  .cut {
    stroke: var(--w-stop);
    stroke-dasharray: 6 4;
  }
  .at {
    stroke: var(--w-ink);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
  .tag {
    position: absolute;
    top: 0;
    font-size: 0.75rem;
  }
  .cut-tag {
    left: 10px;
    top: 22px;
    color: var(--w-stop);
  }
  .shim-tag {
    right: 10px;
    top: auto;
    bottom: 12px;
    color: var(--w-chalk);
  }
  input[type='range'] {
    width: 100%;
    margin: 0;
    accent-color: var(--w-ink);
    height: 28px;
  }
  .scale {
    position: relative;
    height: 1.1rem;
    font-size: 0.75rem;
    margin: 0 8px;
  }
  .scale span {
    position: absolute;
    transform: translateX(-50%);
    white-space: nowrap;
  }
  .now {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0.1rem 0.7rem;
    margin-top: 0.3rem;
    font-size: 0.8125rem;
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
    .methods {
      grid-template-columns: 1fr 1fr;
    }
  }
  .cutting {
    color: var(--w-stop);
  }
</style>
