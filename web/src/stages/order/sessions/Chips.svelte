<!-- Words that are true or not, each turned by a tap. -->
<script lang="ts" generics="T extends string">
  interface Props {
    label: string;
    all: readonly { key: T; name: string }[];
    on: readonly T[];
    /** Whether at least one stays. */
    least?: boolean;
    onturn: (key: T) => void;
  }
  let { label, all, on, least = false, onturn }: Props = $props();
</script>

<div class="chips" role="group" aria-label={label}>
  {#each all as { key, name } (key)}
    <button
      class="chip"
      aria-pressed={on.includes(key)}
      disabled={least && on.length === 1 && on.includes(key)}
      onclick={() => onturn(key)}>{name}</button
    >
  {/each}
</div>

<style>
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem;
    min-width: 0;
  }
  .chip {
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .chip[aria-pressed='true'] {
    font-weight: 650;
  }
</style>
