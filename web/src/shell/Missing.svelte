<!-- What stands in place of a page whose job or place is not there. -->
<script lang="ts">
  interface Props {
    what: string;
    to: string;
    way: string;
  }
  let { what, to, way }: Props = $props();
</script>

<main>
  <h1>There is no such {what}</h1>
  <p><a href={to}>{way}</a></p>
</main>

<style>
  main {
    max-width: 34rem;
    margin: 20vh auto 0;
    padding: 0 1.5rem;
  }
</style>
