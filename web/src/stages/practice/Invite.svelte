<!-- A made-up crooked corner to try everything in, offered where jobs are listed. -->
<script lang="ts">
  import { calls } from '../../api/calls';
  import type { PlaceGlance } from '../../api/types';
  import { Button } from '../../carbon';
  import { router } from '../../router.svelte';
  import { inView } from '../../state/inview';
  import { notices } from '../../state/notices.svelte';
  import SmallPlace from '../jobs/SmallPlace.svelte';

  /** What is drawn here is no survey: a floor that nobody has read yet, drawn as crooked as it may be. */
  const CORNER: PlaceGlance = {
    place: 'corner',
    name: '',
    wide_mm: 2000,
    high_mm: 1500,
    units: [40, 640, 1240].map((x_mm) => ({ x_mm, up_mm: 0, wide_mm: 600, high_mm: 720 })),
    floor_mm: [3, 2, 0, -1, 1, 3, 2, -2, -5, -6],
    stages: [],
  };
  const here = inView();
  let busy = $state(false);

  async function begin(units: 'mm' | 'in') {
    busy = true;
    try {
      const made = await calls.beginPractice(units);
      if (here()) router.go(`/jobs/${made.id}/corner/gauge`);
    } catch (fault) {
      notices.refused(fault);
    }
    busy = false;
  }
</script>

<section class="invite" aria-label="Practice">
  <div class="drawn"><SmallPlace place={CORNER} /></div>
  <p>
    <strong>Practise in a crooked corner.</strong>
    Three cabinets, a floor that falls, simulated instruments: five minutes from the first reading to the list of
    shims, and at the end how near you came. Leave it when you like.
  </p>
  <div class="acts">
    <Button kind="tertiary" size="field" disabled={busy} on:click={() => void begin('mm')}
      >In millimetres</Button
    >
    <Button kind="tertiary" size="field" disabled={busy} on:click={() => void begin('in')}>In inches</Button>
  </div>
</section>

<style>
  .invite {
    display: grid;
    grid-template-columns: 9.5rem 1fr auto;
    gap: 0.5rem 1.25rem;
    align-items: center;
    padding: 0.75rem 0.25rem;
    margin-top: 1.5rem;
  }
  .drawn {
    height: 5rem;
  }
  p {
    margin: 0;
    max-width: 42rem;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
  }
  @media (max-width: 760px) {
    .invite {
      grid-template-columns: min(6rem, 25vw) minmax(0, 1fr);
    }
    .acts {
      grid-column: 1 / -1;
    }
  }
</style>
