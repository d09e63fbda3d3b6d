<!-- Sessions that come back, single ones, and days on which nothing is done. -->
<script lang="ts">
  import { DEFAULTS, OPTIONS } from '../../../api/fields';
  import type { Habit, Machine, OneOff, Sessions } from '../../../api/types';
  import { Button, Select, SelectItem } from '../../../carbon';
  import { key, text } from '../../../entry/inputs';
  import Chips from './Chips.svelte';
  import { swapped, toggled, tomorrow, without, type Put } from './lists';
  import TextField from '../../../entry/TextField.svelte';
  import PlainField from './PlainField.svelte';

  let {
    sessions: s,
    machines,
    put,
  }: { sessions: Sessions; machines: readonly Machine[]; put: Put } = $props();
  type Day = Habit['days'][number];
  const habits = $derived(s.habits ?? []);
  const ones = $derived(s.one_offs ?? []);
  const off = $derived(s.off ?? []);
  const people = $derived((s.people ?? []).map((p) => ({ key: p.id, name: p.name })));
  const away = $derived(
    machines
      .filter((m) => (s.machines_away ?? []).includes(m.id))
      .map((m) => ({ key: m.id, name: `${m.name} there` })),
  );
  const days = (OPTIONS.weekdays as readonly Day[]).map((d) => ({ key: d, name: d }));
  const habit = (i: number, part: Partial<Habit>) => put({ habits: swapped<Habit>(habits, i, part) });
  const one = (i: number, part: Partial<OneOff>) => put({ one_offs: swapped<OneOff>(ones, i, part) });
</script>

{#snippet hours(h: Habit | OneOff, change: (part: Partial<Habit & OneOff>) => void)}
  <PlainField label="from" type="time" value={h.starts ?? ''} onchange={(starts) => change({ starts })} />
  <PlainField
    label="minutes"
    type="number"
    least={15}
    most={960}
    step={15}
    value={h.minutes ?? 120}
    onchange={(n) => change({ minutes: Math.round(Number(n)) })}
  />
  {#if people.length > 1}
    <Chips
      label="Who is there"
      all={people}
      on={h.people ?? []}
      onturn={(id) => change({ people: toggled(h.people ?? [], id) })}
    />
  {/if}
  {#if s.workshop === 'elsewhere'}
    <Select
      labelText="Where"
      size="sm"
      selected={h.where ?? 'anywhere'}
      on:change={(e: Event) => change({ where: text(e) as NonNullable<Habit['where']> })}
    >
      {#each OPTIONS.wheres as where (where)}<SelectItem value={where} text={where} />{/each}
    </Select>
  {/if}
  {#if away.length}
    <Chips
      label="Which machines are there"
      all={away}
      on={h.machines ?? []}
      onturn={(id) => change({ machines: toggled(h.machines ?? [], id) })}
    />
  {/if}
{/snippet}

<h2>Sessions that come back</h2>
{#each habits as h, i (h.id)}
  <div class="row">
    <TextField value={h.name} ontext={(name) => habit(i, { name })} />
    <Chips
      label="Days of {h.name}"
      all={days}
      on={h.days}
      least
      onturn={(day) => habit(i, { days: toggled<Day>(h.days, day) })}
    />
    {@render hours(h, (part) => habit(i, part))}
    <button class="link" onclick={() => put({ habits: without(habits, i) })}>Remove</button>
  </div>
{:else}
  <p class="empty">
    {ones.length
      ? 'None: only the single ones below count.'
      : 'None said: Tuesday and Thursday evenings and Saturday mornings are assumed.'}
  </p>
{/each}
<Button
  size="small"
  kind="ghost"
  on:click={() =>
    put({
      habits: [
        ...habits,
        {
          ...(DEFAULTS.habit as unknown as Habit),
          id: key('h'),
          people: people.slice(0, 1).map((p) => p.key),
        },
      ],
    })}>Add sessions that come back</Button
>

<h2>Single sessions</h2>
{#each ones as o, i (o.id)}
  <div class="row">
    <TextField value={o.name} ontext={(name) => one(i, { name })} />
    <PlainField label="on" type="date" value={o.on} onchange={(on) => one(i, { on })} />
    {@render hours(o, (part) => one(i, part))}
    <button class="link" onclick={() => put({ one_offs: without(ones, i) })}>Remove</button>
  </div>
{/each}
<Button
  size="small"
  kind="ghost"
  on:click={() =>
    put({
      one_offs: [
        ...ones,
        {
          ...(DEFAULTS.oneOff as unknown as OneOff),
          id: key('o'),
          on: tomorrow(),
          people: people.map((p) => p.key),
        },
      ],
    })}>Add one long day</Button
>

<h2>Days off</h2>
<div class="row">
  {#each off as day, i (i)}
    <span class="said"
      >{day} <button class="link" onclick={() => put({ off: without(off, i) })}>Remove</button></span
    >
  {/each}
  <PlainField
    label="Nothing is done on"
    type="date"
    value=""
    once
    onchange={(day) => !off.includes(day) && put({ off: [...off, day].toSorted() })}
  />
</div>
