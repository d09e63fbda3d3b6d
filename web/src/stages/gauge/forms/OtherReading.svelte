<!-- Readings that are not taken from a line: a level, a straightedge, a corner, a distance across, a profile, a scan. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { Place, Instrument, Reading, SurfaceName } from '../../../api/types';
  import {
    Checkbox,
    FileUploaderButton,
    Modal,
    Select,
    SelectItem,
    TextArea,
    TextInput,
  } from '../../../carbon';
  import { newId } from '../../../entry/ids';
  import { parseLength } from '../../../entry/length';
  import { fieldByField } from '../../../entry/fields';
  import LengthField from '../../../entry/LengthField.svelte';
  import TiltReader from '../../../entry/TiltReader.svelte';
  import type { Held } from '../../../entry/tilt';
  import { ACROSS, AXIS_WORDS, SURFACE_NAMES } from '../../../entry/places';
  import { notices } from '../../../state/notices.svelte';
  import { FIELDS, KIND_NAMES, kindsOf, type Kind } from '../kinds';
  import { usePlace } from '../../../state/place';

  interface Props {
    place: Place;
    job: string;
    instruments: readonly Instrument[];
    instrument: string | null;
    by: string;
    /** Where the user stands: a reading is taken there unless they say otherwise. */
    from: { surface: SurfaceName; at: [number, number] } | null;
    onclose: () => void;
    onreading: (reading: Reading) => void;
    /** The phone that is held, among the job's instruments from now on: its id. */
    onphone: () => Promise<string | null>;
  }
  let p: Props = $props();
  const view = usePlace();

  const kinds = $derived(kindsOf(p.place.surfaces));
  let kind = $state<Kind>('slope');
  // svelte-ignore state_referenced_locally
  let surface = $state<SurfaceName>(p.from?.surface ?? 'floor');
  let measure = $state<'mm' | 'mm/m' | 'deg'>('mm');
  let how = $state<'diagonal' | 'square'>('diagonal');
  let side = $state<'back-left' | 'back-right'>('back-left');
  let turned = $state(false);
  let tool = $state<string>();
  let line = $state('');
  // svelte-ignore state_referenced_locally
  let places = $state<Record<string, number | null>>({ a: p.from?.at[0] ?? null, b: p.from?.at[1] ?? null });
  let typed = $state('');
  let scanned = $state.raw<{ points: [number, number, number][]; n_read: number; n_outside: number } | null>(
    null,
  );
  let busy = $state(false);
  let sent = $state(0);
  let tilt = $state(3);
  let fault = $state('');

  const words = $derived(
    AXIS_WORDS[kind === 'left-right' ? 'left' : kind === 'floor-ceiling' ? 'floor' : surface],
  );
  const fields = $derived(FIELDS[kind](words, how));
  const lines = $derived(p.place.set_ups.filter((s) => s.across === ACROSS[surface]));
  const onSurface = $derived(kind === 'slope' || kind === 'gap' || kind === 'profile' || kind === 'scan');
  const fromLine = $derived(kind === 'profile' || kind === 'scan');
  /** A corner is corner only where there is a side wall to it. */
  const sides = $derived(
    (['back-left', 'back-right'] as const).filter((c) =>
      p.place.surfaces.includes(c === 'back-left' ? 'left' : 'right'),
    ),
  );

  function common() {
    return {
      id: newId(),
      instrument: tool ?? p.instrument ?? p.instruments[0]!.id,
      taken_at: new Date().toISOString(),
      taken_by: p.by,
      entered: typed.trim().slice(0, 60),
      note: '',
      supersedes: null,
      aside: null,
    };
  }

  /** The reading as typed, or what is missing. */
  function made(): Reading | string {
    const missing = fields.find((f) => (places[f.key] ?? null) === null);
    if (missing) return `Say where: “${missing.label}” is empty.`;
    const at = (first: string, second: string): [number, number] => [places[first]!, places[second]!];
    if (fromLine && !(line || lines[0])) return 'Set a line for this surface first.';
    const set_up = line || lines[0]?.id || '';
    if (kind === 'scan') {
      if (!scanned) return 'Choose a file of points.';
      return {
        ...common(),
        fact: kind,
        surface,
        set_up,
        points: scanned.points,
        n_read: scanned.n_read,
        tilt_mm_per_m: tilt,
      };
    }
    if (kind === 'profile') {
      const rows = typed
        .split('\n')
        .map((r) => r.split(/[;\t]|\s{2,}|,\s/).map((t) => parseLength(t, view.unit)));
      const empty = (r: (number | null)[]) => r.length === 1 && r[0] === null;
      const points = rows.filter((r) => !empty(r));
      const bad = rows.findIndex((r) => !empty(r) && (r.length !== 2 || r.includes(null)));
      if (!points.length) return 'Type a height and a distance on each line, such as 450; 612.';
      if (bad >= 0) return `Line ${bad + 1} is not a height and a distance, such as 450; 612.`;
      return {
        ...common(),
        fact: kind,
        surface,
        set_up,
        along_mm: places['a']!,
        points: points as [number, number][],
      };
    }
    const plain = kind === 'slope' && measure !== 'mm';
    const value = plain ? Number(typed.replace(',', '.')) : parseLength(typed, view.unit);
    if (!typed.trim() || value === null || Number.isNaN(value)) return `“${typed}” is not a reading.`;
    switch (kind) {
      case 'slope':
        return {
          ...common(),
          fact: kind,
          surface,
          start: at('a', 'b'),
          end: at('c', 'd'),
          value,
          unit: measure,
          turned,
        };
      case 'gap':
        if (value < 0) return 'A gap is not below nothing: where the edge rocks, touch it at the bump.';
        return {
          ...common(),
          fact: kind,
          surface,
          start: at('a', 'b'),
          end: at('c', 'd'),
          at: at('e', 'f'),
          value_mm: value,
        };
      case 'corner': {
        const [along_mm, out_mm] = at('b', 'c');
        return {
          ...common(),
          fact: kind,
          corner: side,
          height_mm: places['a']!,
          along_mm,
          out_mm,
          how,
          value_mm: value,
        };
      }
      default:
        if (value <= 0) return 'A distance across is more than nothing.';
        return { ...common(), fact: 'span', between: kind, at: at('a', 'b'), value_mm: value };
    }
  }

  /** How a phone is held for this reading; null where gravity tells nothing: under a ceiling, or along a wall. */
  const held = $derived<Held | null>(surface === 'floor' ? 'flat' : surface === 'ceiling' ? null : 'upright');
  const phone = (id: string) => p.instruments.some((i) => i.id === id && i.kind === 'phone');

  /** Take what the phone says: over plumb towards the room on a wall, which is the other way on the right one. */
  async function read(deg: number) {
    const id = await p.onphone();
    if (!id) return;
    tool = id;
    measure = 'deg';
    // turned end for end it looks the other way; what is told runs from the first place to the second all the same
    const other = surface === 'right' || (turned && held === 'flat');
    typed = (other ? -deg : deg).toFixed(2);
    const along = Math.abs((places['c'] ?? 0) - (places['a'] ?? 0));
    const up = Math.abs((places['d'] ?? 0) - (places['b'] ?? 0));
    fault =
      held === 'upright' && along > up
        ? 'On a wall a phone tells how far it is out of plumb: give two places one over the other.'
        : '';
  }

  function record() {
    const reading = made();
    if (typeof reading === 'string') fault = reading;
    else {
      p.onreading(reading);
      p.onclose();
    }
  }

  async function readFile(files: readonly File[]) {
    const file = files[0];
    if (!file) return;
    busy = true;
    sent = 0;
    try {
      scanned = await calls.thinScan(p.job, p.place.id, surface, file, (share) => (sent = share));
      fault = '';
    } catch (refused) {
      notices.refused(refused);
    } finally {
      busy = false;
    }
  }
</script>

<Modal
  open
  shouldSubmitOnEnter={false}
  hasScrollingContent={false}
  modalHeading="Another reading"
  primaryButtonText="Record"
  primaryButtonDisabled={busy}
  secondaryButtonText="Not now"
  on:click:button--secondary={() => p.onclose()}
  on:close={() => p.onclose()}
  on:submit={record}
>
  <div class="form" use:fieldByField={() => void record()}>
    <Select labelText="What you measure" bind:selected={kind}>
      {#each kinds as k (k)}<SelectItem value={k} text={KIND_NAMES[k]} />{/each}
    </Select>
    {#if onSurface}
      <Select labelText="On the" bind:selected={surface}>
        {#each p.place.surfaces as s (s)}<SelectItem value={s} text={SURFACE_NAMES[s]} />{/each}
      </Select>
    {:else if kind === 'corner'}
      <div class="pair">
        <Select labelText="Corner" bind:selected={side}>
          {#each sides as c (c)}<SelectItem
              value={c}
              text={c === 'back-left' ? 'at the left' : 'at the right'}
            />{/each}
        </Select>
        <Select labelText="By" bind:selected={how}>
          <SelectItem value="diagonal" text="two legs and their diagonal (3-4-5)" />
          <SelectItem value="square" text="a square and the gap at its tip" />
        </Select>
      </div>
    {/if}
    {#if fromLine}
      <Select
        labelText="Read from"
        selected={line || (lines[0]?.id ?? '')}
        on:change={(e: Event) => (line = (e.target as HTMLSelectElement).value)}
      >
        {#each lines as s (s.id)}<SelectItem value={s.id} text={s.name} />{/each}
      </Select>
    {/if}
    <div class="pair">
      {#each fields as f (kind + f.key)}
        <LengthField label={f.label} value={places[f.key] ?? null} onchange={(mm) => (places[f.key] = mm)} />
      {/each}
    </div>
    {#if kind === 'profile'}
      <TextArea labelText="Heights and distances, a line each: 450; 612" rows={6} bind:value={typed} />
    {:else if kind === 'scan'}
      <div>
        <FileUploaderButton
          kind="tertiary"
          size="small"
          labelText="Choose a file (CSV, XYZ, PLY)"
          accept={['.csv', '.xyz', '.txt', '.ply']}
          on:change={(e: CustomEvent<readonly File[]>) => void readFile(e.detail)}
        />
        {#if busy}
          <progress aria-label="Reading the file" value={sent * 0.7} max="1"></progress>
          <p class="quiet">{sent < 1 ? `${Math.round(sent * 100)} % sent` : 'sent; being thinned'}</p>
        {/if}
        {#if scanned}
          <p class="quiet">
            {scanned.n_read} points read, {scanned.n_outside} outside the {surface}; {scanned.points.length} kept,
            each the middle of its patch.
          </p>
        {/if}
        <LengthField
          label="The file's axes may be out of true by, per metre"
          value={tilt}
          unit="mm"
          least={0}
          onchange={(mm) => (tilt = mm!)}
        />
      </div>
    {:else}
      <div class="pair">
        <TextInput
          labelText={kind === 'slope'
            ? 'Rises by (minus if “to” is lower, or further back)'
            : kind === 'gap'
              ? 'Gap under the straightedge'
              : kind === 'corner'
                ? how === 'square'
                  ? 'Gap at the tip (minus if at the heel)'
                  : 'Diagonal'
                : 'Distance'}
          autocomplete="off"
          bind:value={typed}
        />
        {#if kind === 'slope'}
          <Select labelText="As" bind:selected={measure}>
            <SelectItem value="mm" text={view.unit === 'in' ? 'a length (feeler)' : 'mm (feeler)'} />
            <SelectItem value="mm/m" text="mm per metre" />
            <SelectItem value="deg" text="degrees" />
          </Select>
        {/if}
      </div>
    {/if}
    {#if kind === 'slope' && held}
      <TiltReader {held} onread={(deg) => void read(deg)} />
      {#if tool && phone(tool)}
        <p class="quiet">
          {held === 'flat'
            ? 'On its back along the straightedge, its top towards “to”.'
            : 'Upright against the straightedge, its screen to the room.'} A phone is out by much until it was turned
          round: read one place twice, turned, or check it on the job's page.
        </p>
      {/if}
    {/if}
    {#if kind === 'slope'}
      <Checkbox labelText="The level lay turned end for end" bind:checked={turned} />
      <p class="quiet">
        A pair of readings of one place, one of them turned, finds the level's bias, and everything read with
        it is corrected. The guided flip test stands beside the instrument, on the job's page.
      </p>
    {/if}
    <Select
      labelText="With"
      selected={tool ?? p.instrument ?? ''}
      on:change={(e: Event) => (tool = (e.target as HTMLSelectElement).value)}
    >
      {#each p.instruments as i (i.id)}<SelectItem value={i.id} text={i.name} />{/each}
    </Select>
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  </div>
</Modal>

<style>
  .form {
    display: grid;
    gap: 0.9rem;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.75rem;
    align-items: start;
  }
  .quiet {
    font-size: 0.8125rem;
  }
  .fault {
    color: var(--w-stop);
  }
  progress {
    display: block;
    width: 100%;
    margin-top: 0.5rem;
  }
</style>
