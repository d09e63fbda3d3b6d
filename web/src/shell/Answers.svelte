<!-- What the place says, in order of consequence. -->
<script lang="ts">
  import type { Finding } from '../api/types';
  import Measure from '../entry/Measure.svelte';
  import { keyOf } from './findings';
  import Answer from './Answer.svelte';

  interface Props {
    findings: readonly Finding[];
    lit: string | null;
    onpick: (finding: Finding) => void;
  }
  let p: Props = $props();
</script>

{#each p.findings as f (keyOf(f))}
  {#snippet figure()}
    {#if f.figure}<Measure mm={f.figure.value_mm} sd={f.figure.sd_mm} named />{/if}
  {/snippet}
  <Answer
    mark={f.severity}
    title={f.title}
    text={f.text}
    caution={f.caution}
    lit={p.lit === keyOf(f)}
    figure={f.figure ? figure : undefined}
    onclick={f.figure?.working.length || f.about.length ? () => p.onpick(f) : undefined}
  />
{/each}
