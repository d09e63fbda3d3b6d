<!-- What readings are taken with, and how far one reading may be trusted. -->
<script lang="ts">
  import type { Instrument, LengthUnit } from '../../api/types';
  import { Button, Select, SelectItem, TextInput } from '../../carbon';
  import LengthField from '../../entry/LengthField.svelte';
  import { open } from '../../state/job.svelte';

  let { instruments, unit }: { instruments: readonly Instrument[]; unit: LengthUnit } = $props();
  const KINDS = [
    'laser line',
    'laser meter',
    'water level',
    'string line',
    'level',
    'digital level',
    'tape',
  ] as const;
  const save = (next: Instrument[]) => void open.putInstruments(next);
  const change = (i: number, part: Partial<Instrument>) =>
    save(instruments.map((t, k) => (k === i ? { ...t, ...part } : t)));

  function add() {
    const ids = new Set(instruments.map((i) => i.id));
    let n = instruments.length + 1;
    while (ids.has(`tool-${n}`)) n += 1;
    save([...instruments, { id: `tool-${n}`, name: 'Tape', kind: 'tape', sigma_mm: 1 }]);
  }
</script>

<section>
  <h2>Instruments</h2>
  <table class="fields-table">
    <thead><tr><th>Name</th><th>Kind</th><th>One reading is good to ±</th><th></th></tr></thead>
    <tbody>
      {#each instruments as tool, i (tool.id)}
        <tr>
          <td
            ><TextInput
              hideLabel
              labelText="Name of instrument {i + 1}"
              size="sm"
              value={tool.name}
              on:blur={(e: FocusEvent) => {
                const name = (e.target as HTMLInputElement).value.trim();
                if (name && name !== tool.name) change(i, { name });
              }}
            /></td
          >
          <td
            ><Select
              hideLabel
              labelText="Kind of instrument {i + 1}"
              size="sm"
              selected={tool.kind ?? 'tape'}
              on:change={(e: Event) =>
                change(i, { kind: (e.target as HTMLSelectElement).value as (typeof KINDS)[number] })}
            >
              {#each KINDS as kind (kind)}<SelectItem value={kind} text={kind} />{/each}
            </Select></td
          >
          <td
            ><LengthField
              bare
              label="Uncertainty of instrument {i + 1}"
              value={tool.sigma_mm ?? 0.5}
              {unit}
              least={0.01}
              onchange={(mm) => change(i, { sigma_mm: mm! })}
            /></td
          >
          <td
            ><button
              class="link"
              onclick={() => save(instruments.filter((_, k) => k !== i))}
              aria-label="Remove {tool.name}">Remove</button
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <Button size="small" kind="ghost" on:click={add}>Add an instrument</Button>
</section>
