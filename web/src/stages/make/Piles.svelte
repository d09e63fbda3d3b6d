<!-- Two piles: now, unit by unit; and not yet, each tied up with what it waits for written on the tie. -->
<script lang="ts">
  import type { MarkedPart } from '../../api/types';
  import LengthField from '../../entry/LengthField.svelte';
  import { longest, shortName, type Piles, type Tie } from './piles';
  import Slab from './sheets/Slab.svelte';

  interface Props {
    piles: Piles;
    lit: string | null;
    onpick: (key: string) => void;
    oncut: (part: MarkedPart) => void;
    /** What the parts of a tie waited for is known, with its length where that was measured. */
    onknown: (tie: Tie, mm: number | null) => void;
  }
  let { piles, lit, onpick, oncut, onknown }: Props = $props();
  const most = $derived(longest([...piles.now, ...piles.later].flatMap((s) => s.parts)));
  const count = (parts: readonly MarkedPart[]) => parts.reduce((n, p) => n + p.to_cut, 0);
</script>

<div class="piles">
  <section aria-labelledby="pile-now">
    <h2 id="pile-now">
      Now <small class="figure">{piles.now.reduce((n, s) => n + count(s.parts), 0)}</small>
    </h2>
    {#each piles.now as stack (stack.id)}
      <h3>{stack.title}</h3>
      <ul>
        {#each stack.parts as p (p.key)}
          <Slab
            part={p}
            longest={most}
            name={shortName(p, stack.title)}
            lit={lit === p.key}
            onpick={() => onpick(p.key)}
            oncut={() => oncut(p)}
          />
        {/each}
      </ul>
    {:else}
      <p class="quiet">Nothing may be cut now.</p>
    {/each}
  </section>
  <section aria-labelledby="pile-later">
    <h2 id="pile-later">
      Not yet <small class="figure">{piles.later.reduce((n, s) => n + count(s.parts), 0)}</small>
    </h2>
    {#each piles.later as tie (tie.id)}
      <div class="tie">
        <div class="tag">
          <span><span class="quiet">after</span> {tie.title}</span>
          {#if tie.wait.measured}
            <div class="measure no-print">
              <LengthField
                label="Measured"
                value={null}
                optional
                least={1}
                onchange={(mm) => mm && onknown(tie, mm)}
              />
            </div>
          {:else}
            <button class="link no-print" onclick={() => onknown(tie, null)}>That is so now</button>
          {/if}
        </div>
        <ul>
          {#each tie.parts as p (p.key)}
            <Slab
              part={p}
              longest={most}
              name={p.part.name}
              lit={lit === p.key}
              onpick={() => onpick(p.key)}
            />
          {/each}
        </ul>
      </div>
    {:else}
      <p class="quiet">Nothing waits: all sizes are known.</p>
    {/each}
  </section>
</div>
{#if piles.notMade.length}
  <h3>Not made</h3>
  <p class="marks figure">
    {#each piles.notMade as p (p.key)}<button class="link" onclick={() => onpick(p.key)}
        >{p.mark} {p.state}</button
      >{/each}
  </p>
{/if}
{#if piles.cut.length}
  <details>
    <summary>Cut: {piles.cut.length}</summary>
    <p class="marks figure">
      {#each piles.cut as p (p.key)}<button class="link" onclick={() => onpick(p.key)}>{p.mark}</button
        >{/each}
    </p>
  </details>
{/if}

<style>
  .piles {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 1.5rem;
    align-items: start;
  }
  section {
    min-width: 0;
  }
  h2 {
    font-size: 1.0625rem;
    border-bottom: 2px solid var(--w-ink);
    padding-bottom: 0.25rem;
  }
  h3 {
    font-size: 0.875rem;
    margin: 0.8rem 0 0.2rem;
  }
  small {
    color: var(--w-ink-soft);
    font-weight: 400;
  }
  ul {
    padding: 0;
    margin: 0;
  }
  .tie {
    margin-top: 0.8rem;
    border-left: 3px solid var(--w-brass-fill);
    padding-left: 0.6rem;
  }
  .tag {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    justify-content: space-between;
    gap: 0.2rem 0.8rem;
    font-size: 0.875rem;
    padding-bottom: 0.35rem;
  }
  .measure {
    width: 9rem;
  }
  .marks {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.8rem;
  }
  summary {
    cursor: pointer;
    padding: 0.8rem 0;
    font-weight: 600;
  }
  @media print {
    .piles {
      display: block;
    }
    section + section {
      margin-top: 1.2rem;
    }
    section {
      columns: 2;
      column-gap: 1.5rem;
    }
    h2 {
      column-span: all;
    }
    .tie {
      break-inside: avoid;
    }
  }
  @media screen and (max-width: 760px) {
    .piles {
      grid-template-columns: 1fr;
    }
  }
</style>
