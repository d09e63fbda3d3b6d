<!-- Where the backs stand: clear of the proudest spot by so much, and turned in plan by so much. -->
<script lang="ts">
  import type { BackLine, Plan } from '../../../api/types';
  import { markOf, showLength, showSlope, showSpread } from '../../../entry/length';
  import { usePlace } from '../../../state/place';

  interface Props {
    plan: Plan;
    line: BackLine;
    onturn: (line: BackLine) => void;
    onkeep: () => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const deepest = $derived(Math.max(0, ...p.plan.packings.map((k) => k.gap.value_mm)));
  const off = $derived(p.line.off_mm ?? 0);
  const mark = $derived(markOf(view.unit));
  /** A step of the turn, mm per m: a quarter, or 1/32 of an inch over 8 feet. */
  const turn = $derived(view.unit === 'in' ? 25.4 / 32 / 2.4384 : 0.25);
  const turned = $derived(p.line.turn_mm_per_m ?? 0);
</script>

{#if p.plan.back_line}
  <section aria-labelledby="back-start">
    <h2 id="back-start">Where the backs stand</h2>
    <div class="rows">
      <label for="back-off">clear of the wall</label>
      <input
        id="back-off"
        type="range"
        min="0"
        max={view.unit === 'in' ? 19 * mark : 30}
        step={mark}
        value={off}
        oninput={(e) => p.onturn({ ...p.line, off_mm: Number(e.currentTarget.value) })}
        onchange={() => p.onkeep()}
      />
      <b class="figure">{showLength(off, view.unit)}</b>
    </div>
    <div class="rows">
      <label for="back-turn">turned</label>
      <input
        id="back-turn"
        type="range"
        min={-40 * turn}
        max={40 * turn}
        step={turn}
        value={turned}
        oninput={(e) => p.onturn({ ...p.line, turn_mm_per_m: Number(e.currentTarget.value) })}
        onchange={() => p.onkeep()}
      />
      <b class="figure">{turned > 0 ? '+' : turned < 0 ? '−' : ''}{showSlope(turned, view.unit)}</b>
    </div>
    <p class="quiet">
      Deepest packing <b class="figure">{showLength(deepest, view.unit)}</b>; the line is known to
      <span class="figure">{showSpread(p.plan.back_line.sd_mm, view.unit)}</span>. A run turned + stands
      further out at the right.
    </p>
  </section>
{/if}

<style>
  h2 {
    font-size: 0.9375rem;
    margin-bottom: 0.3rem;
  }
  .rows {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 0.75rem;
    align-items: center;
    font-size: 0.875rem;
  }
  input {
    grid-column: 1 / -1;
    order: 1;
    width: 100%;
    accent-color: var(--w-ink);
    height: 28px;
    margin: 0;
  }
  b.figure {
    text-align: right;
  }
  p {
    font-size: 0.8125rem;
  }
</style>
