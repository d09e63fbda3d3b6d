<!-- What are you building? One touch on a kind of job, a few numbers, and it is set out whole. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../../api/calls';
  import type { StarterTold } from '../../../api/types';
  import { Button, Select, SelectItem, TextInput } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';
  import { router } from '../../../router.svelte';
  import Missing from '../../../shell/Missing.svelte';
  import { inView } from '../../../state/inview';
  import { open } from '../../../state/job.svelte';
  import { keys } from '../../../state/keys.svelte';
  import { notices } from '../../../state/notices.svelte';
  import { remembered } from '../../../state/store';
  import Count from '../panes/Count.svelte';
  import StarterSketch from './StarterSketch.svelte';
  import { newKey } from './key';

  let { params }: { params: Record<string, string> } = $props();
  // svelte-ignore state_referenced_locally (each address has a page of its own)
  const id = params['job'] ?? '';
  /** Nothing is drawn before they are here: what is pressed meanwhile would have become another one. */
  let starters = $state.raw<StarterTold[] | null>(null);
  let chosen = $state.raw<StarterTold | null>(null);
  let answers = $state.raw<Record<string, number | string>>({});
  let name = $state('');
  let busy = $state(false);
  let form = $state<HTMLElement>();

  onMount(() => {
    keys.page = [{ keys: ['Escape'], what: 'Choose something else', run: () => (chosen = null) }];
    document.title = 'What are you building? · Wobble';
    void (async () => {
      await open.load(id);
      try {
        starters = await remembered(`starters ${open.units}`, () => calls.starters(open.units));
      } catch (fault) {
        starters = [];
        notices.refused(fault);
      }
    })();
  });

  function choose(starter: StarterTold) {
    chosen = starter;
    name = starter.name;
    answers = {};
    requestAnimationFrame(() => {
      form?.scrollIntoView({ block: 'nearest' });
      form?.querySelector<HTMLElement>('h2')?.focus();
    });
  }
  const usual = (q: StarterTold['questions'][number]) =>
    answers[q.id] ??
    (q.kind === 'choice'
      ? (q.options?.[0] ?? '')
      : q.kind === 'count'
        ? (q.usual ?? 1)
        : open.units === 'mm'
          ? (q.usual_mm ?? 0)
          : (q.usual_in ?? 0) * 25.4);
  const answer = (key: string, value: number | string) => (answers = { ...answers, [key]: value });

  const here = inView();
  async function begin() {
    if (!chosen || busy) return;
    busy = true;
    const key = newKey(name, open.stored?.job.places ?? []);
    try {
      await calls.begin(id, { starter: chosen.id, id: key, name: name.trim() || chosen.name, answers });
      if (here()) router.go(`/jobs/${id}/${key}/setout`);
    } catch (fault) {
      notices.refused(fault);
    }
    busy = false;
  }
</script>

{#if open.missing}
  <Missing what="job" to="/" way="Go to your jobs" />
{:else if open.stored}
  <main class="page" style:max-width="76rem">
    <h1>What are you building?</h1>
    {#if chosen}
      {@const now = chosen}
      <section class="asked" bind:this={form}>
        <div class="drawn"><StarterSketch starter={now} /></div>
        <form
          onsubmit={(e) => {
            e.preventDefault();
            void begin();
          }}
        >
          <h2 tabindex="-1">{now.name}</h2>
          <p class="quiet">{now.words} All of it can be changed on the drawing.</p>
          <div class="fields">
            <TextInput
              labelText="Where is it?"
              size="sm"
              value={name}
              on:input={(e: CustomEvent<string | number | null>) => (name = String(e.detail ?? ''))}
            />
            {#each now.questions as q (q.id)}
              {#if q.kind === 'choice'}
                <Select
                  labelText={q.words}
                  size="sm"
                  selected={String(usual(q))}
                  on:change={(e: Event) => answer(q.id, (e.target as HTMLSelectElement).value)}
                >
                  {#each q.options ?? [] as o (o)}<SelectItem value={o} text={o} />{/each}
                </Select>
              {:else if q.kind === 'count'}
                <Count
                  label={q.words}
                  value={Number(usual(q))}
                  least={q.least ?? 1}
                  most={q.most ?? 12}
                  onchange={(n) => answer(q.id, n)}
                />
              {:else}
                <LengthField
                  label={q.words}
                  value={Number(usual(q))}
                  least={q.least_mm ?? 0}
                  onchange={(mm) => answer(q.id, mm!)}
                />
              {/if}
            {/each}
          </div>
          <div class="end">
            <Button type="submit" disabled={busy}>Set it out</Button>
            <Button kind="ghost" on:click={() => (chosen = null)}>Something else</Button>
          </div>
        </form>
      </section>
    {/if}
    {#if !chosen && starters}
      <ul>
        {#each starters as s (s.id)}
          <li>
            <button onclick={() => choose(s)}>
              <StarterSketch starter={s} />
              <strong>{s.name}</strong>
              <span class="quiet">{s.words}</span>
            </button>
          </li>
        {/each}
        <li>
          <a class="bare" href="/jobs/{id}/empty">
            <strong>An empty place</strong>
            <span class="quiet">Say its size, measure it first, and put pieces in as you go.</span>
          </a>
        </li>
      </ul>
    {/if}
  </main>
{/if}

<style>
  ul {
    list-style: none;
    margin: 1rem 0 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(205px, 1fr));
    gap: 0.75rem;
  }
  li button,
  .bare {
    display: grid;
    gap: 0.15rem;
    width: 100%;
    height: 100%;
    align-content: start;
    text-align: left;
    background: var(--w-sheet);
    border: 1px solid var(--w-line);
    border-radius: var(--w-radius);
    padding: 0.6rem 0.75rem 0.75rem;
    color: var(--w-ink);
    cursor: pointer;
    text-decoration: none;
  }
  li button:hover,
  .bare:hover {
    border-color: var(--w-chalk);
    background: var(--w-raised);
  }
  li span {
    font-size: 0.8125rem;
  }
  .bare {
    border-style: dashed;
    align-content: center;
  }
  .asked {
    display: grid;
    grid-template-columns: minmax(200px, 340px) 1fr;
    gap: 1.5rem;
    align-items: start;
    margin-top: 1rem;
  }
  .drawn {
    background: var(--w-sheet);
    border: 1px solid var(--w-line);
    padding: 1rem;
  }
  h2:focus {
    outline: none;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
    gap: 1rem;
    align-items: end;
    margin: 1rem 0;
  }
  .end {
    display: flex;
    gap: 0.75rem;
  }
  @media (max-width: 760px) {
    .asked {
      grid-template-columns: 1fr;
    }
    .drawn {
      max-width: 240px;
    }
    ul {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
