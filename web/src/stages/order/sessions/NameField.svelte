<!-- What something is called: kept when the field is left, where something is written and it is another. -->
<script lang="ts">
  import { TextInput } from '../../../carbon';
  import { text } from '../../../entry/inputs';

  let {
    label = 'Name',
    value,
    onname,
  }: { label?: string; value: string; onname: (name: string) => void } = $props();
  const left = (e: FocusEvent) => {
    const said = text(e).trim();
    if (said && said !== value) onname(said);
  };
</script>

<TextInput labelText={label} size="sm" {value} on:blur={left} />
