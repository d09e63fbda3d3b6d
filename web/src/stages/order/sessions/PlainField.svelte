<!-- A day, an hour or a whole number, by the device's own field; what is no such thing is told and not kept. -->
<script lang="ts">
  import { notices } from '../../../state/notices.svelte';

  interface Props {
    label: string;
    type: 'date' | 'time' | 'number';
    value: string | number;
    least?: number;
    most?: number;
    step?: number;
    /** Whether it is emptied once it was taken. */
    once?: boolean;
    onchange: (value: string) => void;
  }
  let { label, type, value, least = 0, most = 100_000, step = 1, once = false, onchange }: Props = $props();
  function taken(e: Event) {
    const field = e.currentTarget as HTMLInputElement;
    const said = field.value;
    const n = Number(said);
    if (type === 'number' && !(said && Number.isFinite(n) && n >= least && n <= most))
      notices.add(
        'error',
        `“${said}” is not taken for ${label}.`,
        `Write a number from ${least} to ${most}.`,
      );
    else if (said) onchange(said);
    if (once) field.value = '';
  }
</script>

<label
  >{label}
  <input
    {type}
    {value}
    min={type === 'number' ? least : undefined}
    max={type === 'number' ? most : undefined}
    step={type === 'number' ? step : undefined}
    onchange={taken}
  /></label
>

<style>
  label {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
    display: grid;
    gap: 0.2rem;
  }
  input {
    min-height: 32px;
    background: var(--w-page);
    color: var(--w-ink);
    border: 0;
    border-bottom: 1px solid var(--w-line-strong);
    font: inherit;
    font-size: 0.875rem;
    padding: 0 0.3rem;
    max-width: 9rem;
  }
</style>
