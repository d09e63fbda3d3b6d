<!-- Where parts are made, in what air it dries, which machines are not always there, and when coats are put on. -->
<script lang="ts">
  import { OPTIONS } from '../../../api/fields';
  import type { FinishingOutcome, Machine, Sessions } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import { text } from '../../../entry/inputs';
  import { sayMinutes, sayWhen } from '../order';
  import Chips from './Chips.svelte';
  import { toggled, type Put } from './lists';

  interface Props {
    sessions: Sessions;
    machines: readonly Machine[];
    outcomes: readonly FinishingOutcome[] | null;
    oncompare: () => void;
    put: Put;
  }
  let { sessions: s, machines, outcomes, oncompare, put }: Props = $props();
  const WORDS: Record<string, string> = {
    'before assembly': 'no brush in corners, joints taped; what scratches is touched up',
    'before setting': 'proposed: flat in the workshop, nothing masked in the room',
    'after setting': 'one colour over all, seams hidden; masking, and fumes where one lives',
  };
  const said = (f: string) => {
    const o = outcomes?.find((x) => x.finishing === f);
    if (!o) return '';
    return `${o.ends ? `done ${sayWhen(o.ends)}` : 'not all in a session'}, ${sayMinutes(o.working_minutes)} of work`;
  };
</script>

<h2>Where, in what air, and when it is finished</h2>
<div class="row">
  <Select
    labelText="Parts are made"
    size="sm"
    selected={s.workshop ?? 'at the place'}
    on:change={(e: Event) => put({ workshop: text(e) as NonNullable<Sessions['workshop']> })}
  >
    <SelectItem value="at the place" text="where they are fitted" />
    <SelectItem value="elsewhere" text="in another house, and carried over" />
  </Select>
  <Select
    labelText="The air there"
    size="sm"
    selected={s.air ?? 'warm and dry'}
    on:change={(e: Event) => put({ air: text(e) as NonNullable<Sessions['air']> })}
  >
    {#each OPTIONS.airs as air (air)}<SelectItem value={air} text={air} />{/each}
  </Select>
</div>
{#if machines.length}
  <div class="row">
    <span class="said">Not always at hand:</span>
    <Chips
      label="Not always at hand"
      all={machines.map((m) => ({ key: m.id, name: m.name }))}
      on={s.machines_away ?? []}
      onturn={(id) => put({ machines_away: toggled(s.machines_away ?? [], id) })}
    />
  </div>
{/if}
<div class="choices" role="group" aria-label="When what is made gets its coats">
  {#each OPTIONS.finishings as f (f)}
    <button
      class:chosen={(s.finishing ?? 'before setting') === f}
      onclick={() => put({ finishing: f as NonNullable<Sessions['finishing']> })}
    >
      <b>{f}</b>
      <span>{said(f)}</span>
      <small class="quiet">{WORDS[f]}</small>
    </button>
  {/each}
</div>
{#if !outcomes}<button class="link no-print" onclick={oncompare}>See what each comes to</button>{/if}
