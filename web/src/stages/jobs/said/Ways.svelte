<!-- Ways of building a carcass, said once for a job: the first holds for every unit that names none. -->
<script lang="ts">
  import { DEFAULTS, OPTIONS } from '../../../api/fields';
  import type { Construction } from '../../../api/types';
  import { Button, Checkbox, Select, SelectItem } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import { open } from '../../../state/job.svelte';
  import { usual } from '../../../entry/usual';

  let { ways }: { ways: readonly Construction[] } = $props();
  type Framed = NonNullable<Construction['face_frame']>;
  const FRAME: Framed = { stile_mm: 40, rail_mm: 40, mullion_mm: 40, thick_mm: 20, open_end: 'none' };
  const save = (now: readonly Construction[]) => void open.putWays(ways, now);
  const set = (i: number, part: Partial<Construction>) =>
    save(ways.map((w, k) => (k === i ? { ...w, ...part } : w)));
  const framed = (i: number, part: Partial<Framed>) =>
    set(i, { face_frame: { ...usual(FRAME, open.units), ...ways[i]?.face_frame, ...part } });
  /** Sheets of the job's stock: one named here is cut from, as thick as it measures. */
  const sheets = $derived((open.stored?.job.workshop?.stock ?? []).filter((s) => s.sold_as === 'sheet'));
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
  function add() {
    const taken = new Set(ways.map((w) => w.id));
    let n = 1;
    while (taken.has(`way-${n}`)) n += 1;
    save([
      ...ways,
      usual({ ...(DEFAULTS.construction as unknown as Construction), id: `way-${n}` }, open.units),
    ]);
  }
  const HANDLE_MM = $derived(open.units === 'mm' ? 128 : 127);
  const handleOf = (w: Construction) =>
    w.handle_apart_mm === null || w.handle_apart_mm === undefined
      ? 'none'
      : w.handle_apart_mm
        ? 'handle'
        : 'knob';
  const BACKS = {
    none: 'no back',
    applied: 'applied behind',
    rebated: 'in a rebate',
    grooved: 'in a groove',
  };
  const PARTS = [
    ['stile_mm', 'Stiles'],
    ['rail_mm', 'Rails'],
    ['mullion_mm', 'Mullions'],
    ['thick_mm', 'Frame thick'],
  ] as const;
</script>

<div>
  {#if !ways.length}
    <p class="quiet">
      Boards of 18, sides through, backs in a groove: say otherwise where you build otherwise.
    </p>
  {/if}
  {#each ways as w, i (w.id)}
    <div class="way">
      <div class="name">
        <TextField
          label={i === 0 ? 'Way (holds where nothing else is said)' : 'Way of building'}
          value={w.name}
          ontext={(name) => set(i, { name })}
        />
      </div>
      <LengthField
        label="Boards, as measured"
        value={w.board_mm ?? 18}
        least={1}
        onchange={(mm) => set(i, { board_mm: mm! })}
      />
      <Select
        labelText="Sides"
        size="sm"
        selected={w.sides ?? 'through'}
        on:change={(e: Event) => set(i, { sides: chosen(e) as Construction['sides'] })}
      >
        <SelectItem value="through" text="run through" />
        <SelectItem value="between" text="between top and bottom" />
      </Select>
      <Select
        labelText="Back"
        size="sm"
        selected={w.back ?? 'grooved'}
        on:change={(e: Event) => set(i, { back: chosen(e) as Construction['back'] })}
      >
        {#each OPTIONS.backs as b (b)}<SelectItem value={b} text={BACKS[b]} />{/each}
      </Select>
      {#if (w.back ?? 'grooved') !== 'none'}
        <LengthField
          label="Back thick"
          value={w.back_mm ?? 6}
          least={0}
          onchange={(mm) => set(i, { back_mm: mm! })}
        />
      {/if}
      {#if (w.back ?? 'grooved') === 'grooved'}
        <LengthField
          label="Groove in from the rear"
          value={w.groove_in_mm ?? 12}
          least={0}
          onchange={(mm) => set(i, { groove_in_mm: mm! })}
        />
      {/if}
      <Select
        labelText="Cut from"
        size="sm"
        selected={w.board ?? ''}
        on:change={(e: Event) => set(i, { board: chosen(e) || null })}
      >
        <SelectItem value="" text="boards as thick as said" />
        {#each sheets as s (s.id)}<SelectItem value={s.id} text={s.name} />{/each}
      </Select>
      <Select
        labelText="Top"
        size="sm"
        selected={w.top ?? 'whole'}
        on:change={(e: Event) => set(i, { top: chosen(e) as Construction['top'] })}
      >
        <SelectItem value="whole" text="whole" />
        <SelectItem value="stretchers" text="two stretchers, under a worktop" />
      </Select>
      <Select
        labelText="Joined by"
        size="sm"
        selected={w.joined ?? 'screws'}
        on:change={(e: Event) => set(i, { joined: chosen(e) as Construction['joined'] })}
      >
        <SelectItem value="screws" text="screws, where hidden" />
        <SelectItem value="pocket screws" text="pocket screws" />
        <SelectItem value="dowels" text="dowels" />
      </Select>
      <LengthField
        label="Doors and fronts thick"
        value={w.front_mm ?? 18}
        least={3}
        onchange={(mm) => set(i, { front_mm: mm! })}
      />
      <LengthField
        label="Drawer boards thick"
        value={w.drawer_mm ?? 15}
        least={3}
        onchange={(mm) => set(i, { drawer_mm: mm! })}
      />
      <LengthField
        label="Drawer bottoms thick"
        value={w.drawer_bottom_mm ?? 6}
        least={2}
        onchange={(mm) => set(i, { drawer_bottom_mm: mm! })}
      />
      <LengthField
        label="Banding thick (0: none off)"
        value={w.band_mm ?? 0}
        least={0}
        onchange={(mm) => set(i, { band_mm: mm! })}
      />
      <LengthField
        label="Pin holes apart"
        value={w.pin_pitch_mm ?? 32}
        least={10}
        onchange={(mm) => set(i, { pin_pitch_mm: mm! })}
      />
      <Select
        labelText="Doors are opened by"
        size="sm"
        selected={handleOf(w)}
        on:change={(e: Event) =>
          set(i, { handle_apart_mm: { none: null, knob: 0, handle: HANDLE_MM }[chosen(e)] ?? null })}
      >
        <SelectItem value="none" text="what is not chosen yet" />
        <SelectItem value="knob" text="a knob, one hole" />
        <SelectItem value="handle" text="a handle, two holes" />
      </Select>
      {#if w.handle_apart_mm}
        <LengthField
          label="Its holes apart"
          value={w.handle_apart_mm}
          least={1}
          onchange={(mm) => set(i, { handle_apart_mm: mm! })}
        />
      {/if}
      {#if w.handle_apart_mm !== null && w.handle_apart_mm !== undefined}
        <LengthField
          label="In from the edges"
          value={w.handle_in_mm ?? 40}
          least={10}
          onchange={(mm) => set(i, { handle_in_mm: mm! })}
        />
      {/if}
      <Checkbox
        labelText="With a face frame"
        checked={w.face_frame !== null && w.face_frame !== undefined}
        on:check={(e: CustomEvent<boolean>) => set(i, { face_frame: e.detail ? FRAME : null })}
      />
      {#if w.face_frame}
        {#each PARTS as [key, label] (key)}
          <LengthField
            {label}
            value={w.face_frame[key] ?? FRAME[key]!}
            least={1}
            onchange={(mm) => framed(i, { [key]: mm! })}
          />
        {/each}
        <Select
          labelText="An open end"
          size="sm"
          selected={w.face_frame.open_end ?? 'none'}
          on:change={(e: Event) => framed(i, { open_end: chosen(e) as Framed['open_end'] })}
        >
          <SelectItem value="none" text="none" />
          <SelectItem value="left" text="at the left" />
          <SelectItem value="right" text="at the right" />
        </Select>
      {/if}
      <button class="link" aria-label="Remove {w.name}" onclick={() => save(ways.filter((_, k) => k !== i))}
        >Remove</button
      >
    </div>
  {/each}
  <Button size="small" kind="ghost" on:click={add}>Add a way of building</Button>
</div>

<style>
  .way {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
    gap: 0.75rem;
    align-items: end;
    padding: 0.6rem 0;
    border-top: 1px solid var(--w-line);
  }
  .name {
    grid-column: span 2;
  }
  p {
    font-size: 0.875rem;
  }
</style>
