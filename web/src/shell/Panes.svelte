<!-- The parts of a page, one of them shown: a row of names that scrolls where it does not fit. -->
<script lang="ts" generics="Name extends string">
  interface Props {
    label: string;
    names: readonly Name[];
    chosen: Name;
    /** How many things a part holds, where that helps. */
    counts?: Partial<Record<Name, number>>;
    onpick: (name: Name) => void;
  }
  let { label, names, chosen, counts = {}, onpick }: Props = $props();
</script>

<div class="panes no-print" role="group" aria-label={label}>
  {#each names as name (name)}
    <button aria-pressed={chosen === name} class:chosen={chosen === name} onclick={() => onpick(name)}
      >{name}{#if counts[name]}{' '}<small class="figure">{counts[name]}</small>{/if}</button
    >
  {/each}
</div>

<style>
  .panes {
    display: flex;
    overflow-x: auto;
    border-top: 2px solid var(--w-ink);
    margin-bottom: 0.75rem;
  }
  button {
    background: none;
    border: 0;
    border-bottom: 2px solid transparent;
    color: var(--w-ink-soft);
    padding: 0.45rem 0.7rem;
    min-height: 40px;
    font-weight: 600;
    font-size: 0.875rem;
    cursor: pointer;
    white-space: nowrap;
  }
  .chosen {
    color: var(--w-ink);
    border-bottom-color: var(--w-chalk);
  }
  small {
    font-weight: 400;
    color: var(--w-ink-soft);
  }
</style>
