<!-- Found otherwise: one tap says what; the plan's answer stands beside it at once. -->
<script lang="ts">
  import type { Fastener, Otherwise, Place, Unit } from '../../api/types';

  interface Props {
    place: Place;
    units: readonly Unit[];
    screws: readonly Fastener[];
    found: readonly Otherwise[];
    onfound: (what: Pick<Otherwise, 'what'> & Partial<Otherwise>) => void;
    ontake: (id: string) => void;
  }
  let { place, units, screws, found, onfound, ontake }: Props = $props();
  const backs = $derived(screws.filter((s) => s.surface));
  let screw = $state('');
  let box = $state('');
  let count = $state(2);
  let stays = $state('');
  let text = $state('');
  const boxes = $derived(units.filter((u) => u.insides || (u.front?.openings ?? 1) > 1));
  const at = $derived(backs.find((s) => s.id === screw));
  const spot = (what: 'no stud' | 'wire or pipe') => {
    if (at) onfound({ what, of: at.id, surface: at.surface ?? 'back', at: at.at });
  };
</script>

<div class="grid">
  <section>
    <h2>At a screw</h2>
    <select value={screw} onchange={(e) => (screw = e.currentTarget.value)} aria-label="Which screw">
      <option value="">which screw</option>
      {#each backs as s (s.id)}<option value={s.id}
          >{s.order}: {units.find((u) => u.id === s.unit)?.name ?? s.unit}, {s.part}, {s.surface}</option
        >{/each}
    </select>
    <div class="taps">
      <button disabled={!at} onclick={() => spot('no stud')}>There is no stud</button>
      <button disabled={!at} onclick={() => spot('wire or pipe')}>A wire or a pipe</button>
    </div>
    {#if at}<p class="stop">
        ⚠ Something that is no wood: stop, switch off at the main, and have it looked at.
      </p>{/if}
  </section>
  <section>
    <h2>Overhead</h2>
    <div class="taps">
      <button onclick={() => onfound({ what: 'joists the other way', surface: 'ceiling' })}
        >The joists run the other way</button
      >
    </div>
  </section>
  {#if place.existing?.length}
    <section>
      <h2>What was to stay</h2>
      <select value={stays} onchange={(e) => (stays = e.currentTarget.value)} aria-label="Which">
        <option value="">which</option>
        {#each place.existing as e (e.id)}<option value={e.id}>{e.name}</option>{/each}
      </select>
      <div class="taps">
        <button disabled={!stays} onclick={() => onfound({ what: 'no box', of: stays })}>It is no box</button>
      </div>
    </section>
  {/if}
  {#if boxes.length}
    <section>
      <h2>Openings</h2>
      <select value={box} onchange={(e) => (box = e.currentTarget.value)} aria-label="Of which box">
        <option value="">of which box</option>
        {#each boxes as u (u.id)}<option value={u.id}>{u.name}</option>{/each}
      </select>
      <label
        >has <input type="number" min="1" max="12" bind:value={count} aria-label="Openings" /> openings</label
      >
      <div class="taps">
        <button disabled={!box} onclick={() => onfound({ what: 'other openings', of: box, count })}
          >So many after all</button
        >
      </div>
    </section>
  {/if}
  <section>
    <h2>Anything else</h2>
    <input bind:value={text} placeholder="what, and where" aria-label="What was found otherwise" />
    <div class="taps">
      <button onclick={() => onfound({ what: 'wall opened', text })}>A wall was opened</button>
      <button disabled={!text.trim()} onclick={() => (onfound({ what: 'other', text }), (text = ''))}
        >Write it down</button
      >
    </div>
  </section>
</div>
{#if found.length}
  <h2>Found so far</h2>
  <ul>
    {#each found as f (f.id)}
      <li>
        {f.what}{f.of ? `, ${units.find((u) => u.id === f.of)?.name ?? f.of}` : ''}{f.count
          ? `: ${f.count}`
          : ''}
        {f.text}
        <button class="link no-print" onclick={() => ontake(f.id)}>Take it back</button>
      </li>
    {/each}
  </ul>
{/if}

<style>
  .grid {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
    gap: 0.8rem;
  }
  section {
    border-top: 2px solid var(--w-line-strong);
    padding-top: 0.3rem;
  }
  h2 {
    font-size: 0.875rem;
    margin: 0.2rem 0;
  }
  .taps {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    margin: 0.4rem 0;
  }
  .taps button {
    min-height: 44px;
    border: 1px solid var(--w-line-strong);
    background: none;
    color: var(--w-ink);
    border-radius: var(--w-radius);
    padding: 0 0.7rem;
    cursor: pointer;
  }
  .taps button:disabled {
    color: var(--w-ink-soft);
    cursor: default;
    border-style: dashed;
  }
  select,
  input {
    background: var(--w-page);
    color: var(--w-ink);
    border: 1px solid var(--w-line-strong);
    min-height: 36px;
    max-width: 100%;
    width: 100%;
    font: inherit;
    font-size: 0.875rem;
    padding: 0 0.3rem;
  }
  input[type='number'] {
    width: 4rem;
  }
  p,
  li,
  label {
    font-size: 0.875rem;
  }
</style>
