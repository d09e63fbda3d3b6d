<!-- Whether everything gets to its place, in the order in which it goes. -->
<script lang="ts">
  import { SURE } from '../../../api/fields';
  import type { PlaceFit } from '../../../api/types';
  import { showLength, showSpread } from '../../../entry/length';
  import { usePlace } from '../../../state/place';

  interface Props {
    fit: PlaceFit;
    /** Address of the job, where the way in is said. */
    job: string;
  }
  let p: Props = $props();
  const view = usePlace();
  const name = (id: string) => p.fit.units.find((u) => u.id === id)?.name ?? id;
</script>

<p class="quiet no-print">
  Doors, corners, stairs and where things are stood up are said <a href="{p.job}#way-in">on the job's page</a
  >. Sizes are taken as said; walls and ceiling as measured.
</p>
<ol>
  {#each p.fit.access as g, i (i)}
    <li>
      <h2>
        {g.order}. {name(g.unit)} <small class="quiet">{g.why}</small>
        <b class:stop={!g.goes_in || g.chance < SURE}
          >{g.goes_in ? (g.chance >= SURE ? 'goes in' : 'may go in') : 'does not go in'}{g.passes.length
            ? `, ${Math.floor(g.chance * 100)} %`
            : ': nothing in its way that was measured'}</b
        >
      </h2>
      {#if g.passes.length}
        <ul>
          {#each g.passes as step, i (i)}
            <li>
              <span class:stop={!step.goes}>{step.where}</span>
              <span class="figure"
                >{showLength(step.spare_mm, view.unit)}{step.sd_mm
                  ? ` ${showSpread(step.sd_mm, view.unit)}`
                  : ''}</span
              >
              <span class="quiet">{step.spare_mm < 0 ? 'missing' : 'to spare'}; {step.how}</span>
            </li>
          {/each}
        </ul>
      {/if}
      {#each g.instead as words, i (i)}<p class="mind">→ {words}</p>{/each}
      {#if g.caution}<p class="stop">⚠ {g.caution}</p>{/if}
    </li>
  {/each}
</ol>

<style>
  ol,
  ul {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  ol > li {
    border-top: 1px solid var(--w-line);
    padding: 0.5rem 0;
    break-inside: avoid;
  }
  h2 {
    font-size: 0.9375rem;
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.6rem;
    align-items: baseline;
  }
  h2 b {
    margin-left: auto;
    color: var(--w-fine);
    font-size: 0.875rem;
  }
  ul li {
    display: grid;
    grid-template-columns: minmax(8rem, 12rem) 8.5rem 1fr;
    gap: 0.5rem;
    font-size: 0.875rem;
  }
  p {
    font-size: 0.875rem;
  }
  .stop,
  h2 b.stop {
    color: var(--w-stop);
  }
  @media (max-width: 760px) {
    ul li {
      grid-template-columns: 1fr auto;
    }
    ul li .quiet {
      grid-column: 1 / -1;
    }
  }
</style>
