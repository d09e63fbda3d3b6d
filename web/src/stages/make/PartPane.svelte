<!-- One part: where it stands in its unit, its sizes with their working, what is cut into it, how it is joined; and how it
     came off the saw. -->
<script lang="ts">
  import type { Got, MarkedPart } from '../../api/types';
  import { Select, SelectItem } from '../../carbon';
  import LengthField from '../../entry/LengthField.svelte';
  import NumberField from '../../entry/NumberField.svelte';
  import Measure from '../../entry/Measure.svelte';
  import { showLength } from '../../entry/length';
  import { open } from '../../state/job.svelte';
  import { usePlace } from '../../state/place';

  interface Props {
    part: MarkedPart;
    /** All parts of its unit, to stand it among. */
    beside: readonly MarkedPart[];
    where: string;
    /** How it is got where it is not made, and what that saves beside making it. */
    got?: Got | undefined;
    saves?: number | null | undefined;
    ongot: (how: Got['how'] | 'made', price: number) => void;
    oncut: (came: 'right' | 'short' | 'wrong', count: number, size: [number, number] | null) => void;
    onclose: () => void;
  }
  let { part: p, beside, where, got, saves, ongot, oncut, onclose }: Props = $props();
  const view = usePlace();
  let size = $state<[number | null, number | null]>([null, null]);
  const given = $derived<[number, number] | null>(
    size[0] && size[1] ? [size[0], size[1]] : size[0] ? [size[0], p.part.blank_mm[1]] : null,
  );
  const boxes = $derived(beside.flatMap((b) => b.part.boxes.map((box) => ({ box, own: b.key === p.key }))));
  const wide = $derived(Math.max(1, ...boxes.map((b) => b.box.x_mm + b.box.wide_mm)));
  const high = $derived(Math.max(1, ...boxes.map((b) => b.box.z_mm + b.box.high_mm)));
  const cut = (came: 'right' | 'short' | 'wrong') => oncut(came, 1, given);
</script>

<div class="head">
  <h2><b class="figure">{p.mark}</b> {p.part.name}</h2>
  <button class="link" onclick={onclose}>Close</button>
</div>
{#if boxes.length > 1}
  <svg
    viewBox="-10 -10 {wide + 20} {high + 20}"
    role="img"
    aria-label="{p.part.name} in its unit, from the front"
  >
    {#each boxes.filter((b) => !b.own) as b, i (i)}
      <rect
        x={b.box.x_mm}
        y={high - b.box.z_mm - b.box.high_mm}
        width={b.box.wide_mm}
        height={b.box.high_mm}
      />
    {/each}
    {#each boxes.filter((b) => b.own) as b, i (i)}
      <rect
        class="own"
        x={b.box.x_mm}
        y={high - b.box.z_mm - b.box.high_mm}
        width={b.box.wide_mm}
        height={b.box.high_mm}
      />
    {/each}
  </svg>
{/if}
<p class="quiet">
  {where} · {p.part.material || 'plywood'}{#if p.part.thick_mm}, <span class="figure"
      >{showLength(p.part.thick_mm, view.unit)}</span
    > thick{/if}{#if p.part.grain}, grain along its length{/if}{#if p.part.quantity > 1}, {p.part.quantity} alike{/if}
</p>
{#if p.part.waits.length}
  <p class="mind">
    Not yet: after {p.part.waits.map((w) => w.words).join('; and ')}.
    {#if p.part.blank_mm[1]}Rough it out to
      <span class="figure">{p.part.blank_mm.map((mm) => showLength(mm, view.unit)).join(' × ')}</span>.{/if}
  </p>
{:else if p.state === 'glued, then trimmed'}
  <p class="mind">Wider than a board: glued up out of several, then trimmed to size.</p>
{/if}
{#each p.part.finished as d, i (i)}
  <details open={p.part.finished.length < 3}>
    <summary>{d.label} <b><Measure mm={d.figure.value_mm} sd={d.figure.sd_mm} named /></b></summary>
    <table>
      <tbody>
        {#each d.figure.working as step, i (i)}
          <tr>
            <td>{step.label}</td>
            <td class="figure">{step.sign < 0 ? '−' : i ? '+' : ''}{showLength(step.value_mm, view.unit)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </details>
{/each}
{#if p.part.blank_mm[1]}
  <p>Cut to <b class="figure">{p.part.blank_mm.map((mm) => showLength(mm, view.unit)).join(' × ')}</b></p>
{/if}
<dl>
  {#if p.part.hand}<dt>Hand</dt>
    <dd>{p.part.hand}</dd>{/if}
  {#if p.part.face_up}<dt>Face up</dt>
    <dd>{p.part.face_up}</dd>{/if}
  {#if p.part.end}<dt>Write on it</dt>
    <dd>{p.part.end}</dd>{/if}
  {#if p.part.banded.length}<dt>Banded</dt>
    <dd>{p.part.banded.join(', ')}</dd>{/if}
  {#if p.part.joins}<dt>Joined</dt>
    <dd>{p.part.joins}</dd>{/if}
  {#each p.part.grooves as g, i (i)}
    <dt>{g.kind}</dt>
    <dd>
      <span class="figure">{showLength(g.wide_mm, view.unit)} × {showLength(g.deep_mm, view.unit)}</span>
      deep,
      <span class="figure">{showLength(g.from_mm, view.unit)}</span> from the {g.edge}
    </dd>
  {/each}
  {#each p.part.drillings as d, i (i)}<dt>{d.use}</dt>
    <dd>{d.face}: {d.words}</dd>{/each}
  {#if p.part.corner}<dt>Cut off</dt>
    <dd>{p.part.corner.words}</dd>{/if}
  {#if p.part.curve}<dt>Curve</dt>
    <dd>{p.part.curve.words}</dd>{/if}
  {#if p.part.bevel_deg}<dt>Bevel</dt>
    <dd>
      <span class="figure">{p.part.bevel_deg.toFixed(1)}°</span> along its front edge, from its seen face
    </dd>{/if}
  {#if p.part.cuts.length}<dt>Cut lines</dt>
    <dd>scribed to the wall: see Fit, Cut lines</dd>{/if}
</dl>
{#if p.part.blank_mm[1] && open.stored}
  {@const at = `/api/jobs/${open.stored.id}/parts/${encodeURIComponent(p.mark)}/part`}
  <p class="files no-print">
    At full size: <a href="{at}.svg" download>SVG</a> <a href="{at}.dxf" download>DXF</a>
    {#if p.part.drillings.length || p.part.corner || p.part.curve}
      <a href="/jobs/{open.stored.id}/parts/{encodeURIComponent(p.mark)}">Print a template</a>
    {/if}
  </p>
{/if}
{#each p.checked as c, i (i)}
  <p class={c.then === 'cut again' ? 'stop' : c.then === 'trim' ? 'mind' : 'quiet'}>
    {c.count} cut: {c.words}
  </p>
{/each}
<div class="got no-print">
  <Select
    labelText="This part is"
    size="sm"
    selected={got?.how ?? 'made'}
    on:change={(e: Event) => ongot((e.target as HTMLSelectElement).value as 'made', got?.price ?? 0)}
  >
    <SelectItem value="made" text="made here" />
    <SelectItem value="bought" text="bought or ordered" />
    <SelectItem value="kept" text="kept as it is" />
    <SelectItem value="mended" text="mended" />
  </Select>
  {#if got}
    <NumberField
      label="For"
      value={got.price ?? 0}
      onchange={(price) => ongot(got.how ?? 'bought', price!)}
    />
  {/if}
</div>
{#if got && saves !== null && saves !== undefined}
  <p class="quiet">
    {saves >= 0 ? `Saves ${saves.toFixed(2)}` : `Costs ${(-saves).toFixed(2)} more than`}
    {saves >= 0 ? 'beside' : ''} the stock for making it.
  </p>
{/if}
{#if p.to_cut > 0}
  <div class="came no-print">
    <button onclick={() => cut('right')} disabled={p.part.waits.length > 0}>Cut</button>
    <button onclick={() => cut('short')}>Cut short</button>
    <button onclick={() => cut('wrong')}>Cut wrong</button>
  </div>
  <div class="size no-print">
    <LengthField
      label="Came out long"
      value={size[0]}
      optional
      least={1}
      onchange={(mm) => (size = [mm, size[1]])}
    />
    <LengthField
      label="Came out wide"
      value={size[1]}
      optional
      least={1}
      onchange={(mm) => (size = [size[0], mm])}
    />
  </div>
  {#if p.part.waits.length}<p class="quiet no-print">It may be cut once what it waits for is known.</p>{/if}
{/if}

<style>
  .head {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 0.5rem;
  }
  h2 {
    font-size: 1rem;
  }
  svg {
    width: 100%;
    max-height: 190px;
    margin: 0.3rem 0;
  }
  rect {
    fill: var(--w-unit);
    fill-opacity: 0.5;
    stroke: var(--w-line-strong);
    vector-effect: non-scaling-stroke;
  }
  .own {
    fill: var(--w-chalk);
    fill-opacity: 0.45;
    stroke: var(--w-chalk);
    stroke-width: 2;
  }
  p,
  dl,
  details {
    font-size: 0.8125rem;
    margin-bottom: 0.4rem;
  }
  summary {
    cursor: pointer;
    padding: 0.2rem 0;
  }
  table {
    width: 100%;
  }
  td:last-child {
    text-align: right;
  }
  dl {
    display: grid;
    grid-template-columns: 5.5rem 1fr;
    gap: 0.2rem 0.5rem;
  }
  dt {
    color: var(--w-ink-soft);
  }
  .came {
    display: grid;
    grid-template-columns: 2fr 1fr 1fr;
    gap: 0.4rem;
    margin: 0.6rem 0 0.4rem;
  }
  .came button {
    min-height: 44px;
    border: 1px solid var(--w-line-strong);
    background: var(--w-raised);
    color: var(--w-ink);
    cursor: pointer;
    border-radius: var(--w-radius);
    font-weight: 600;
  }
  .came button:first-child:not(:disabled) {
    background: var(--w-chalk);
    border-color: var(--w-chalk);
    color: var(--w-on-ink);
  }
  .came button:disabled {
    color: var(--w-line-strong);
    cursor: not-allowed;
  }
  .got {
    display: grid;
    grid-template-columns: 2fr 1fr;
    gap: 0.4rem;
    margin-bottom: 0.4rem;
  }
  .size {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }
</style>
