<script lang="ts">
  import { onMount } from 'svelte';
  import type { LengthUnit } from '../../api/types';
  import { Button, Select, SelectItem, TextArea, TextInput } from '../../carbon';
  import Missing from '../../shell/Missing.svelte';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import Instruments from './Instruments.svelte';
  import Kit from './Kit.svelte';
  import WayIn from './WayIn.svelte';
  import Ways from './Ways.svelte';

  let { params }: { params: Record<string, string> } = $props();
  const id = $derived(params['job'] ?? '');
  const job = $derived(open.stored?.id === id ? open.stored.job : null);

  onMount(() => {
    keys.page = [];
    void open.load(id).then(() => (document.title = `${open.stored?.job.name ?? 'Job'} · Wobble`));
  });

  function about(part: Partial<{ name: string; address: string; note: string; units: LengthUnit }>) {
    if (!job) return;
    const now = {
      name: job.name,
      address: job.address ?? '',
      note: job.note ?? '',
      units: job.units ?? 'mm',
    };
    const next = { ...now, ...part };
    if (next.name.trim() && JSON.stringify(next) !== JSON.stringify(now)) void open.putAbout(now, next);
  }
  const text = (e: Event) => (e.target as HTMLInputElement).value;
</script>

{#if open.missing}
  <Missing what="job" to="/" way="Go to your jobs" />
{:else if job}
  <main class="page">
    <section class="places">
      <h1>{job.name}</h1>
      {#if job.places?.length}
        <ul>
          {#each job.places as place (place.id)}
            <li>
              <h2>{place.name}</h2>
              <p class="quiet">
                {place.units?.length ?? 0} units · {place.readings?.length ?? 0} readings · {place.kind ??
                  'open'}{place.frame === 'body' && place.kind !== 'vehicle' ? ', in a vehicle' : ''}
              </p>
              <div class="go">
                <Button size="small" kind="ghost" href="/jobs/{id}/{place.id}/place">Place</Button>
                <Button size="small" kind="ghost" href="/jobs/{id}/{place.id}/setout">Set out</Button>
                <Button
                  size="small"
                  kind={place.readings?.length ? 'ghost' : 'primary'}
                  href="/jobs/{id}/{place.id}/gauge">Gauge</Button
                >
                <Button
                  size="small"
                  kind={place.readings?.length ? 'primary' : 'ghost'}
                  href="/jobs/{id}/{place.id}/fit">Fit</Button
                >
                <Button size="small" kind="ghost" href="/jobs/{id}/{place.id}/hold">Hold</Button>
                <Button size="small" kind="ghost" href="/jobs/{id}/{place.id}/set">Set</Button>
              </div>
            </li>
          {/each}
        </ul>
      {:else}
        <p class="empty">
          A place is one run of units against a wall. Say what you are building there and how long it is; then
          measure it.
        </p>
      {/if}
      <div class="row">
        <Button kind={job.places?.length ? 'tertiary' : 'primary'} href="/jobs/{id}/new">Add a place</Button>
        {#if job.places?.length}
          <Button kind="tertiary" href="/jobs/{id}/make">Make: parts, cutting, buying</Button>
          <Button kind="tertiary" href="/jobs/{id}/order">Order: what comes next</Button>
          <Button kind="ghost" href="/jobs/{id}/record">Record: the job as it went</Button>
        {/if}
      </div>
    </section>

    <section>
      <h2>About</h2>
      <div class="fields">
        <TextInput
          labelText="Name"
          size="sm"
          value={job.name}
          on:blur={(e: FocusEvent) => about({ name: text(e) })}
        />
        <TextInput
          labelText="Where"
          size="sm"
          value={job.address}
          on:blur={(e: FocusEvent) => about({ address: text(e) })}
        />
        <Select
          labelText="Lengths are shown in"
          size="sm"
          selected={job.units ?? 'mm'}
          on:change={(e: Event) => about({ units: text(e) as LengthUnit })}
        >
          <SelectItem value="mm" text="millimetres" />
          <SelectItem value="in" text="inches and fractions" />
        </Select>
        <div class="note">
          <TextArea
            labelText="Notes"
            rows={2}
            value={job.note}
            on:blur={(e: FocusEvent) => about({ note: text(e) })}
          />
        </div>
      </div>
      <p>
        <a href="/api/jobs/{id}/document" download>Export the job document</a>
        <span class="quiet">(JSON; it comes back in with Import)</span>
      </p>
    </section>
    {#key open.stored?.revision}
      <WayIn way={job.way_in ?? []} />
      <Ways ways={job.constructions ?? []} />
      <Kit kit={job.kit!} />
      <Instruments instruments={job.instruments ?? []} />
    {/key}
  </main>
{/if}

<style>
  .places h1 {
    margin-bottom: 1rem;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0 0 1rem;
    display: grid;
    gap: 0.75rem;
  }
  li {
    background: var(--w-sheet);
    border: 1px solid var(--w-line);
    border-left: 4px solid var(--w-wood-edge);
    padding: 0.9rem 1rem;
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: center;
  }
  li h2 {
    font-size: 1.125rem;
  }
  li p {
    grid-row: 2;
  }
  .go {
    grid-row: 1 / 3;
    grid-column: 2;
    display: flex;
    flex-wrap: wrap;
    gap: 0.35rem;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.6rem;
  }
  .empty {
    max-width: 34rem;
    margin-bottom: 1rem;
  }
  .fields {
    display: grid;
    grid-template-columns: 2fr 2fr 1.4fr;
    gap: 1rem;
    margin-bottom: 1rem;
  }
  .note {
    grid-column: 1 / -1;
  }
  @media (max-width: 760px) {
    .fields,
    li {
      grid-template-columns: 1fr;
    }
    .go {
      grid-row: auto;
      grid-column: 1;
      margin-top: 0.6rem;
    }
  }
</style>
