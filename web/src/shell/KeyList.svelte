<script lang="ts">
  import { Modal } from '../carbon';
  import { keys } from '../state/keys.svelte';

  const shown: Record<string, string> = { ' ': 'Space', ArrowLeft: '←', ArrowRight: '→' };
</script>

{#if keys.listed}
  <Modal passiveModal open modalHeading="Keys" on:close={() => (keys.listed = false)}>
    <dl>
      {#each [...keys.page, ...keys.drawing, { keys: ['?'], what: 'Show the keys' }] as key (key.what)}
        <dt>
          {#each key.keys as k (k)}<kbd>{shown[k] ?? k}</kbd>{/each}
        </dt>
        <dd>{key.what}</dd>
      {/each}
    </dl>
    <p><a href="/words" onclick={() => (keys.listed = false)}>What the words mean</a></p>
  </Modal>
{/if}

<style>
  dl {
    display: grid;
    grid-template-columns: 8rem 1fr;
    gap: 0.5rem 1rem;
    margin: 0;
  }
  kbd {
    margin-right: 0.35rem;
  }
  dd {
    margin: 0;
  }
</style>
