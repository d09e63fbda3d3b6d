<!-- One of the steps that are left, or none. -->
<script lang="ts">
  import type { PlannedStep } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import { text } from '../../../entry/inputs';

  interface Props {
    label: string;
    /** What choosing no step means. */
    none: string;
    steps: readonly PlannedStep[];
    chosen: readonly string[] | undefined;
    onpick: (keys: string[]) => void;
  }
  let { label, none, steps, chosen, onpick }: Props = $props();
  const left = $derived(steps.filter((s) => s.state !== 'done'));
</script>

<Select
  labelText={label}
  size="sm"
  selected={chosen?.[0] ?? ''}
  on:change={(e: Event) => onpick(text(e) ? [text(e)] : [])}
>
  <SelectItem value="" text={none} />
  {#each left as s (s.step.key)}<SelectItem value={s.step.key} text={s.step.name} />{/each}
</Select>
