<!-- Set out: what is built, between two rods. The drawing is the input; what it comes to is said beside it. -->
<script lang="ts">
  import { flushSync, onMount } from 'svelte';
  import type { Finding, Move } from '../../api/types';
  import { Button, Select, SelectItem } from '../../carbon';
  import Answers from '../../shell/Answers.svelte';
  import { keyOf } from '../../shell/findings';
  import Missing from '../../shell/Missing.svelte';
  import Panes from '../../shell/Panes.svelte';
  import Workbench from '../../shell/Workbench.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import HeightsPane from './panes/HeightsPane.svelte';
  import PiecePane from './panes/PiecePane.svelte';
  import RoomPane from './panes/RoomPane.svelte';
  import RulesPane from './panes/RulesPane.svelte';
  import SetOutSheet from './SetOutSheet.svelte';
  import SetOutDrawing from './SetOutDrawing.svelte';
  import { SettingOut } from './setting-out.svelte';
  import { KINDS } from './kinds';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally
  const setting = new SettingOut(params['job'] ?? '', params['place'] ?? '');
  let wobble = $state(20);
  let lit = $state<string | null>(null);
  let printing = $state(false);
  const PANES = ['Says', 'Piece', 'Heights', 'Rules', 'Room'] as const;
  let pane = $state<(typeof PANES)[number]>('Says');
  const unit = $derived(open.units);
  const place = $derived(setting.place);
  const pages = $derived(`/jobs/${setting.job}/${setting.key}`);
  const picked = $derived(setting.picked);
  const one = $derived(setting.unit);
  const laidOne = $derived(setting.laid?.units.find((u) => u.unit.id === one?.id));
  const findings = $derived(setting.laid?.findings ?? []);
  const ofIt = $derived(findings.filter((f) => one && f.about.includes(one.id)));
  const stops = $derived(findings.filter((f) => f.severity !== 'fine').length);
  /** The stack that is drawn: of what is picked, else the first. */
  const stack = $derived.by(() => {
    const all = setting.said?.heights ?? [];
    return (
      all.find((s) => [...(s.units ?? []), ...(s.tops ?? [])].some((u) => picked.includes(u))) ??
      all[0] ??
      null
    );
  });
  const laidStack = $derived(setting.laid?.stacks.find((s) => s.id === stack?.id) ?? null);

  const act = (move: Move) => void setting.do(move);
  function insert(kind: string) {
    const before = new Set(setting.said?.units?.map((u) => u.id));
    void setting.do({ move: 'insert', kind, after: one?.id ?? null } as Move).then((done) => {
      const made = done && setting.said?.units?.find((u) => !before.has(u.id));
      if (made) setting.pick(made.id);
    });
  }
  function take_out() {
    if (picked.length) act({ move: 'delete', ids: picked } as Move);
  }
  const copy = (more: object = {}) => one && act({ move: 'copy', unit: one.id, ...more } as Move);

  $effect(() => {
    if (picked.length === 1) pane = 'Piece';
    else if (picked.length > 1) pane = 'Rules';
    else if (pane === 'Piece') pane = 'Says';
  });

  function pickFinding(f: Finding) {
    lit = lit === keyOf(f) ? null : keyOf(f);
    const of = f.about.find((a) => setting.said?.units?.some((u) => u.id === a));
    if (of) setting.pick(of);
    if (f.code.startsWith('stack')) pane = 'Heights';
    if (f.code === 'rules-disagree') pane = 'Rules';
  }

  function step(by: number) {
    const all = (setting.laid?.units ?? []).toSorted((a, b) => a.unit.x_mm - b.unit.x_mm);
    const at = all.findIndex((u) => u.unit.id === one?.id);
    const next = all[at < 0 ? (by > 0 ? 0 : all.length - 1) : (at + by + all.length) % all.length];
    if (next) setting.pick(next.unit.id);
  }

  const here = inView();
  onMount(() => {
    keys.page = [
      { keys: ['u'], what: 'Undo', run: () => void setting.undo() },
      { keys: ['r'], what: 'Redo', run: () => void setting.redo() },
      { keys: ['n'], what: 'The next piece', run: () => step(1) },
      { keys: ['b'], what: 'The piece before', run: () => step(-1) },
      { keys: ['c'], what: 'Copy what is picked', run: () => copy() },
      {
        keys: ['m'],
        what: 'Its mirror image beside it',
        run: () => one && act({ move: 'mirror', unit: one.id } as Move),
      },
      { keys: ['2', '3', '4'], what: 'Split it into as many' },
      { keys: ['Delete', 'Backspace'], what: 'Take out what is picked', run: take_out },
      { keys: ['Escape'], what: 'Pick nothing', run: () => setting.pick(null) },
      { keys: ['← →'], what: 'On a tick: nudge it (with Shift further); Enter types it; Delete lets it go' },
      { keys: ['p'], what: 'Print', run: () => print() },
    ];
    for (const n of [2, 3, 4])
      keys.page.push({
        keys: [String(n)],
        what: `Split it into ${n}`,
        run: () => one && act({ move: 'split', unit: one.id, parts: n } as Move),
      });
    keys.page = keys.page.filter((k) => k.run || k.keys[0] === '← →');
    void setting.load().then(() => {
      if (here()) document.title = `Set out · ${setting.place?.name ?? ''} · Wobble`;
    });
    return () => setting.leave();
  });
</script>

<svelte:window
  onbeforeprint={() => flushSync(() => (printing = true))}
  onafterprint={() => (printing = false)}
/>

{#if open.missing || (open.stored && !place)}
  <Missing what="place" to="/jobs/{setting.job}" way="Go to the job" />
{:else if place && setting.said && setting.laid}
  {@const said = setting.said}
  {@const laid = setting.laid}
  <Workbench
    bind:wobble
    caption="{place.name}, set out{unit === 'mm' ? ', mm' : ''}"
    keep={190}
    sideLabel="What is set out"
    belowFirst
  >
    {#snippet picture(room: number)}
      <h1 class="print-only">{open.stored?.job.name} · {place.name}, set out</h1>
      <SetOutDrawing
        {setting}
        {place}
        stack={laidStack}
        {room}
        {wobble}
        {unit}
        {lit}
        onlight={(id) => (lit = id)}
      />
    {/snippet}
    {#snippet below()}
      <div class="acts no-print" role="toolbar" aria-label="What can be done">
        <span class="put">
          <Select
            hideLabel
            labelText="Put in"
            size="sm"
            selected=""
            on:change={(e: Event) => {
              const select = e.target as HTMLSelectElement;
              if (select.value) insert(select.value);
              select.value = '';
            }}
          >
            <SelectItem value="" text={one ? `Put in beside ${one.name}…` : 'Put in…'} />
            {#each KINDS as [value, text] (value)}<SelectItem {value} {text} />{/each}
          </Select>
        </span>
        <button class="chip" disabled={!setting.canUndo} onclick={() => void setting.undo()}>Undo</button>
        <button class="chip" disabled={!setting.canRedo} onclick={() => void setting.redo()}>Redo</button>
        {#if one}
          {#if picked.length === 1}
            {#each [2, 3] as n (n)}
              <button class="chip" onclick={() => act({ move: 'split', unit: one.id, parts: n } as Move)}
                >Split in {n}</button
              >
            {/each}
            <button class="chip" onclick={() => copy()}>Copy</button>
            <button class="chip" onclick={() => copy({ deeper_mm: unit === 'mm' ? 50 : 50.8 })}
              >Copy, deeper</button
            >
            <button class="chip" onclick={() => copy({ taller_mm: unit === 'mm' ? 100 : 101.6 })}
              >Copy, taller</button
            >
            <button class="chip" onclick={() => act({ move: 'mirror', unit: one.id } as Move)}>Mirror</button>
          {:else}
            <button class="chip" onclick={() => act({ move: 'merge', units: picked } as Move)}
              >Make one of them</button
            >
          {/if}
          <button class="chip" onclick={take_out}>Take out</button>
        {/if}
        <button class="chip" onclick={() => print()}>Print</button>
      </div>
      {#if !said.units?.length}
        <p class="empty">
          Nothing is set out yet. Put in a piece; then hold its edges on the long rod and move them, or touch
          a number and type.
        </p>
      {/if}
      {#if printing}<SetOutSheet {laid} />{/if}
      {#if printing && pane !== 'Says'}<Answers {findings} lit={null} onpick={() => undefined} />{/if}
    {/snippet}
    {#snippet side()}
      <Panes
        label="What is set out"
        names={PANES}
        chosen={pane}
        counts={{ Says: stops, Rules: said.rules?.length ?? 0 }}
        onpick={(name) => (pane = name)}
      />
      {#if pane === 'Says'}
        <Answers {findings} {lit} onpick={pickFinding} marked />
        {#if !findings.length}<p class="quiet">Nothing to say against it.</p>{/if}
        <div class="on no-print">
          <Button size="small" href="{pages}/gauge"
            >{place.readings.length ? 'Gauge' : 'Measure the place'}</Button
          >
          {#if place.readings.length}<Button size="small" kind="ghost" href="{pages}/fit"
              >See how it fits</Button
            >{/if}
        </div>
      {:else if pane === 'Piece'}
        {#if one && laidOne}
          {#key one.id}
            <PiecePane
              {said}
              unit={one}
              laid={laidOne}
              lengths={unit}
              onchange={(part) => void setting.changeUnit(one.id, part)}
            />
          {/key}
          {#if ofIt.length}
            <h3>About it</h3>
            <Answers findings={ofIt} {lit} onpick={pickFinding} />
          {/if}
        {:else}
          <p class="quiet">Touch a piece in the drawing to open it.</p>
        {/if}
      {:else if pane === 'Heights'}
        <HeightsPane
          {said}
          {place}
          {stack}
          laid={laidStack}
          {picked}
          onchange={(heights) => void setting.change({ heights })}
        />
        <Answers
          findings={findings.filter((f) => stack && f.about.includes(stack.id))}
          {lit}
          onpick={pickFinding}
        />
      {:else if pane === 'Rules'}
        <RulesPane {said} {place} {laid} {picked} onmove={act} />
      {:else}
        <RoomPane {said} {place} onchange={(part) => void setting.change(part)} />
        <p class="quiet place"><a href="{pages}/place">Size, surfaces, steps and what is in the way</a></p>
      {/if}
    {/snippet}
  </Workbench>
{/if}

<style>
  .place {
    line-height: 2;
    margin-top: 0.75rem;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    align-items: center;
    padding-top: 0.4rem;
  }
  .put {
    width: 12.5rem;
  }
  .empty {
    max-width: 34rem;
    margin-top: 0.75rem;
  }
  h3 {
    font-size: 0.9375rem;
    margin-top: 1rem;
  }
  .on {
    margin-top: 1rem;
  }
</style>
