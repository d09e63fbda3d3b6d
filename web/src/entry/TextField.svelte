<!-- What something is called, or what is said of it: kept when the field is left or at Enter. What is half typed stays,
  whatever is drawn anew meanwhile; a name that is emptied is as it was. -->
<script lang="ts">
  import { TextArea, TextInput } from '../carbon';

  interface Props {
    label?: string;
    value: string;
    /** Whether it may be emptied. */
    optional?: boolean;
    /** How many lines it shows; one is left by Enter. */
    rows?: number;
    placeholder?: string;
    /** Show no label, but tell it to screen readers. */
    bare?: boolean;
    ontext: (text: string) => void;
  }
  let {
    label = 'Name',
    value,
    optional = false,
    rows = 1,
    placeholder = '',
    bare = false,
    ontext,
  }: Props = $props();
  let draft = $state<string | null>(null);

  function settle() {
    const said = draft?.trim() ?? value;
    draft = null;
    if (said !== value && (said || optional)) ontext(said);
  }
</script>

{#if rows > 1}
  <TextArea
    labelText={label}
    hideLabel={bare}
    {rows}
    {placeholder}
    value={draft ?? value}
    on:input={(e: Event) => (draft = (e.target as HTMLTextAreaElement).value)}
    on:blur={settle}
  />
{:else}
  <TextInput
    labelText={label}
    hideLabel={bare}
    size="sm"
    {placeholder}
    value={draft ?? value}
    on:input={(e: CustomEvent<string | number | null>) => (draft = String(e.detail ?? ''))}
    on:blur={settle}
    on:keydown={(e: KeyboardEvent) => e.key === 'Enter' && settle()}
  />
{/if}
