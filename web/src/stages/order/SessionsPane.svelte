<!-- When a job is worked at and by whom, in which order where the user says so: part by part. -->
<script lang="ts">
  import type { FinishingOutcome, Machine, PlannedStep, Sessions } from '../../api/types';
  import { open } from '../../state/job.svelte';
  import HoursForm from './sessions/HoursForm.svelte';
  import OthersForm from './sessions/OthersForm.svelte';
  import OwnOrder from './sessions/OwnOrder.svelte';
  import PeopleForm from './sessions/PeopleForm.svelte';
  import WhereForm from './sessions/WhereForm.svelte';

  interface Props {
    sessions: Sessions;
    machines: readonly Machine[];
    steps: readonly PlannedStep[];
    outcomes: readonly FinishingOutcome[] | null;
    oncompare: () => void;
  }
  let { sessions, machines, steps, outcomes, oncompare }: Props = $props();
  const put = (part: Partial<Sessions>) => void open.putSessions(sessions, { ...sessions, ...part });
</script>

<div class="sessions">
  <PeopleForm {sessions} {put} />
  <HoursForm {sessions} {machines} {put} />
  <OthersForm {sessions} {steps} {put} />
  <WhereForm {sessions} {machines} {outcomes} {oncompare} {put} />
  <OwnOrder {sessions} {steps} {put} />
</div>

<style>
  .sessions :global(h2) {
    font-size: 1rem;
    margin: 1.2rem 0 0.3rem;
    border-top: 1px solid var(--w-line);
    padding-top: 0.6rem;
  }
  .sessions :global(.row) {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 0.8rem;
    align-items: end;
    margin: 0.4rem 0;
  }
  .sessions :global(.row > .bx--form-item) {
    flex: 0 1 11rem;
  }
  .sessions :global(.said) {
    font-size: 0.875rem;
  }
</style>
