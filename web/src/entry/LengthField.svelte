<!-- A length: typed in whatever form a tape gives, kept in millimetres. -->
<script lang="ts">
  import type { LengthUnit } from '../api/types';
  import { TextInput } from '../carbon';
  import { inField, parseLength, showLength } from './length';
  import { usePlace } from '../state/place';

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
  let draft = $state<string | null>(null);
  let fault = $state('');

  function settle() {
    if (draft === null) return;
    const text = draft.trim();
    const mm = text ? parseLength(text, unit) : null;
    if (text === '' && !optional) fault = 'Give a length.';
    else if (text && mm === null) fault = `“${text}” is not a length. Write 337, 33.7 cm or 13 1/4".`;
    else if (mm !== null && least !== undefined && mm < least)
      fault = `Not below ${showLength(least, unit, 0)}.`;
    else {
      fault = '';
      draft = null;
      if (mm !== value) onchange(mm);
    }
  }
</script>

<TextInput
  labelText="{label}{unit === 'mm' ? ', mm' : ', in'}"
  hideLabel={bare}
  size="sm"
  autocomplete="off"
  inputmode="decimal"
  helperText={help}
  invalid={fault !== ''}
  invalidText={fault}
  value={draft ?? shown(value)}
  on:input={(e: CustomEvent<string | number | null>) => (draft = String(e.detail ?? ''))}
  on:blur={settle}
  on:keydown={(e: KeyboardEvent) => e.key === 'Enter' && settle()}
/>
