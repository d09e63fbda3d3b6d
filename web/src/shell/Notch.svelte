<!-- A notch in a rod, cut as deep as a stage is done; a broken one is to be mended. -->
<script lang="ts">
  import type { State } from './progress';

  let { state }: { state: State } = $props();
  const CUT: Record<State, string> = {
    none: 'M9 0V3',
    some: 'M5 0L9 6L13 0',
    done: 'M4 0L9 12L14 0',
    stop: 'M4 0L8 5L10 4L14 0M7 9L11 12',
  };
</script>

<svg class={state} viewBox="0 0 18 14" preserveAspectRatio="xMinYMin" aria-hidden="true"
  ><path d={CUT[state]} /></svg
>

<style>
  svg {
    display: block;
    height: 14px;
  }
  path {
    fill: none;
    stroke: var(--w-ink);
    stroke-width: 1.6;
  }
  .done path {
    stroke: var(--w-chalk);
    fill: var(--w-chalk);
  }
  .stop path {
    stroke: var(--w-stop);
  }
  .none path {
    stroke: var(--w-ink-soft);
  }
</style>
