<!-- A length typed right where it is drawn. Enter takes it, Escape leaves it as it was. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { parseLength, showLength } from '../../../entry/length';
  import { usePlace } from '../../../state/place';

  interface Props {
    label: string;
    mm: number;
    x: number;
    y: number;
    onset: (mm: number) => void;
    onclose: () => void;
  }
  let { label, mm, x, y, onset, onclose }: Props = $props();
  const view = usePlace();
  let input: HTMLInputElement;
  let fault = $state('');

  onMount(() => {
    input.value = showLength(mm, view.unit, Math.abs(mm - Math.round(mm)) < 0.05 ? 0 : 1);
    input.select();
  });

  // taken off the page, the field loses its focus once more
  let done = false;
  function close() {
    done = true;
    onclose();
  }
  function settle() {
    const found = parseLength(input.value.trim(), view.unit);
    if (found === null || found < 0) {
      fault = 'Write it like 337, 33.7 cm or 13 1/4".';
      return;
    }
    const changed = Math.abs(found - mm) > 0.005;
    const set = onset; // closing takes all that was given
    close();
    if (changed) set(found);
  }
  /** A finger that goes elsewhere has said its number too. */
  function left() {
    if (done) return;
    if (parseLength(input.value.trim(), view.unit) === null) close();
    else settle();
  }
  function key(e: KeyboardEvent) {
    if (e.key === 'Enter') settle();
    else if (e.key === 'Escape') {
      close();
    } else return;
    e.preventDefault();
    e.stopPropagation();
  }
</script>

<div class="here" style:left="{x}px" style:top="{y}px">
  <label>
    <span>{label}</span>
    <!-- svelte-ignore a11y_autofocus -->
    <input
      bind:this={input}
      class="figure"
      inputmode="decimal"
      autocomplete="off"
      autofocus
      aria-invalid={fault !== ''}
      onkeydown={key}
      onblur={left}
    />
  </label>
  {#if fault}<p role="alert">{fault}</p>{/if}
</div>

<style>
  .here {
    position: absolute;
    transform: translate(-50%, -50%);
    z-index: 5;
    background: var(--w-raised);
    border: 2px solid var(--w-chalk);
    border-radius: var(--w-radius);
    padding: 0.2rem 0.4rem;
    width: 8.5rem;
  }
  label {
    display: grid;
    font-size: 0.75rem;
    color: var(--w-ink-soft);
  }
  input {
    border: 0;
    background: none;
    color: var(--w-ink);
    font-size: 1rem;
    width: 100%;
    min-height: 28px;
    outline: none;
  }
  p {
    color: var(--w-stop);
    font-size: 0.75rem;
  }
</style>
