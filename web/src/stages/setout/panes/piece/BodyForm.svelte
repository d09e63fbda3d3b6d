<!-- What a piece is that is no box: its members, boards, trim, or what hangs on it. -->
<script lang="ts">
  import { BODIES, DEFAULTS, OPTIONS } from '../../../../api/fields';
  import type { LaidUnit, Unit } from '../../../../api/types';
  import { Button, Checkbox, Select, SelectItem } from '../../../../carbon';
  import TextField from '../../../../entry/TextField.svelte';
  import LengthField from '../../../../entry/LengthField.svelte';
  import NumberField from '../../../../entry/NumberField.svelte';
  import { showLength } from '../../../../entry/length';
  import { usePlace } from '../../../../state/place';
  import { usual } from '../../../../entry/usual';

  type Body = NonNullable<Unit['body']>;
  interface Props {
    laid: LaidUnit;
    onchange: (body: Body) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const MADE = {
    framing: DEFAULTS.framing,
    boarding: DEFAULTS.boarding,
    trim: DEFAULTS.trim,
    moulding: DEFAULTS.moulding,
    'hanging wall': DEFAULTS.hangingWall,
  } as unknown as Record<string, Body>;
  /** The body that a piece of this kind has, until more is said. */
  const made = $derived.by(() => {
    const kind = p.laid.unit.kind ?? 'base';
    const first = MADE[(BODIES as Record<string, string>)[kind] ?? ''];
    return first && kind === 'peg wall' ? ({ ...first, by: 'pegs' } as Body) : first;
  });
  const body = $derived(p.laid.unit.body ?? null);
  const set = (part: object) => body && p.onchange({ ...body, ...part } as Body);
  const LENGTHS: Record<Body['body'], [string, string, number][]> = {
    framing: [
      ['narrow_mm', 'Member, narrow side', 1],
      ['wide_mm', 'Member, wide side', 1],
      ['most_apart_mm', 'At most apart', 1],
      ['deck_mm', 'Deck thick', 0],
      ['front_back_mm', 'Set back in front', 0],
      ['rear_off_mm', 'Held off the wall', 0],
      ['fascia_mm', 'Fascia before it', 0],
    ],
    boarding: [
      ['board_mm', 'Board wide, truly', 1],
      ['thick_mm', 'Board thick', 1],
      ['gap_mm', 'Gap', 0],
      ['cap_mm', 'Cap on top', 0],
    ],
    trim: [
      ['piece_mm', 'Piece wide', 1],
      ['thick_mm', 'Piece thick', 1],
      ['most_apart_mm', 'At most apart', 1],
    ],
    moulding: [
      ['thick_mm', 'Stock thick', 1],
      ['left_mm', 'Goes on at the left', 0],
      ['right_mm', 'Goes on at the right', 0],
      ['stock_mm', 'Longest length', 1],
      ['round_mm', 'Bent to a radius', 0],
    ],
    'hanging wall': [
      ['pitch_mm', 'Pitch', 1],
      ['member_mm', 'Batten or row high', 1],
      ['thick_mm', 'Thick', 1],
      ['behind_mm', 'Strips behind', 0],
    ],
  };
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
  const round = (mm: number) => showLength(mm, view.unit, 0);
</script>

{#if body}
  {#if p.laid.frame}
    <p class="live figure">
      {p.laid.frame.members.length} × {round(p.laid.frame.members[0]?.long_mm ?? 0)} · frame {round(
        p.laid.frame.wide_mm,
      )} ×
      {round(p.laid.frame.deep_mm)} · at {p.laid.frame.members.map((m) => round(m.at_mm)).join(', ')}
    </p>
  {:else if p.laid.boards?.words}
    <p class="live">{p.laid.boards.words}</p>
  {:else if p.laid.hanging}
    <p class="live figure">at {p.laid.hanging.at.map(round).join(', ')} · {p.laid.hanging.carries_kg} kg</p>
  {/if}
  <div class="fields">
    {#each LENGTHS[body.body] as [key, label, least] (key)}
      <LengthField
        {label}
        {least}
        value={(body as unknown as Record<string, number>)[key] ?? 0}
        onchange={(mm) => set({ [key]: mm! })}
      />
    {/each}
    {#if body.body === 'framing'}
      <Select
        labelText="Members stand"
        size="sm"
        selected={body.stands ?? 'on edge'}
        on:change={(e: Event) => set({ stands: chosen(e) })}
      >
        <SelectItem value="on edge" text="on edge" />
        <SelectItem value="on the flat" text="on the flat" />
      </Select>
      <Select
        labelText="Of"
        size="sm"
        selected={body.material ?? 'pine'}
        on:change={(e: Event) => set({ material: chosen(e) })}
      >
        {#each OPTIONS.materials as m (m)}<SelectItem value={m} text={m} />{/each}
      </Select>
      <NumberField
        label="Carries, kg/m²"
        most={2000}
        value={body.load_kg_per_m2 ?? 200}
        onchange={(kg) => set({ load_kg_per_m2: kg! })}
      />
      <Checkbox
        labelText="Members run from front to back"
        checked={body.across ?? true}
        on:check={(e: CustomEvent<boolean>) => set({ across: e.detail })}
      />
      <Checkbox
        labelText="Loose: not fastened"
        checked={body.loose ?? false}
        on:check={(e: CustomEvent<boolean>) => set({ loose: e.detail })}
      />
    {:else if body.body === 'boarding'}
      <Select
        labelText="Boards run"
        size="sm"
        selected={body.runs ?? 'along'}
        on:change={(e: Event) => set({ runs: chosen(e) })}
      >
        <SelectItem value="along" text="lying, from a level one" />
        <SelectItem value="up" text="upright, from a plumb one" />
      </Select>
    {:else if body.body === 'moulding'}
      <NumberField
        label="Leans from the wall, °"
        most={75}
        value={body.spring_deg ?? 0}
        onchange={(deg) => set({ spring_deg: deg! })}
      />
      <Select
        labelText="Inside corners"
        size="sm"
        selected={body.inside ?? 'coped'}
        on:change={(e: Event) => set({ inside: chosen(e) })}
      >
        <SelectItem value="coped" text="coped to its face" />
        <SelectItem value="mitred" text="mitred" />
      </Select>
      <p class="hint">
        It goes on along a side wall that it meets, and back to the wall round an end that is free. At 0 it
        ends there.
      </p>
    {:else if body.body === 'hanging wall'}
      {#each body.hangs ?? [] as t, i (t.id)}
        <div class="thing">
          <TextField
            label="What hangs"
            value={t.name}
            ontext={(name) => set({ hangs: body.hangs!.map((h, k) => (k === i ? { ...h, name } : h)) })}
          />
          {#each [0, 1] as const as axis (axis)}
            <LengthField
              label={axis === 0 ? 'From its left' : 'Up'}
              value={t.at[axis]}
              least={0}
              onchange={(mm) =>
                set({
                  hangs: body.hangs!.map((h, k) =>
                    k === i ? { ...h, at: axis === 0 ? [mm!, h.at[1]] : [h.at[0], mm!] } : h,
                  ),
                })}
            />
          {/each}
          <NumberField
            label="kg"
            most={500}
            value={t.weight_kg ?? 1}
            onchange={(kg) =>
              set({ hangs: body.hangs!.map((h, k) => (k === i ? { ...h, weight_kg: kg! } : h)) })}
          />
          <button class="link" onclick={() => set({ hangs: body.hangs!.filter((_, k) => k !== i) })}
            >Take down {t.name}</button
          >
        </div>
      {/each}
      <Button
        size="small"
        kind="ghost"
        on:click={() => {
          const taken = new Set((body.hangs ?? []).map((h) => h.id));
          let n = 1;
          while (taken.has(`tool-${n}`)) n += 1;
          set({
            hangs: [
              ...(body.hangs ?? []),
              usual({ id: `tool-${n}`, name: 'Clamps', at: [200, 0], weight_kg: 4, out_mm: 120 }, view.unit),
            ],
          });
        }}>Hang something</Button
      >
    {/if}
  </div>
{:else if made}
  <Button size="small" kind="tertiary" on:click={() => p.onchange({ ...made } as Body)}
    >Say what it is made of</Button
  >
{/if}

<style>
  .live {
    font-size: 0.8125rem;
    color: var(--w-chalk);
    margin: 0.4rem 0;
  }
  .hint {
    grid-column: 1 / -1;
    font-size: 0.8125rem;
    margin: 0;
  }
  .fields,
  .thing {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(7.5rem, 1fr));
    gap: 0.6rem;
    align-items: end;
  }
  .thing {
    grid-column: 1 / -1;
    border-top: 1px solid var(--w-line);
    padding-top: 0.4rem;
  }
</style>
