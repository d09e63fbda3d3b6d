<!-- What comes next in a job. Its lines are kept free until it is known: what stands under it would move from under the finger. -->
<script lang="ts">
  import type { Glance } from '../../api/types';
  import { wayOn } from '../../shell/progress';

  interface Props {
    job: string;
    next: Glance['next'] | undefined;
  }
  let { job, next }: Props = $props();
</script>

<p>
  {#if next}Next: <a href={wayOn(job, next)}>{next.text}</a>{/if}
</p>

<style>
  p {
    margin: 0;
    min-height: 1lh;
  }
  a {
    font-weight: 650;
  }
  @media (max-width: 760px) {
    p {
      min-height: 2lh;
    }
  }
</style>
