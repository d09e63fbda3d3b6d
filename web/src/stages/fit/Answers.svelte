<!-- What the place says, in order of consequence. -->
<script lang="ts">
  import type { Finding, LengthUnit } from '../../api/types';
  import Measure from '../../entry/Measure.svelte';

  interface Props {
    findings: readonly Finding[];
    unit: LengthUnit;
    lit: string | null;
    onpick: (finding: Finding) => void;
  }
  let p: Props = $props();
  const words = { stop: 'Stops the job', mind: 'Mind this', fine: 'Fine' };
</script>

<ul>
  {#each p.findings as f, i (f.code + i)}
    <li class={f.mark} class:lit={p.lit === f.code + f.title}>
      <svg viewBox="0 0 14 14" width="14" height="14" role="img" aria-label={words[f.mark]}>
        {#if f.mark === 'stop'}<path d="M4 0.5h6L13.5 4v6L10 13.5H4L0.5 10V4Z" /><path
            class="bar"
            d="M3.5 7h7"
          />
        {:else if f.mark === 'mind'}<path d="M7 1 13.5 13H0.5Z" />
        {:else}<circle cx="7" cy="7" r="5.5" />{/if}
      </svg>
      <button
        class="say"
        onclick={() => p.onpick(f)}
        disabled={!f.figure?.working?.length && !f.concerns?.length}
      >
        <span class="title">{f.title}</span>
        {#if f.figure}
          <span class="value"><Measure mm={f.figure.value_mm} sd={f.figure.sd_mm} unit={p.unit} named /></span
          >
        {/if}
        <span class="text">{f.text}</span>
        {#if f.caution}<span class="caution">⚠ {f.caution}</span>{/if}
      </button>
    </li>
  {/each}
</ul>

<style>
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 14px 1fr;
    gap: 0.7rem;
    border-top: 1px solid var(--w-line);
    padding: 0.55rem 0;
  }
  svg {
    margin-top: 0.3rem;
    fill: var(--w-fine);
  }
  .stop svg {
    fill: var(--w-stop);
  }
  .mind svg {
    fill: var(--w-mind);
  }
  .bar {
    stroke: var(--w-sheet);
    stroke-width: 2;
  }
  .say {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 0.6rem;
    text-align: left;
    background: none;
    border: 0;
    padding: 0;
    color: var(--w-ink);
    cursor: pointer;
  }
  .say:disabled {
    cursor: default;
  }
  .say:hover:not(:disabled) .title {
    text-decoration: underline;
    text-decoration-color: var(--w-chalk);
  }
  .title {
    font-weight: 650;
  }
  .value {
    font-weight: 600;
    white-space: nowrap;
  }
  .text {
    grid-column: 1 / -1;
    font-size: 0.875rem;
    color: var(--w-ink-soft);
  }
  .caution {
    grid-column: 1 / -1;
    font-size: 0.8125rem;
    color: var(--w-stop);
    margin-top: 0.15rem;
  }
  .lit {
    background: var(--w-chalk-wash);
    margin: 0 -0.5rem;
    padding-left: 0.5rem;
    padding-right: 0.5rem;
  }
</style>
