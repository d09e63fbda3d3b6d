<!-- Readings that are not taken from a line: a level between two spots, or a distance across. -->
<script lang="ts">
  import type { Bay, Instrument, LengthUnit, Reading, SurfaceName } from '../../api/types';
  import { Modal, Select, SelectItem, TextInput } from '../../carbon';
  import { newId } from '../../entry/ids';
  import { parseLength } from '../../entry/length';
  import LengthField from '../../entry/LengthField.svelte';
  import { SURFACE_NAMES } from '../../entry/places';

  interface Props {
    bay: Bay;
    unit: LengthUnit;
    instruments: readonly Instrument[];
    instrument: string | null;
    by: string;
    /** Where the user stands: the level is taken from there unless they say otherwise. */
    from: { surface: SurfaceName; at: [number, number] } | null;
    onclose: () => void;
    onreading: (reading: Reading) => void;
  }
  let p: Props = $props();

  type Kind = 'slope' | 'left-right' | 'floor-ceiling';
  const surfaces = $derived((p.bay.surfaces ?? ['floor', 'back']) as SurfaceName[]);
  const kinds = $derived(
    (['slope', 'left-right', 'floor-ceiling'] as Kind[]).filter(
      (k) => k === 'slope' || k.split('-').every((s) => surfaces.includes(s as SurfaceName)),
    ),
  );
  const NAMES: Record<Kind, string> = {
    slope: 'A level laid between two spots',
    'left-right': 'Across, left wall to right wall',
    'floor-ceiling': 'Up, floor to ceiling',
  };
  let kind = $state<Kind>('slope');
  // svelte-ignore state_referenced_locally
  let surface = $state<SurfaceName>(p.from?.surface ?? 'floor');
  let measure = $state<'mm' | 'mm/m' | 'deg'>('mm');
  let tool = $state<string>();
  // svelte-ignore state_referenced_locally
  let spot = $state<(number | null)[]>([p.from?.at[0] ?? null, p.from?.at[1] ?? null, null, null]);
  let typed = $state('');
  let fault = $state('');
  const axes = $derived(
    kind === 'left-right'
      ? ['Out', 'Up']
      : kind === 'floor-ceiling'
        ? ['Along', 'Out']
        : surface === 'floor' || surface === 'ceiling'
          ? ['Along', 'Out']
          : surface === 'back'
            ? ['Along', 'Up']
            : ['Out', 'Up'],
  );
  const needed = $derived(kind === 'slope' ? 4 : 2);

  function record() {
    const given = spot.slice(0, needed);
    const value =
      kind === 'slope' && measure !== 'mm' ? Number(typed.replace(',', '.')) : parseLength(typed, p.unit);
    if (given.some((v) => v === null)) fault = 'Say where: every place needs both its numbers.';
    else if (value === null || Number.isNaN(value) || !typed.trim()) fault = `“${typed}” is not a reading.`;
    else if (kind !== 'slope' && value <= 0) fault = 'A distance across is more than nothing.';
    else {
      const [a, b, c, d] = given as number[];
      const common = {
        id: newId(),
        instrument: tool ?? p.instrument ?? p.instruments[0]!.id,
        taken_at: new Date().toISOString(),
        taken_by: p.by,
        entered: typed.trim(),
        note: '',
        supersedes: null,
        aside: null,
      };
      p.onreading(
        kind === 'slope'
          ? { ...common, kind, surface, start: [a!, b!], end: [c!, d!], value, unit: measure, turned: false }
          : { ...common, kind: 'span', between: kind, at: [a!, b!], value_mm: value },
      );
      p.onclose();
    }
  }
</script>

<Modal
  open
  modalHeading="Another reading"
  primaryButtonText="Record"
  secondaryButtonText="Not now"
  on:click:button--secondary={() => p.onclose()}
  on:close={() => p.onclose()}
  on:submit={record}
>
  <div class="form">
    <Select labelText="What you measure" bind:selected={kind}>
      {#each kinds as k (k)}<SelectItem value={k} text={NAMES[k]} />{/each}
    </Select>
    {#if kind === 'slope'}
      <Select labelText="On the" bind:selected={surface}>
        {#each surfaces as s (s)}<SelectItem value={s} text={SURFACE_NAMES[s]} />{/each}
      </Select>
    {/if}
    <div class="pair">
      {#each axes as axis, i (axis)}
        <LengthField
          label={kind === 'slope' ? `From: ${axis.toLowerCase()}` : axis}
          value={spot[i]!}
          unit={p.unit}
          onchange={(mm) => (spot[i] = mm)}
        />
      {/each}
      {#if kind === 'slope'}
        {#each axes as axis, i (axis)}
          <LengthField
            label="To: {axis.toLowerCase()}"
            value={spot[i + 2]!}
            unit={p.unit}
            onchange={(mm) => (spot[i + 2] = mm)}
          />
        {/each}
      {/if}
    </div>
    <div class="pair">
      <TextInput
        labelText={kind === 'slope' ? 'Rises by (minus if “to” is lower, or further back)' : 'Distance'}
        autocomplete="off"
        invalid={fault !== ''}
        invalidText={fault}
        bind:value={typed}
      />
      {#if kind === 'slope'}
        <Select labelText="As" bind:selected={measure}>
          <SelectItem value="mm" text={p.unit === 'in' ? 'a length (feeler)' : 'mm (feeler)'} />
          <SelectItem value="mm/m" text="mm per metre" />
          <SelectItem value="deg" text="degrees" />
        </Select>
      {/if}
    </div>
    <Select
      labelText="With"
      selected={tool ?? p.instrument ?? ''}
      on:change={(e: Event) => (tool = (e.target as HTMLSelectElement).value)}
    >
      {#each p.instruments as i (i.id)}<SelectItem value={i.id} text={i.name} />{/each}
    </Select>
  </div>
</Modal>

<style>
  .form {
    display: grid;
    gap: 1rem;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.75rem;
    align-items: start;
  }
</style>
