<!-- Several lengths in one field, such as screw heights: 130; 650. -->
<script lang="ts">
  import { inField, parseLength } from './length';
  import { usePlace } from '../state/place';
  import TypedField from './TypedField.svelte';

  interface Props {
    label: string;
    values: readonly number[];
    onchange: (mm: number[]) => void;
  }
  let { label, values, onchange }: Props = $props();
  const view = usePlace();
  const unit = $derived(view.unit);
  const shown = $derived(values.map((mm) => inField(mm, unit, Number.isInteger(mm) ? 0 : 1)).join('; '));

  function read(text: string): { value: number[] } | { fault: string } {
    const parts = text
      .split(/;|,\s/)
      .map((t) => t.trim())
      .filter(Boolean);
    const found = parts.map((t) => parseLength(t, unit));
    const bad = parts[found.findIndex((mm) => mm === null || mm <= 0)];
    if (bad !== undefined) return { fault: `“${bad}” is not a height. Write 130; 650.` };
    return { value: (found as number[]).toSorted((a, b) => a - b) };
  }
</script>

<TypedField {label} bare inputmode="text" {shown} {read} ontaken={onchange} />
