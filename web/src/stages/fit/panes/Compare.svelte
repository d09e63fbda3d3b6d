<!-- Sets of decisions kept beside the one in force, compared by what they come to. -->
<script lang="ts">
  import { calls } from '../../../api/calls';
  import type { Alternative, Place, Outcome } from '../../../api/types';
  import { Button, TextInput } from '../../../carbon';
  import { showLength } from '../../../entry/length';
  import { open } from '../../../state/job.svelte';
  import { newest } from '../../../state/newest';
  import { notices } from '../../../state/notices.svelte';
  import type { Decision } from '../decision.svelte';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    decision: Decision;
    place: Place;
  }
  let p: Props = $props();
  const view = usePlace();
  let outcomes = $state.raw<Outcome[]>([]);
  const listen = newest();
  let name = $state('');
  const kept = $derived(p.place.alternatives ?? []);

  $effect(() => {
    // anew whenever what is kept changes; what is only being turned is not compared yet
    void open.stored?.revision;
    listen(calls.compare(p.decision.job, p.decision.key))
      .then((found) => (outcomes = found ?? outcomes))
      .catch((fault: unknown) => notices.refused(fault));
  });

  const put = (alternatives: Alternative[]) =>
    open.edit(
      `alternatives ${p.decision.key}`,
      (id, edit) => calls.putAlternatives(id, p.decision.key, edit),
      { alternatives: kept },
      { alternatives },
    );
  function keep() {
    const now = p.decision.now;
    const called = name.trim();
    if (!now || !called) return;
    const same = kept.filter((a) => a.name !== called);
    void put([...same, { name: called, ...now }]).then((done) => done && (name = ''));
  }
  function take(a: Alternative) {
    p.decision.turn({ datum: a.datum, back_line: a.back_line, closing: a.closing ?? {} });
    p.decision.keep();
  }
  const rows: [string, (o: Outcome) => string][] = [
    ['stops the job', (o) => String(o.stops)],
    ['to mind', (o) => String(o.minds)],
    ['top, over the mark', (o) => (o.top_mm === null ? '–' : showLength(o.top_mm, view.unit))],
    ['supports to set', (o) => String(o.shims)],
    ['largest gap under', (o) => showLength(o.largest_mm, view.unit)],
    ['cut off the base', (o) => showLength(o.cut_mm, view.unit)],
    ['deepest packing', (o) => showLength(o.packed_mm, view.unit)],
    [
      'gaps at the sides',
      (o) =>
        o.fillers_mm
          ? `${showLength(o.fillers_mm[0] as number, view.unit)} – ${showLength(o.fillers_mm[1] as number, view.unit)}`
          : '–',
    ],
    ['deepest scribe', (o) => showLength(o.scribed_mm, view.unit)],
    ['goes in', (o) => (o.goes_in === null ? '–' : `${Math.floor(o.goes_in * 100)} %`)],
  ];
</script>

<div class="keep no-print">
  <TextInput
    labelText="Keep what stands now as"
    size="sm"
    placeholder="high datum, fillers"
    bind:value={name}
    on:keydown={(e: KeyboardEvent) => e.key === 'Enter' && keep()}
  />
  <Button size="small" kind="tertiary" disabled={!name.trim() || kept.length >= 8} on:click={keep}
    >Keep beside</Button
  >
</div>
{#if outcomes.length}
  <Wide label="Sets compared">
    <table class="facts">
      <thead>
        <tr
          ><td></td>{#each outcomes as o, i (i)}<th class="value"
              >{o.name || 'in force'}{#if o.name}{@const a = kept.find((k) => k.name === o.name)}
                {#if a}<div class="no-print">
                    <button class="link" onclick={() => take(a)}>Take</button><button
                      class="link"
                      aria-label="Forget {a.name}"
                      onclick={() => void put(kept.filter((k) => k !== a))}>Forget</button
                    >
                  </div>{/if}{/if}</th
            >{/each}</tr
        >
      </thead>
      <tbody>
        {#each rows as [what, say] (what)}
          <tr
            ><td>{what}</td>{#each outcomes as o, i (i)}<td
                class="value figure"
                class:differs={i > 0 && say(o) !== say(outcomes[0]!)}>{say(o)}</td
              >{/each}</tr
          >
        {/each}
      </tbody>
    </table>
  </Wide>
  {#if outcomes.length === 1}<p class="quiet">
      Keep what stands now under a name, turn a decision, and both stand here side by side.
    </p>{/if}
{/if}

<style>
  .keep {
    display: grid;
    grid-template-columns: minmax(0, 18rem) auto;
    gap: 0.75rem;
    align-items: end;
    margin-bottom: 0.75rem;
  }
  .keep :global(.bx--btn) {
    justify-self: start;
  }
  p {
    font-size: 0.8125rem;
    margin-top: 0.4rem;
  }
  .differs {
    color: var(--w-mind);
    font-weight: 600;
  }
  th :global(button.link) {
    font-size: 0.75rem;
  }
</style>
