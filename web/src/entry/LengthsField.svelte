<!-- Several lengths in one field, such as screw heights: 130; 650. -->
<script lang="ts">
  import { TextInput } from '../carbon';
  import { inField, parseLength } from './length';
  import { usePlace } from '../state/place';

  interface Props {
    label: string;
    values: readonly number[];
    onchange: (mm: number[]) => void;
  }
  let { label, values, onchange }: Props = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  let draft = $state<string | null>(null);
  let fault = $state('');
  const shown = $derived(values.map((mm) => inField(mm, unit, Number.isInteger(mm) ? 0 : 1)).join('; '));

  function settle() {
    if (draft === null) return;
    const parts = draft
      .split(/;|,\s/)
      .map((t) => t.trim())
      .filter(Boolean);
    const found = parts.map((t) => parseLength(t, unit));
    const bad = parts[found.findIndex((mm) => mm === null || mm <= 0)];
    if (bad !== undefined) {
      fault = `“${bad}” is not a height. Write 130; 650.`;
      return;
    }
    fault = '';
    draft = null;
    onchange((found as number[]).toSorted((a, b) => a - b));
  }
</script>

<TextInput
  labelText={label}
  hideLabel
  size="sm"
  autocomplete="off"
  invalid={fault !== ''}
  invalidText={fault}
  value={draft ?? shown}
  on:input={(e: CustomEvent<string | number | null>) => (draft = String(e.detail ?? ''))}
  on:blur={settle}
/>
