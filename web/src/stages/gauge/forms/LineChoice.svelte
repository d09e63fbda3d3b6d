<!-- What the next reading is read from, and with; a line that was moved becomes a new one. -->
<script lang="ts">
  import type { Place, Instrument, Surveyed, SetUp, SurfaceName } from '../../../api/types';
  import { Modal, Select, SelectItem, TextInput } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';
  import { ACROSS, lineWords } from '../../../entry/places';
  import { open } from '../../../state/job.svelte';
  import { showSlope } from '../../../entry/length';
  import { usePlace } from '../../../state/place';

  interface Props {
    place: Place;
    surveyed: Surveyed;
    surface: SurfaceName;
    /** Whether a distance across is taken, which needs no line. */
    spans: boolean;
    line: string | null;
    instruments: readonly Instrument[];
    instrument: string | null;
    online: (id: string) => void;
    oninstrument: (id: string) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const across = $derived(ACROSS[p.surface]);
  const lines = $derived((p.place.set_ups ?? []).filter((s) => (s.across ?? 'z') === across));
  const word = $derived(across === 'z' ? 'level line' : 'plumb line');
  let asked = $state(false);
  let name = $state('');
  let at = $state<number | null>(null);
  let madeWith = $state('');
  const MAKES = ['laser line', 'water level', 'string line', 'level', 'digital level'];
  const makers = $derived(p.instruments.filter((i) => MAKES.includes(i.kind ?? 'tape')));

  export function ask() {
    name = lines.length
      ? `${word[0]!.toUpperCase()}${word.slice(1)} ${lines.length + 1}`
      : `${word[0]!.toUpperCase()}${word.slice(1)}`;
    at = null;
    asked = true;
  }

  async function add() {
    const taken = new Set((p.place.set_ups ?? []).map((s) => s.id));
    let n = taken.size + 1;
    while (taken.has(`line-${n}`)) n += 1;
    const made: SetUp = {
      id: `line-${n}`,
      name: name.trim() || word,
      across,
      at_mm: at,
      sigma_mm: 0,
      made_with: madeWith,
    };
    if (await open.putPlace(p.place, { ...p.place, set_ups: [...(p.place.set_ups ?? []), made] })) {
      asked = false;
      p.online(made.id);
    }
  }
</script>

<div class="choice">
  {#if p.spans}
    <p class="quiet">Straight up from the floor: no line is needed.</p>
  {:else if lines.length}
    <Select
      size="sm"
      labelText={across === 'z' ? 'Read from the line' : 'Read from the plane'}
      selected={p.line ?? ''}
      on:change={(e: Event) => p.online((e.target as HTMLSelectElement).value)}
    >
      {#each lines as s (s.id)}
        <SelectItem
          value={s.id}
          text={lineWords(
            s,
            view.unit,
            p.surveyed.set_ups.find((f) => f.set_up === s.id),
          )}
        />
      {/each}
    </Select>
    <button class="chip" onclick={ask}>Moved</button>
  {:else}
    <p>
      Set a {word} first: {across === 'z'
        ? 'a laser, a string or a water level, anywhere over the floor.'
        : 'a laser plane or a string square out from the wall, a hand or two in front of it.'}
      <button class="chip first" onclick={ask}>Set the {word}</button>
    </p>
  {/if}
  {#if lines.length || p.spans}
    <Select
      size="sm"
      labelText="With"
      selected={p.instrument ?? ''}
      on:change={(e: Event) => p.oninstrument((e.target as HTMLSelectElement).value)}
    >
      {#each p.instruments as tool (tool.id)}<SelectItem value={tool.id} text={tool.name} />{/each}
    </Select>
  {/if}
</div>

{#if asked}
  <Modal
    open
    modalHeading="Set a {word}"
    primaryButtonText="It stands"
    secondaryButtonText="Not now"
    on:click:button--secondary={() => (asked = false)}
    on:close={() => (asked = false)}
    on:submit={() => void add()}
  >
    <div class="form">
      <TextInput labelText="Call it" bind:value={name} />
      <Select
        labelText="Made with"
        helperText={madeWith
          ? ''
          : `a plain laser may lean ${showSlope(0.3, view.unit)}, and that is counted in`}
        bind:selected={madeWith}
      >
        <SelectItem value="" text="A laser" />
        {#each makers as tool (tool.id)}<SelectItem value={tool.id} text={tool.name} />{/each}
      </Select>
      <LengthField
        optional
        label={across === 'z'
          ? 'Its height over the mark, if you know it'
          : 'Its distance from the corner, if you know it'}
        help={lines.length
          ? 'Leave it empty if you do not know. Read two or three stations again from here and Wobble finds it.'
          : across === 'z'
            ? 'The mark is any height you choose to count from, such as the top of a table or a line on the wall. Empty is fine.'
            : 'Empty is fine: packing needs only how the wall runs.'}
        value={at}
        onchange={(mm) => (at = mm)}
      />
    </div>
  </Modal>
{/if}

<style>
  .choice {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.5rem 0.6rem;
    align-items: end;
  }
  .choice :global(.bx--select),
  .choice :global(.bx--form-item) {
    min-width: 0;
  }
  .choice :global(.bx--form-item:last-child) {
    grid-column: 1 / -1;
  }
  @media (max-width: 900px) {
    /* two short fields and a button in a row, so that the pad stays within the thumb's reach */
    .choice {
      grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr) auto;
    }
    .choice :global(.bx--form-item:last-child) {
      grid-column: 2;
      grid-row: 1;
    }
    button {
      grid-column: 3;
    }
  }
  .choice :global(.bx--select-input) {
    width: 100%;
    text-overflow: ellipsis;
  }
  p {
    grid-column: 1 / -1;
  }
  button.first {
    display: block;
    margin-top: 0.6rem;
    height: 40px;
    border-color: var(--w-chalk);
    color: var(--w-chalk);
    font-weight: 600;
  }
  .form {
    display: grid;
    gap: 1rem;
  }
</style>
