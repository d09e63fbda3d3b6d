<!-- What is there and stays, and doors and windows: measured as they stand, with the room that each needs. -->
<script lang="ts">
  import type { Existing, SetOut, WallOpening } from '../../../api/types';
  import { Button, Checkbox, Select, SelectItem } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import { usual } from '../../../entry/usual';
  import { open } from '../../../state/job.svelte';

  interface Props {
    said: SetOut;
    place: { width_mm: number; height_mm: number };
    onchange: (part: Partial<SetOut>) => void;
  }
  let p: Props = $props();
  const existing = $derived(p.said.existing ?? []);
  const openings = $derived(p.said.openings ?? []);
  const setE = (i: number, part: Partial<Existing>) =>
    p.onchange({ existing: existing.map((e, k) => (k === i ? { ...e, ...part } : e)) });
  const setO = (i: number, part: Partial<WallOpening>) =>
    p.onchange({ openings: openings.map((o, k) => (k === i ? { ...o, ...part } : o)) });
  const free = (stem: string) => {
    const taken = new Set([...existing, ...openings, ...(p.said.units ?? [])].map((t) => t.id));
    let n = 1;
    while (taken.has(`${stem}-${n}`)) n += 1;
    return `${stem}-${n}`;
  };
  const addE = () =>
    p.onchange({
      existing: [
        ...existing,
        usual(
          {
            id: free('stays'),
            name: 'Lever frame',
            x_mm: 600,
            width_mm: 600,
            height_mm: 400,
            depth_mm: 400,
            clear_mm: 40,
          } as Existing,
          open.units,
        ),
      ],
    });
  const addO = () =>
    p.onchange({
      openings: [
        ...openings,
        usual(
          {
            id: free('window'),
            name: 'Window',
            kind: 'window',
            x_mm: 600,
            width_mm: 900,
            height_mm: 1100,
            sill_mm: 900,
          } as WallOpening,
          open.units,
        ),
      ],
    });
  /** The wall ends a hand before the end of the place, until it is said where. */
  const addEnd = () =>
    p.onchange({
      openings: [
        ...openings,
        {
          id: free('wall-end'),
          name: 'End of the wall',
          kind: 'no wall',
          x_mm: Math.max(p.place.width_mm - 300, 0),
          width_mm: Math.min(300, p.place.width_mm),
          height_mm: p.place.height_mm,
          sill_mm: 0,
        } as WallOpening,
      ],
    });
  const E = [
    ['x_mm', 'From the left'],
    ['width_mm', 'Wide'],
    ['height_mm', 'High'],
    ['depth_mm', 'Deep'],
    ['up_mm', 'Up from the floor'],
    ['out_mm', 'Out of the wall'],
    ['clear_mm', 'Needs around it'],
  ] as const;
  const O = [
    ['x_mm', 'From the left'],
    ['width_mm', 'Wide'],
    ['height_mm', 'High'],
    ['sill_mm', 'Sill up'],
    ['covering_mm', 'Covering hangs out'],
  ] as const;
  const least = (key: string) => (key === 'width_mm' || key === 'height_mm' || key === 'depth_mm' ? 1 : 0);
</script>

{#each existing as e, i (e.id)}
  <div class="thing">
    <TextField label="What stays" value={e.name} ontext={(name) => setE(i, { name })} />
    {#each E as [key, label] (key)}
      <LengthField
        {label}
        value={e[key] ?? 0}
        least={key === 'x_mm' ? -100000 : least(key)}
        onchange={(mm) => setE(i, { [key]: mm! })}
      />
    {/each}
    <button class="link" onclick={() => p.onchange({ existing: existing.filter((_, k) => k !== i) })}
      >Remove {e.name}</button
    >
  </div>
{/each}
{#each openings as o, i (o.id)}
  <div class="thing">
    <TextField label="Opening" value={o.name} ontext={(name) => setO(i, { name })} />
    <Select
      labelText="It is a"
      size="sm"
      selected={o.kind ?? 'window'}
      on:change={(ev: Event) =>
        setO(i, { kind: (ev.target as HTMLSelectElement).value as WallOpening['kind'] })}
    >
      <SelectItem value="window" text="window" />
      <SelectItem value="door" text="door" />
      <SelectItem value="no wall" text="place without a wall" />
    </Select>
    {#each O as [key, label] (key)}
      <LengthField
        {label}
        value={o[key] ?? 0}
        least={key === 'x_mm' ? -100000 : least(key)}
        onchange={(mm) => setO(i, { [key]: mm! })}
      />
    {/each}
    {#if o.kind !== 'no wall'}
      <Checkbox
        labelText="Opens into the room"
        checked={o.opens_in ?? false}
        on:check={(ev: CustomEvent<boolean>) => setO(i, { opens_in: ev.detail })}
      />
    {/if}
    <button class="link" onclick={() => p.onchange({ openings: openings.filter((_, k) => k !== i) })}
      >Remove {o.name}</button
    >
  </div>
{/each}
{#if !existing.length && !openings.length}
  <p class="quiet">
    Things that stay where they are, windows and doors: edges can be lined up with them and pieces centred on
    them.
  </p>
{/if}
<Button size="small" kind="ghost" on:click={addE}>Add something that stays</Button>
<Button size="small" kind="ghost" on:click={addO}>Add a window or door</Button>
<Button size="small" kind="ghost" on:click={addEnd}>The wall ends here</Button>

<style>
  .thing {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(7rem, 1fr));
    gap: 0.6rem;
    align-items: end;
    border-top: 1px solid var(--w-line);
    padding: 0.6rem 0;
  }
  p {
    font-size: 0.875rem;
  }
</style>
