<!-- A small whole number, one up or down by a touch. -->
<script lang="ts">
  interface Props {
    label: string;
    value: number;
    least?: number;
    most: number;
    onchange: (n: number) => void;
  }
  let { label, value, least = 1, most, onchange }: Props = $props();
</script>

<div class="count" role="group" aria-label={label}>
  <span>{label}</span>
  <div>
    <button aria-label="{label}: one less" disabled={value <= least} onclick={() => onchange(value - 1)}
      >−</button
    >
    <output class="figure">{value}</output>
    <button aria-label="{label}: one more" disabled={value >= most} onclick={() => onchange(value + 1)}
      >+</button
    >
  </div>
</div>

<style>
  .count span {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
    display: block;
    margin-bottom: 0.35rem;
  }
  .count div {
    display: flex;
    align-items: center;
    border: 1px solid var(--w-line-strong);
    border-radius: var(--w-radius);
    width: max-content;
    background: var(--w-raised);
  }
  button {
    width: 34px;
    height: 30px;
    border: 0;
    background: none;
    color: var(--w-ink);
    font-size: 1.1rem;
    cursor: pointer;
  }
  button:disabled {
    color: var(--w-line-strong);
  }
  output {
    min-width: 2ch;
    text-align: center;
  }
</style>
