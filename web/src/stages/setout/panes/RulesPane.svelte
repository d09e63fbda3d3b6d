<!-- What is meant, in words: every rule of the rod, with its sign, and the ways to say a new one of what is picked. -->
<script lang="ts">
  import type { LaidOut, Move, Place, Rule, SetOut, Unit } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import { newId } from '../../../entry/ids';

  interface Props {
    said: SetOut;
    place: Place;
    laid: LaidOut;
    picked: readonly string[];
    onmove: (move: Move) => void;
  }
  let p: Props = $props();
  const units = $derived((p.said.units ?? []).filter((u) => p.picked.includes(u.id)));
  const one = $derived(units.at(-1) ?? null);
  const things = $derived([
    ...(p.said.openings ?? []),
    ...(p.said.existing ?? []),
    ...p.place.obstacles.filter((o) => o.surface === 'back' || o.surface === 'floor'),
  ]);
  const say = (rule: object) => p.onmove({ move: 'say', rule: { id: newId(), ...rule } as Rule } as Move);
  const edge = (of: string, at: 'left' | 'middle' | 'right') => ({ of, edge: at });
  const neighbours = (u: Unit) => {
    const same = (p.said.units ?? []).filter(
      (o) => o.id !== u.id && (o.over_base_mm ?? 0) === (u.over_base_mm ?? 0),
    );
    return {
      left: same.filter((o) => o.x_mm < u.x_mm).toSorted((a, b) => b.x_mm - a.x_mm)[0],
      right: same.filter((o) => o.x_mm > u.x_mm).toSorted((a, b) => a.x_mm - b.x_mm)[0],
    };
  };
  function centre(e: Event) {
    const on = (e.target as HTMLSelectElement).value;
    if (on) say({ rule: 'centred', units: units.toSorted((a, b) => a.x_mm - b.x_mm).map((u) => u.id), on });
  }
  function width(e: Event) {
    const than = (e.target as HTMLSelectElement).value;
    if (than && one) say({ rule: 'as wide as', unit: one.id, than, more_mm: 0 });
  }
</script>

{#if one}
  {@const near = neighbours(one)}
  <div class="acts">
    {#if units.length > 1}
      <button class="chip" onclick={() => say({ rule: 'equal', units: units.map((u) => u.id) })}
        >= Equally wide</button
      >
    {/if}
    <button
      class="chip"
      onclick={() =>
        say({ rule: 'lined up', edge: edge(one.id, 'left'), to: edge('place', 'left'), off_mm: 0 })}
      >⇤ To the left wall</button
    >
    <button
      class="chip"
      onclick={() =>
        say({ rule: 'lined up', edge: edge(one.id, 'right'), to: edge('place', 'right'), off_mm: 0 })}
      >⇥ Fill to the right wall</button
    >
    {#if near.left}
      <button
        class="chip"
        onclick={() =>
          say({ rule: 'lined up', edge: edge(one.id, 'left'), to: edge(near.left!.id, 'right'), off_mm: 0 })}
        >Touches {near.left.name}</button
      >
    {/if}
    {#if near.right}
      <button
        class="chip"
        onclick={() =>
          say({ rule: 'lined up', edge: edge(one.id, 'right'), to: edge(near.right!.id, 'left'), off_mm: 0 })}
        >Reaches {near.right.name}</button
      >
    {/if}
  </div>
  <div class="more">
    <Select labelText="Centred on" size="sm" selected="" on:change={centre}>
      <SelectItem value="" text="nothing" />
      <SelectItem value="place" text="the place" />
      {#each things as t (t.id)}<SelectItem value={t.id} text={t.name} />{/each}
    </Select>
    <Select labelText="As wide as" size="sm" selected="" on:change={width}>
      <SelectItem value="" text="nothing else" />
      {#each (p.said.units ?? []).filter((u) => u.id !== one.id) as u (u.id)}<SelectItem
          value={u.id}
          text={u.name}
        />{/each}
      {#each things as t (t.id)}<SelectItem value={t.id} text={t.name} />{/each}
    </Select>
  </div>
{:else}
  <p class="quiet">Pick a piece, or several with Shift, to say how they stand to each other.</p>
{/if}
{#if p.laid.rules.length}
  <ul>
    {#each p.laid.rules as r (r.id)}
      <li class={r.stands.replace(' ', '-')}>
        <span class="sign" aria-hidden="true">{r.sign}</span>
        <span>
          {r.words}{#if r.stands !== 'holds'}<em
              >{r.stands === 'contradicts'
                ? ': contradicts others'
                : r.stands === 'repeats'
                  ? ': says nothing new'
                  : ': what it names is gone'}</em
            >{/if}
        </span>
        <button
          class="link"
          aria-label="Take off: {r.words}"
          onclick={() => p.onmove({ move: 'release', rule: r.id } as Move)}>Take off</button
        >
      </li>
    {/each}
  </ul>
{:else}
  <p class="quiet">
    No rules yet: every edge stands where it is drawn. Bring an edge to a wall or a neighbour and it stays
    there.
  </p>
{/if}

<style>
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
  }
  .more {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.6rem;
    margin: 0.6rem 0;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    font-size: 0.875rem;
  }
  li {
    display: grid;
    grid-template-columns: 1.2rem 1fr auto;
    gap: 0.4rem;
    border-top: 1px solid var(--w-line);
    padding: 0.3rem 0;
    align-items: baseline;
  }
  .sign {
    color: var(--w-brass);
    font-weight: 700;
  }
  .contradicts {
    color: var(--w-stop);
  }
  em {
    color: var(--w-mind);
    font-style: normal;
  }
  p {
    font-size: 0.875rem;
  }
</style>
