<script lang="ts">
  import { InlineNotification } from '../carbon';
  import { notices } from '../state/notices.svelte';
</script>

<div class="notices no-print" aria-live="polite">
  {#each notices.shown as notice (notice.id)}
    <InlineNotification
      lowContrast
      kind={notice.kind}
      title={notice.title}
      subtitle={notice.text}
      on:close={(e: CustomEvent) => {
        e.preventDefault();
        notices.drop(notice.id);
      }}
    >
      <svelte:fragment slot="actions">
        {#if notice.undo}
          <button
            class="undo"
            onclick={() => {
              void notice.undo?.();
              notices.drop(notice.id);
            }}>Undo</button
          >
        {/if}
      </svelte:fragment>
    </InlineNotification>
  {/each}
</div>

<style>
  .notices {
    position: fixed;
    left: 1rem;
    bottom: 1rem;
    width: min(30rem, calc(100vw - 2rem));
    z-index: 9000;
    pointer-events: none;
  }
  .notices > :global(*) {
    pointer-events: auto;
  }
  /* at the foot of a phone stand the keys and the buttons of its dialogs */
  @media (max-width: 900px) {
    .notices {
      top: 0.5rem;
      bottom: auto;
    }
  }
  .undo {
    align-self: center;
    background: none;
    border: 1px solid var(--w-chalk);
    border-radius: var(--w-radius);
    color: var(--w-chalk);
    padding: 0.3rem 0.8rem;
    cursor: pointer;
  }
</style>
