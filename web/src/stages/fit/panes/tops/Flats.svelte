<!-- Tops and shelves: each its own outline, blank, cleats, sag and way in. -->
<script lang="ts">
  import type { PlaceFit, Figure, FlatPart } from '../../../../api/types';
  import { showLength } from '../../../../entry/length';
  import Measure from '../../../../entry/Measure.svelte';
  import { usePlace } from '../../../../state/place';

  interface Props {
    fit: PlaceFit;
    onfigure: (title: string, figure: Figure) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
  const whole = (mm: number) => showLength(mm, view.unit, 0);

  /** The outline from above, its angles drawn ten times as far from square. */
  function outline(f: FlatPart): string {
    const c = f.corners as [number, number][];
    const x0 = Math.min(...c.map((q) => q[0]));
    const y0 = Math.min(...c.map((q) => q[1]));
    const w = Math.max(...c.map((q) => q[0])) - x0;
    const d = Math.max(...c.map((q) => q[1])) - y0;
    const mid = [x0 + w / 2, y0 + d / 2] as const;
    const square = (q: [number, number]): [number, number] => [
      q[0] < mid[0] ? x0 : x0 + w,
      q[1] < mid[1] ? y0 : y0 + d,
    ];
    const pts = c.map((q) => {
      const s = square(q);
      const x = s[0] + (q[0] - s[0]) * 10;
      const y = s[1] + (q[1] - s[1]) * 10;
      return `${(20 + ((x - x0) / w) * 200).toFixed(1)},${(15 + ((y - y0) / d) * 50).toFixed(1)}`;
    });
    return `M${pts.join('L')}Z`;
  }
</script>

{#each p.fit.flats as f, i (i)}
  <article>
    <h2>{name(f.unit)} <small class="quiet">underside {showLength(f.height_mm, view.unit)} up</small></h2>
    <svg viewBox="0 0 240 80" width="240" height="80" aria-hidden="true"><path d={outline(f)} /></svg>
    <dl>
      {#each [['along the back', f.at_back], ['along the front', f.at_front], ['deep at the left', f.at_left], ['deep at the right', f.at_right]] as const as [what, figure] (what)}
        <div>
          <dt>{what}</dt>
          <dd>
            <button class="link" onclick={() => p.onfigure(`${name(f.unit)}, ${what}`, figure)}
              ><Measure mm={figure.value_mm} sd={figure.sd_mm} /></button
            >
          </dd>
        </div>
      {/each}
      <div>
        <dt>angles at the back</dt>
        <dd class="figure">{f.left_deg.toFixed(2)}° left, {f.right_deg.toFixed(2)}° right</dd>
      </div>
      <div>
        <dt>diagonals</dt>
        <dd class="figure">
          {showLength(f.diagonals[0] as number, view.unit)}, {showLength(f.diagonals[1] as number, view.unit)}
        </dd>
      </div>
      <div>
        <dt>cut the blank to</dt>
        <dd class="figure">{whole(f.blank_mm[0] as number)} × {whole(f.blank_mm[1] as number)}</dd>
      </div>
      {#if f.seams_at.length}
        <div>
          <dt>seams at</dt>
          <dd class="figure">{f.seams_at.map(whole).join(', ')}</dd>
        </div>
      {/if}
      {#if f.tilt}
        <div>
          <dt>goes in level / tilted</dt>
          <dd class="figure">
            {Math.floor(f.tilt.straight * 100)} % / {Math.floor(f.tilt.tilted * 100)} %, swing
            {showLength(f.tilt.swing_mm, view.unit)}
          </dd>
        </div>
      {/if}
      {#if f.moves}
        <div>
          <dt>moves across in a year</dt>
          <dd>
            <button class="link" onclick={() => p.onfigure(`Movement of ${name(f.unit)}`, f.moves!)}
              ><Measure mm={f.moves.value_mm} sd={f.moves.sd_mm} /></button
            > <span class="quiet">leave {whole(f.gap_mm)}</span>
          </dd>
        </div>
      {/if}
      {#if f.sag}
        {@const sag = f.sag}
        <div>
          <dt>sags over {whole(f.span_mm)}, after years</dt>
          <dd>
            <button class="link" onclick={() => p.onfigure(`Sag of ${name(f.unit)}`, sag.later)}
              ><Measure mm={sag.later.value_mm} sd={sag.later.sd_mm} /></button
            >
            <span class="quiet"
              >limit {showLength(sag.limit_mm, view.unit)}; supports at most {whole(
                Math.floor(sag.spacing_mm),
              )}
              apart</span
            >
          </dd>
        </div>
      {/if}
      {#each f.cleats as cleat, i (i)}
        <div>
          <dt>cleat at the {cleat.wall}</dt>
          <dd class="figure">
            {whole(cleat.long_mm)} long, its top {showLength(cleat.top_mm, view.unit)} up
          </dd>
        </div>
      {/each}
    </dl>
    {#if f.sag}<p class="quiet">
        ⚠ Sag is a planning figure for the load that you gave; keep to the maker's tables for anything heavy.
      </p>{/if}
  </article>
{:else}
  <p class="quiet">
    No top and no shelf yet. Add one on the place's page as a unit of that kind, and say which walls it meets.
  </p>
{/each}

<style>
  article {
    border-top: 1px solid var(--w-line);
    padding: 0.6rem 0;
    break-inside: avoid;
  }
  h2 {
    font-size: 0.9375rem;
  }
  path {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 1.4;
  }
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
    gap: 0.35rem 1rem;
    font-size: 0.875rem;
  }
  dt {
    color: var(--w-ink-soft);
    font-size: 0.75rem;
  }
  dd button {
    padding: 0;
    min-height: 24px;
  }
  p {
    font-size: 0.8125rem;
    margin-top: 0.4rem;
  }
</style>
