<!-- The job as it went: what was agreed, what went wrong and why, hours, before and after, day by day; to print and keep. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { JobRecord } from '../../api/types';
  import Missing from '../../shell/Missing.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { newest } from '../../state/newest';
  import { notices } from '../../state/notices.svelte';
  import { remembered } from '../../state/store';
  import { waiting } from '../../state/waiting.svelte';
  import PhotoTaker from '../../shell/PhotoTaker.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const id = params['job'] ?? '';
  let record = $state.raw<JobRecord | null>(null);
  const job = $derived(open.stored?.id === id ? open.stored.job : null);
  const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'full' });
  const hour = new Intl.DateTimeFormat(undefined, { timeStyle: 'short' });
  const days = $derived.by(() => {
    const found = new Map<string, JobRecord['entries'][number][]>();
    for (const e of record?.entries ?? []) {
      const name = day.format(new Date(e.at));
      found.set(name, [...(found.get(name) ?? []), e]);
    }
    return [...found];
  });
  const parts = $derived(
    record
      ? ([
          ['Agreed', record.agreed],
          ['Went wrong, and why', record.wrong],
          ['Open for the next job', record.left],
        ] as const)
      : [],
  );
  const src = (digest: string) => `/api/jobs/${id}/photos/${digest}.jpg`;

  const listen = newest();
  async function look() {
    try {
      record = (await listen(remembered(`record ${id}`, () => calls.record(id)))) ?? record;
    } catch (fault) {
      notices.refused(fault);
    }
  }
  const here = inView();
  onMount(() => {
    keys.page = [{ keys: ['p'], what: 'Print the record', run: () => print() }];
    const deaf = waiting.onArrival((j) => {
      if (j === id) void look();
    });
    void open.load(id).then(() => {
      if (!here()) return;
      document.title = `Record · ${open.stored?.job.name ?? ''} · Wobble`;
      if (open.stored) void look();
    });
    return deaf;
  });
</script>

{#if open.missing}
  <Missing what="job" to="/" way="Go to your jobs" />
{:else if job && record}
  <main class="page">
    <h1>{job.name}, as it went</h1>
    <p class="no-print papers">
      <a href="/api/jobs/{id}/record.pdf" target="_blank" rel="noopener">Record as PDF</a>
      <a href="/api/jobs/{id}/job.zip" download>Everything as one ZIP</a>
      {#if record.photos}<span class="quiet"
          >{record.photos} {record.photos === 1 ? 'picture' : 'pictures'}</span
        >{/if}
    </p>
    {#if job.places[0]}
      <PhotoTaker job={id} place={job.places[0].id} about="" of="the job" />
    {/if}
    {#if !record.entries.length}
      <p class="empty">
        Nothing is written down yet. Steps that are ticked in Order, checks of Set, notes and pictures come
        here by themselves, in the order in which they happened.
      </p>
    {/if}
    {#each parts as [name, some] (name)}
      {#if some.length}
        <section>
          <h2>{name}</h2>
          <ul>
            {#each some as e, i (i)}<li>{e.text} <span class="quiet">{e.by}</span></li>{/each}
          </ul>
        </section>
      {/if}
    {/each}
    {#if record.hours.length}
      <section>
        <h2>Hours</h2>
        <ul>
          {#each record.hours as h, i (i)}
            <li>
              {h.by || 'Somebody'}: {h.minutes
                ? `${(h.minutes / 60).toFixed(1)} h by the clock, `
                : ''}{h.steps}
              {h.steps === 1 ? 'step' : 'steps'}
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    {#each record.pairs as p, i (i)}
      <section>
        <h2>{p.name}</h2>
        <div class="pair">
          <figure>
            <img src={src(p.before)} alt="Before: {p.name}" />
            <figcaption>before</figcaption>
          </figure>
          <figure>
            <img src={src(p.after)} alt="After: {p.name}" />
            <figcaption>after</figcaption>
          </figure>
        </div>
      </section>
    {/each}
    {#each days as [name, some] (name)}
      <section>
        <h2>{name}</h2>
        <ol>
          {#each some as e, i (i)}
            <li class:out={e.out || e.note === 'went wrong'}>
              <span class="figure">{hour.format(new Date(e.at))}</span>
              <span class="sort">{e.note && e.note !== 'seen' ? e.note : e.kind}</span>
              <span
                >{e.text}{e.minutes ? `, ${Math.round(e.minutes)} min` : ''}
                {#if e.photo}<img
                    class="small"
                    src={src(e.photo)}
                    alt="{e.moment}: {e.text}"
                    loading="lazy"
                  />{/if}</span
              >
              <span class="quiet">{e.by}</span>
            </li>
          {/each}
        </ol>
      </section>
    {/each}
  </main>
{/if}

<style>
  .papers {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.2rem;
    font-size: 0.875rem;
  }
  section {
    break-inside: avoid-page;
  }
  h2 {
    font-size: 1rem;
  }
  ol {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  ol li {
    display: grid;
    grid-template-columns: 4rem 6rem minmax(0, 1fr) auto;
    gap: 0.6rem;
    border-bottom: 1px solid var(--w-line);
    padding: 0.3rem 0;
    font-size: 0.875rem;
  }
  .sort {
    color: var(--w-ink-soft);
  }
  .out .sort {
    color: var(--w-stop);
    font-weight: 650;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.6rem;
  }
  figure {
    margin: 0;
  }
  img {
    width: 100%;
    border: 1px solid var(--w-line);
  }
  .small {
    display: block;
    max-width: 14rem;
    margin-top: 0.3rem;
  }
  ul {
    font-size: 0.9375rem;
  }
  @media (max-width: 600px) {
    ol li {
      grid-template-columns: 3.4rem minmax(0, 1fr);
    }
  }
</style>
