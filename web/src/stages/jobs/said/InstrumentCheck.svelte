<!-- Checking an instrument, step by step: a level flipped, a laser turned half round, a tape's hook against a mark, a square drawn
     and flipped. What the
     server finds is shown before it is kept, and counts from then on. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { CheckFound, Instrument } from '../../../api/types';
  import { Modal, TextInput } from '../../../carbon';
  import { fieldByField } from '../../../entry/fields';
  import TiltReader from '../../../entry/TiltReader.svelte';
  import { inField, parseLength } from '../../../entry/length';
  import { notices } from '../../../state/notices.svelte';
  import { usePlace } from '../../../state/place';
  import { usualLength } from '../../../entry/usual';
  import { sayError } from './error';

  interface Props {
    instrument: Instrument;
    onclose: () => void;
    /** The instrument with the check among its checks. */
    onkept: (instrument: Instrument) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  type Check = NonNullable<Instrument['checks']>[number];

  const STEPS = {
    flip: {
      title: 'Flip test',
      lead: 'Lay the level on a firm place and mark both its ends. Nothing of the place need be level.',
      fields: [
        { label: 'Length of the level', start: '1200' },
        { label: '1. How much the far end is higher (minus if lower)', start: '' },
        { label: '2. Turn it end for end on the same marks: the same end is higher by', start: '' },
      ],
    },
    phone: {
      title: 'Turn-round',
      lead: 'Lay the phone on its back on a firm board and mark its outline. Nothing need be level.',
      fields: [],
    },
    turn: {
      title: 'Turn-round',
      lead: 'Put the laser down some metres from a wall and mark the height of its line there. Nothing need be level, but it may not be moved between.',
      fields: [
        { label: 'How far the wall is from it', start: '5000' },
        { label: '1. Height of the line at the mark, over any line drawn there', start: '' },
        {
          label: '2. Turn it half round on its spot, let it settle, and read the other beam there',
          start: '',
        },
      ],
    },
    hook: {
      title: 'Hook of the tape',
      lead: 'Measure one length twice: a board, a door. The hook has no part in the second reading.',
      fields: [
        { label: '1. By the hook', start: '' },
        { label: '2. Hold this mark of the tape at the end instead', start: '100' },
        { label: 'and read there', start: '' },
      ],
    },
    square: {
      title: 'Draw, flip, draw',
      lead: 'Draw a line along the square from a straight edge, flip the square over, and draw again from the same foot.',
      fields: [
        { label: 'Length of the line', start: '400' },
        { label: 'The lines stand apart at its end by (minus if they cross over)', start: '' },
      ],
    },
  };
  const HOWS: Partial<Record<string, keyof typeof STEPS>> = {
    tape: 'hook',
    square: 'square',
    'laser line': 'turn',
  };
  const how = $derived(HOWS[p.instrument.kind ?? 'tape'] ?? 'flip');
  const steps = $derived(STEPS[how]);
  const starts = $derived(
    steps.fields.map((f) => (f.start ? inField(usualLength(Number(f.start), view.unit), view.unit, 0) : '')),
  );
  let typed = $state<string[]>([]);
  let result = $state.raw<{ found: CheckFound; checked: Instrument } | null>(null);
  let fault = $state('');

  /** What the phone said as it lay, and turned end for end, degrees. */
  let lay = $state<(number | null)[]>([null, null]);
  const PER_DEG = (deg: number) => 1000 * Math.sin((deg * Math.PI) / 180);

  function made(): Check | string {
    if (how === 'phone') {
      const [first, turned] = lay;
      if (first === null || turned === null) return 'Read it both ways first.';
      // both are told in one direction along the board, and turned it looks the other way
      const [a, b] = [PER_DEG(first!), -PER_DEG(turned!)];
      return { check: 'flip', at: new Date().toISOString(), length_mm: 1000, first_mm: a, turned_mm: b };
    }
    const values = steps.fields.map((f, i) => parseLength(typed[i] ?? starts[i]!, view.unit));
    const empty = values.findIndex((v) => v === null);
    if (empty >= 0) return `“${steps.fields[empty]!.label}” is not a length yet.`;
    const [a, b, c] = values as [number, number, number];
    const at = new Date().toISOString();
    if (how === 'flip' || how === 'turn')
      return { check: 'flip', at, length_mm: a, first_mm: b, turned_mm: c };
    if (how === 'hook') return { check: 'hook', at, hooked_mm: a, mark_mm: b, from_mark_mm: c };
    return { check: 'square', at, leg_mm: a, apart_mm: b };
  }

  async function go() {
    if (result) return p.onkept(result.checked);
    const check = made();
    if (typeof check === 'string') {
      fault = check;
      return;
    }
    fault = '';
    const checked = { ...p.instrument, checks: [...(p.instrument.checks ?? []), check] };
    try {
      const found = (await calls.checkFindings(checked)).at(-1);
      if (found) result = { found, checked };
    } catch (refused) {
      notices.refused(refused);
    }
  }
  const small = $derived(result !== null && Math.abs(result.found.value) < 2 * result.found.sd);
</script>

<Modal
  open
  shouldSubmitOnEnter={false}
  hasScrollingContent={false}
  modalHeading="{steps.title}: {p.instrument.name}"
  primaryButtonText={result ? 'Count it from now on' : 'Work it out'}
  secondaryButtonText={result ? 'Throw it away' : 'Not now'}
  on:click:button--secondary={() => p.onclose()}
  on:close={() => p.onclose()}
  on:submit={() => void go()}
>
  <p>{steps.lead}</p>
  {#if how === 'phone' && !result}
    {#each ['1. As it lies', '2. Turned end for end, in the same outline'] as words, i (words)}
      <p><b>{words}</b>{lay[i] === null ? '' : `: ${lay[i]!.toFixed(2)}°`}</p>
      <TiltReader
        held="flat"
        label={lay[i] === null ? 'Read' : 'Read again'}
        pretend={i ? 0.1 : 0.6}
        onread={(deg) => (lay[i] = deg)}
      />
    {/each}
  {/if}
  <div class="form" use:fieldByField={() => void go()}>
    {#each steps.fields as f, i (f.label)}
      <TextInput
        labelText="{f.label}{view.unit === 'mm' ? ', mm' : ', in'}"
        autocomplete="off"
        value={typed[i] ?? starts[i]}
        disabled={result !== null}
        on:input={(e: CustomEvent<string | number | null>) => (typed[i] = String(e.detail ?? ''))}
      />
    {/each}
  </div>
  <div aria-live="polite">
    {#if result}
      <p class="result">
        It reads <b class="figure">{sayError(result.found, view.unit)}</b> too {result.found.value < 0
          ? 'little'
          : how === 'hook'
            ? 'long'
            : how === 'square'
              ? 'wide'
              : 'high'}.
        {small
          ? 'That is no more than the check itself can tell: the instrument is sound.'
          : 'That is taken off all that is read with it from now on, until the next check.'}
      </p>
    {/if}
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  </div>
</Modal>

<style>
  .form {
    display: grid;
    gap: 0.75rem;
    margin-top: 0.75rem;
  }
  .result {
    margin-top: 0.9rem;
    border-top: 2px solid var(--w-ink);
    padding-top: 0.5rem;
  }
  .fault {
    color: var(--w-stop);
    margin-top: 0.5rem;
  }
</style>
