<!-- One piece: its name and sizes, its inside or what it is made of, its holes, and all else that can be said of it. -->
<script lang="ts">
  import type { LaidUnit, LengthUnit, SetOut, Unit } from '../../../api/types';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import LengthsField from '../../../entry/LengthsField.svelte';
  import BodyForm from './piece/BodyForm.svelte';
  import HolesForm from './HolesForm.svelte';
  import InsidePane from './InsidePane.svelte';
  import PieceMore from './piece/PieceMore.svelte';
  import Things from './Things.svelte';

  interface Props {
    said: SetOut;
    /** As it is said: what a stack or rule gives is not typed here. */
    unit: Unit;
    laid: LaidUnit;
    lengths: LengthUnit;
    onchange: (part: Partial<Unit>) => void;
  }
  let p: Props = $props();
  const BOXES = ['base', 'drawers', 'tall', 'wall', 'bench', 'shelves'];
  const u = $derived(p.unit);
  const others = $derived([...(p.said.units ?? []).filter((o) => o.id !== u.id), ...(p.said.existing ?? [])]);
  const stacked = $derived(
    (p.said.heights ?? []).some((s) => (s.units ?? []).includes(u.id) || (s.tops ?? []).includes(u.id)),
  );
</script>

<div class="head">
  <TextField value={u.name} ontext={(name) => p.onchange({ name })} />
  <LengthField label="Deep" value={u.depth_mm} least={1} onchange={(mm) => p.onchange({ depth_mm: mm! })} />
  {#if !stacked}
    <LengthField
      label="High"
      value={u.height_mm}
      least={1}
      onchange={(mm) => p.onchange({ height_mm: mm! })}
    />
  {/if}
</div>
{#if stacked}<p class="quiet">Its height comes from the stack at the upright rod.</p>{/if}
{#if BOXES.includes(u.kind ?? 'base')}
  <InsidePane laid={p.laid} unit={p.lengths} onchange={p.onchange} />
{:else}
  <BodyForm laid={p.laid} onchange={(body) => p.onchange({ body })} />
{/if}
<details>
  <summary
    >Holes and lids {#if u.holes?.length}({u.holes.length}){/if}</summary
  >
  <HolesForm unit={u} onchange={(holes) => p.onchange({ holes })} />
</details>
<details>
  <summary
    >What stands on it {#if u.things?.length}({u.things.length}){/if}</summary
  >
  <Things things={u.things ?? []} onchange={(things) => p.onchange({ things })} />
</details>
<details>
  <summary>How it stands, is held and meets the walls</summary>
  <div class="head">
    <LengthField
      label="Toe recess"
      value={u.toe_recess_mm ?? 60}
      least={0}
      onchange={(mm) => p.onchange({ toe_recess_mm: mm! })}
    />
    <LengthField
      label="Feet in from edges"
      value={u.support_inset_mm ?? 40}
      least={0}
      onchange={(mm) => p.onchange({ support_inset_mm: mm! })}
    />
    <div>
      <span class="label">Screw heights</span>
      <LengthsField
        label="Screw heights of {u.name}"
        values={u.fixing_heights_mm ?? []}
        onchange={(heights) => p.onchange({ fixing_heights_mm: heights })}
      />
    </div>
  </div>
  <PieceMore unit={u} {others} onchange={p.onchange} />
</details>

<style>
  .head {
    display: grid;
    grid-template-columns: 1.6fr 1fr 1fr;
    gap: 0.6rem;
    align-items: end;
    margin-bottom: 0.5rem;
  }
  .label {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
  }
  details {
    border-top: 1px solid var(--w-line);
    padding: 0.4rem 0;
  }
  summary {
    cursor: pointer;
    font-size: 0.875rem;
    font-weight: 600;
    min-height: 28px;
  }
  p {
    font-size: 0.8125rem;
  }
</style>
