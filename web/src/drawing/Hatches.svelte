<!-- The hatching of what is proud and of what is hollow: told apart without colour. Once in a drawing, inside its `defs`. -->
<script lang="ts">
  const KINDS = [
    ['proud', 45, 'brass'],
    ['hollow', -45, 'slate'],
  ] as const;
</script>

{#each KINDS as [name, degrees, colour] (name)}
  <pattern
    id="hatch-{name}"
    width="7"
    height="7"
    patternUnits="userSpaceOnUse"
    patternTransform="rotate({degrees})"
  >
    <path d="M0 0V7" stroke="var(--w-{colour})" stroke-width="1" stroke-opacity="0.35" />
  </pattern>
{/each}
