<!-- A length: typed in whatever form a tape gives, kept in millimetres. -->
<script lang="ts">
  import type { LengthUnit } from '../api/types';
  import { inField, parseLength, showLength } from './length';
  import { usePlace } from '../state/place';
  import TypedField from './TypedField.svelte';

  interface Props {
    label: string;
    /** The length, mm; null where nothing is given. */
    value: number | null;
    /** Whether it may be left empty. */
    optional?: boolean;
    least?: number;
    help?: string;
    /** Show no label, but tell it to screen readers. */
    bare?: boolean;
    /** Where it is not the place's: what a file or a maker says in millimetres. */
    unit?: LengthUnit;
    onchange: (mm: number | null) => void;
  }
  let {
    label,
    value,
    optional = false,
    least,
    help = '',
    bare = false,
    unit: own,
    onchange,
  }: Props = $props();
  const view = usePlace();
  const unit = $derived(own ?? view.unit);

  const shown = (mm: number | null) => (mm === null ? '' : inField(mm, unit, Number.isInteger(mm) ? 0 : 1));
  function read(text: string): { value: number | null } | { fault: string } {
    if (text === '') return optional ? { value: null } : { fault: 'Give a length.' };
    const mm = parseLength(text, unit);
    if (mm === null) return { fault: `“${text}” is not a length. Write 337, 33.7 cm or 13 1/4".` };
    if (least !== undefined && mm < least) return { fault: `Not below ${showLength(least, unit, 0)}.` };
    return { value: mm };
  }
</script>

<TypedField
  label="{label}{unit === 'mm' ? ', mm' : ', in'}"
  {bare}
  {help}
  shown={shown(value)}
  {read}
  ontaken={(mm) => mm !== value && onchange(mm)}
/>
