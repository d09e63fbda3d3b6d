<!-- The wordmark: a letter that stands a little off level on a chalk line. -->
<script lang="ts">
  const o = 'o';
</script>

<svg viewBox="0 0 104 30" width="104" height="30" role="img" aria-label="Wobble">
  <text y="22" font-size="23" font-weight="700">
    <tspan>W</tspan><tspan class="tilted" rotate="-9" dy="-1">{o}</tspan><tspan dy="1">bble</tspan>
  </text>
  <path d="M1 27.5 H84" />
</svg>

<style>
  text {
    font-family: var(--w-sans);
    fill: var(--w-ink);
  }
  .tilted {
    fill: var(--w-brass);
  }
  path {
    stroke: var(--w-chalk);
    stroke-width: 1.6;
  }
</style>
