<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { DeletedJob, JobDocument, JobLine } from '../../api/types';
  import { Button, FileUploaderButton, Modal, TextInput } from '../../carbon';
  import { asDocument } from '../../entry/facts';
  import { router } from '../../router.svelte';
  import { keys } from '../../state/keys.svelte';
  import { notices } from '../../state/notices.svelte';
  import { remembered } from '../../state/store';

  let jobs = $state.raw<JobLine[] | null>(null);
  let deleted = $state.raw<DeletedJob[]>([]);
  let sought = $state('');
  /** From so many on a list is looked through by typing. */
  const MANY = 10;
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
    } catch (fault) {
      notices.refused(fault);
    }
  }

  onMount(() => {
    document.title = 'Jobs · Wobble';
    keys.page = [{ keys: ['n'], what: 'Start a job', run: () => (asked = true) }];
    void load();
  });

  async function start() {
    if (!name.trim()) return;
    const blank = { format: 'wobble-job', version: 1, name: name.trim(), units: inches ? 'in' : 'mm' };
    const instruments = [
      { id: 'laser', name: 'Cross-line laser and rule', kind: 'laser line', sigma_mm: 0.7 },
      { id: 'level', name: 'Spirit level with feelers', kind: 'level', sigma_mm: 0.5 },
      { id: 'tape', name: 'Tape', kind: 'tape', sigma_mm: 1 },
    ];
    try {
      const made = await calls.importJob({ ...blank, instruments } as unknown as JobDocument);
      router.go(`/jobs/${made.id}/new`);
    } catch (fault) {
      notices.refused(fault);
    }
  }

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
  async function duplicate(line: JobLine) {
    try {
      const { job } = await calls.job(line.id);
      await calls.importJob(asDocument({ ...job, name: `${job.name}, copy`.slice(0, 200) }));
    } catch (fault) {
      notices.refused(fault);
    }
    await load();
  }

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
      <li>
        <a href="/jobs/{job.id}">
          <span class="name">{job.name}</span>
          <span class="quiet">{job.address}</span>
        </a>
        <span class="facts quiet">
          {job.n_places === 1 ? '1 place' : `${job.n_places} places`} · {job.n_readings === 1
            ? '1 reading'
            : `${job.n_readings} readings`}
        </span>
        <span class="quiet when">{when(job.changed)}</span>
        <span class="acts">
          <button onclick={() => void duplicate(job)} aria-label="Duplicate {job.name}">Duplicate</button>
          <button class="stop" onclick={() => void remove(job)} aria-label="Delete {job.name}">Delete</button>
        </span>
      </li>
    {/each}
  </ul>
  {#if deleted.length}
    <details>
      <summary>Deleted <span class="figure">{deleted.length}</span></summary>
      <ul>
        {#each deleted as job (job.id)}
          <li>
            <span>{job.name}</span>
            <span class="quiet">can be brought back until {when(job.until)}</span>
            <span></span>
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
    grid-template-columns: 1fr auto 10rem auto;
    gap: 1.5rem;
    align-items: center;
    border-bottom: 1px solid var(--w-line);
    padding: 0 0.25rem;
  }
  li:hover {
    background: var(--w-sheet);
  }
  a {
    display: flex;
    flex-direction: column;
    gap: 0.1rem;
    padding: 0.9rem 0;
    color: var(--w-ink);
    text-decoration: none;
  }
  .name {
    font-size: 1.125rem;
    font-weight: 650;
  }
  .when {
    text-align: right;
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
  @media (max-width: 760px) {
    li {
      grid-template-columns: 1fr auto;
      gap: 0 1rem;
    }
    .facts {
      grid-row: 2;
      padding-bottom: 0.75rem;
    }
    a {
      padding-bottom: 0.2rem;
    }
    .when {
      grid-row: 2;
      padding-bottom: 0.75rem;
    }
  }
</style>
