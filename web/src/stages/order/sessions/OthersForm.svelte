<!-- When others come, and what must be done by when. -->
<script lang="ts">
  import { DEFAULTS } from '../../../api/fields';
  import type { Deadline, PlannedStep, Sessions, Visit } from '../../../api/types';
  import { Button } from '../../../carbon';
  import { key } from '../../../entry/inputs';
  import { swapped, tomorrow, without, type Put } from './lists';
  import TextField from '../../../entry/TextField.svelte';
  import PlainField from './PlainField.svelte';
  import StepChoice from './StepChoice.svelte';

  let { sessions: s, steps, put }: { sessions: Sessions; steps: readonly PlannedStep[]; put: Put } = $props();
  const visits = $derived(s.visits ?? []);
  const deadlines = $derived(s.deadlines ?? []);
  const visit = (i: number, part: Partial<Visit>) => put({ visits: swapped<Visit>(visits, i, part) });
  const deadline = (i: number, part: Partial<Deadline>) =>
    put({ deadlines: swapped<Deadline>(deadlines, i, part) });
</script>

<h2>When others come, and what must be done by when</h2>
{#each visits as v, i (v.id)}
  <div class="row">
    <TextField label="Who comes" value={v.name} ontext={(name) => visit(i, { name })} />
    <PlainField label="on" type="date" value={v.on} onchange={(on) => visit(i, { on })} />
    <PlainField label="from" type="time" value={v.starts ?? ''} onchange={(starts) => visit(i, { starts })} />
    <StepChoice
      label="They do"
      none="something of their own"
      {steps}
      chosen={v.does}
      onpick={(does) => visit(i, { does })}
    />
    <StepChoice
      label="Must be done before"
      none="nothing more"
      {steps}
      chosen={v.before}
      onpick={(before) => visit(i, { before })}
    />
    <button class="link" onclick={() => put({ visits: without(visits, i) })}>Remove</button>
  </div>
{/each}
{#each deadlines as d, i (d.id)}
  <div class="row">
    <TextField label="Deadline" value={d.name} ontext={(name) => deadline(i, { name })} />
    <PlainField label="by" type="date" value={d.by} onchange={(by) => deadline(i, { by })} />
    <StepChoice
      label="Of"
      none="everything"
      {steps}
      chosen={d.steps}
      onpick={(which) => deadline(i, { steps: which })}
    />
    <button class="link" onclick={() => put({ deadlines: without(deadlines, i) })}>Remove</button>
  </div>
{/each}
<Button
  size="small"
  kind="ghost"
  on:click={() =>
    put({ visits: [...visits, { ...(DEFAULTS.visit as unknown as Visit), id: key('v'), on: tomorrow() }] })}
  >Somebody comes</Button
>
<Button
  size="small"
  kind="ghost"
  on:click={() =>
    put({ deadlines: [...deadlines, { id: key('d'), name: 'Ready', by: tomorrow(), steps: [] }] })}
  >Add a deadline</Button
>
