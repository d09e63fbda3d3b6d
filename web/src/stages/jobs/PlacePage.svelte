<!-- A place: its size, its surfaces and what will stand in it. Made anew, or changed. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { Obstacle, Place, SurfaceName, Unit } from '../../api/types';
  import { Button, Checkbox, Select, SelectItem, TextInput } from '../../carbon';
  import { changed, foundOut } from '../../entry/facts';
  import { newId } from '../../entry/ids';
  import LengthField from '../../entry/LengthField.svelte';
  import LengthsField from '../../entry/LengthsField.svelte';
  import { router } from '../../router.svelte';
  import Missing from '../../shell/Missing.svelte';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { notices } from '../../state/notices.svelte';
  import { session } from '../../state/session.svelte';
  import { waiting } from '../../state/waiting.svelte';
  import Obstacles from './Obstacles.svelte';
  import RunSketch from './RunSketch.svelte';
  import UnitMore from './UnitMore.svelte';

  let { params }: { params: Record<string, string> } = $props();
  const id = $derived(params['job'] ?? '');
  const key = $derived(params['place'] ?? '');
  const SURFACES: SurfaceName[] = ['floor', 'back', 'left', 'right', 'ceiling'];
  /** Each kind brings the surfaces that matter there; they can be changed. */
  const kindOf = (
    kind: Place['kind'],
    name: string,
    surfaces: SurfaceName[],
    frame: Place['frame'] = 'gravity',
  ) => ({ kind, name, surfaces, frame });
  const KINDS = {
    open: kindOf('open', 'Open run', ['floor', 'back']),
    corner: kindOf('corner', 'Into a corner', ['floor', 'back', 'left']),
    alcove: kindOf('alcove', 'Alcove, three walls', ['floor', 'back', 'left', 'right']),
    'under a slope': kindOf('under a slope', 'Under a slope or stair', ['floor', 'back', 'ceiling']),
    overhead: kindOf('overhead', 'Overhead', ['back', 'ceiling']),
    vehicle: kindOf('vehicle', 'Vehicle or boat side', ['floor', 'back'], 'body'),
  };
  const NAMES = {
    floor: 'Floor',
    back: 'Back wall',
    left: 'Left wall',
    right: 'Right wall',
    ceiling: 'Ceiling',
  };

  const blank = {
    id: '',
    name: 'North wall',
    width_mm: 2400,
    depth_mm: 600,
    height_mm: 2400,
    kind: 'open',
    frame: 'gravity',
    character: 'typical',
    surfaces: ['floor', 'back'],
    units: [],
    facts: [],
    ...foundOut([]),
  };
  let draft = $state.raw<Place>(blank as unknown as Place);
  let saved = $state.raw<Place | null>(null);
  let more = $state('');
  const dirty = $derived(draft !== saved);
  const units = $derived(draft.units ?? []);
  const others = $derived((open.stored?.job.places ?? []).filter((b) => b.id !== draft.id));

  onMount(() => {
    keys.page = [];
    void open.load(id).then(() => {
      const found = key ? open.place(key) : undefined;
      if (found) draft = saved = found;
      document.title = `${found?.name ?? 'New place'} · Wobble`;
    });
  });

  const set = (part: Partial<Place>) => (draft = { ...draft, ...part });
  const take = ({ kind, surfaces, frame }: (typeof KINDS)['open']) => set({ kind, surfaces, frame });
  const setUnit = (i: number, part: Partial<Unit>) =>
    set({ units: units.map((u, k) => (k === i ? { ...u, ...part } : u)) });

  /** The next unit stands beside the last one and is like it. */
  function addUnit() {
    const last = units.at(-1);
    const taken = new Set(units.map((u) => u.id));
    let letter = 'A';
    while (taken.has(letter))
      letter = letter < 'Z' ? String.fromCharCode(letter.charCodeAt(0) + 1) : letter + 'A';
    const like: Partial<Unit> = last ?? { width_mm: 600, depth_mm: 560, height_mm: 720, kind: 'base' };
    set({
      units: [
        ...units,
        { ...like, id: letter, name: letter, x_mm: last ? last.x_mm + last.width_mm : 0 } as Unit,
      ],
    });
  }

  function newKey(name: string): string {
    const plain =
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'place';
    const taken = new Set(open.stored?.job.places?.map((b) => b.id));
    let n = 1;
    while (taken.has(n === 1 ? plain : `${plain}-${n}`)) n += 1;
    return n === 1 ? plain : `${plain}-${n}`;
  }

  /** What was seen is never written over: a change is a fact of its own, and what is gone is set aside. */
  async function keepObstacles(key: string, seen: readonly Obstacle[], now: readonly Obstacle[]) {
    const before = new Map(seen.map((o) => [o.id, o]));
    const fresh = now.filter((o) => before.get(o.id) !== o);
    const facts = fresh.map((o) => {
      const was = before.get(o.id);
      return was ? changed(o, was, newId()) : o;
    });
    if (facts.length) await waiting.keep(id, key, ...facts);
    for (const gone of seen.filter((o) => !now.some((n) => n.id === o.id))) {
      if (await waiting.take(gone.id)) continue;
      try {
        await calls.setAside(id, key, gone.id, 'taken off the list', session.name);
      } catch (fault) {
        notices.refused(fault);
      }
    }
  }

  async function save(then: 'stay' | 'gauge') {
    const place = { ...draft, id: key || newKey(draft.name) };
    const seen = saved?.obstacles ?? [];
    if (!(await open.putPlace(place))) return;
    await keepObstacles(place.id, seen, draft.obstacles);
    await open.load(id);
    draft = saved = open.place(place.id) ?? place;
    if (then === 'gauge' || !key)
      router.go(`/jobs/${id}/${place.id}/${then === 'gauge' ? 'gauge' : 'place'}`);
    else notices.add('success', 'The place is kept.');
  }
</script>

{#if open.missing}
  <Missing what="job" to="/" way="Go to your jobs" />
{:else if open.stored}
  <main class="page" style:max-width="76rem">
    <h1>{key ? draft.name : 'Add a place'}</h1>
    <section>
      <h2>The place</h2>
      <div class="fields">
        <TextInput
          labelText="Name"
          size="sm"
          value={draft.name}
          on:input={(e: CustomEvent<string | number | null>) => set({ name: String(e.detail ?? '') })}
        />
        <LengthField
          label="Long"
          value={draft.width_mm}
          least={1}
          onchange={(mm) => set({ width_mm: mm! })}
        />
        <LengthField
          label="Deep"
          value={draft.depth_mm}
          least={1}
          onchange={(mm) => set({ depth_mm: mm! })}
        />
        <LengthField
          label="High"
          value={draft.height_mm}
          least={1}
          onchange={(mm) => set({ height_mm: mm! })}
        />
        <Select
          labelText="How true is the building?"
          size="sm"
          selected={draft.character ?? 'typical'}
          on:change={(e: Event) =>
            set({ character: (e.target as HTMLSelectElement).value as 'true' | 'typical' | 'rough' })}
        >
          <SelectItem value="true" text="True: new, flat floors" />
          <SelectItem value="typical" text="Typical" />
          <SelectItem value="rough" text="Rough: old, settled, hand-plastered" />
        </Select>
        <Select
          labelText="Kind of place"
          size="sm"
          selected={draft.kind}
          on:change={(e: Event) => take(KINDS[(e.target as HTMLSelectElement).value as Place['kind']])}
        >
          {#each Object.values(KINDS) as k (k.kind)}<SelectItem value={k.kind} text={k.name} />{/each}
        </Select>
        <Select
          labelText="Level is"
          size="sm"
          selected={draft.frame}
          on:change={(e: Event) => set({ frame: (e.target as HTMLSelectElement).value as Place['frame'] })}
        >
          <SelectItem value="gravity" text="by gravity (a room)" />
          <SelectItem value="body" text="the vehicle's own floor" />
        </Select>
        {#if others.length}
          <Select
            labelText="The right wall is the back of"
            size="sm"
            selected={draft.right_is_back_of ?? ''}
            on:change={(e: Event) => set({ right_is_back_of: (e.target as HTMLSelectElement).value || null })}
          >
            <SelectItem value="" text="no other place" />
            {#each others as b (b.id)}<SelectItem value={b.id} text={b.name} />{/each}
          </Select>
        {/if}
        {#if draft.kind === 'under a slope'}
          <Select
            labelText="The ceiling"
            size="sm"
            selected={draft.knee?.along ?? ''}
            on:change={(e: Event) => {
              const along = (e.target as HTMLSelectElement).value;
              set({
                knee:
                  along === ''
                    ? null
                    : {
                        along: along as 'x' | 'y',
                        at_mm: (along === 'x' ? draft.width_mm : draft.depth_mm) / 2,
                      },
              });
            }}
          >
            <SelectItem value="" text="slopes all over" />
            <SelectItem value="x" text="is flat, then slopes along the run" />
            <SelectItem value="y" text="is flat, then slopes out of the back" />
          </Select>
          {#if draft.knee}
            {@const knee = draft.knee}
            <LengthField
              label="Slopes from"
              value={knee.at_mm}
              least={0}
              onchange={(mm) => set({ knee: { ...knee, at_mm: mm! } })}
            />
          {/if}
        {/if}
      </div>
      <fieldset>
        <legend>Surfaces you will measure</legend>
        {#each SURFACES as surface (surface)}
          <Checkbox
            labelText={NAMES[surface]}
            checked={(draft.surfaces ?? []).includes(surface)}
            on:check={(e: CustomEvent<boolean>) =>
              set({
                surfaces: SURFACES.filter((s) =>
                  s === surface ? e.detail : (draft.surfaces ?? []).includes(s),
                ),
              })}
          />
        {/each}
      </fieldset>
    </section>
    <section>
      <h2>What will stand here</h2>
      {#if units.length}
        <RunSketch place={draft} />
        <div class="scroll">
          <table class="fields-table">
            <thead>
              <tr>
                <th>Unit</th><th>From the left</th><th>Wide</th><th>Deep</th><th>High</th><th>Toe recess</th
                ><th>Feet in from edges</th>
                <th>Screw heights</th><th></th>
              </tr>
            </thead>
            <tbody>
              {#each units as u, i (u.id)}
                <tr>
                  <td
                    ><TextInput
                      hideLabel
                      labelText="Name of unit {u.id}"
                      size="sm"
                      value={u.name}
                      on:input={(e: CustomEvent<string | number | null>) =>
                        setUnit(i, { name: String(e.detail ?? '') })}
                    /></td
                  >
                  {#each [['x_mm', 'From the left'], ['width_mm', 'Width'], ['depth_mm', 'Depth'], ['height_mm', 'Height'], ['toe_recess_mm', 'Toe recess'], ['support_inset_mm', 'Inset of feet']] as const as [part, what] (part)}
                    <td
                      ><LengthField
                        bare
                        label="{what} of {u.name}"
                        value={u[part] ?? (part === 'toe_recess_mm' ? 60 : 40)}
                        least={part === 'x_mm' || part === 'toe_recess_mm' || part === 'support_inset_mm'
                          ? 0
                          : 1}
                        onchange={(mm) => setUnit(i, { [part]: mm! })}
                      /></td
                    >
                  {/each}
                  <td
                    ><LengthsField
                      label="Screw heights of {u.name}"
                      values={u.fixing_heights_mm ?? [650]}
                      onchange={(heights) => setUnit(i, { fixing_heights_mm: heights })}
                    /></td
                  >
                  <td
                    ><button
                      class="link"
                      aria-expanded={more === u.id}
                      aria-label="{more === u.id ? 'Less' : 'More'} about {u.name}"
                      onclick={() => (more = more === u.id ? '' : u.id)}
                      >{more === u.id ? 'Less' : 'More'}</button
                    ><button
                      class="link"
                      onclick={() => set({ units: units.filter((_, k) => k !== i) })}
                      aria-label="Remove {u.name}">Remove</button
                    ></td
                  >
                </tr>
                {#if more === u.id}
                  <tr><td colspan="9"><UnitMore unit={u} onchange={(part) => setUnit(i, part)} /></td></tr>
                {/if}
              {/each}
            </tbody>
          </table>
        </div>
      {:else}
        <p class="quiet">
          No units yet. Add the boxes in the order in which they stand, from the left; you can measure first
          and add them later.
        </p>
      {/if}
      <Button size="small" kind={units.length ? 'ghost' : 'tertiary'} on:click={addUnit}>Add a unit</Button>
    </section>
    <Obstacles
      obstacles={draft.obstacles}
      surfaces={draft.surfaces}
      onchange={(obstacles) => set({ obstacles })}
    />
    <div class="end">
      <Button
        disabled={!dirty || !draft.name.trim() || !(draft.surfaces ?? []).length}
        on:click={() => void save(key ? 'stay' : 'gauge')}
      >
        {key ? 'Keep changes' : 'Keep, then measure'}
      </Button>
      {#if dirty && saved}<Button kind="ghost" on:click={() => saved && (draft = saved)}>Undo changes</Button
        >{/if}
    </div>
  </main>
{/if}

<style>
  .fields {
    display: grid;
    grid-template-columns: 1.4fr repeat(3, 0.65fr) 1.2fr 1.3fr 1.2fr;
    gap: 1rem;
    align-items: start;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 1.25rem 0 0;
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1.5rem;
  }
  fieldset :global(.bx--form-item) {
    flex: none;
  }
  legend {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
    margin-bottom: 0.25rem;
  }
  .scroll {
    position: relative; /* holds the hidden labels, which stand apart from the flow */
    overflow-x: auto;
    margin-bottom: 0.5rem;
  }
  td:first-child {
    min-width: 9rem;
  }
  .end {
    display: flex;
    gap: 0.75rem;
  }
  @media (max-width: 760px) {
    .fields {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
