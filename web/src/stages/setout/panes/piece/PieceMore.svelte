<!-- All that can be said of one unit beside its size: what it is, how it stands, opens, and meets the walls. -->
<script lang="ts">
  import { BODIES, OPTIONS, STANDING as STANDING_DEFAULTS } from '../../../../api/fields';
  import type { Standing, Unit } from '../../../../api/types';
  import { Checkbox, Select, SelectItem } from '../../../../carbon';
  import LengthField from '../../../../entry/LengthField.svelte';
  import NumberField from '../../../../entry/NumberField.svelte';
  import LengthsField from '../../../../entry/LengthsField.svelte';
  import BoardForm from './BoardForm.svelte';
  import ShapeForm from './ShapeForm.svelte';
  import { BOARD, curvedEdges } from './shapes';

  interface Props {
    unit: Unit;
    /** What may carry it: other pieces, and what stays. */
    others: readonly { id: string; name: string }[];
    onchange: (part: Partial<Unit>) => void;
  }
  let p: Props = $props();
  const KINDS: [NonNullable<Unit['kind']>, string][] = [
    ['base', 'base cabinet'],
    ['drawers', 'drawer chest'],
    ['tall', 'tall cabinet'],
    ['wall', 'wall cabinet'],
    ['bench', 'bench or seat'],
    ['shelves', 'open shelves'],
    ['shelf', 'loose shelf'],
    ['top', 'top'],
    ['panel', 'panel'],
    ['face frame', 'face frame'],
    ['base frame', 'base frame'],
    ['rack', 'overhead rack'],
    ['platform', 'platform over something'],
    ['boarding', 'boards over a wall'],
    ['trim', 'trim'],
    ['moulding', 'moulding'],
    ['batten wall', 'wall of battens'],
    ['peg wall', 'wall of pegs'],
    ['cushion', 'cushion'],
    ['stored', 'thing stored'],
  ];
  const STANDING: [string, Standing][] = [
    ['on shims', STANDING_DEFAULTS.shims],
    ['on a toe-kick box', STANDING_DEFAULTS['toe-kick box'] as unknown as Standing],
    ['on a base frame', STANDING_DEFAULTS['base frame'] as unknown as Standing],
    ['on screw feet', STANDING_DEFAULTS['feet'] as unknown as Standing],
    ['on legs to cut', STANDING_DEFAULTS['legs'] as unknown as Standing],
    ['on cleats', STANDING_DEFAULTS['cleats'] as unknown as Standing],
    ['hangs', STANDING_DEFAULTS['hung'] as unknown as Standing],
  ];
  const OPENS = OPTIONS.opens;
  const HOLDS = OPTIONS.contents;
  const HANGS = {
    rail: 'by its rail',
    ledger: 'on a ledger',
    'split batten': 'over a batten',
  };
  const WALLS = ['left', 'right', 'back'] as const;
  const FASTENED: Record<(typeof OPTIONS.fastenedTo)[number], string> = {
    back: 'the back',
    left: 'the left wall',
    right: 'the right wall',
    ceiling: 'the ceiling',
    floor: 'the floor',
    neighbours: 'its neighbours',
    'under it': 'what is under it',
    nothing: 'nothing at all',
  };
  const PARTS: Record<string, string> = {
    height_mm: 'Its height',
    pitch_mm: 'Rise of one turn',
    least_mm: 'Shortest',
    most_mm: 'Longest',
    long_mm: 'Legs, as bought',
    finished_mm: 'Legs, finished',
    thick_mm: 'Cleats or battens thick',
    high_mm: 'Cleats high',
  };
  const u = $derived(p.unit);
  const standing = $derived<Standing>(u.standing ?? { on: 'shims' });
  const parts = $derived(
    Object.entries(standing).filter(
      ([key, v]) =>
        key in PARTS && typeof v === 'number' && !(standing.on === 'hung' && standing.by !== 'split batten'),
    ) as [string, number][],
  );
  const flat = $derived(u.kind === 'top' || u.kind === 'shelf');
  function stand(on: string) {
    const first = p.others[0];
    if (on === 'pieces') {
      if (first) p.onchange({ standing: { on: 'pieces', pieces: [first.id] } as unknown as Standing });
    } else p.onchange({ standing: STANDING.find(([, s]) => s.on === on)![1] });
  }
  function rest(id: string, on: boolean) {
    if (standing.on !== 'pieces') return;
    const pieces = on ? [...standing.pieces, id] : standing.pieces.filter((k) => k !== id);
    if (pieces.length) p.onchange({ standing: { on: 'pieces', pieces } as unknown as Standing });
  }
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
  const air = $derived(u.air ?? { sides_mm: 0, back_mm: 0, top_mm: 0 });
  function take(kind: NonNullable<Unit['kind']>) {
    const part: Partial<Unit> = { kind };
    if (kind === 'top' || kind === 'shelf')
      Object.assign(part, {
        standing: { on: kind === 'shelf' ? 'cleats' : 'hung' },
        meets: ['left', 'right', 'back'],
        board: u.board ?? { ...BOARD, material: 'plywood' },
        fixing_heights_mm: [],
        toe_recess_mm: 0,
      });
    if (u.body && (BODIES as Record<string, string>)[kind] !== u.body.body)
      Object.assign(part, { body: null });
    if (u.curve && !curvedEdges(kind).includes(u.curve.edge)) Object.assign(part, { curve: null });
    if (kind === 'wall' || kind === 'rack') Object.assign(part, { standing: { on: 'hung' } });
    p.onchange(part);
  }
</script>

<div class="fields">
  <Select
    labelText="It is a"
    size="sm"
    selected={u.kind ?? 'base'}
    on:change={(e: Event) => take(chosen(e) as NonNullable<Unit['kind']>)}
  >
    {#each KINDS as [value, text] (value)}<SelectItem {value} {text} />{/each}
  </Select>
  <Select labelText="It stands" size="sm" selected={standing.on} on:change={(e: Event) => stand(chosen(e))}>
    {#each STANDING as [text, s] (s.on)}<SelectItem value={s.on} {text} />{/each}
    {#if p.others.length}<SelectItem value="pieces" text="on other pieces" />{/if}
  </Select>
  {#if standing.on === 'pieces'}
    <fieldset>
      <legend>It rests on</legend>
      {#each p.others as o (o.id)}
        <Checkbox
          labelText={o.name}
          checked={standing.pieces.includes(o.id)}
          on:check={(e: CustomEvent<boolean>) => rest(o.id, e.detail)}
        />
      {/each}
    </fieldset>
  {/if}
  {#each parts as [key, mm] (key)}
    <LengthField
      label={PARTS[key]!}
      value={mm}
      least={0.1}
      onchange={(value) => p.onchange({ standing: { ...standing, [key]: value! } as Standing })}
    />
  {/each}
  {#if standing.on === 'hung' && !flat && u.kind !== 'rack'}
    <Select
      labelText="It hangs"
      size="sm"
      selected={standing.by ?? 'rail'}
      on:change={(e: Event) =>
        p.onchange({ standing: { ...standing, by: chosen(e) as keyof typeof HANGS } as Standing })}
    >
      {#each Object.entries(HANGS) as [value, text] (value)}<SelectItem {value} {text} />{/each}
    </Select>
  {/if}
  {#if standing.on === 'feet'}
    <LengthsField
      label="Feet now (all, or back left, back right, front right, front left)"
      values={standing.now_mm ?? [100]}
      onchange={(now_mm) => p.onchange({ standing: { ...standing, now_mm } as Standing })}
    />
  {/if}
  <LengthField
    label="Underside over the run's"
    value={u.over_base_mm ?? 0}
    onchange={(mm) => p.onchange({ over_base_mm: mm! })}
  />
  <LengthField
    label="Back stands out by"
    value={u.out_mm ?? 0}
    least={0}
    onchange={(mm) => p.onchange({ out_mm: mm! })}
  />
  <LengthField
    label="Feet screw in by"
    value={u.feet_in_mm ?? 0}
    least={0}
    onchange={(mm) => p.onchange({ feet_in_mm: mm! })}
  />
  <NumberField
    label="Weight, kg"
    most={2000}
    value={u.weight_kg ?? 0}
    onchange={(kg) => p.onchange({ weight_kg: kg! })}
  />
  <Select
    labelText="It holds"
    size="sm"
    selected={u.holds ?? 'not said'}
    on:change={(e: Event) => p.onchange({ holds: chosen(e) as (typeof HOLDS)[number] })}
  >
    {#each HOLDS as value (value)}<SelectItem {value} text={value} />{/each}
  </Select>
  <Select
    labelText="At its front"
    size="sm"
    selected={u.front?.opens ?? 'nothing'}
    on:change={(e: Event) =>
      p.onchange({ front: { ...u.front, opens: chosen(e) as (typeof OPENS)[number] } })}
  >
    {#each OPENS as value (value)}<SelectItem {value} text={value} />{/each}
  </Select>
  <LengthField
    label="Handle stands off"
    value={u.front?.handle_mm ?? 35}
    least={0}
    onchange={(mm) => p.onchange({ front: { ...u.front, handle_mm: mm! } })}
  />
  <NumberField
    label="Openings side by side"
    whole
    least={1}
    most={12}
    value={u.front?.openings ?? 1}
    onchange={(n) => p.onchange({ front: { ...u.front, openings: n! } })}
  />
  {#each [['left_mm', 'To scribe off, left'], ['right_mm', 'To scribe off, right']] as const as [key, label] (key)}
    <LengthField
      {label}
      value={u.scribe_allowance?.[key] ?? 0}
      least={0}
      onchange={(mm) => p.onchange({ scribe_allowance: { ...u.scribe_allowance, [key]: mm! } })}
    />
  {/each}
  {#if flat}<BoardForm unit={u} onchange={p.onchange} />{/if}
  <ShapeForm unit={u} onchange={p.onchange} />
  {#each [['sides_mm', 'Air at its sides'], ['back_mm', 'Air behind it'], ['top_mm', 'Air over it']] as const as [key, label] (key)}
    <LengthField
      {label}
      value={u.air?.[key] ?? 0}
      least={0}
      onchange={(mm) => p.onchange({ air: { ...air, [key]: mm! } })}
    />
  {/each}
</div>
<fieldset>
  <legend>Fastened to {(u.fastened_to ?? []).length ? '' : '(as is usual for its kind)'}</legend>
  {#each OPTIONS.fastenedTo as to (to)}
    <Checkbox
      labelText={FASTENED[to]}
      checked={(u.fastened_to ?? []).includes(to)}
      on:check={(e: CustomEvent<boolean>) =>
        p.onchange({
          fastened_to: OPTIONS.fastenedTo.filter((k) =>
            k === to ? e.detail : (u.fastened_to ?? []).includes(k),
          ),
        })}
    />
  {/each}
</fieldset>
<div class="ticks">
  <Checkbox
    labelText="Made to measure: its width follows from the place"
    checked={!(u.ready_made ?? true)}
    on:check={(e: CustomEvent<boolean>) => p.onchange({ ready_made: !e.detail })}
  />
  {#each WALLS as wall (wall)}
    <Checkbox
      labelText="Cut to the {wall} wall"
      checked={(u.meets ?? []).includes(wall)}
      on:check={(e: CustomEvent<boolean>) =>
        p.onchange({ meets: WALLS.filter((w) => (w === wall ? e.detail : (u.meets ?? []).includes(w))) })}
    />
  {/each}
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
    gap: 0.75rem;
    align-items: end;
    padding: 0.5rem 0;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 0.5rem 0;
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
    grid-column: 1 / -1;
  }
  legend {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
  }
  fieldset :global(.bx--form-item) {
    flex: none;
  }
  .ticks {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1.5rem;
    padding-bottom: 0.75rem;
  }
  .ticks :global(.bx--form-item) {
    flex: none;
  }
</style>
