<!-- A plain number: a weight, a count, a price, a load. What is no number, or past its limits, is told and stays typed. -->
<script lang="ts">
  import { TextInput } from '../carbon';

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
  let draft = $state<string | null>(null);
  let fault = $state('');

  function wrong(text: string, n: number): string {
    if (text === '') return optional ? '' : 'Give a number.';
    if (!/^[-+]?\d+([.,]\d+)?$/.test(text)) return `“${text}” is not a number. Write 12 or 12.5.`;
    if (whole && !Number.isInteger(n)) return 'A whole number.';
    if (n < least) return `Not below ${least}.`;
    return n > most ? `Not above ${most}.` : '';
  }
  function settle() {
    if (draft === null) return;
    const text = draft.trim();
    const n = Number(text.replace(',', '.'));
    fault = wrong(text, n);
    if (fault) return;
    draft = null;
    const now = text === '' ? null : n;
    if (now !== value) onchange(now);
  }
</script>

<TextInput
  labelText={label}
  hideLabel={bare}
  size="sm"
  autocomplete="off"
  inputmode={whole ? 'numeric' : 'decimal'}
  {placeholder}
  invalid={fault !== ''}
  invalidText={fault}
  value={draft ?? (value === null ? '' : String(value))}
  on:input={(e: CustomEvent<string | number | null>) => (draft = String(e.detail ?? ''))}
  on:blur={settle}
  on:keydown={(e: KeyboardEvent) => e.key === 'Enter' && settle()}
/>
