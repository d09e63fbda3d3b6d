<!-- One cut line, a rod, or what is drilled into a part, at full size, as pages to print; the page on the screen is what comes out of the printer. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { Template } from '../../api/types';
  import { Button } from '../../carbon';
  import Missing from '../../shell/Missing.svelte';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { notices } from '../../state/notices.svelte';

  let { params }: { params: Record<string, string> } = $props();
  const job = $derived(params['job'] ?? '');
  const place = $derived(params['place'] ?? '');
  const mark = $derived(params['mark']);
  const back = $derived(mark ? `/jobs/${job}/make` : `/jobs/${job}/${place}/fit`);
  const stage = $derived(mark ? 'Make' : 'Fit');
  let template = $state.raw<Template | null>(null);
  let missing = $state(false);

  onMount(() => {
    keys.page = [{ keys: ['p'], what: 'Print', run: () => print() }];
    document.title = `${params['rod'] ? 'Rod' : 'Template'} · Wobble`;
    void open.load(job);
    const rod = params['rod'];
    (mark
      ? calls.partTemplate(job, mark)
      : rod
        ? calls.rod(job, place, rod)
        : calls.template(job, place, params['scribe'] ?? '')
    )
      .then((found) => (template = found))
      .catch((fault: unknown) => {
        missing = true;
        notices.refused(fault);
      });
  });
</script>

{#if missing}
  <Missing what={mark ? 'part' : params['rod'] ? 'rod' : 'cut line'} to={back} way="Go to {stage}" />
{:else if template}
  <main class="page">
    <div class="no-print">
      <h1>{template.words[0]}</h1>
      <p>{template.words.slice(1).join(' ')}</p>
      <ol>
        <li>
          Print at 100 %, not “fitted to the page”, on A4 or Letter. Measure the bar on the first page: where
          it is not 100 mm, mend the printer's scale before you cut.
        </li>
        {#if params['rod']}
          <li>
            Cut the strips out and tape them end to end, the foot of each on the dashed line of the one
            before; glue them to a stick.
          </li>
          <li>
            What is <b>behind</b> is dashed, what is in the way dotted. Detect before you drill: a mark is no find.
          </li>
        {:else if mark}
          <li>
            Each page says which face is up and from where on the part it is; pages without a hole are left
            out.
          </li>
          <li>
            Lay it to the part's edges, prick the middles through, and drill where the blue lines cross.
          </li>
        {:else}
          <li>Lay the pages on each other by their crosses and tape them; the names say which follows.</li>
          <li>
            Read “face up” on the sheet before you lay it on the piece: turned over it is the mirror image.
          </li>
        {/if}
      </ol>
      <div class="go">
        {#if template.tiles.length}
          <Button size="small" on:click={() => print()}
            >Print {template.tiles.length} {template.tiles.length > 1 ? 'pages' : 'page'}</Button
          >
        {:else}<p>Nothing is drilled into it or cut off it: there is no page to print.</p>{/if}
        <Button size="small" kind="ghost" href={back}>Back to {stage}</Button>
      </div>
    </div>
    <div class="tiles">
      {#each template.tiles as tile (tile.name)}
        <figure aria-label="Page {tile.name}">
          <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own server, from numbers and escaped words -->
          {@html tile.svg}
        </figure>
      {/each}
    </div>
  </main>
{/if}

<style>
  h1 {
    font-size: 1.25rem;
  }
  ol {
    margin: 0.75rem 0 0.75rem 1.2rem;
    list-style: decimal;
    font-size: 0.875rem;
  }
  .go {
    display: flex;
    gap: 0.5rem;
  }
  .tiles {
    overflow-x: auto;
    position: relative;
  }
  figure {
    margin: 0 0 1rem;
    width: 190mm;
    background: #fff;
    color: #000;
    page: full;
    break-after: page;
    break-inside: avoid;
  }
  figure :global(svg) {
    display: block;
  }
  /* narrow margins, or a page at full size would be broken in two, or shrunk to what is left of the paper */
  @page full {
    margin: 6mm 8mm 14mm !important; /* what is said of all paper comes later */
  }
  @media print {
    .page {
      padding: 0;
      max-width: none;
      display: block;
    }
    .tiles {
      overflow: visible;
    }
    figure {
      margin: 0;
    }
  }
</style>
