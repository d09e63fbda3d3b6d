<!-- What would change if the plan followed what stands: each figure before and after, what is cut spared or not. -->
<script lang="ts">
  import type { Proposal } from '../../api/types';
  import Measure from '../../entry/Measure.svelte';

  interface Props {
    proposal: Proposal | null;
    pending: readonly string[];
    onfollow: () => void;
  }
  let { proposal, pending, onfollow }: Props = $props();
  const KINDS = {
    base: 'Height',
    place: 'Where it stands',
    shim: 'Under supports',
    part: 'Parts',
    screw: 'Screws',
  };
  const groups = $derived(
    Object.entries(KINDS).flatMap(([kind, name]) => {
      const some = (proposal?.changes ?? []).filter((c) => c.kind === kind);
      return some.length ? [{ kind, name, some }] : [];
    }),
  );
  const CUT = { spared: 'cut, and still does', trim: 'cut, to be trimmed', again: 'cut again' };
</script>

{#if !proposal}
  <p class="quiet">Working it out…</p>
{:else if !proposal.readings.length}
  <p class="empty">
    Nothing that stands was read yet. Read a unit's level and height once it is set: what comes out different
    is told here, and the rest of the plan can follow it.
  </p>
{:else if !groups.length}
  <p class="empty">
    What stands is where it was planned, as far as anything follows from it: no figure moves.
  </p>
{:else}
  <p>
    {pending.length ? `${pending.join(', ')} stands other than planned. ` : ''}If the rest follows, these
    figures move.
    {#if proposal.spared}{proposal.spared} that {proposal.spared === 1 ? 'is' : 'are'} cut still {proposal.spared ===
      1
        ? 'does'
        : 'do'}.{/if}
    {#if proposal.again}<b class="stop">{proposal.again} {proposal.again === 1 ? 'is' : 'are'} cut again.</b
      >{/if}
  </p>
  <p class="no-print">
    <button class="big" onclick={onfollow}>Let the plan follow what stands</button>
    <span class="quiet">or leave it: the first plan stays, and what is out is put right to it</span>
  </p>
  {#each groups as g (g.kind)}
    <h3>{g.name}</h3>
    <table class="facts">
      <thead><tr><th>What</th><th class="value">Before</th><th class="value">After</th><td></td></tr></thead>
      <tbody>
        {#each g.some as c, i (i)}
          <tr>
            <td>{c.name}</td>
            <td class="value ghost"
              >{#if c.before_mm !== null && c.before_mm !== undefined}<Measure
                  mm={c.before_mm}
                />{:else}none{/if}</td
            >
            <td class="value"
              >{#if c.after_mm !== null && c.after_mm !== undefined}<Measure
                  mm={c.after_mm}
                />{:else}none{/if}</td
            >
            <td class:stop={c.cut === 'again'}>{c.cut ? CUT[c.cut] : ''}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/each}
{/if}

<style>
  p {
    font-size: 0.875rem;
  }
  h3 {
    font-size: 0.875rem;
    margin: 0.8rem 0 0.2rem;
  }
  .ghost {
    color: var(--w-ink-soft);
    text-decoration: line-through;
    text-decoration-thickness: 1px;
  }
  .big {
    background: var(--w-chalk);
    color: var(--w-on-ink);
    border: 0;
    border-radius: var(--w-radius);
    min-height: 44px;
    padding: 0 1rem;
    font-weight: 700;
    cursor: pointer;
  }
</style>
