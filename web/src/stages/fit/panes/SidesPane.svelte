<!-- How the run meets its side walls: the split, the methods beside each other, and the gap at each side. -->
<script lang="ts">
  import { SURE } from '../../../api/fields';
  import type { PlaceFit, Closing, Figure, Sides } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import { showLength } from '../../../entry/length';
  import LengthField from '../../../entry/LengthField.svelte';
  import Measure from '../../../entry/Measure.svelte';
  import Wide from '../../../shell/Wide.svelte';
  import Doors from './Doors.svelte';
  import FrameParts from './FrameParts.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    fit: PlaceFit;
    closing: Closing;
    onturn: (closing: Closing) => void;
    onkeep: () => void;
    onfigure: (title: string, figure: Figure) => void;
    /** Figures as they were under the decision kept last. */
    before: ReadonlyMap<string, number>;
  }
  let p: Props = $props();
  const view = usePlace();
  const was = (id: string, now: number) => {
    const then = p.before.get(id);
    return then !== undefined && Math.abs(then - now) >= 0.05 ? then : null;
  };
  const SPLITS = {
    'as drawn': 'as drawn',
    equal: 'equal, left and right',
    'none at the left': 'none at the left',
    'none at the right': 'none at the right',
    centred: 'centred on a place',
  } as const;
  const NAMES: Record<string, string> = {
    fillers: 'Filler strips',
    'face frame first': 'Face frame first, box behind',
    'end panel': 'Scribe the end panels',
    'cover moulding': 'Cover moulding',
    'flexible filler': 'A bead of flexible filler',
    'shadow gap': 'A shadow gap',
  };
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
  const whole = (mm: number) => showLength(mm, view.unit, 0);
  const turn = (part: Partial<Closing>) => (p.onturn({ ...p.closing, ...part }), p.onkeep());

  /** The gap's own shape, wall at the side that it lies at: width by height. */
  function shape(f: Sides['fillers'][number]): string {
    const most = Math.max(1, ...f.profile.map((r) => r[1]!));
    const low = f.profile[0]![0]!;
    const pts = f.profile.map((r) => {
      const w = (r[1]! / most) * 26;
      return `${(f.side === 'left' ? 28 - w : 2 + w).toFixed(1)},${(60 - ((r[0]! - low) / f.long_mm) * 56).toFixed(1)}`;
    });
    const edge = f.side === 'left' ? 28 : 2;
    return `M${edge},60L${pts.join('L')}L${edge},4Z`;
  }
</script>

{#if p.fit.sides.length}
  <div class="fields no-print">
    <Select
      labelText="Share the spare width"
      size="sm"
      selected={p.closing.split ?? 'as drawn'}
      on:change={(e: Event) =>
        turn({ split: (e.target as HTMLSelectElement).value as NonNullable<Closing['split']> })}
    >
      {#each Object.entries(SPLITS) as [value, text] (value)}<SelectItem {value} {text} />{/each}
    </Select>
    {#if p.closing.split === 'centred'}
      <LengthField
        label="Middle of the run, along"
        value={p.closing.centre_mm ?? null}
        onchange={(mm) => turn({ centre_mm: mm })}
      />
    {/if}
    <LengthField
      label="Play to slide in"
      value={p.closing.clearance_mm ?? 3}
      least={0}
      onchange={(mm) => turn({ clearance_mm: mm! })}
    />
    <LengthField
      label="No filler below"
      value={p.closing.least_filler_mm ?? 20}
      least={0}
      onchange={(mm) => turn({ least_filler_mm: mm! })}
    />
    <LengthField
      label="Boards thick"
      value={p.closing.board_mm ?? 19}
      least={1}
      onchange={(mm) => turn({ board_mm: mm! })}
    />
    {#if p.closing.method === 'face frame first'}
      <LengthField
        label="Uprights of the frame"
        value={p.closing.mullion_mm ?? 40}
        least={1}
        onchange={(mm) => turn({ mullion_mm: mm! })}
      />
    {/if}
  </div>
{/if}
{#each p.fit.sides as sides (sides.tier)}
  <section>
    <h2>{sides.tier === 'standing' ? 'What stands' : 'What hangs'}</h2>
    {#if sides.opening}
      {@const o = sides.opening}
      <p>
        Opening <button class="link" onclick={() => p.onfigure('Smallest opening', o.least)}
          ><Measure mm={o.least.value_mm} sd={o.least.sd_mm} named /></button
        >
        for a run of <b class="figure">{showLength(o.wanted_mm, view.unit)}</b>; it goes in with
        <b class="figure">{Math.floor(o.chance * 100)} %</b>. For sure up to
        <b class="figure">{whole(Math.floor(o.sure_mm))}</b>.
        {#if o.inside_mm - o.least.value_mm > 1}Where it ends it is {showLength(
            o.inside_mm - o.least.value_mm,
            view.unit,
          )} wider than on the way in.{/if}
        {#if sides.moved_mm}The split moves the run by {showLength(sides.moved_mm, view.unit)}.{/if}
        {#if sides.made_mm !== null}Each made unit may be <b class="figure">{whole(sides.made_mm)}</b> wide.{/if}
        {#if (p.closing.method ?? 'fillers') === 'face frame first' && sides.frame_mm !== null}Frame from
          <b class="figure">{whole(sides.frame_mm)}</b>, box <b class="figure">{whole(sides.box_mm ?? 0)}</b> at
          most.{/if}
      </p>
    {/if}
    <div class="choices no-print" role="group" aria-label="Ways to close the sides">
      {#each sides.methods as way (way.method)}
        {@const chosen = (p.closing.method ?? 'fillers') === way.method}
        <button
          class:chosen
          class:unfit={!way.works}
          aria-pressed={chosen}
          onclick={() => turn({ method: way.method })}
        >
          <b>{NAMES[way.method]}</b>
          <span
            >{way.pieces ? `${way.pieces} ${way.pieces > 1 ? 'pieces' : 'piece'}, ` : ''}to
            <span class="figure">{showLength(way.width_mm, view.unit)}</span>{way.scribed_mm
              ? `, ${showLength(way.scribed_mm, view.unit)} scribed`
              : ''}</span
          >
          <span class="quiet">{way.proposed ? 'proposed: ' : way.works ? '' : 'not here: '}{way.reason}</span>
        </button>
      {/each}
    </div>
    {#if sides.frame}
      <FrameParts frame={sides.frame} {name} onfigure={p.onfigure} />
    {/if}
    <Wide label="Gaps at the sides">
      <table class="facts">
        <caption>Gap at each side, at the front</caption>
        <thead
          ><tr
            ><td></td><th>Side</th><th class="value">Foot</th><th class="value">Head</th><th class="value"
              >Least</th
            ><th class="value">Largest</th><th class="value">Cut from</th><th>Beside it</th></tr
          ></thead
        >
        <tbody>
          {#each sides.fillers as f (f.side)}
            <tr>
              <td
                ><svg viewBox="0 0 30 64" width="22" height="47" aria-hidden="true"><path d={shape(f)} /></svg
                ></td
              >
              <td>{f.side} of {name(f.unit)}</td>
              {#each [['foot', f.bottom], ['head', f.top], ['least', f.least], ['largest', f.largest]] as const as [what, figure] (what)}
                <td class="value"
                  ><button onclick={() => p.onfigure(`Gap at the ${f.side}, ${what}`, figure)}
                    ><Measure mm={figure.value_mm} sd={figure.sd_mm} /></button
                  >{#if what === 'largest'}{@const then = was(
                      `filler ${sides.tier} ${f.side}`,
                      figure.value_mm,
                    )}{#if then !== null}<small class="was">was {showLength(then, view.unit)}</small
                      >{/if}{/if}</td
                >
              {/each}
              <td class="value figure">{whole(f.blank_mm)} × {whole(f.long_mm)}</td>
              <td
                >{#if f.needs}<span class:stop={f.enough < SURE}
                    >takes <span class="figure">{showLength(f.needs.value_mm, view.unit)}</span>, so that {f.needs_why}
                    ({Math.floor(f.enough * 100)} %)</span
                  >{:else}nothing opens there{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </Wide>
    <details>
      <summary>Width at every height</summary>
      <Wide label="Widths by height">
        <table class="facts">
          <thead
            ><tr
              ><th>Up</th>{#each sides.fillers as f (f.side)}<th class="value">{f.side}</th>{/each}</tr
            ></thead
          >
          <tbody>
            {#each sides.fillers[0]?.profile ?? [] as row, i (i)}
              <tr
                ><td class="figure">{whole(row[0]!)}</td>{#each sides.fillers as f (f.side)}<td class="value"
                    >{#if f.profile[i]}<Measure mm={f.profile[i]![1]!} sd={f.profile[i]![2]!} />{/if}</td
                  >{/each}</tr
              >
            {/each}
          </tbody>
        </table>
      </Wide>
    </details>
  </section>
{:else}
  <p class="quiet">
    No side wall is measured. Add the left or the right wall to the place and read it; fillers, openings and
    scribes follow from it.
  </p>
{/each}
<Doors fit={p.fit} />

<style>
  .fields {
    display: grid;
    grid-template-columns: 1.6fr repeat(4, 1fr);
    gap: 0.75rem;
    margin-bottom: 0.75rem;
  }
  h2 {
    font-size: 0.9375rem;
    margin: 0.5rem 0 0.25rem;
  }
  p {
    font-size: 0.875rem;
    margin-bottom: 0.5rem;
    max-width: 52rem;
  }
  svg path {
    fill: var(--w-brass);
    fill-opacity: 0.35;
    stroke: var(--w-brass);
  }
  summary {
    cursor: pointer;
    font-size: 0.875rem;
    padding: 0.4rem 0;
    color: var(--w-chalk);
  }
  .was {
    display: block;
    color: var(--w-mind);
    font-size: 0.75rem;
  }
  @media (max-width: 760px) {
    .fields {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
