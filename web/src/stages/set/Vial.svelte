<!-- A check as a level: two lines for what is let be, the bubble where the reading puts it; yes or no has a sign. -->
<script lang="ts">
  import type { Check } from '../../api/types';
  import { bubble, isYesNo, signOf } from './set';

  interface Props {
    check: Check;
    /** Middle of it, px. */
    x: number;
    y: number;
    wide?: number;
    lit?: boolean;
  }
  let { check, x, y, wide = 46, lit = false }: Props = $props();
  const high = $derived(wide * 0.3);
  const at = $derived(bubble(check));
  const state = $derived(check.state ?? 'open');
  const up = $derived(check.kind.startsWith('plumb') || check.kind.startsWith('beside'));
</script>

<g class={state} class:lit transform="translate({x} {y}){up ? ' rotate(-90)' : ''}">
  <rect class="glass" x={-wide / 2} y={-high / 2} width={wide} height={high} rx={high / 2} />
  {#if isYesNo(check)}
    <text text-anchor="middle" y="4" transform={up ? 'rotate(90)' : undefined}>{signOf(check)}</text>
  {:else}
    <path class="line" d="M{-wide * 0.24},{-high / 2}v{high}M{wide * 0.24},{-high / 2}v{high}" />
    {#if at !== null}
      <ellipse class="bubble" cx={at * wide * 0.24} cy="0" rx={wide * 0.13} ry={high * 0.34} />
    {/if}
  {/if}
</g>

<style>
  .glass {
    fill: var(--w-raised);
    stroke: var(--w-line-strong);
    stroke-width: 1.2;
  }
  .line {
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .bubble {
    fill: var(--w-slate-fill);
    stroke: var(--w-ink);
    stroke-width: 0.8;
  }
  .right .glass {
    stroke: var(--w-fine);
  }
  .right .bubble {
    fill: var(--w-fine);
  }
  .out .glass {
    stroke: var(--w-stop);
    stroke-width: 2.2;
  }
  .out .bubble {
    fill: var(--w-stop);
  }
  .lit .glass {
    stroke: var(--w-chalk);
    stroke-width: 2.6;
  }
  text {
    font-size: 12px;
    font-weight: 700;
    fill: var(--w-ink);
  }
  .right text {
    fill: var(--w-fine);
  }
  .out text {
    fill: var(--w-stop);
  }
</style>
