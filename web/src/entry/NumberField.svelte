<!-- A plain number: a weight, a count, a price, a load. What is no number, or past its limits, is told and stays typed. -->
<script lang="ts">
  import TypedField from './TypedField.svelte';

  interface Props {
    label: string;
    /** Null where nothing is given. */
    value: number | null;
    /** Whether it may be left empty. */
    optional?: boolean;
    least?: number;
    most?: number;
    /** Whether only whole numbers are taken. */
    whole?: boolean;
    /** What an empty field stands for. */
    placeholder?: string;
    /** Show no label, but tell it to screen readers. */
    bare?: boolean;
    onchange: (n: number | null) => void;
  }
  let {
    label,
    value,
    optional = false,
    least = 0,
    most = 1_000_000,
    whole = false,
    placeholder = '',
    bare = false,
    onchange,
  }: Props = $props();
  function wrong(text: string, n: number): string {
    if (text === '') return optional ? '' : 'Give a number.';
    if (!/^[-+]?\d+([.,]\d+)?$/.test(text)) return `“${text}” is not a number. Write 12 or 12.5.`;
    if (whole && !Number.isInteger(n)) return 'A whole number.';
    if (n < least) return `Not below ${least}.`;
    return n > most ? `Not above ${most}.` : '';
  }
  function read(text: string): { value: number | null } | { fault: string } {
    const n = Number(text.replace(',', '.'));
    const fault = wrong(text, n);
    return fault ? { fault } : { value: text === '' ? null : n };
  }
</script>

<TypedField
  {label}
  {bare}
  inputmode={whole ? 'numeric' : 'decimal'}
  {placeholder}
  shown={value === null ? '' : String(value)}
  {read}
  ontaken={(n) => n !== value && onchange(n)}
/>
