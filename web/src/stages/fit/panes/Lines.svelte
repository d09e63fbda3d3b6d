<!-- Every edge that is cut to a wall: compass, blank, undercut, which side is up, and the line as a table. -->
<script lang="ts">
  import type { Scribe } from '../../../api/types';
  import { showLength, showSpread } from '../../../entry/length';
  import Wide from '../../../shell/Wide.svelte';
  import { usePlace } from '../../../state/place';

  interface Props {
    scribes: readonly Scribe[];
    /** Address of the place's cut lines in the API, and of the page that prints them. */
    files: string;
    pages: string;
    /** Figures as they were under the decision kept last. */
    before: ReadonlyMap<string, number>;
  }
  let p: Props = $props();
  const view = usePlace();
  const WHERE: Record<Scribe['hand'], string> = {
    left: 'at the left',
    right: 'at the right',
    far: 'at the far edge',
    near: 'at the foot',
  };

  const WHAT: Record<Scribe['surface'], string> = {
    floor: 'floor',
    ceiling: 'ceiling',
    back: 'wall',
    left: 'wall',
    right: 'wall',
  };

  /** Whether its cut edge lies along the picture. */
  const lying = (s: Scribe) => s.hand === 'far' || s.hand === 'near';

  /** A small picture seen from the face: the piece, and its cut edge, drawn ten times as crooked. */
  function sketch(s: Scribe): string {
    const least = Math.min(...s.line.map((q) => q.left_mm));
    const most = Math.max(...s.line.map((q) => q.left_mm));
    const span = Math.max(most - least, 2);
    const pts = s.line.map((q) => {
      const t = q.along_mm / s.long_mm;
      const off = 8 + ((q.left_mm - least) / span) * 10;
      if (lying(s)) return `${(4 + t * 92).toFixed(1)},${(s.hand === 'far' ? 24 - off : off + 4).toFixed(1)}`;
      const y = s.flat ? 4 + t * 92 : 96 - t * 92;
      return `${(s.hand === 'left' ? 24 - off : off).toFixed(1)},${y.toFixed(1)}`;
    });
    const close = lying(s)
      ? `L96,${s.hand === 'far' ? 28 : 2}L4,${s.hand === 'far' ? 28 : 2}Z`
      : s.hand === 'left'
        ? `L28,${s.flat ? 96 : 4}L28,${s.flat ? 4 : 96}Z`
        : `L0,${s.flat ? 96 : 4}L0,${s.flat ? 4 : 96}Z`;
    return `M${pts.join('L')}${close}`;
  }
</script>

{#each p.scribes as s (s.id)}
  <article>
    <svg
      viewBox={lying(s) ? '0 0 100 30' : '0 0 30 100'}
      width={lying(s) ? 100 : 30}
      height={lying(s) ? 30 : 100}
      role="img"
      aria-label="Seen from the face, the cut edge lies {WHERE[s.hand]}"><path d={sketch(s)} /></svg
    >
    <div>
      <h2>{s.piece}</h2>
      <p>
        <b>Face up</b>, the {WHAT[s.surface]} is <b>{WHERE[s.hand]}</b>{s.flat && s.hand !== 'far'
          ? ', the back away from you'
          : ''}. Compass
        <b class="figure">{showLength(s.compass_mm, view.unit)}</b
        >{#if (p.before.get(`scribe ${s.id}`) ?? s.compass_mm) !== s.compass_mm}{' '}<small class="was"
            >(was {showLength(p.before.get(`scribe ${s.id}`)!, view.unit)})</small
          >{/if}{#if s.blank_mm}, blank
          <b class="figure">{showLength(s.blank_mm, view.unit, 0)}</b>{:else}, it carries
          <b class="figure" class:stop={s.there_mm < s.needed_mm}>{showLength(s.there_mm, view.unit)}</b> of
          the
          <b class="figure">{showLength(s.needed_mm, view.unit)}</b> needed{/if}. Undercut
        <b class="figure">{Math.ceil(s.bevel_deg)}°</b> from the face.
      </p>
      <Wide label="Points of {s.piece}">
        <table class="facts">
          <thead
            ><tr
              ><th>{s.along[0]!.toUpperCase() + s.along.slice(1)}</th>{#each s.line as q, i (i)}<td
                  class="value figure">{showLength(q.along_mm, view.unit, 0)}</td
                >{/each}</tr
            ></thead
          >
          <tbody>
            <tr
              ><th>Left of the piece</th>{#each s.line as q, i (i)}<td class="value figure"
                  >{showLength(q.left_mm, view.unit)}
                  <small class="quiet">{showSpread(q.sd_mm, view.unit)}</small></td
                >{/each}</tr
            >
          </tbody>
        </table>
      </Wide>
      <p class="no-print">
        <a href="{p.pages}/{s.id}">Print at full size</a> ·
        <a href="{p.files}/{s.id}/line.svg" download>SVG</a> ·
        <a href="{p.files}/{s.id}/line.dxf" download>DXF</a>
      </p>
    </div>
  </article>
{:else}
  <p class="quiet">
    Nothing is scribed to a wall. Choose filler strips, end panels or a face frame under “Sides”, or say which
    walls a top meets.
  </p>
{/each}

<style>
  article {
    display: grid;
    grid-template-columns: 104px minmax(0, 1fr);
    gap: 0.75rem;
    border-top: 1px solid var(--w-line);
    padding: 0.6rem 0;
    break-inside: avoid;
  }
  h2 {
    font-size: 0.9375rem;
  }
  p {
    font-size: 0.875rem;
  }
  svg {
    justify-self: center;
  }
  path {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 1.2;
  }
  .was {
    color: var(--w-mind);
  }
  @media (max-width: 760px) {
    article {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
