<!-- A window on a drawing that may be looked at from nearer: by wheel with Ctrl, by pinch, by keys, by buttons; dragged and scrolled when it is. -->
<script lang="ts">
  import { onMount, tick, type Snippet } from 'svelte';
  import { keys, type Key } from '../state/keys.svelte';

  interface Props {
    /** How many times nearer. */
    near: number;
    width: number;
    /** Height of the window, px: that of the whole drawing from afar. */
    height: number;
    children: Snippet;
  }
  let { near = $bindable(), width = $bindable(), height, children }: Props = $props();
  const NEAREST = 6;
  const STEP = 1.5;
  const DRAGGED_PX = 4;
  let frame: HTMLElement;
  let dragged = false;
  let held: { x: number; y: number; left: number; top: number } | null = null;
  const fingers = new Map<number, { x: number; y: number }>();
  let apart = 0;

  /** Look from nearer or further, the spot that is pointed at (the middle, if none is) staying where it is. */
  async function by(factor: number, at?: { clientX: number; clientY: number }) {
    const now = Math.min(NEAREST, Math.max(1, near * factor));
    if (now === near) return;
    const box = frame.getBoundingClientRect();
    const x = at ? at.clientX - box.left : box.width / 2;
    const y = at ? at.clientY - box.top : box.height / 2;
    const [wide, high] = [frame.scrollWidth, frame.scrollHeight];
    const [u, v] = [(frame.scrollLeft + x) / wide, (frame.scrollTop + y) / high];
    near = now < 1.02 ? 1 : now;
    await tick();
    frame.scrollLeft = u * frame.scrollWidth - x;
    frame.scrollTop = v * frame.scrollHeight - y;
  }

  const own: Key[] = [
    { keys: ['>'], what: 'Look at the drawing from nearer', run: () => void by(STEP) },
    { keys: ['<'], what: 'Look at it from further', run: () => void by(1 / STEP) },
    { keys: ['='], what: 'See all of it', run: () => void by(1 / near) },
  ];
  onMount(() => {
    // a copy that is only looked at leaves the keys to the drawing that it is of
    if (!frame.closest('[inert]')) keys.drawing = own;
    // a listener of Svelte's is passive, and would scroll the page as well
    const wheel = (e: WheelEvent) => {
      if (!e.ctrlKey) return;
      e.preventDefault();
      void by(Math.exp(-e.deltaY / 250), e);
    };
    frame.addEventListener('wheel', wheel, { passive: false });
    return () => {
      frame.removeEventListener('wheel', wheel);
      if (keys.drawing === own) keys.drawing = [];
    };
  });

  const spread = () => {
    const [a, b] = [...fingers.values()];
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
  };

  function down(e: PointerEvent) {
    dragged = false;
    if (e.pointerType === 'touch') {
      fingers.set(e.pointerId, { x: e.clientX, y: e.clientY });
      apart = spread();
    } else if (near > 1 && e.button === 0) {
      held = { x: e.clientX, y: e.clientY, left: frame.scrollLeft, top: frame.scrollTop };
    }
  }
  function move(e: PointerEvent) {
    if (held) {
      const [x, y] = [e.clientX - held.x, e.clientY - held.y];
      if (Math.hypot(x, y) > DRAGGED_PX) dragged = true;
      if (dragged) frame.scrollTo(held.left - x, held.top - y);
    } else if (fingers.has(e.pointerId)) {
      fingers.set(e.pointerId, { x: e.clientX, y: e.clientY });
      const now = spread();
      if (fingers.size === 2 && apart > 0 && now > 0) {
        const [a, b] = [...fingers.values()];
        void by(now / apart, { clientX: (a!.x + b!.x) / 2, clientY: (a!.y + b!.y) / 2 });
        apart = now;
        dragged = true;
      }
    }
  }
  function up(e: PointerEvent) {
    held = null;
    fingers.delete(e.pointerId);
    apart = 0;
  }
  /** What ends a drag picks nothing. */
  function clicked(e: MouseEvent) {
    if (dragged) e.stopPropagation();
    dragged = false;
  }
</script>

<div class="closer">
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div
    class="frame"
    class:near={near > 1}
    style:height={near > 1 ? `${height}px` : undefined}
    bind:this={frame}
    bind:clientWidth={null, (wide) => (width = wide || width)}
    onpointerdown={down}
    onpointermove={move}
    onpointerup={up}
    onpointercancel={up}
    onpointerleave={up}
    onclickcapture={clicked}
  >
    {@render children()}
  </div>
  <div class="by no-print" role="group" aria-label="How near">
    {#if near > 1}
      <button onclick={() => void by(1 / near)} title="See all of it (=)">whole</button>
      <button onclick={() => void by(1 / STEP)} aria-label="From further" title="From further (<)">−</button>
    {/if}
    <button
      onclick={() => void by(STEP)}
      disabled={near >= NEAREST}
      aria-label="From nearer"
      title="From nearer (>)">+</button
    >
  </div>
</div>

<style>
  .closer {
    position: relative;
    min-width: 0;
  }
  .frame {
    position: relative;
    isolation: isolate;
    width: 100%;
    min-width: 0;
    overflow: hidden;
    touch-action: pan-x pan-y;
  }
  .near {
    overflow: auto;
    cursor: grab;
  }
  .near:active {
    cursor: grabbing;
  }
  .by {
    position: absolute;
    top: 0;
    right: 0;
    display: flex;
    gap: 2px;
  }
  button {
    min-width: 30px;
    min-height: 30px;
    border: 1px solid var(--w-line-strong);
    border-radius: var(--w-radius);
    background: var(--w-page);
    color: var(--w-ink-soft);
    cursor: pointer;
    font-size: 0.875rem;
  }
  button:hover {
    color: var(--w-ink);
  }
  button:disabled {
    opacity: 0.4;
  }
  @media (max-width: 760px) {
    .by [aria-label] {
      display: none; /* two fingers do it, and the drawing is small enough */
    }
  }
  @media (pointer: coarse) {
    button {
      min-width: 44px;
      min-height: 44px;
    }
  }
  @media print {
    .frame {
      height: auto !important;
      overflow: visible;
    }
  }
</style>
