<!-- The list to carry to the place: what goes under every support and behind every screw, and the shims to take. -->
<script lang="ts">
  import { calls } from '../../api/calls';
  import type { Place, Plan, PlaceHold } from '../../api/types';
  import { showLength, showSpread, showFigure } from '../../entry/length';
  import Measure from '../../entry/Measure.svelte';
  import { open } from '../../state/job.svelte';
  import { remembered } from '../../state/store';
  import { fillingWords, taperWords } from './words';
  import { usePlace } from '../../state/place';

  interface Props {
    job: string;
    plan: Plan;
    place: Place;
    before: ReadonlyMap<string, number>;
    lit: string | null;
    onpick: (id: string) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const name = (id: string) => p.place.units?.find((u) => u.id === id)?.name ?? id;
  const was = (id: string, now: number) => {
    const before = p.before.get(id);
    return before !== undefined && Math.abs(before - now) >= 0.05 ? before : null;
  };
  /** What Hold drives, under the decisions that are kept: it alone says where screws and their packing are. */
  let hold = $state.raw<PlaceHold | null>(null);
  const screws = $derived((hold?.fasteners ?? []).filter((f) => f.surface && f.filling));
  const tapers = $derived([...p.plan.shims, ...screws].some((s) => s.filling?.taper));
  const used = $derived((hold?.pieces ?? []).filter((k) => k.wanted > 0));
  $effect(() => {
    void open.stored?.revision;
    const [job, key] = [p.job, p.place.id];
    void remembered(`hold ${job} ${key}`, () => calls.hold(job, key)).then(
      (found) => (hold = found),
      () => (hold = null),
    );
  });
</script>

{#snippet row(
  id: string,
  unitName: string,
  where: string,
  gap: Plan['shims'][number]['gap'],
  filling: Plan['shims'][number]['filling'],
)}
  {@const before = was(id, gap.value_mm)}
  <tr class:lit={p.lit === id} class:off={!filling.within_tolerance} class:cut={filling.kind === 'cut'}>
    <td>{unitName}</td>
    <td>{where}</td>
    <td class="figure value">
      <button
        onclick={() => p.onpick(id)}
        aria-label="{showFigure(gap.value_mm, gap.sd_mm, view.unit)} {showSpread(
          gap.sd_mm,
          view.unit,
        )}, working of {unitName} {where}"><Measure mm={gap.value_mm} sd={gap.sd_mm} /></button
      >
      {#if before !== null}<small class="was">was {showLength(before, view.unit)}</small>{/if}
    </td>
    <td class="figure"
      >{fillingWords(filling, view.unit)}{#if filling.kind === 'stack' && !filling.within_tolerance}<small
          class="short"
        >
          nearest the kit has</small
        >{/if}</td
    >
    {#if tapers}<td class="figure quiet no-print">{taperWords(filling, view.unit)}</td>{/if}
  </tr>
{/snippet}

<div class="scroll">
  {#if p.plan.shims.length}
    <table>
      <caption>Under the supports</caption>
      <thead>
        <tr
          ><th>Unit</th><th>Support</th><th class="value">Gap{view.unit === 'mm' ? ', mm' : ''}</th><th
            >Shims</th
          >{#if tapers}<th class="no-print">or a tapered pair</th>{/if}</tr
        >
      </thead>
      <tbody>
        {#each p.plan.shims as s (s.support)}{@render row(
            s.support,
            name(s.unit),
            s.corner,
            s.gap,
            s.filling,
          )}{/each}
      </tbody>
    </table>
  {/if}
  {#if screws.length}
    <table class="next">
      <caption
        >Behind the screws <small
          >⚠ wires and pipes may lie behind the lining: detect, isolate, then drill</small
        ></caption
      >
      <thead>
        <tr
          ><th>Unit</th><th>Screw</th><th class="value">Gap{view.unit === 'mm' ? ', mm' : ''}</th><th
            >Packing</th
          >{#if tapers}<th class="no-print">or a tapered pair</th>{/if}</tr
        >
      </thead>
      <tbody>
        {#each screws as f (f.id)}
          {@render row(
            f.id,
            name(f.unit),
            `${f.order}, ${f.part}, ${showLength(f.at[0] as number, view.unit, 0)} along, ${showLength(f.at[1] as number, view.unit, 0)} ${f.surface === 'floor' || f.surface === 'ceiling' ? 'out' : 'up'}`,
            f.packing,
            f.filling!,
          )}
        {/each}
      </tbody>
    </table>
  {:else if p.plan.packings.length}
    <p class="quiet">
      What goes behind each screw is listed once the studs are known: find them in Hold. The deepest gap
      behind the run is in the answers.
    </p>
  {/if}
</div>
{#if used.length}
  <p class="take">
    Take along:
    {#each used as piece, i (i)}{i ? ', ' : ' '}<span
        class="figure"
        class:short={piece.to_hand !== null && piece.wanted > piece.to_hand}
        >{piece.wanted} × {showLength(
          piece.thickness_mm,
          view.unit,
          Number.isInteger(piece.thickness_mm) ? 0 : 1,
        )}</span
      >{#if piece.to_hand !== null}<small class="quiet"> (you have {piece.to_hand})</small>{/if}{/each}.
  </p>
{/if}

<style>
  @media print {
    .next {
      break-before: page;
    }
  }
  .scroll {
    overflow-x: auto;
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(33rem, 100%), 1fr));
    gap: 1rem 2rem;
    align-items: start;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.875rem;
  }
  caption {
    text-align: left;
    font-weight: 650;
    font-size: 0.9375rem;
    padding: 0.3rem 0;
  }
  caption small {
    font-weight: 400;
    color: var(--w-stop);
    font-size: 0.75rem;
  }
  th {
    text-align: left;
    font-size: 0.75rem;
    font-weight: 500;
    color: var(--w-ink-soft);
    border-bottom: 1.5px solid var(--w-ink);
  }
  th,
  td {
    padding: 0.2rem 0.6rem 0.2rem 0;
    white-space: nowrap;
  }
  td {
    border-bottom: 1px solid var(--w-line);
  }
  .value {
    text-align: right;
  }
  td button {
    background: none;
    border: 0;
    padding: 0.15rem 0;
    color: var(--w-ink);
    font: inherit;
    cursor: pointer;
  }
  td button:hover {
    text-decoration: underline;
    text-decoration-color: var(--w-chalk);
  }
  small {
    color: var(--w-ink-soft);
  }
  .was {
    display: block;
    color: var(--w-mind);
    font-size: 0.75rem;
  }
  .short {
    color: var(--w-stop);
  }
  .cut td {
    color: var(--w-stop);
  }
  .lit td {
    background: var(--w-chalk-wash);
  }
  .take {
    margin-top: 0.6rem;
    font-size: 0.875rem;
  }
</style>
