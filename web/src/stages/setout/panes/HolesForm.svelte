<!-- Holes, hatches and lids of one piece, each at its place on the board that it is cut from. -->
<script lang="ts">
  import { OPTIONS } from '../../../api/fields';
  import type { Hole, Unit } from '../../../api/types';
  import { Button, Select, SelectItem } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import { usual } from '../../../entry/usual';
  import { open } from '../../../state/job.svelte';

  interface Props {
    unit: Unit;
    onchange: (holes: Hole[]) => void;
  }
  let p: Props = $props();
  const holes = $derived(p.unit.holes ?? []);
  const set = (i: number, part: Partial<Hole>) =>
    p.onchange(holes.map((h, k) => (k === i ? { ...h, ...part } : h)));
  function add() {
    const taken = new Set(holes.map((h) => h.id));
    let n = 1;
    while (taken.has(`hole-${n}`)) n += 1;
    p.onchange([
      ...holes,
      usual(
        {
          id: `hole-${n}`,
          name: 'Cable hole',
          kind: 'cable hole',
          inside: 'back',
          at: [100, 100],
          size: [60, 60],
          strip_mm: 0,
          plug_mm: 50,
        } as Hole,
        open.units,
      ),
    ]);
  }
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
</script>

{#each holes as h, i (h.id)}
  <div class="hole">
    <TextField label="Hole" value={h.name} ontext={(name) => set(i, { name })} />
    <Select
      labelText="It is a"
      size="sm"
      selected={h.kind ?? 'cable hole'}
      on:change={(e: Event) => set(i, { kind: chosen(e) as Hole['kind'] })}
    >
      {#each OPTIONS.holeKinds as k (k)}<SelectItem value={k} text={k} />{/each}
    </Select>
    <Select
      labelText="In its"
      size="sm"
      selected={h.inside ?? 'back'}
      on:change={(e: Event) => set(i, { inside: chosen(e) as Hole['inside'] })}
    >
      {#each OPTIONS.holesInside as k (k)}<SelectItem value={k} text={k} />{/each}
    </Select>
    <LengthField
      label="From its left"
      value={h.at?.[0] ?? 0}
      least={0}
      onchange={(mm) => set(i, { at: [mm!, h.at?.[1] ?? 0] })}
    />
    <LengthField
      label={h.inside === 'top' ? 'From its front' : 'Up'}
      value={h.at?.[1] ?? 0}
      least={0}
      onchange={(mm) => set(i, { at: [h.at?.[0] ?? 0, mm!] })}
    />
    <LengthField
      label="Wide"
      value={h.size?.[0] ?? 60}
      least={1}
      onchange={(mm) => set(i, { size: [mm!, h.size?.[1] ?? 60] })}
    />
    <LengthField
      label={h.inside === 'top' ? 'Deep' : 'High'}
      value={h.size?.[1] ?? 60}
      least={1}
      onchange={(mm) => set(i, { size: [h.size?.[0] ?? 60, mm!] })}
    />
    {#if h.kind === 'lid'}
      <LengthField
        label="Fixed strip behind"
        value={h.strip_mm ?? 0}
        least={0}
        onchange={(mm) => set(i, { strip_mm: mm! })}
      />
    {:else}
      <LengthField
        label="Plug"
        value={h.plug_mm ?? 0}
        least={0}
        onchange={(mm) => set(i, { plug_mm: mm! })}
      />
    {/if}
    <button class="link" onclick={() => p.onchange(holes.filter((_, k) => k !== i))}>Close {h.name}</button>
  </div>
{/each}
<Button size="small" kind="ghost" on:click={add}>Cut a hole, hatch or lid</Button>

<style>
  .hole {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(7rem, 1fr));
    gap: 0.6rem;
    align-items: end;
    border-top: 1px solid var(--w-line);
    padding: 0.6rem 0;
  }
</style>
