<!-- What goes in or on: each with its size, weight, number and plug. -->
<script lang="ts">
  import type { Content } from '../../../api/types';
  import { Button } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import NumberField from '../../../entry/NumberField.svelte';
  import Count from './Count.svelte';
  import { usual } from '../../../entry/usual';
  import { open } from '../../../state/job.svelte';

  interface Props {
    things: readonly Content[];
    onchange: (things: Content[]) => void;
  }
  let p: Props = $props();
  const set = (i: number, part: Partial<Content>) =>
    p.onchange(p.things.map((t, k) => (k === i ? { ...t, ...part } : t)));
  const add = () =>
    p.onchange([
      ...p.things,
      usual(
        { name: 'Tray of glue pots', width_mm: 300, depth_mm: 200, height_mm: 150, weight_kg: 2 } as Content,
        open.units,
      ),
    ]);
  const SIZES = [
    ['width_mm', 'Wide'],
    ['depth_mm', 'Deep'],
    ['height_mm', 'High'],
  ] as const;
</script>

<section class="things">
  <h4>What goes in</h4>
  {#each p.things as t, i (i)}
    <div class="thing">
      <TextField label="What" value={t.name} ontext={(name) => set(i, { name })} />
      {#each SIZES as [key, label] (key)}
        <LengthField {label} value={t[key]} least={1} onchange={(mm) => set(i, { [key]: mm! })} />
      {/each}
      <NumberField
        label="kg each"
        most={2000}
        value={t.weight_kg ?? 0}
        onchange={(kg) => set(i, { weight_kg: kg! })}
      />
      <LengthField
        label="Plug"
        value={t.plug_mm ?? 0}
        least={0}
        onchange={(mm) => set(i, { plug_mm: mm! })}
      />
      <Count label="How many" value={t.count ?? 1} most={1000} onchange={(count) => set(i, { count })} />
      <Count label="Stacked" value={t.stacked ?? 1} most={20} onchange={(stacked) => set(i, { stacked })} />
      <button class="link" onclick={() => p.onchange(p.things.filter((_, k) => k !== i))}
        >Take out {t.name}</button
      >
    </div>
  {/each}
  <Button size="small" kind="ghost" on:click={add}>Add a thing</Button>
</section>

<style>
  h4 {
    font-size: 0.8125rem;
    margin: 0.75rem 0 0.25rem;
  }
  .thing {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(6rem, 1fr));
    gap: 0.5rem;
    align-items: end;
    padding: 0.4rem 0;
    border-top: 1px solid var(--w-line);
  }
</style>
