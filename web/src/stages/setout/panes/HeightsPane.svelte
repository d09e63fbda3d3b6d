<!-- A stack of heights as a list: each layer, which one gives, what it stands against, and the covering. -->
<script lang="ts">
  import { OPTIONS } from '../../../api/fields';
  import type { HeightStack, LaidStack, Member, Place, SetOut } from '../../../api/types';
  import { Button, Checkbox, Select, SelectItem } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';
  import { showLength } from '../../../entry/length';
  import { usePlace } from '../../../state/place';

  interface Props {
    said: SetOut;
    place: Place;
    stack: HeightStack | null;
    laid: LaidStack | null;
    picked: readonly string[];
    onchange: (heights: HeightStack[]) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const all = $derived(p.said.heights ?? []);
  const set = (part: Partial<HeightStack>) =>
    p.onchange(all.map((s) => (s.id === p.stack?.id ? { ...s, ...part } : s)));
  const names = OPTIONS.members;
  const has = (name: string) => p.stack?.members.some((m) => m.name === name) ?? false;
  const USUAL: Record<string, number> = {
    covering: 8,
    base: 80,
    box: 700,
    facing: 18,
    board: 20,
    cushion: 60,
  };
  const turn = (name: Member['name'], on: boolean) => {
    if (!p.stack) return;
    const others = p.stack.members.filter((m) => m.name !== name);
    const members = on ? [...others, { name, high_mm: USUAL[name] ?? 20 }] : others;
    if (!members.length) return;
    set({
      members: members.toSorted((a, b) => names.indexOf(a.name) - names.indexOf(b.name)),
      gives: !on && p.stack.gives === name ? null : (p.stack.gives ?? null),
    });
  };
  const skirtings = $derived(p.place.obstacles.filter((o) => o.kind === 'skirting'));
  function begin() {
    const units = p.said.units ?? [];
    const mine = units.filter((u) =>
      p.picked.length ? p.picked.includes(u.id) : (u.over_base_mm ?? 0) === 0,
    );
    const boxes = mine.filter((u) => u.kind !== 'top' && u.kind !== 'cushion');
    const high = Math.max(0, ...boxes.map((u) => u.height_mm));
    if (!boxes.length) return;
    const base = Math.max(
      0,
      ...boxes.map((u) =>
        u.standing?.on === 'toe-kick box' || u.standing?.on === 'base frame'
          ? (u.standing.height_mm ?? 0)
          : 0,
      ),
    );
    const members = [
      ...(base ? [{ name: 'base', high_mm: base }] : []),
      { name: 'box', high_mm: Math.max(1, high - base) },
    ] as Member[];
    let n = all.length + 1;
    while (all.some((s) => s.id === `stack-${n}`)) n += 1;
    p.onchange([
      ...all,
      {
        id: `stack-${n}`,
        units: boxes.map((u) => u.id),
        members,
        finished_mm: high,
        gives: 'box',
      } as HeightStack,
    ]);
  }
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
</script>

{#if p.stack}
  {@const s = p.stack}
  <LengthField
    label="Finished height"
    optional
    value={s.finished_mm ?? null}
    least={1}
    help="over the finished floor"
    onchange={(mm) => set({ finished_mm: mm })}
  />
  <table>
    <caption class="quiet">From the top down. The layer that gives makes the sum right.</caption>
    <thead><tr><th>Layer</th><th>High</th><th>Gives</th></tr></thead>
    <tbody>
      {#each s.members.toReversed() as m, i (i)}
        {@const found = p.laid?.layers.find((l) => l.name === m.name)}
        <tr>
          <th scope="row">{m.name}</th>
          <td>
            {#if s.gives === m.name && s.finished_mm}
              <span class="figure gives"
                >{showLength((found?.high_mm ?? 0) - (found?.low_mm ?? 0), view.unit, 1)}</span
              >
            {:else}
              <LengthField
                bare
                label="{m.name} high"
                value={m.high_mm}
                least={0}
                onchange={(mm) =>
                  set({ members: s.members.map((k) => (k.name === m.name ? { ...k, high_mm: mm! } : k)) })}
              />
            {/if}
          </td>
          <td>
            {#if m.name !== 'covering'}
              <input
                type="radio"
                name="gives-{s.id}"
                aria-label="The {m.name} gives"
                checked={s.gives === m.name}
                onchange={() => set({ gives: m.name })}
              />
            {/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <div class="layers">
    {#each names as name (name)}
      <Checkbox
        labelText={name}
        checked={has(name)}
        on:check={(e: CustomEvent<boolean>) => turn(name, e.detail)}
      />
    {/each}
  </div>
  {#if has('covering')}
    <Checkbox
      labelText="The covering is laid later, up to the units"
      checked={s.covering_later ?? true}
      on:check={(e: CustomEvent<boolean>) => set({ covering_later: e.detail })}
    />
  {/if}
  {#if has('base') && skirtings.length}
    <Select
      labelText="The base is as high as"
      size="sm"
      selected={s.base_as ?? ''}
      on:change={(e: Event) => set({ base_as: chosen(e) || null })}
    >
      <SelectItem value="" text="it is said to be" />
      {#each skirtings as o (o.id)}<SelectItem value={o.id} text={o.name} />{/each}
    </Select>
  {/if}
  <div class="beside">
    <Select
      labelText="It stands against"
      size="sm"
      selected={s.beside ?? 'a table'}
      on:change={(e: Event) => set({ beside: chosen(e) as HeightStack['beside'] })}
    >
      {#each ['a table', 'a sill', 'a worktop', 'a desk'] as v (v)}<SelectItem value={v} text={v} />{/each}
    </Select>
    <LengthField
      label="Its height"
      optional
      value={s.beside_mm ?? null}
      least={1}
      onchange={(mm) => set({ beside_mm: mm })}
    />
  </div>
  <button class="link" onclick={() => p.onchange(all.filter((k) => k.id !== s.id))}
    >Take this stack off: heights stay as they are</button
  >
{:else}
  <p class="quiet">
    A stack says what the finished height is made of, and which layer gives: covering, base, box, board,
    cushion.
  </p>
  <Button size="small" kind="tertiary" disabled={!(p.said.units ?? []).length} on:click={begin}
    >Stack up {p.picked.length ? 'what is picked' : 'what stands on the floor'}</Button
  >
{/if}

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    margin: 0.6rem 0;
    font-size: 0.875rem;
  }
  caption {
    text-align: left;
    font-size: 0.8125rem;
    padding-bottom: 0.3rem;
  }
  th,
  td {
    text-align: left;
    padding: 0.2rem 0.5rem 0.2rem 0;
    border-top: 1px solid var(--w-line);
    vertical-align: middle;
  }
  thead th {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
    border: 0;
  }
  td:nth-child(2) {
    width: 8rem;
  }
  .gives {
    color: var(--w-chalk);
    font-weight: 650;
  }
  input[type='radio'] {
    width: 20px;
    height: 20px;
    accent-color: var(--w-chalk);
  }
  .layers {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
  }
  .layers :global(.bx--form-item) {
    flex: none;
  }
  .beside {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.6rem;
    margin: 0.6rem 0;
    align-items: end;
  }
</style>
