<!-- A part as it lies on a pile: a slab as long as it is in proportion to the others, its mark written on it. -->
<script lang="ts">
  import type { MarkedPart } from '../../../api/types';
  import { showLength } from '../../../entry/length';
  import { usePlace } from '../../../state/place';

  interface Props {
    part: MarkedPart;
    /** The longest on the pile, mm. */
    longest: number;
    /** What it is called under its heading. */
    name: string;
    lit: boolean;
    /** Whether it is cut once it is touched at its end; not while it waits. */
    oncut?: (() => void) | undefined;
    onpick: () => void;
  }
  let { part: p, longest, name, lit, oncut, onpick }: Props = $props();
  const view = usePlace();
  const size = $derived(p.part.blank_mm.map((mm) => showLength(mm, view.unit)));
  const wide = $derived(Math.max(12, (100 * Math.max(...p.part.blank_mm)) / longest));
  const thick = $derived(Math.min(22, Math.max(7, p.part.thick_mm * 0.5)));
  const again = $derived(p.checked.some((c) => c.then === 'cut again'));
</script>

<li class:lit class:waits={p.part.waits.length > 0}>
  <button class="say" onclick={onpick} aria-pressed={lit}>
    <span class="wood" style="width: {wide}%; height: {thick}px" aria-hidden="true"></span>
    <span class="line">
      <b class="figure">{p.mark}</b>
      <span class="name">{name}</span>
      <span class="figure size"
        >{#if p.to_cut > 1}{p.to_cut}&nbsp;×&nbsp;{/if}{size[0]}{#if p.part.blank_mm[1]}&nbsp;× {size[1]}{/if}{#if p.part.thick_mm}&nbsp;<small
            >· {showLength(p.part.thick_mm, view.unit)}</small
          >{/if}</span
      >
    </span>
    {#if again}<span class="stop">cut again</span>{/if}
  </button>
  {#if oncut}
    <button class="cut no-print" onclick={oncut} aria-label="{p.mark} is cut" title="Cut">
      <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true"><path d="M3 11l4.5 4.5L17 5" /></svg>
    </button>
  {/if}
</li>

<style>
  li {
    display: flex;
    align-items: stretch;
    border-top: 1px solid var(--w-line);
    list-style: none;
  }
  .say {
    flex: 1;
    min-width: 0;
    text-align: left;
    background: none;
    border: 0;
    padding: 0.35rem 0.25rem;
    cursor: pointer;
    color: var(--w-ink);
  }
  .say:hover .name {
    text-decoration: underline;
    text-decoration-color: var(--w-chalk);
  }
  .wood {
    display: block;
    border: 1px solid var(--w-wood-edge);
    background: var(--w-wood);
    margin-bottom: 0.2rem;
  }
  .waits .wood {
    border-style: dashed;
    background: repeating-linear-gradient(135deg, transparent 0 5px, var(--w-wood-edge) 5px 6px);
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.6rem;
    font-size: 0.875rem;
    line-height: 1.3;
  }
  .name {
    flex: 1;
    min-width: min(6rem, 40%);
  }
  .size {
    overflow-wrap: anywhere;
  }
  small {
    color: var(--w-ink-soft);
  }
  .lit {
    background: var(--w-chalk-wash);
  }
  .cut {
    flex: none;
    width: 44px;
    border: 0;
    background: none;
    cursor: pointer;
    color: var(--w-line-strong);
    display: grid;
    place-items: center;
  }
  .cut:hover {
    color: var(--w-fine);
    background: var(--w-hover);
  }
  path {
    fill: none;
    stroke: currentColor;
    stroke-width: 2.4;
  }
  .stop {
    font-size: 0.8125rem;
    font-weight: 600;
  }
  @media print {
    /* a box to tick, in place of the slab */
    li {
      break-inside: avoid;
    }
    .say {
      display: grid;
      grid-template-columns: 1.1rem 1fr;
      padding: 0.15rem 0;
    }
    .wood,
    .waits .wood {
      width: 0.7rem !important;
      height: 0.7rem !important;
      margin: 0.15rem 0 0;
      background: none;
      border: 1px solid #000;
    }
    .line {
      font-size: 0.75rem;
    }
  }
</style>
