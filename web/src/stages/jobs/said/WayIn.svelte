<!-- What everything must pass on its way to the place: doors, corners, stairs, where it is stood up, steps. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { Passage } from '../../../api/types';
  import { Button } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import NumberField from '../../../entry/NumberField.svelte';
  import { open } from '../../../state/job.svelte';
  import { usual } from '../../../entry/usual';

  let { way }: { way: readonly Passage[] } = $props();
  const put = (way_in: Passage[]) =>
    void open.edit('way in', calls.putWayIn, { way_in: way }, { way_in }, (job) => ({ ...job, way_in }));
  const set = (i: number, part: Partial<Passage>) =>
    put(way.map((p, k) => (k === i ? ({ ...p, ...part } as Passage) : p)));
  const LABELS: Record<string, string> = {
    width_mm: 'clear width',
    height_mm: 'clear height',
    from_mm: 'from a width of',
    into_mm: 'into a width of',
    headroom_mm: 'headroom, upright',
  };
  const KINDS: [string, Passage][] = [
    ['A doorway', { way: 'doorway', name: 'Door', width_mm: 760, height_mm: 1980 }],
    ['A corner', { way: 'turn', name: 'Corridor corner', from_mm: 900, into_mm: 900, height_mm: 2300 }],
    ['A stair', { way: 'stair', name: 'Stair', width_mm: 800, headroom_mm: 2000, slope_deg: 40 }],
    ['Where it is stood up', { way: 'stand up', name: 'Standing up', height_mm: 2400 }],
    ['A step', { way: 'threshold', name: 'Step', height_mm: 100 }],
  ];
  const lengths = (p: Passage) =>
    Object.entries(p).filter(([key, v]) => key in LABELS && typeof v === 'number') as [string, number][];
</script>

<div>
  {#if way.length}
    <ol>
      {#each way as passage, i (`${i} of ${way.length}`)}
        <li>
          <TextField label="Called" value={passage.name} ontext={(name) => set(i, { name })} />
          {#each lengths(passage) as [key, mm] (key)}
            <LengthField
              label={LABELS[key]!}
              value={mm}
              least={1}
              onchange={(value) => set(i, { [key]: value! } as Partial<Passage>)}
            />
          {/each}
          {#if passage.way === 'stair'}
            <NumberField
              label="Slope, degrees"
              value={passage.slope_deg ?? null}
              most={60}
              onchange={(deg) => set(i, { slope_deg: deg! })}
            />
          {/if}
          <button
            class="link"
            aria-label="Remove {passage.name}"
            onclick={() => put(way.filter((_, k) => k !== i))}>Remove</button
          >
        </li>
      {/each}
    </ol>
  {:else}
    <p class="quiet">
      Say what each unit must pass between the street and its place, in order. Fit then says what does not go
      through, by how much, and what would.
    </p>
  {/if}
  <div class="add">
    {#each KINDS.map(([text, one]) => [text, usual(one, open.units)] as const) as [text, passage] (text)}
      <Button size="small" kind="ghost" on:click={() => put([...way, passage])}>{text}</Button>
    {/each}
  </div>
</div>

<style>
  ol {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  li {
    display: grid;
    grid-template-columns: 1.4fr repeat(3, 1fr) auto;
    gap: 0.75rem;
    align-items: end;
    padding: 0.35rem 0;
    border-bottom: 1px solid var(--w-line);
  }
  li :global(button.link) {
    grid-column: -2;
  }
  .add {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem;
    margin-top: 0.5rem;
  }
  p {
    max-width: 40rem;
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
