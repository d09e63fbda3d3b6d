<!-- What the colours and marks of the drawing mean. -->
<script lang="ts">
  import Explained from '../../words/Explained.svelte';

  let { tap = true }: { tap?: boolean } = $props();
</script>

<p class="quiet">
  <svg width="16" height="12" aria-hidden="true"
    ><rect class="proud" width="16" height="12" /><rect
      width="16"
      height="12"
      fill="url(#hatch-proud)"
    /></svg
  >
  + <Explained text="proud" />
  <svg width="16" height="12" aria-hidden="true"
    ><rect class="hollow" width="16" height="12" /><rect
      width="16"
      height="12"
      fill="url(#hatch-hollow)"
    /></svg
  >
  − <Explained text="hollow" />
  <span><i class="read"></i> read</span>
  <span><i class="open"></i> open</span>
  <span class="cross">✕ <Explained text="measure again" /></span>
  {#if tap}<span>tap anywhere to measure there</span>{/if}
</p>

<style>
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 0.9rem;
    align-items: center;
    font-size: 0.8125rem;
    margin: 0.25rem 0 0.75rem;
  }
  svg {
    margin-right: -0.5rem;
  }
  .proud {
    fill: var(--w-brass-fill);
    fill-opacity: 0.5;
  }
  .hollow {
    fill: var(--w-slate-fill);
    fill-opacity: 0.5;
  }
  i {
    display: inline-block;
    width: 9px;
    height: 9px;
    border-radius: 50%;
    border: 1.5px solid var(--w-ink);
  }
  .read {
    background: var(--w-ink);
  }
  .open {
    border-style: dashed;
    background: var(--w-unit);
  }
  .cross {
    color: var(--w-stop);
  }
</style>
