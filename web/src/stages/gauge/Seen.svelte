<!-- What the readings show of a whole surface or line: a step that nobody declared, a bend, a knock, a line that leans. -->
<script lang="ts">
  import type { Place, Reading, Surveyed } from '../../api/types';
  import Measure from '../../entry/Measure.svelte';
  import { showLength } from '../../entry/length';
  import { readingWords } from '../../entry/places';
  import { open } from '../../state/job.svelte';
  import { usePlace } from '../../state/place';
  import { alongOf, called, declared, leans, wayOf, type SeenEdge } from './seen';

  interface Props {
    place: Place;
    surveyed: Surveyed;
    readings: readonly Reading[];
    onagain: (reading: Reading) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const rivals = $derived(p.surveyed.edge_or_knock);
  const again = $derived(rivals ? p.readings.find((r) => r.id === rivals.again) : undefined);
  const names = $derived(new Map((p.place.set_ups ?? []).map((s) => [s.id, s.name])));
  const say = (mm: number) => showLength(mm, view.unit, 0);
  const keep = (edge: SeenEdge) =>
    void open.putPlace(p.place, {
      ...p.place,
      steps: [...(p.place.steps ?? []), declared(edge, p.place.steps ?? [])],
    });
</script>

{#snippet steps(edge: SeenEdge)}
  The {called(edge.surface)} stands <Measure mm={Math.abs(edge.by_mm)} sd={edge.sd_mm} named />
  {wayOf(edge)} from somewhere between {say(edge.low[0])} and {say(edge.low[1])}
  {#if edge.high}to between {say(edge.high[0])} and {say(edge.high[1])}{' '}{/if}{alongOf(edge)}
{/snippet}

{#if p.surveyed.knock}
  <p class="seen">
    ▲ A line was knocked by <Measure
      mm={Math.abs(p.surveyed.knock.by_mm)}
      sd={p.surveyed.knock.sd_mm}
      named
    />; what was read since is corrected. Check the line and read two early stations again.
  </p>
{/if}
{#if rivals}
  <div class="seen stop">
    <p>
      ■ {@render steps(rivals.edge)}, <b>or “{names.get(rivals.set_up) ?? rivals.set_up}” was knocked</b>:
      both explain the readings. One reading decides{again
        ? `: ${readingWords(again, view.unit)}, once more`
        : ''}.
    </p>
    <div class="ways no-print">
      {#if again}<button class="chip" onclick={() => p.onagain(again)}>Read it again</button>{/if}
      <button class="chip" onclick={() => keep(rivals.edge)}>I can see the step</button>
    </div>
  </div>
{/if}
{#each p.surveyed.edges ?? [] as edge, i (i)}
  <div class="seen">
    <p>▲ {@render steps(edge)}, as it looks. Is there an edge? The figures count with one.</p>
    <div class="ways no-print">
      <button class="chip" onclick={() => keep(edge)}>There is: keep it</button>
    </div>
  </div>
{/each}
{#each p.surveyed.bends ?? [] as surface (surface)}
  <p class="seen">
    ▲ The {called(surface)} turns more sharply than by settling: between its readings it is uncertain by centimetres.
    {surface === 'ceiling'
      ? 'If a slope begins there, say where its knee is, on the page of the place.'
      : 'Read more closely where it turns.'}
  </p>
{/each}
{#each leans(p.surveyed.leaning ?? [], names, view.unit) as words, i (i)}
  <p class="seen">
    ▲ {words}. What was read from it is corrected; turn the instrument half round on its spot and compare
    before you mark by it.
  </p>
{/each}

<style>
  .seen {
    border-left: 3px solid var(--w-mind);
    padding: 0.3rem 0 0.3rem 0.6rem;
    margin: 0.4rem 0;
    font-size: 0.875rem;
  }
  .seen.stop {
    border-color: var(--w-stop);
  }
  .seen p {
    margin: 0;
    font-size: inherit;
  }
  .ways {
    display: flex;
    gap: 0.5rem;
    margin-top: 0.4rem;
    flex-wrap: wrap;
  }
</style>
