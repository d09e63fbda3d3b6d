<!-- Day by day: what is done when, by whom, with a sheet to print for each. -->
<script lang="ts">
  import type { Person, PlannedStep, SessionPlan } from '../../api/types';
  import { sayDay, sayHour, sayMinutes } from './order';

  interface Props {
    job: string;
    now: string;
    sessions: readonly SessionPlan[];
    steps: readonly PlannedStep[];
    people: readonly Person[];
    lit: string | null;
    onpick: (key: string) => void;
  }
  let { job, now, sessions, steps, people, lit, onpick }: Props = $props();
  const by = $derived(new Map(steps.map((s) => [s.step.key, s])));
  const name = (id: string) => people.find((p) => p.id === id)?.name ?? 'you';
  const days = $derived(
    [...new Set(sessions.map((s) => s.start.slice(0, 10)))].map((day) => ({
      day,
      sessions: sessions.filter((s) => s.start.startsWith(day)),
    })),
  );
  const mine = (s: PlannedStep, session: SessionPlan) =>
    (s.stretches ?? []).filter((x) => x.start >= session.start && x.start < session.end);
</script>

{#each days as { day, sessions: some } (day)}
  <section>
    <h2>
      {sayDay(day)}
      <a
        class="no-print"
        href="/api/jobs/{job}/days/{day}.pdf?now={encodeURIComponent(now)}"
        target="_blank"
        rel="noopener">day sheet</a
      >
    </h2>
    {#each some as session, i (i)}
      <p class="quiet">
        {session.name}, {sayHour(session.start)} to {sayHour(session.end)}: {session.people
          .map(name)
          .join(' and ')},
        {sayMinutes(session.used)} of {sayMinutes(session.minutes)}
      </p>
      <ol>
        {#each session.steps as key (key)}
          {@const s = by.get(key)}
          {#if s}
            {@const at = mine(s, session)}
            <li class:lit={lit === key}>
              <span class="figure">{at[0] ? sayHour(at[0].start) : ''}</span>
              <button onclick={() => onpick(key)}>{s.step.name}</button>
              <span class="quiet">{[...new Set(at.flatMap((x) => x.people))].map(name).join(', ')}</span>
            </li>
          {/if}
        {/each}
      </ol>
    {/each}
  </section>
{:else}
  <p class="empty">Nothing is planned. Say when you work under “Sessions”.</p>
{/each}

<style>
  section {
    break-inside: avoid;
    border-top: 1px solid var(--w-line);
    padding: 0.5rem 0;
  }
  h2 {
    font-size: 0.9375rem;
    margin: 0;
    display: flex;
    gap: 1rem;
    align-items: baseline;
  }
  h2 a {
    font-size: 0.8125rem;
    font-weight: 400;
  }
  p {
    font-size: 0.8125rem;
    margin: 0.2rem 0;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 3.4rem minmax(0, 1fr) auto;
    gap: 0.5rem;
    align-items: center;
    font-size: 0.875rem;
    min-height: 30px;
  }
  li.lit {
    background: var(--w-chalk-wash);
  }
  li button {
    background: none;
    border: 0;
    text-align: left;
    color: var(--w-ink);
    cursor: pointer;
    min-height: 30px;
    padding: 0;
  }
  li button:hover {
    text-decoration: underline;
  }
</style>
