<!-- A picture from the phone: of what, before, during or after. It waits here until the server has it. -->
<script lang="ts">
  import { photos } from '../state/photos.svelte';

  interface Props {
    job: string;
    place: string;
    about: string;
    /** What it is a picture of, in words. */
    of: string;
  }
  let { job, place, about, of }: Props = $props();
  let moment = $state<'before' | 'during' | 'after'>('during');
  const mine = $derived(photos.all.filter((t) => t.job === job && t.about === about).length);

  async function taken(e: Event) {
    const input = e.currentTarget as HTMLInputElement;
    const files = [...(input.files ?? [])];
    input.value = '';
    for (const file of files) await photos.take(file, { job, place, about, moment, text: '' });
  }
</script>

<div class="photo no-print">
  <div role="group" aria-label="When it is taken">
    {#each ['before', 'during', 'after'] as const as m (m)}
      <button class="chip" aria-pressed={moment === m} onclick={() => (moment = m)}>{m}</button>
    {/each}
  </div>
  <label class="take"
    >Take a picture<input
      type="file"
      accept="image/*"
      capture="environment"
      aria-label="Take a picture of {of}"
      onchange={(e) => void taken(e)}
    /></label
  >
  {#if mine}
    <span class="quiet" role="status"
      >{mine} waiting{photos.share !== null ? `, ${Math.round(photos.share * 100)} %` : ''}{photos.fault
        ? `: ${photos.fault}`
        : ''}</span
    >
  {/if}
</div>

<style>
  .photo {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem;
    margin: 0.6rem 0;
  }
  .take {
    border: 1px solid var(--w-line-strong);
    border-radius: var(--w-radius);
    min-height: 40px;
    display: inline-flex;
    align-items: center;
    padding: 0 0.8rem;
    cursor: pointer;
    font-size: 0.875rem;
  }
  .take:focus-within {
    outline: 2px solid var(--w-chalk);
  }
  input {
    position: absolute;
    opacity: 0;
    width: 1px;
    height: 1px;
  }
  span {
    font-size: 0.8125rem;
  }
</style>
