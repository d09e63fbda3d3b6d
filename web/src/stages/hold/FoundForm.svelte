<!-- Write down what was found behind a lining: touch the drawing where, say by what, and take back what was not there. -->
<script lang="ts">
  import type { Behind, Detection, SurfaceName } from '../../api/types';
  import { Button, Select, SelectItem } from '../../carbon';
  import { showLength } from '../../entry/length';
  import LengthField from '../../entry/LengthField.svelte';
  import { FOUND_BY, SEES } from './backing';
  import { usePlace } from '../../state/place';

  interface Props {
    surfaces: readonly SurfaceName[];
    found: readonly Detection[];
    /** How many of them wait on this device. */
    waits: ReadonlySet<string>;
    at: { surface: Behind; along: number | null; up: number };
    onat: (at: { surface: Behind; along: number | null; up: number }) => void;
    onfound: (d: Pick<Detection, 'surface' | 'at' | 'found_by' | 'sees'>) => void;
    ontake: (id: string) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  let foundBy = $state<(typeof FOUND_BY)[number]>('scanner');
  let sees = $state<(typeof SEES)[number]>('left edge');
  const BEHIND: readonly Behind[] = ['back', 'left', 'right', 'ceiling', 'floor'];
  const surfaces = $derived(BEHIND.filter((s) => p.surfaces.includes(s)));
  const second = $derived(p.at.surface === 'ceiling' || p.at.surface === 'floor' ? 'Out' : 'Up');
  const first = $derived(p.at.surface === 'left' || p.at.surface === 'right' ? 'Out' : 'Along');
  function add() {
    if (p.at.along === null) return;
    p.onfound({ surface: p.at.surface, at: [p.at.along, p.at.up], found_by: foundBy, sees });
    p.onat({ ...p.at, along: null });
  }
</script>

<div class="fields no-print">
  <Select
    labelText="Found behind"
    size="sm"
    selected={p.at.surface}
    on:change={(e: Event) => p.onat({ ...p.at, surface: (e.target as HTMLSelectElement).value as Behind })}
  >
    {#each surfaces as s (s)}<SelectItem
        value={s}
        text={s === 'ceiling' ? 'the ceiling' : `the ${s}`}
      />{/each}
  </Select>
  <Select
    labelText="Found by"
    size="sm"
    selected={foundBy}
    on:change={(e: Event) => (foundBy = (e.target as HTMLSelectElement).value as typeof foundBy)}
  >
    {#each FOUND_BY as m (m)}<SelectItem value={m} text={m} />{/each}
  </Select>
  <Select
    labelText="It shows"
    size="sm"
    selected={sees}
    on:change={(e: Event) => (sees = (e.target as HTMLSelectElement).value as typeof sees)}
  >
    {#each SEES as s (s)}<SelectItem value={s} text={s} />{/each}
  </Select>
  <LengthField label={first} value={p.at.along} optional onchange={(along) => p.onat({ ...p.at, along })} />
  <LengthField label={second} value={p.at.up} least={0} onchange={(mm) => p.onat({ ...p.at, up: mm! })} />
  <Button size="small" disabled={p.at.along === null} on:click={add}>Found</Button>
</div>
{#if p.found.length}
  <details class="no-print">
    <summary>{p.found.length} found so far</summary>
    <ul>
      {#each p.found.toReversed() as d (d.id)}
        <li>
          <span
            >{d.surface === 'back' ? '' : `${d.surface}: `}{d.found_by}, {d.sees}
            <span class="figure">{showLength(d.at[0] as number, view.unit, 0)}</span>{#if p.waits.has(d.id)}
              <small class="mind">waits here</small>{/if}</span
          >
          <button
            class="chip"
            aria-label="Take back {d.found_by} at {showLength(d.at[0] as number, view.unit, 0)}"
            onclick={() => p.ontake(d.id)}>take back</button
          >
        </li>
      {/each}
    </ul>
  </details>
{/if}

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
    align-items: end;
    margin-bottom: 0.5rem;
  }
  summary {
    cursor: pointer;
    font-size: 0.8125rem;
    padding: 0.3rem 0;
    min-height: 24px;
    color: var(--w-chalk);
  }
  ul {
    list-style: none;
    padding: 0;
    max-height: 220px;
    overflow-y: auto;
  }
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 0.5rem;
    font-size: 0.8125rem;
    padding: 0.15rem 0;
  }
</style>
