<!-- What something is called, or what is said of it: kept when the field is left or at Enter. What is half typed stays,
  whatever is drawn anew meanwhile; a name that is emptied is as it was. -->
<script lang="ts">
  import TypedField from './TypedField.svelte';

  interface Props {
    label?: string;
    value: string;
    /** Whether it may be emptied. */
    optional?: boolean;
    /** How many lines it shows. */
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
</script>

<TypedField
  {label}
  {bare}
  {rows}
  {placeholder}
  inputmode="text"
  shown={value}
  read={(said) => ({ value: said || optional ? said : value })}
  ontaken={(said) => said !== value && ontext(said)}
/>
