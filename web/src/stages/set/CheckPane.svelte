<!-- One check in hand: how it is read, the level large, the pad or two buttons; what it came to so far, what to do now. -->
<script lang="ts">
  import type { Advice, Check } from '../../api/types';
  import Measure from '../../entry/Measure.svelte';
  import NumberPad from '../../entry/NumberPad.svelte';
  import { showLength } from '../../entry/length';
  import { usePlace } from '../../state/place';
  import { isLevel, isYesNo, overItsLength, type ReadIn } from './set';
  import Vial from './Vial.svelte';

  interface Props {
    check: Check;
    advice: Advice | undefined;
    onread: (value: { mm: number } | { came: 'right' | 'wrong' }) => void;
    onnext: (() => void) | null;
    onclose: () => void;
  }
  let { check, advice, onread, onnext, onclose }: Props = $props();
  const view = usePlace();
  let as = $state<ReadIn>('mm');
  const level = $derived(isLevel(check));
  const hint = $derived(
    level
      ? as === 'mm'
        ? '0 is true'
        : as
      : check.expected_mm
        ? showLength(check.expected_mm, view.unit)
        : '0',
  );
  const enter = (mm: number) => {
    // a number without a unit of length is what the instrument said, whatever the tape's unit is: the pad took it for that
    const said = as !== 'mm' && view.unit === 'in' ? mm / 25.4 : mm;
    onread({ mm: overItsLength(said, as, check.over_mm ?? 0) });
  };
</script>

<div class="check">
  <div class="top">
    <h2>{check.name}</h2>
    <button class="close no-print" aria-label="Close" onclick={onclose}>×</button>
  </div>
  <svg viewBox="-60 -20 120 40" aria-hidden="true">
    <Vial check={{ ...check, kind: 'level-along' }} x={0} y={0} wide={110} />
  </svg>
  <p>
    {check.how}.{#if level && check.over_mm}{' '}Read over <Measure mm={check.over_mm} named />.{/if}
  </p>
  {#if !isYesNo(check)}
    <p class="quiet">
      {#if check.expected_mm}Planned <Measure mm={check.expected_mm} named />,{/if}
      {check.only === 'more' ? 'up to' : 'within'}
      <Measure mm={check.tolerance_mm ?? 0} named />{check.only === 'more' ? '' : ' either way'}.{check.why
        ? ` ${check.why[0]!.toUpperCase()}${check.why.slice(1)}.`
        : ''}
    </p>
  {:else if check.why}<p class="quiet">{check.why[0]!.toUpperCase()}{check.why.slice(1)}.</p>{/if}

  {#if check.readings?.length}
    <ol class="read">
      {#each check.readings as r (r.fact)}
        <li class:stop={r.out} class:fine={!r.out}>
          {#if r.value_mm === null || r.value_mm === undefined}{r.out ? 'wrong' : 'right'}{:else}<Measure
              mm={r.value_mm}
              named
            />{#if check.expected_mm}{' '}<span class="quiet"
                >({(r.off_mm ?? 0) > 0 ? '+' : ''}<Measure mm={r.off_mm ?? 0} />)</span
              >{/if}{r.out ? ', out' : ''}{/if}
        </li>
      {/each}
    </ol>
  {/if}
  {#if advice && check.state === 'out'}
    <div class="now">
      <b>Now</b>
      <ul>
        {#each advice.words as line, i (i)}<li>{line}</li>{/each}
      </ul>
      <p class="quiet">Then read it again.</p>
    </div>
  {/if}
  <div class="no-print">
    {#if isYesNo(check)}
      <div class="act">
        <button class="yes" onclick={() => onread({ came: 'right' })}>It is right</button>
        <button class="no" onclick={() => onread({ came: 'wrong' })}>It is not</button>
      </div>
    {:else}
      {#if level}
        <div class="as" role="group" aria-label="What the level says">
          {#each ['mm', 'mm/m', '°'] as const as way (way)}
            <button class="chip" aria-pressed={as === way} onclick={() => (as = way)}
              >{way === 'mm' ? 'over its length' : way}</button
            >
          {/each}
        </div>
      {/if}
      {#key check.key}<NumberPad label={check.name} {hint} onenter={enter} />{/key}
    {/if}
    {#if onnext}<p><button class="link" onclick={onnext}>The next check</button></p>{/if}
  </div>
</div>

<style>
  .top {
    display: flex;
    justify-content: space-between;
    gap: 0.5rem;
  }
  h2 {
    font-size: 1.0625rem;
    margin: 0;
  }
  svg {
    width: 100%;
    max-height: 64px;
    display: block;
    margin: 0.3rem 0;
  }
  p,
  li {
    font-size: 0.875rem;
    margin: 0.25rem 0;
  }
  .close {
    background: none;
    border: 0;
    font-size: 1.4rem;
    color: var(--w-ink-soft);
    min-width: 40px;
    min-height: 40px;
    cursor: pointer;
  }
  .read {
    margin: 0.3rem 0;
    padding-left: 1.2rem;
  }
  .fine {
    color: var(--w-fine);
  }
  .now li {
    line-height: 1.4;
  }
  .now {
    border-left: 4px solid var(--w-stop);
    padding: 0.2rem 0 0.2rem 0.6rem;
    margin: 0.4rem 0;
  }
  .now ul {
    list-style: square;
    margin: 0.1rem 0;
    padding-left: 1.1rem;
    font-variant-numeric: tabular-nums;
  }
  .act {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
    margin: 0.5rem 0;
  }
  .act button {
    min-height: 56px;
    font-size: 1rem;
    font-weight: 650;
    border-radius: var(--w-radius);
    cursor: pointer;
    background: none;
    color: var(--w-ink);
    border: 2px solid var(--w-line-strong);
  }
  .yes {
    border-color: var(--w-fine) !important;
  }
  .no {
    border-color: var(--w-stop) !important;
  }
  .as {
    display: flex;
    gap: 0.3rem;
    margin: 0.3rem 0;
  }
</style>
