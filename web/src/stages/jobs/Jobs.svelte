<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { DeletedJob, Glance, JobDocument, JobLine } from '../../api/types';
  import { Button, FileUploaderButton, Modal, TextInput } from '../../carbon';
  import { asDocument } from '../../entry/facts';
  import { router } from '../../router.svelte';
  import { inView } from '../../state/inview';
  import { keys } from '../../state/keys.svelte';
  import { notices } from '../../state/notices.svelte';
  import { once } from '../../state/once';
  import { remembered } from '../../state/store';
  import { walk } from '../../shell/progress';
  import Invite from '../practice/Invite.svelte';
  import Notches from './Notches.svelte';
  import Onward from './Onward.svelte';
  import SmallPlace from './SmallPlace.svelte';

  let jobs = $state.raw<JobLine[] | null>(null);
  let deleted = $state.raw<DeletedJob[]>([]);
  let sought = $state('');
  let glances = $state.raw<Record<string, Glance>>({});
  const here = inView();
  /** From so many on a list is looked through by typing. */
  const MANY = 10;
  const MOST_DRAWN = 24;
  const shown = $derived(
    (jobs ?? []).filter((j) => `${j.name} ${j.address}`.toLowerCase().includes(sought.trim().toLowerCase())),
  );
  let asked = $state(false);
  let name = $state('');
  let inches = $state(false);

  async function load() {
    try {
      jobs = await remembered('jobs', calls.jobs);
      deleted = await remembered('deleted', calls.deletedJobs);
      void look(jobs);
    } catch (fault) {
      notices.refused(fault);
    }
  }

  /** One after the other, as long as the list is looked at: who opens a job does not wait for the others. */
  async function look(lines: readonly JobLine[]) {
    for (const { id } of lines.slice(0, MOST_DRAWN)) {
      if (!here()) return;
      const found = await remembered(`glance ${id}`, () => calls.glance(id)).catch(() => null);
      if (found) glances = { ...glances, [id]: found };
    }
  }

  onMount(() => {
    document.title = 'Jobs · Wobble';
    keys.page = [{ keys: ['n'], what: 'Start a job', run: () => (asked = true) }];
    void load();
  });

  const start = once(async () => {
    if (!name.trim()) return;
    const blank = { format: 'wobble-job', version: 1, name: name.trim(), units: inches ? 'in' : 'mm' };
    const instruments = [
      { id: 'laser', name: 'Cross-line laser and rule', kind: 'laser line', sigma_mm: 0.7 },
      { id: 'level', name: 'Spirit level with feelers', kind: 'level', sigma_mm: 0.5 },
      { id: 'tape', name: 'Tape', kind: 'tape', sigma_mm: 1 },
    ];
    try {
      const made = await calls.importJob({ ...blank, instruments } as unknown as JobDocument);
      if (here()) router.go(`/jobs/${made.id}/new`);
      else notices.add('success', `${made.job.name} is begun.`);
    } catch (fault) {
      notices.refused(fault);
    }
  });

  async function importFile(files: readonly File[]) {
    for (const file of files) {
      try {
        if (file.name.endsWith('.zip')) {
          const made = await calls.bringAll(file);
          notices.add('success', `${made.length} jobs are in.`, `${file.name} was taken over whole.`);
        } else {
          const made = await calls.importText(await file.text());
          notices.add('success', `${made.job.name} is in.`, `${file.name} was taken over whole.`);
        }
      } catch (fault) {
        notices.refused(fault);
      }
    }
    await load();
  }

  async function remove(line: JobLine) {
    try {
      await calls.deleteJob(line.id);
      notices.add('info', `${line.name} is deleted.`, 'For 30 days it can be brought back, below.', () =>
        back(line.id),
      );
      await load();
    } catch (fault) {
      notices.refused(fault);
    }
  }

  async function back(id: string) {
    try {
      await calls.bringBack(id);
    } catch (fault) {
      notices.refused(fault);
    }
    await load();
  }

  async function forGood(job: DeletedJob) {
    try {
      await calls.deleteJob(job.id);
      notices.add('info', `${job.name} is gone for good.`, '');
    } catch (fault) {
      notices.refused(fault);
    }
    await load();
  }

  /** The same job once more, to try something out or to begin the next one from. */
  const duplicate = once(async (line: JobLine) => {
    try {
      const { job } = await calls.job(line.id);
      await calls.importJob(asDocument({ ...job, name: `${job.name}, copy`.slice(0, 200) }));
    } catch (fault) {
      notices.refused(fault);
    }
    await load();
  });

  const counted = (job: JobLine) =>
    `${job.n_places === 1 ? '1 place' : `${job.n_places} places`}, ${job.n_readings === 1 ? '1 reading' : `${job.n_readings} readings`}`;
  const when = (text: string) =>
    new Date(text).toLocaleDateString(undefined, { day: 'numeric', month: 'long', year: 'numeric' });
</script>

<main class="page">
  <div class="top">
    <h1>Jobs</h1>
    <FileUploaderButton
      kind="ghost"
      size="field"
      labelText="Import a job document"
      accept={['.json', '.zip']}
      disableLabelChanges
      on:change={(e: CustomEvent<readonly File[]>) => void importFile(e.detail)}
    />
    <Button size="field" on:click={() => (asked = true)}>Start a job</Button>
  </div>
  {#if jobs?.length === 0}
    <div class="empty">
      <p>No jobs yet. A job is one place you are fitting out: a workshop, a vestry, a boat.</p>
      <Button on:click={() => (asked = true)}>Start your first job</Button>
    </div>
  {/if}
  {#if (jobs?.length ?? 0) >= MANY}
    <TextInput labelText="Find a job" placeholder="a name, a street" size="sm" bind:value={sought} />
    {#if !shown.length}<p class="quiet">No job is called so.</p>{/if}
  {/if}
  <ul>
    {#each shown as job (job.id)}
      {@const glance = glances[job.id]}
      <li>
        <a class="drawn" href="/jobs/{job.id}" tabindex="-1" aria-hidden="true">
          {#if glance?.places[0]}<SmallPlace place={glance.places[0]} />{/if}
        </a>
        <div class="job">
          <a class="to" href="/jobs/{job.id}">
            <span class="name">{job.name}</span>
            <span class="quiet"
              >{[job.address, counted(job), when(job.changed)].filter(Boolean).join(' · ')}</span
            >
          </a>
          <div class="onward"><Onward job={job.id} next={glance?.next} /></div>
        </div>
        {#if job.n_places}
          <div class="far">
            {#if glance?.places.length}
              <Notches
                job={job.id}
                place={glance.places.length === 1 ? glance.places[0]?.place : undefined}
                stages={walk(glance)}
              />
            {/if}
          </div>
        {/if}
        <span class="acts">
          <button onclick={() => void duplicate(job)} aria-label="Duplicate {job.name}">Duplicate</button>
          <button class="stop" onclick={() => void remove(job)} aria-label="Delete {job.name}">Delete</button>
        </span>
      </li>
    {/each}
  </ul>
  {#if jobs}
    <Invite />
    <p class="quiet"><a href="/words">What the words mean</a></p>
  {/if}
  {#if deleted.length}
    <details>
      <summary>Deleted <span class="figure">{deleted.length}</span></summary>
      <ul>
        {#each deleted as job (job.id)}
          <li class="gone">
            <span>{job.name}</span>
            <span class="quiet">can be brought back until {when(job.until)}</span>
            <span class="acts">
              <button onclick={() => void back(job.id)} aria-label="Bring {job.name} back">Bring back</button>
              <button class="stop" onclick={() => void forGood(job)} aria-label="Delete {job.name} for good"
                >Delete for good</button
              >
            </span>
          </li>
        {/each}
      </ul>
    </details>
  {/if}
</main>

{#if asked}
  <Modal
    open
    modalHeading="Start a job"
    primaryButtonText="Start"
    primaryButtonDisabled={!name.trim()}
    secondaryButtonText="Not now"
    selectorPrimaryFocus="#job-name"
    on:click:button--secondary={() => (asked = false)}
    on:close={() => (asked = false)}
    on:submit={() => void start()}
  >
    <TextInput
      id="job-name"
      labelText="What are you fitting out?"
      placeholder="Mill loft"
      bind:value={name}
    />
    <fieldset>
      <legend>Your tape reads</legend>
      <label><input type="radio" bind:group={inches} value={false} /> millimetres</label>
      <label><input type="radio" bind:group={inches} value={true} /> inches</label>
    </fieldset>
  </Modal>
{/if}

<style>
  .top {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    flex-wrap: wrap;
    margin-bottom: 1.25rem;
  }
  h1 {
    font-size: 1.75rem;
    flex: 1;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0;
    border-top: 2px solid var(--w-ink);
  }
  li {
    display: grid;
    grid-template-columns: 9.5rem 1fr auto;
    gap: 0.25rem 1.25rem;
    align-items: center;
    border-bottom: 1px solid var(--w-line);
    padding: 0.75rem 0.25rem;
  }
  li:hover {
    background: var(--w-sheet);
  }
  .drawn {
    display: block;
    height: 6rem;
    grid-row: 1 / 3;
  }
  /* kept free until it is known how far a job is */
  .far {
    min-height: 2.25rem;
    grid-row: 2;
    grid-column: 2;
  }
  .acts {
    grid-row: 1 / 3;
    grid-column: 3;
  }
  .job {
    display: grid;
    gap: 0.35rem;
    justify-items: start;
  }
  li.gone {
    grid-template-columns: 1fr auto auto;
    padding: 0 0.25rem;
  }
  .to {
    display: flex;
    flex-direction: column;
    gap: 0.1rem;
    color: var(--w-ink);
    text-decoration: none;
  }
  .onward {
    color: var(--w-ink-soft);
  }
  .name {
    font-size: 1.125rem;
    font-weight: 650;
  }
  li button {
    background: none;
    border: 1px solid transparent;
    border-radius: var(--w-radius);
    color: var(--w-ink-soft);
    min-height: 44px;
    padding: 0 0.75rem;
    cursor: pointer;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    justify-content: flex-end;
  }
  details {
    margin-top: 1.5rem;
  }
  summary {
    cursor: pointer;
    min-height: 44px;
    display: flex;
    align-items: center;
    gap: 0.5rem;
    color: var(--w-ink-soft);
  }
  li button:hover {
    border-color: var(--w-line-strong);
    color: var(--w-ink);
  }
  li button.stop:hover {
    border-color: var(--w-stop);
    color: var(--w-stop);
  }
  .empty {
    padding: 3rem 0;
    display: grid;
    gap: 1rem;
    justify-items: start;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 1.25rem 0 0;
    display: flex;
    gap: 1.5rem;
  }
  legend {
    font-size: 0.75rem;
    margin-bottom: 0.4rem;
  }
  @media (pointer: coarse) {
    .far {
      min-height: 44px;
    }
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: min(6rem, 25vw) minmax(0, 1fr);
      gap: 0.25rem 1rem;
    }
    .drawn {
      height: 4.5rem;
      align-self: start;
      grid-row: 1;
    }
    .far,
    .acts {
      grid-column: 1 / -1;
      grid-row: auto;
    }
  }
</style>
