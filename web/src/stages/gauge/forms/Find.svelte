<!-- Something found on site: an outlet, a pipe, a board in the way, or a note; where the user stands, kept on the device. -->
<script lang="ts">
  import type { Place, Obstacle, Note, SurfaceName } from '../../../api/types';
  import { Modal, Select, SelectItem, TextArea, TextInput } from '../../../carbon';
  import { newId } from '../../../entry/ids';
  import { fieldByField } from '../../../entry/fields';
  import LengthField from '../../../entry/LengthField.svelte';
  import { AXIS_WORDS, SURFACE_NAMES } from '../../../entry/places';
  import { OBSTACLE_KINDS, TREATMENTS, USUAL } from '../../../entry/obstacles';

  interface Props {
    place: Place;
    by: string;
    from: { surface: SurfaceName; at: [number, number] } | null;
    onclose: () => void;
    onobstacle: (obstacle: Obstacle) => void;
    onnote: (note: Note) => void;
  }
  let p: Props = $props();
  let what = $state<'obstacle' | 'note'>('obstacle');
  let kind = $state<Obstacle['kind']>('outlet');
  let name = $state('');
  // svelte-ignore state_referenced_locally
  let surface = $state<SurfaceName>(p.from?.surface ?? p.place.surfaces[0]!);
  // svelte-ignore state_referenced_locally
  let at = $state<[number, number]>(p.from?.at ?? [0, 0]);
  let size = $state<[number, number] | null>(null);
  let proud = $state(0);
  let treatment = $state<Obstacle['treatment']>('keep clear');
  let text = $state('');
  let fault = $state('');

  const words = $derived(AXIS_WORDS[surface]);
  const sized = $derived(size ?? USUAL[kind]);

  function record() {
    const taken_at = new Date().toISOString();
    const head = { id: newId(), taken_at, taken_by: p.by, supersedes: null, aside: null };
    if (what === 'note') {
      if (!text.trim()) return (fault = 'Write something first.');
      p.onnote({
        ...head,
        fact: 'note',
        kind: 'seen',
        about: '',
        text: text.trim(),
        surface,
        at,
      });
    } else {
      const called = name.trim() || kind[0]!.toUpperCase() + kind.slice(1);
      p.onobstacle({
        ...head,
        fact: 'obstacle',
        name: called,
        kind,
        surface,
        at,
        size: sized,
        proud_mm: proud,
        treatment,
        note: '',
      });
    }
    return p.onclose();
  }
</script>

<Modal
  open
  shouldSubmitOnEnter={false}
  hasScrollingContent={false}
  modalHeading="Found on site"
  primaryButtonText="Keep"
  secondaryButtonText="Not now"
  on:click:button--secondary={() => p.onclose()}
  on:close={() => p.onclose()}
  on:submit={record}
>
  <div class="form" use:fieldByField={() => void record()}>
    <Select labelText="What it is" bind:selected={what}>
      <SelectItem value="obstacle" text="Something in the way" />
      <SelectItem value="note" text="A note" />
    </Select>
    <div class="pair">
      <Select labelText="On the" bind:selected={surface}>
        {#each p.place.surfaces as s (s)}<SelectItem value={s} text={SURFACE_NAMES[s]} />{/each}
      </Select>
      {#if what === 'obstacle'}
        <Select labelText="Kind" bind:selected={kind}>
          {#each OBSTACLE_KINDS as k (k)}<SelectItem value={k} text={k} />{/each}
        </Select>
      {/if}
      <LengthField
        label="{words[0]}, to its near edge"
        value={at[0]}
        onchange={(mm) => (at = [mm!, at[1]])}
      />
      <LengthField
        label="{words[1]}, to its lower edge"
        value={at[1]}
        onchange={(mm) => (at = [at[0], mm!])}
      />
      {#if what === 'obstacle'}
        <LengthField label="Wide" least={1} value={sized[0]} onchange={(mm) => (size = [mm!, sized[1]])} />
        <LengthField label="High" least={1} value={sized[1]} onchange={(mm) => (size = [sized[0], mm!])} />
        <LengthField label="Stands proud by" least={0} value={proud} onchange={(mm) => (proud = mm!)} />
        <Select labelText="What may be done" bind:selected={treatment}>
          {#each TREATMENTS as t (t)}<SelectItem value={t} text={t} />{/each}
        </Select>
      {/if}
    </div>
    {#if what === 'obstacle'}
      <TextInput labelText="Called (if it has a name)" bind:value={name} />
    {:else}
      <TextArea labelText="Note" rows={3} bind:value={text} />
    {/if}
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  </div>
</Modal>

<style>
  .form {
    display: grid;
    gap: 0.9rem;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.75rem;
    align-items: start;
  }
  .fault {
    color: var(--w-stop);
  }
</style>
