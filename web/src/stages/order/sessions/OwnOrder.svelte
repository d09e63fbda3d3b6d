<!-- Steps of one's own, orders that were said, and what was left out. -->
<script lang="ts">
  import { DEFAULTS } from '../../../api/fields';
  import type { OwnStep, PlannedStep, Sessions } from '../../../api/types';
  import { Button } from '../../../carbon';
  import { key } from '../../../entry/inputs';
  import { swapped, without, type Put } from './lists';
  import TextField from '../../../entry/TextField.svelte';
  import PlainField from './PlainField.svelte';
  import StepChoice from './StepChoice.svelte';

  let { sessions: s, steps, put }: { sessions: Sessions; steps: readonly PlannedStep[]; put: Put } = $props();
  const own = $derived(s.own ?? []);
  const turned = $derived(s.turned ?? []);
  const dropped = $derived(s.dropped ?? []);
  const change = (i: number, part: Partial<OwnStep>) => put({ own: swapped<OwnStep>(own, i, part) });
  const named = (k: string) => steps.find((x) => x.step.key === k)?.step.name ?? `${k} (not there any more)`;
</script>

<h2>Your own steps and your own order</h2>
{#each own as o, i (o.id)}
  <div class="row">
    <TextField label="Step" value={o.name} ontext={(name) => change(i, { name })} />
    <PlainField
      label="minutes"
      type="number"
      least={1}
      most={10_000}
      value={o.minutes ?? 30}
      onchange={(n) => change(i, { minutes: Math.round(Number(n)) })}
    />
    <StepChoice
      label="After"
      none="any time"
      {steps}
      chosen={o.after}
      onpick={(after) => change(i, { after })}
    />
    <StepChoice
      label="Before"
      none="any time"
      {steps}
      chosen={o.before}
      onpick={(before) => change(i, { before })}
    />
    <PlainField
      label="rests, h"
      type="number"
      most={2000}
      value={o.rests_h ?? 0}
      onchange={(n) => change(i, { rests_h: Number(n) })}
    />
    <button class="link" onclick={() => put({ own: without(own, i) })}>Remove</button>
  </div>
{/each}
<Button
  size="small"
  kind="ghost"
  on:click={() =>
    put({ own: [...own, { ...(DEFAULTS.ownStep as unknown as OwnStep), id: key('s'), name: 'New step' }] })}
  >Add a step of your own</Button
>
{#if turned.length || dropped.length}
  <ul class="said">
    {#each turned as t, i (i)}
      <li>
        “{named(t.first)}” before “{named(t.then)}”
        <button class="link" onclick={() => put({ turned: without(turned, i) })}>Take it back</button>
      </li>
    {/each}
    {#each dropped as k, i (i)}
      <li>
        left out: {k}
        <button class="link" onclick={() => put({ dropped: without(dropped, i) })}>Put it back</button>
      </li>
    {/each}
  </ul>
{/if}
