<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import type { Glance, LengthUnit, StageAt } from '../../api/types';
  import { Button, Select, SelectItem } from '../../carbon';
  import TextField from '../../entry/TextField.svelte';
  import Fold from '../../shell/Fold.svelte';
  import Missing from '../../shell/Missing.svelte';
  import { inView } from '../../state/inview';
  import { open } from '../../state/job.svelte';
  import { keys } from '../../state/keys.svelte';
  import { remembered } from '../../state/store';
  import { STAGES, walk } from '../../shell/progress';
  import Instruments from './said/Instruments.svelte';
  import Kit from './said/Kit.svelte';
  import Notches from './Notches.svelte';
  import Onward from './Onward.svelte';
  import SmallPlace from './SmallPlace.svelte';
  import WayIn from './said/WayIn.svelte';
  import Ways from './said/Ways.svelte';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const id = params['job'] ?? '';
  const job = $derived(open.stored?.id === id ? open.stored.job : null);

  let glance = $state.raw<Glance | null>(null);

  const here = inView();
  onMount(() => {
    keys.page = [];
    void open.load(id).then(() => {
      if (here()) document.title = `${open.stored?.job.name ?? 'Job'} · Wobble`;
    });
  });

  $effect(() => {
    if (open.stored?.id !== id || open.stored.revision < 0) return undefined;
    let wanted = true;
    void remembered(`glance ${id}`, () => calls.glance(id))
      .then((found) => wanted && (glance = found))
      .catch(() => undefined); // the page stands without it
    return () => {
      wanted = false;
    };
  });

  /** Until it is known how far a place is, all its stages lead there and say nothing. */
  const blank = (place: { units?: unknown[] }): StageAt[] =>
    STAGES.map((stage) => ({
      stage,
      done: 0,
      of: stage === 'setout' ? (place.units?.length ?? 0) : 0,
      stops: 0,
    }));
  const counted = (n: number, what: string, many = `${what}s`) => `${n} ${n === 1 ? what : many}`;

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
      <div class="onward"><Onward job={id} next={glance?.next} /></div>
      {#if job.places?.length}
        <ul>
          {#each job.places as place (place.id)}
            {@const seen = glance?.places.find((p) => p.place === place.id)}
            <li>
              <a class="drawn" href="/jobs/{id}/{place.id}/fit" tabindex="-1" aria-hidden="true">
                {#if seen}<SmallPlace place={seen} />{/if}
              </a>
              <div>
                <h2>{place.name}</h2>
                <p class="quiet">
                  {counted(place.units?.length ?? 0, 'unit')} · {counted(
                    place.readings?.length ?? 0,
                    'reading',
                  )} · {place.kind ?? 'open'}{place.frame === 'body' && place.kind !== 'vehicle'
                    ? ', in a vehicle'
                    : ''} ·
                  <a href="/jobs/{id}/{place.id}/place">size and what it is</a>
                </p>
                <Notches
                  job={id}
                  place={place.id}
                  stages={glance && seen ? walk(glance, seen) : blank(place)}
                />
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

    <div>
      <Fold
        title="About"
        id="about"
        holds={[job.address, job.units === 'in' ? 'inches and fractions' : 'millimetres', job.note]
          .filter(Boolean)
          .join(' · ')}
      >
        <div class="fields">
          <TextField value={job.name} ontext={(name) => about({ name })} />
          <TextField label="Where" optional value={job.address} ontext={(address) => about({ address })} />
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
            <TextField label="Notes" optional rows={2} value={job.note} ontext={(note) => about({ note })} />
          </div>
        </div>
        <p>
          <a href="/api/jobs/{id}/document" download>Export the job document</a>
          <span class="quiet">(JSON; it comes back in with Import)</span>
        </p>
      </Fold>
      <Fold
        title="The way in"
        id="way-in"
        holds={(job.way_in ?? []).map((p) => p.name).join(' → ') || 'nothing said: anything passes'}
      >
        <WayIn way={job.way_in ?? []} />
      </Fold>
      <Fold
        title="How carcasses are built"
        id="ways"
        holds={(job.constructions ?? []).map((c) => c.name).join(', ') || 'as is usual'}
      >
        <Ways ways={job.constructions ?? []} />
      </Fold>
      <Fold
        title="Shim kit"
        id="kit"
        holds={counted(job.kit?.pieces?.length ?? 0, 'thickness', 'thicknesses')}
      >
        <Kit kit={job.kit!} />
      </Fold>
      <Fold
        title="Instruments"
        id="instruments"
        holds={(job.instruments ?? []).map((i) => i.name).join(', ')}
      >
        <Instruments instruments={job.instruments ?? []} />
      </Fold>
    </div>
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
    padding: 0.9rem 1rem;
    display: grid;
    grid-template-columns: 15rem 1fr;
    gap: 1.25rem;
    align-items: center;
  }
  .drawn {
    height: 9rem;
  }
  li h2 {
    font-size: 1.125rem;
  }
  li p {
    margin: 0.15rem 0 0.75rem;
  }
  .onward {
    font-size: 1.125rem;
    margin: 0 0 1rem;
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
  }
</style>
