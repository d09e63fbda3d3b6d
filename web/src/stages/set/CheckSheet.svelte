<!-- All checks of a place on paper: what is right at which spot, and room to write what was read. -->
<script lang="ts">
  import type { Check } from '../../api/types';
  import { showLength } from '../../entry/length';
  import { usePlace } from '../../state/place';
  import { within } from './set';

  interface Props {
    groups: readonly { u: { id: string; name: string }; some: readonly Check[] }[];
  }
  let p: Props = $props();
  const view = usePlace();
  const last = (c: Check) => c.readings.at(-1)?.value_mm ?? null;
  const right = (c: Check) =>
    c.tolerance_mm ? `${c.only === 'more' ? 'up to' : '±'} ${showLength(c.tolerance_mm, view.unit)}` : '';
</script>

<table class="facts print-only sheet">
  <thead>
    <tr>
      <th>Check</th><th class="value">wanted</th><th class="value">right within</th><th class="value">read</th
      ><th>now</th><th>✓</th>
    </tr>
  </thead>
  {#each p.groups as g (g.u.id)}
    <tbody>
      <tr><th colspan="6" scope="rowgroup">{g.u.name}</th></tr>
      {#each g.some as c (c.key)}
        <tr>
          <td>{within(c.name, g.u.name)}</td>
          <td class="value figure"
            >{c.expected_mm !== null && c.expected_mm !== undefined
              ? showLength(c.expected_mm, view.unit)
              : ''}</td
          >
          <td class="value figure">{right(c)}</td>
          <td class="value figure">{last(c) === null ? '' : showLength(last(c)!, view.unit)}</td>
          <td class="blank"></td>
          <td class="blank tick">{c.state === 'right' ? '✓' : c.state === 'out' ? '✗' : ''}</td>
        </tr>
      {/each}
    </tbody>
  {/each}
</table>

<style>
  .sheet {
    display: none;
    width: 100%;
  }
  @media print {
    .sheet {
      display: table;
      font-size: 0.8125rem;
    }
  }
  th[scope='rowgroup'] {
    font-size: 0.875rem;
    font-weight: 650;
    padding-top: 0.6rem;
    color: var(--w-ink);
  }
  tbody {
    break-inside: avoid;
  }
  .figure {
    white-space: nowrap;
  }
  .blank {
    min-width: 5rem;
    border-left: 1px solid var(--w-line);
  }
  .tick {
    min-width: 2rem;
    text-align: center;
  }
</style>
