<!-- A length with its uncertainty, in the user's unit. -->
<script lang="ts">
  import type { LengthUnit } from '../api/types';
  import { showLength, showSpread } from './length';

  interface Props {
    mm: number;
    /** Standard uncertainty, mm; nothing is shown for none. */
    sd?: number;
    unit: LengthUnit;
    /** Whether millimetres are named; inches carry their own mark. */
    named?: boolean;
  }
  let { mm, sd = 0, unit, named = false }: Props = $props();
</script>

<span class="figure"
  >{showLength(mm, unit)}{#if sd}{' '}<small>{showSpread(sd, unit)}</small
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
