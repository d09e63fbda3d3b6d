<!-- What readings are taken with, and how far one reading may be trusted. -->
<script lang="ts">
  import type { Instrument } from '../../../api/types';
  import { Button, Select, SelectItem } from '../../../carbon';
  import TextField from '../../../entry/TextField.svelte';
  import { calls } from '../../../api/calls';
  import { usePlace } from '../../../state/place';
  import type { CheckFound } from '../../../api/types';
  import { notices } from '../../../state/notices.svelte';
  import { sayError } from './error';
  import InstrumentCheck from './InstrumentCheck.svelte';
  import LengthField from '../../../entry/LengthField.svelte';
  import { open } from '../../../state/job.svelte';

  let { instruments }: { instruments: readonly Instrument[] } = $props();
  const KINDS = [
    'laser line',
    'laser meter',
    'water level',
    'string line',
    'level',
    'digital level',
    'phone',
    'tape',
    'square',
  ] as const;
  const CHECKED = ['level', 'digital level', 'phone', 'laser line', 'tape', 'square'];
  const view = usePlace();
  let checking = $state.raw<Instrument | null>(null);
  let shelf = $state.raw<Instrument[]>([]);
  let found = $state.raw<Record<string, CheckFound[]>>({});

  const save = (next: Instrument[]) => void open.putInstruments(instruments, next);
  const change = (i: number, part: Partial<Instrument>) =>
    save(instruments.map((t, k) => (k === i ? { ...t, ...part } : t)));

  /** A call whose refusal is told and leaves the page as it is. */
  async function quietly<T>(call: Promise<T>, take: (answer: T) => void) {
    try {
      take(await call);
    } catch (fault) {
      notices.refused(fault);
    }
  }

  $effect(() => {
    void quietly(calls.shelf(), (s) => (shelf = s));
    for (const tool of instruments)
      if (tool.checks?.length)
        void quietly(calls.checkFindings(tool), (f) => (found = { ...found, [tool.id]: f }));
  });

  const onShelf = (tool: Instrument) =>
    shelf.some((s) => s.id === tool.id && JSON.stringify(s) === JSON.stringify(tool));
  const offered = $derived(shelf.filter((s) => !instruments.some((i) => i.id === s.id)));

  function add() {
    const ids = new Set(instruments.map((i) => i.id));
    let n = instruments.length + 1;
    while (ids.has(`tool-${n}`)) n += 1;
    save([...instruments, { id: `tool-${n}`, name: 'Tape', kind: 'tape', sigma_mm: 1, checks: [] }]);
  }
</script>

<div>
  <table class="fields-table stacks">
    <thead
      ><tr
        ><th>Name</th><th>Kind</th><th>One reading is good to ±</th><th>Its own error</th><td></td><td
        ></td></tr
      ></thead
    >
    <tbody>
      {#each instruments as tool, i (tool.id)}
        <tr>
          <td
            ><TextField
              bare
              label="Name of instrument {i + 1}"
              value={tool.name}
              ontext={(name) => change(i, { name })}
            /></td
          >
          <td
            ><Select
              hideLabel
              labelText="Kind of instrument {i + 1}"
              size="sm"
              selected={tool.kind ?? 'tape'}
              on:change={(e: Event) =>
                change(i, { kind: (e.target as HTMLSelectElement).value as (typeof KINDS)[number] })}
            >
              {#each KINDS as kind (kind)}<SelectItem value={kind} text={kind} />{/each}
            </Select></td
          >
          <td data-head="good to ±"
            ><LengthField
              bare
              label="Uncertainty of instrument {i + 1}"
              value={tool.sigma_mm ?? 0.5}
              least={0.01}
              onchange={(mm) => change(i, { sigma_mm: mm! })}
            /></td
          >
          <td class="checks" data-head="its own error">
            {#if found[tool.id]?.length}
              {@const last = found[tool.id]!.at(-1)!}
              <span class="figure">{last.value < 0 ? '−' : '+'}{sayError(last, view.unit)}</span>
              <small class="quiet"
                >since {new Date(last.at).toLocaleDateString(undefined, {
                  day: 'numeric',
                  month: 'short',
                })}</small
              >
            {/if}
            {#if CHECKED.includes(tool.kind ?? 'tape')}
              <button class="link" onclick={() => (checking = tool)} aria-label="Check {tool.name}"
                >Check</button
              >
            {/if}
          </td>
          <td
            >{#if onShelf(tool)}<small class="quiet">on your shelf</small>{:else}<button
                class="link"
                onclick={() => void quietly(calls.putOnShelf(tool), (s) => (shelf = s))}
                aria-label="To my shelf: {tool.name}">To my shelf</button
              >{/if}</td
          >
          <td
            ><button
              class="link"
              onclick={() => save(instruments.filter((_, k) => k !== i))}
              aria-label="Remove {tool.name}">Remove</button
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <Button size="small" kind="ghost" on:click={add}>Add an instrument</Button>
  {#if offered.length}
    <p class="shelf">
      From your shelf:
      {#each offered as tool (tool.id)}
        <span>
          <button class="chip" onclick={() => save([...instruments, tool])}>{tool.name}</button><button
            class="link"
            onclick={() => void quietly(calls.takeOffShelf(tool.id), (s) => (shelf = s))}
            aria-label="✕ Take {tool.name} off your shelf">✕</button
          >
        </span>
      {/each}
    </p>
  {/if}
</div>
{#if checking}
  <InstrumentCheck
    instrument={checking}
    onclose={() => (checking = null)}
    onkept={(checked) => {
      checking = null;
      save(instruments.map((t) => (t.id === checked.id ? checked : t)));
    }}
  />
{/if}

<style>
  /* where four columns do not fit: an instrument over three lines */
  @media (max-width: 40rem) {
    .stacks thead {
      position: absolute;
      clip-path: inset(50%);
    }
    .stacks tr {
      display: grid;
      grid-template-columns: 1fr 1fr;
      border-bottom: 1px solid var(--w-line);
      padding: 0.4rem 0;
    }
    .stacks td:first-child {
      grid-column: 1 / -1;
    }
    .stacks td {
      align-self: end;
    }
    td[data-head]::before {
      content: attr(data-head);
      display: block;
      font-size: 0.75rem;
      color: var(--w-ink-soft);
    }
  }
  .checks {
    white-space: nowrap;
  }
  .shelf {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
    font-size: 0.875rem;
    margin-top: 0.5rem;
  }
</style>
