<!-- Mouldings that run along: each length at its back, and how its ends are sawn for the corners as they are. -->
<script lang="ts">
  import type { PlaceFit, Figure, MouldingEnd } from '../../../../api/types';
  import Measure from '../../../../entry/Measure.svelte';
  import Wide from '../../../../shell/Wide.svelte';

  interface Props {
    fit: PlaceFit;
    onfigure: (title: string, figure: Figure) => void;
  }
  let p: Props = $props();
  const rows = $derived(p.fit.mouldings.flatMap((m) => m.lengths.map((one) => ({ unit: m.unit, one }))));
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
  const way = (along: string) => (along === 'back' ? along : `${along} end`);
  const degrees = (deg: number) => `${deg.toFixed(1)}°`;
  const corner = (end: MouldingEnd) =>
    !end.corner
      ? ''
      : end.corner.measured
        ? `${degrees(end.corner.deg)} ± ${degrees(2 * end.corner.sd_deg)}`
        : 'not measured';
</script>

{#snippet cut(end: MouldingEnd)}
  {end.joint}
  {#if end.joint !== 'square'}
    <span class="saw figure">saw {degrees(end.mitre_deg)}, blade {degrees(end.bevel_deg)}</span>
    <span class="saw figure">standing {degrees(end.standing_deg)}</span>
  {/if}
  {#if end.corner}<span class="saw">corner {corner(end)}</span>{/if}
{/snippet}

{#if rows.length}
  <Wide label="Mouldings">
    <table class="facts">
      <caption>Mouldings, seen from their face</caption>
      <thead
        ><tr
          ><th>Moulding</th><th>Along</th><th class="value">At its back</th><th>Left end</th><th>Right end</th
          ></tr
        ></thead
      >
      <tbody>
        {#each rows as { unit, one } (one.id)}
          <tr>
            <td>{name(unit)}{one.pieces > 1 ? `, in ${one.pieces}` : ''}</td>
            <td>{way(one.along)}</td>
            <td class="value"
              ><button onclick={() => p.onfigure(`${name(unit)}, ${way(one.along)}`, one.long)}
                ><Measure mm={one.long.value_mm} sd={one.long.sd_mm} /></button
              ></td
            >
            <td>{@render cut(one.left)}</td>
            <td>{@render cut(one.right)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
  <p class="note">Saw and blade are set for its back flat on the bed; standing, as it is on the wall.</p>
{/if}

<style>
  .saw {
    display: block;
    white-space: nowrap;
    font-size: 0.8125rem;
  }
  .note {
    font-size: 0.8125rem;
    margin: 0.25rem 0 0.75rem;
  }
</style>
