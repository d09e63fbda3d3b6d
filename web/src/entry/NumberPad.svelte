<!-- A number pad made for tapes. A meter that types its number and Enter goes straight into the same field. -->
<script lang="ts">
  import { parseLength, showLength } from './length';
  import { EIGHTHS, pressed, SIXTEENTHS } from './typed';
  import { usePlace } from '../state/place';

  interface Props {
    label: string;
    /** What the field says while nothing is typed. */
    hint: string;
    disabled?: boolean;
    onenter: (mm: number, typed: string) => void;
  }
  let { label, hint, disabled = false, onenter }: Props = $props();
  const view = usePlace();
  const unit = $derived(view.unit);

  let text = $state('');
  let fault = $state('');
  let fine = $state(false);
  let field = $state<HTMLInputElement>();
  const mm = $derived(text.trim() ? parseLength(text, unit) : null);

  export function focus() {
    field?.focus({ preventScroll: true });
  }

  /** Put a number into the field as if it were typed: it is recorded by whoever looks at it. */
  export function put(typed: string) {
    text = typed;
    fault = '';
    focus();
  }

  function press(key: string) {
    text = pressed(text, key);
    fault = '';
  }

  function enter() {
    if (disabled || !text.trim()) return;
    if (mm === null) {
      fault = `“${text}” is not a length. ${unit === 'mm' ? 'Write it like 1004.5' : 'Write it like 39 1/2'}.`;
      return;
    }
    onenter(mm, text.trim());
    text = '';
    fault = '';
  }

  /** Digits typed anywhere on the page belong here: a meter does not know where the focus is. */
  function elsewhere(event: KeyboardEvent) {
    const target = event.target as HTMLElement;
    if (
      target === field ||
      target.closest('input, textarea, select') ||
      document.querySelector('.bx--modal.is-visible')
    )
      return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (/^[0-9.,\-/ ]$/.test(event.key) && !(event.key === ' ' && !text)) {
      event.preventDefault();
      press(event.key);
      focus();
    } else if (event.key === 'Enter' && text && !target.closest('button, a, [role=button]')) {
      event.preventDefault();
      enter();
    } else if (event.key === 'Backspace' && text) {
      press('⌫');
    }
  }
</script>

<svelte:window onkeydown={elsewhere} />

<div class="pad">
  <div class="window" class:fault={fault !== ''}>
    <input
      bind:this={field}
      bind:value={text}
      data-pad
      class="figure"
      aria-label={label}
      placeholder={hint}
      autocomplete="off"
      inputmode="none"
      enterkeyhint="done"
      {disabled}
      oninput={() => (fault = '')}
      onkeydown={(e) => {
        if (e.key !== 'Enter') return;
        e.preventDefault();
        enter();
      }}
    />
    <span class="unit figure">{mm !== null && unit === 'in' ? `${showLength(mm, 'mm')} mm` : unit}</span>
  </div>
  {#if fault}<p class="word" role="alert">{fault}</p>{/if}
  {#if unit === 'in'}
    <div class="fractions">
      {#each fine ? SIXTEENTHS : EIGHTHS as f (f)}
        {@const [above, below] = f.split('/')}
        <button tabindex="-1" {disabled} onclick={() => press(f)} aria-label={f}
          ><sup>{above}</sup>⁄<sub>{below}</sub></button
        >
      {/each}
      <button tabindex="-1" class="soft" onclick={() => (fine = !fine)}>{fine ? '8ths' : '16ths'}</button>
    </div>
  {/if}
  <div class="keys">
    {#each ['7', '8', '9', '⌫', '4', '5', '6', '±', '1', '2', '3'] as key (key)}
      <button
        tabindex="-1"
        class:soft={key === '⌫' || key === '±'}
        {disabled}
        aria-label={key === '⌫' ? 'Take back' : key === '±' ? 'Change sign' : key}
        onclick={() => press(key)}>{key}</button
      >
    {/each}
    <button tabindex="-1" class="enter" disabled={disabled || !text.trim()} onclick={enter}>Record</button>
    <button tabindex="-1" class="zero" {disabled} onclick={() => press('0')}>0</button>
    <button tabindex="-1" {disabled} onclick={() => press('.')}>.</button>
  </div>
</div>

<style>
  .window {
    display: flex;
    align-items: baseline;
    background: var(--w-raised);
    border: 2px solid var(--w-ink);
    border-radius: var(--w-radius);
    padding: 0 0.75rem;
  }
  .window:focus-within {
    border-color: var(--w-chalk);
    box-shadow: 0 0 0 1px var(--w-chalk);
  }
  .window.fault {
    border-color: var(--w-stop);
  }
  input {
    flex: 1;
    min-width: 0;
    border: 0;
    background: none;
    color: var(--w-ink);
    font-size: 1.75rem;
    padding: 0.3rem 0;
    outline: none;
  }
  input::placeholder {
    color: var(--w-ink-soft);
    font-size: 1rem;
    font-family: var(--w-sans);
  }
  .unit {
    color: var(--w-ink-soft);
    font-size: 0.875rem;
  }
  .word {
    color: var(--w-stop);
    margin: 0.3rem 0 0;
    font-size: 0.875rem;
  }
  .keys {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    gap: 5px;
    margin-top: 6px;
  }
  .fractions {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: 1fr;
    gap: 4px;
    margin-top: 6px;
  }
  button {
    font: 500 1.25rem var(--w-mono);
    height: 40px;
    border: 1px solid var(--w-line);
    border-bottom-width: 2px;
    border-radius: var(--w-radius);
    background: var(--w-sheet);
    color: var(--w-ink);
    cursor: pointer;
    padding: 0;
    touch-action: manipulation;
  }
  .fractions button {
    font-size: 1rem;
  }
  button:hover:not(:disabled) {
    background: var(--w-hover);
  }
  button:active:not(:disabled) {
    border-bottom-width: 1px;
    background: var(--w-wood);
  }
  button:disabled {
    color: var(--w-ink-soft);
    cursor: default;
  }
  .soft {
    color: var(--w-ink-soft);
  }
  .fractions .soft {
    font: 500 0.75rem var(--w-sans);
  }
  .zero {
    grid-column: span 2;
  }
  .enter {
    grid-row: 3 / 5;
    grid-column: 4;
    height: auto;
    font: 650 1rem var(--w-sans);
    background: var(--w-chalk);
    border-color: var(--w-chalk);
    color: var(--w-on-ink);
  }
  .enter:hover:not(:disabled) {
    background: var(--w-chalk-deep);
  }
  .enter:disabled {
    background: var(--w-sheet);
    border-color: var(--w-line);
  }
  @media (max-width: 900px) {
    button {
      height: 48px;
    }
    .fractions button {
      height: 44px;
    }
  }
  @media (max-width: 900px) and (max-height: 480px) {
    .window input {
      font-size: 1.25rem;
      padding: 0;
      min-height: 44px;
    }
    button,
    .fractions button {
      height: 44px;
    }
  }
</style>
