<!-- The phone laid down as a level: asked for by a press, steadied over two seconds, its angle given once it is still. -->
<script lang="ts">
  import { onDestroy } from 'svelte';
  import { session } from '../state/session.svelte';
  import {
    angleOf,
    ask,
    askew,
    own,
    simulated,
    Steady,
    type Asked,
    type Held,
    type Lie,
    type Sensor,
  } from './tilt';

  interface Props {
    held: Held;
    /** What the button says. */
    label?: string;
    /** What the stand-in of the demo shows, degrees. */
    pretend?: number;
    onread: (deg: number) => void;
  }
  let { held, label = 'Read it with this phone', pretend = 0.35, onread }: Props = $props();
  const SAID: Record<Exclude<Asked, 'ready'>, string> = {
    refused:
      'The browser was told not to give the tilt sensor. Allow motion sensors for this page in its settings, or type the reading.',
    insecure:
      'Browsers give the tilt sensor to encrypted pages only: open Wobble by https (./run serve --https), or type the reading.',
    none: 'This device has no tilt sensor that a page may read. Type the reading.',
  };
  const SILENT_MS = 1500;

  let asked = $state<Asked | null>(null);
  let lie = $state.raw<Lie | null>(null);
  let share = $state(0);
  let stop: (() => void) | null = null;
  let silent: ReturnType<typeof setTimeout> | undefined;

  function listen(sensor: Sensor) {
    end();
    const steady = new Steady();
    asked = 'ready';
    stop = sensor((now) => {
      clearTimeout(silent);
      lie = now;
      if (askew(now, held)) return;
      const still = steady.add(performance.now(), angleOf(now, held));
      share = steady.share;
      if (still === null) return;
      end();
      navigator.vibrate?.(60); // it is looked at from the side, or not at all
      onread(still);
    });
  }
  function end() {
    stop?.();
    stop = null;
    lie = null;
    share = 0;
    clearTimeout(silent);
  }
  async function begin() {
    asked = await ask();
    if (asked !== 'ready') return;
    listen(own);
    silent = setTimeout(() => {
      end();
      asked = 'none';
    }, SILENT_MS);
  }
  onDestroy(end);
</script>

<div class="tilt" aria-live="polite">
  {#if lie}
    <p class="figure now">{angleOf(lie, held).toFixed(2)}°</p>
    <p class="quiet">
      {askew(lie, held)
        ? held === 'flat'
          ? 'Lay it on its back, flat along the edge.'
          : 'Stand it upright against the edge, its screen to the room.'
        : 'Hold still: two seconds.'}
    </p>
    <progress max="1" value={share} aria-label="How long it lay still"></progress>
    <button class="chip" onclick={end}>Stop</button>
  {:else}
    <button class="chip" onclick={() => void begin()}>{label}</button>
    {#if asked && asked !== 'ready'}
      <p class="quiet">{SAID[asked]}</p>
      {#if session.who?.demo}
        <button class="chip" onclick={() => listen(simulated(pretend, held))}>Use the demo's stand-in</button>
      {/if}
    {/if}
  {/if}
</div>

<style>
  .tilt {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
  }
  .now {
    font-size: 1.75rem;
    font-weight: 650;
    min-width: 5.5rem;
  }
  p {
    margin: 0;
    font-size: 0.8125rem;
  }
  progress {
    flex-basis: 100%;
    width: 100%;
    accent-color: var(--w-chalk);
  }
</style>
