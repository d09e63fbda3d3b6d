<!-- What units rest on and hook over: ledgers, split battens, timbers behind rails, cleats of shelves; units joined. -->
<script lang="ts">
  import type { PlaceHold } from '../../../api/types';
  import { showLength, showSpread } from '../../../entry/length';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';
  import Nailers from './Nailers.svelte';

  interface Props {
    hold: PlaceHold;
    name: (id: string) => string;
  }
  let p: Props = $props();
  const view = usePlace();
  const whole = (mm: number) => showLength(mm, view.unit, 0);
  const said = (mm: number) => showLength(mm, view.unit);
  const line = (mm: number | null) =>
    mm === null ? '' : `, ${said(Math.abs(mm))} ${mm < 0 ? 'over' : 'under'} the level line`;
  const rests = $derived(p.hold.held.filter((h) => h.batten || h.ground));
  /** Where some screws stand, along one axis, each said once. */
  const places = (ids: readonly string[], axis: 0 | 1) => [
    ...new Set(p.hold.fasteners.filter((f) => ids.includes(f.id)).map((f) => whole(f.at[axis] as number))),
  ];
  const share = (use: number) => `${Math.ceil(use * 100)} %`;
</script>

{#each p.hold.ledgers as l (l.id)}
  <article>
    <h2>Ledger under {l.units.map(p.name).join(', ')}</h2>
    <p>
      <b class="figure">{whole(l.thick_mm)}</b> thick from <b class="figure">{whole(l.start_mm)}</b> to
      <b class="figure">{whole(l.end_mm)}</b> along, its top <b class="figure">{said(l.top_mm)}</b>
      up{line(l.under_line_mm)}. Two screws, to {l.shank_mm} × {whole(l.screw_mm)}, at each of {l.places
        .length} places carry
      {Math.floor(l.carries_n)} N, of which it takes <b class="figure">{share(l.use)}</b>.
    </p>
  </article>
{/each}
{#each rests as h, i (i)}
  <article>
    <h2>{p.name(h.unit)}</h2>
    {#if h.batten}
      {@const b = h.batten}
      <p>
        Split batten, two halves of <b class="figure">{whole(b.thick_mm)}</b> ×
        <b class="figure">{whole(b.high_mm)}</b>
        bevelled at {b.bevel_deg}°; the tip of the wall's half <b class="figure">{said(b.top_mm)}</b> up{line(
          b.under_line_mm,
        )}, its bevel falling towards the wall. They hook by
        <b class="figure">{said(b.engagement_mm)}</b>; lift it
        <b class="figure">{said(b.lift_mm)}</b>{b.room_mm === null
          ? ' (nothing over it is known)'
          : `, ${said(b.room_mm)} is free above`}.
        {#if !b.lifts}<b class="stop">It cannot be lifted on.</b>{/if}
      </p>
      <ul>
        {#each b.spacers as s, i (i)}
          <li>
            Spacer behind its foot, {s.side}:
            <b class="figure">{said(s.thick.value_mm)} {showSpread(s.thick.sd_mm, view.unit)}</b>, {whole(
              s.up_mm,
            )} up, so that it hangs plumb.
          </li>
        {/each}
      </ul>
    {/if}
    {#if h.ground}
      {@const g = h.ground}
      <p>
        Timber <b class="figure">{whole(g.thick_mm)}</b> thick behind its rail, its middle
        <b class="figure">{said(g.up_mm)}</b>
        up, from <b class="figure">{whole(g.start_mm)}</b> to <b class="figure">{whole(g.end_mm)}</b>, over
        the studs at {g.studs.map(whole).join(', ')}; the rail is screwed into it by {whole(g.into_mm)} long ones.
      </p>
    {/if}
  </article>
{/each}
{#if p.hold.nailing.nailers.length}
  <Nailers hold={p.hold} name={p.name} {whole} />
{/if}
{#if p.hold.sides.length}
  <Wide label="Through sides and tops">
    <table class="facts">
      <caption>Boxes screwed through their sides or tops</caption>
      <thead
        ><tr
          ><th>Box</th><th>Into</th><th class="value">Gap</th><th class="value">Carries</th><th class="value"
            >Screws</th
          ><th class="value">Use</th><td></td></tr
        ></thead
      >
      <tbody>
        {#each p.hold.sides as s, i (i)}
          <tr>
            <td>{p.name(s.unit)}</td><td>{s.wall}</td>
            <td class="value figure">{said(s.gap.value_mm)} {showSpread(s.gap.sd_mm, view.unit)}</td>
            <td class="value figure">{Math.ceil(s.load_n)} N</td>
            <td class="value figure">{s.fasteners.length}</td>
            <td class="value figure" class:stop={!s.enough}>{s.fasteners.length ? share(s.use) : ''}</td>
            <td>{s.instead}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
{#if p.hold.cleats.length}
  <Wide label="Cleats">
    <table class="facts">
      <caption>Cleats of shelves</caption>
      <thead
        ><tr
          ><th>Shelf</th><th>Wall</th><th class="value">Long</th><th class="value">Top, up</th><th
            class="value"><span>From the level line</span></th
          ><th class="value">Carries</th><th class="value">Screws</th><th class="value">Use</th><td></td></tr
        ></thead
      >
      <tbody>
        {#each p.hold.cleats as c, i (i)}
          <tr>
            <td>{p.name(c.unit)}</td><td>{c.wall}</td>
            <td class="value figure">{whole(c.long_mm)}</td>
            <td class="value figure">{said(c.top_mm)}</td>
            <td class="value figure"
              >{c.under_line_mm === null
                ? ''
                : `${said(Math.abs(c.under_line_mm))} ${c.under_line_mm < 0 ? 'over' : 'under'}`}</td
            >
            <td class="value figure">{Math.ceil(c.load_n)} N</td>
            <td class="value figure">{c.fasteners.length}</td>
            <td class="value figure" class:stop={!c.enough}>{c.fasteners.length ? share(c.use) : ''}</td>
            <td>{c.instead}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
{#if p.hold.underfoot.length}
  <Wide label="Into the floor">
    <table class="facts">
      <caption>Into the floor</caption>
      <thead
        ><tr
          ><th>Unit</th><th class="value">Screws</th><th>Along</th><th>Out</th><th class="value">Use</th><td
          ></td></tr
        ></thead
      >
      <tbody>
        {#each p.hold.underfoot as f, i (i)}
          <tr>
            <td>{p.name(f.unit)}</td>
            <td class="value figure"
              >{f.fasteners.length
                ? `${f.fasteners.length}, to ${f.shank_mm} × ${whole(f.screw_mm)}`
                : 'none'}</td
            >
            <td class="figure">{places(f.fasteners, 0).join(', ')}</td>
            <td class="figure">{places(f.fasteners, 1).join(', ')}</td>
            <td class="value figure" class:stop={!f.enough}>{f.fasteners.length ? share(f.use) : ''}</td>
            <td>{f.instead}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
  <p class="stop">⚠ {p.hold.underfoot[0]!.caution}</p>
{/if}
{#if p.hold.joined.length}
  <Wide label="Unit to unit">
    <table class="facts">
      <caption>Neighbours screwed together, once level and flush; tops from below</caption>
      <tbody>
        {#each p.hold.joined as j, i (i)}
          <tr>
            <td>{p.name(j.units[0] as string)} to {p.name(j.units[1] as string)}</td>
            <td class="figure">{j.fasteners.length} of {whole(j.screw_mm)}</td>
            <td class="figure"
              >{places(j.fasteners, 0).join(' and ')} up, {places(j.fasteners, 1).join(' and ')} out</td
            >
            <td>{j.text}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
{#if !rests.length && !p.hold.ledgers.length && !p.hold.cleats.length && !p.hold.joined.length && !p.hold.underfoot.length && !p.hold.sides.length && !p.hold.nailing.nailers.length}
  <p class="quiet">
    Nothing rests on a ledger, hooks over a batten or lies on cleats here. How a unit hangs is said in Set
    out, where the piece is opened.
  </p>
{/if}

<style>
  article {
    border-top: 1px solid var(--w-line);
    padding: 0.5rem 0;
    break-inside: avoid;
  }
  h2 {
    font-size: 0.9375rem;
  }
  p,
  li {
    font-size: 0.875rem;
    max-width: 60rem;
  }
  .figure {
    white-space: nowrap;
  }
</style>
