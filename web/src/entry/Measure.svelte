<!-- A length with its uncertainty, in the user's unit. -->
<script lang="ts">
  import { showFigure, showSpread } from './length';
  import { usePlace } from '../state/place';

  interface Props {
    mm: number;
    /** Standard uncertainty, mm; nothing is shown for none. */
    sd?: number;
    /** Whether millimetres are named; inches carry their own mark. */
    named?: boolean;
  }
  let { mm, sd = 0, named = false }: Props = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
</script>

<span class="figure"
  >{showFigure(mm, sd ?? 0, unit)}{#if sd}{' '}<small>{showSpread(sd, unit)}</small
    >{/if}{#if named && unit === 'mm'}{' '}<small>mm</small>{/if}</span
>

<style>
  span {
    white-space: nowrap;
  }
  small {
    color: var(--w-ink-soft);
    font-weight: 400;
    font-size: 0.8em;
  }
</style>
