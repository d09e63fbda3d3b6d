<!-- What waits on this device: what it is, why it has not gone, and what can be done about it. -->
<script lang="ts">
  import { Button, Modal } from '../carbon';
  import { isReading } from '../entry/facts';
  import { readingValue, readingWords } from '../entry/places';
  import { open } from '../state/job.svelte';
  import { usePlace } from '../state/place';
  import { photos } from '../state/photos.svelte';
  import type { KeptFact } from '../state/kept';
  import { waiting } from '../state/waiting.svelte';

  let { onclose }: { onclose: () => void } = $props();
  const view = usePlace();
  let dropping = $state<string | null>(null);

  function words({ fact }: KeptFact): string {
    if (isReading(fact)) return `${readingWords(fact, view.unit)}: ${readingValue(fact, view.unit)}`;
    if (fact.fact === 'note') return fact.text;
    if (fact.fact === 'obstacle') return fact.name;
    if (fact.fact === 'cut')
      return `cut${fact.came === 'right' ? '' : ` ${String(fact.came)}`}: ${fact.part}`;
    if (fact.fact === 'known') return `known: ${fact.what}`;
    if (fact.fact === 'bought') return `bought: ${fact.item}`;
    if (fact.fact === 'step') return `done: ${fact.name || fact.step}`;
    if (fact.fact === 'as set') return `checked: ${fact.check}`;
    if (fact.fact === 'followed') return 'the plan follows what stands';
    if (fact.fact === 'otherwise') return `found otherwise: ${fact.what}`;
    if (fact.fact === 'photo') return `photo: ${fact.text || fact.about}`;
    return fact.fact === 'detection' ? `${fact.found_by}: ${fact.sees}` : '';
  }
  const where = ({ job, place }: KeptFact) => (open.stored?.id === job && open.place(place)?.name) || place;
  const at = new Intl.DateTimeFormat(undefined, { dateStyle: 'short', timeStyle: 'short' });

  function save() {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([waiting.exported], { type: 'application/json' }));
    link.download = 'waiting.wobble.json';
    link.click();
    URL.revokeObjectURL(link.href);
  }
</script>

<Modal passiveModal open modalHeading="What waits on this device" on:close={onclose}>
  {#if photos.all.length}
    <p>
      {photos.all.length}
      {photos.all.length === 1 ? 'photo waits' : 'photos wait'}{photos.fault ? `: ${photos.fault}` : ''}.
      <button class="link" onclick={() => void photos.send()}>Try again</button>
    </p>
  {/if}
  {#if waiting.all.length}
    <p>
      It goes by itself, as soon as the server takes it.{waiting.stuck.size
        ? ' What was refused stays until you try again or drop it.'
        : ''}
    </p>
    <table class="fields-table">
      <thead><tr><th>What</th><th>Where</th><th>Kept</th><th>Why it is here</th><td></td></tr></thead>
      <tbody>
        {#each waiting.all as kept (kept.id)}
          {@const fault = waiting.stuck.get(kept.id)}
          <tr>
            <td>{words(kept)}</td>
            <td>{where(kept)}</td>
            <td class="figure">{at.format(kept.kept)}</td>
            <td class:stop={fault}
              >{fault ? `${fault.message} ${fault.mend}` : 'not sent yet'}{waiting.loose.has(kept.id)
                ? ' Not kept on the device: stay on the page.'
                : ''}</td
            >
            <td>
              {#if fault}
                <button
                  class="link"
                  onclick={() => {
                    if (dropping !== kept.id) dropping = kept.id;
                    else void waiting.drop([kept.id]);
                  }}>{dropping === kept.id ? 'Drop for good' : 'Drop'}</button
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <div class="ways">
      <Button size="small" on:click={() => void waiting.again()}>Send now</Button>
      <Button size="small" kind="ghost" on:click={save}>Save as a file</Button>
    </div>
  {:else}
    <p>Nothing waits: all of it is with the server.</p>
  {/if}
</Modal>

<style>
  p {
    margin-bottom: 0.75rem;
  }
  td {
    border-bottom: 1px solid var(--w-line);
    font-size: 0.875rem;
  }
  .ways {
    display: flex;
    gap: 0.5rem;
    margin-top: 1rem;
  }
</style>
