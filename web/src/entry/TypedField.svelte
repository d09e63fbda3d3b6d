<!-- What is typed into a field: taken when it is left or at Enter; what cannot be taken is told, and stays typed. -->
<script lang="ts" generics="Value">
  import { TextArea, TextInput } from '../carbon';

  interface Props {
    label: string;
    /** The value as it is shown while nothing is typed. */
    shown: string;
    /** What a text means, or what is wrong with it. */
    read: (text: string) => { value: Value } | { fault: string };
    inputmode?: 'decimal' | 'numeric' | 'text';
    /** How many lines it shows; of several, Enter begins another. */
    rows?: number;
    help?: string;
    placeholder?: string;
    /** Show no label, but tell it to screen readers. */
    bare?: boolean;
    ontaken: (value: Value) => void;
  }
  let {
    label,
    shown,
    read,
    inputmode = 'decimal',
    rows = 1,
    help = '',
    placeholder = '',
    bare = false,
    ontaken,
  }: Props = $props();
  let draft = $state<string | null>(null);
  let fault = $state('');

  function settle() {
    if (draft === null) return;
    const found = read(draft.trim());
    fault = 'fault' in found ? found.fault : '';
    if ('fault' in found) return;
    draft = null;
    ontaken(found.value);
  }
</script>

{#if rows > 1}
  <TextArea
    labelText={label}
    hideLabel={bare}
    {rows}
    {placeholder}
    helperText={help}
    invalid={fault !== ''}
    invalidText={fault}
    value={draft ?? shown}
    on:input={(e: Event) => (draft = (e.target as HTMLTextAreaElement).value)}
    on:blur={settle}
  />
{:else}
  <TextInput
    labelText={label}
    hideLabel={bare}
    size="sm"
    autocomplete="off"
    {inputmode}
    {placeholder}
    helperText={help}
    invalid={fault !== ''}
    invalidText={fault}
    value={draft ?? shown}
    on:input={(e: CustomEvent<string | number | null>) => (draft = String(e.detail ?? ''))}
    on:blur={settle}
    on:keydown={(e: KeyboardEvent) => e.key === 'Enter' && settle()}
  />
{/if}
