<!-- One cell: how large it is, what fills it, what closes it, what stands in it. -->
<script lang="ts">
  import { DEFAULTS, OPTIONS } from '../../../api/fields';
  import type { Cell, Content, LaidCell } from '../../../api/types';
  import { Select, SelectItem } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';
  import { showLength } from '../../../entry/length';
  import { usePlace } from '../../../state/place';
  import type { Fill } from './cells';
  import Count from './Count.svelte';
  import Things from './Things.svelte';

  interface Props {
    cell: Cell;
    laid: LaidCell | undefined;
    /** Which way the split goes that it is a part of; null for the whole carcass. */
    within: 'columns' | 'rows' | null;
    /** Whether it is split further: then only what closes all of it is asked. */
    split?: boolean;
    onchange: (cell: Cell) => void;
  }
  let p: Props = $props();
  const view = usePlace();
  const fill = $derived<Fill>(p.cell.fill ?? ({ fill: 'nothing' } as Fill));
  const door = $derived(p.cell.door ?? null);
  const chosen = (e: Event) => (e.target as HTMLSelectElement).value;
  const set = (part: Partial<Cell>) => p.onchange({ ...p.cell, ...part });
  const FILLS: [string, string][] = [
    ['nothing', 'nothing'],
    ['shelves', 'shelves'],
    ['drawers', 'drawers'],
    ['pull-out', 'a pull-out'],
  ];
  const MADE = {
    nothing: { fill: 'nothing' },
    shelves: DEFAULTS.shelved,
    drawers: DEFAULTS.drawers,
    'pull-out': DEFAULTS.pullOut,
  };
  const HANGS = {
    left: 'hinged left',
    right: 'hinged right',
    pair: 'a pair',
    up: 'lifts up',
    down: 'lets down',
  };
  const size = $derived(p.cell.size_mm ? 'size' : p.cell.by_contents ? 'contents' : 'share');
  const round = (mm: number) => showLength(mm, view.unit, 1);
  const slides = $derived('slides' in fill ? fill.slides : undefined);
  const setFill = (part: object) => set({ fill: { ...fill, ...part } as Fill });
  const setDoor = (part: object) => set({ door: { ...DEFAULTS.door, ...door, ...part } as Cell['door'] });
</script>

{#if p.laid}
  <p class="live figure" aria-live="polite">
    {round(p.laid.rect.wide_mm)} × {round(p.laid.rect.high_mm)} × {round(p.laid.deep_mm)}
    {#if p.laid.drawers?.length}
      · box {round(p.laid.drawers[0]!.wide_mm)} × {round(p.laid.drawers[0]!.high_mm)}
    {/if}
    {#if p.laid.door?.length}· door {round(p.laid.door[0]!.at.wide_mm)} × {round(
        p.laid.door[0]!.at.high_mm,
      )}{/if}
    {#if p.laid.shelf_mm}· shelf {round(p.laid.shelf_mm[0])} × {round(p.laid.shelf_mm[1])}{/if}
  </p>
{/if}
<div class="fields">
  {#if p.within}
    <Select
      labelText={p.within === 'columns' ? 'How wide' : 'How high'}
      size="sm"
      selected={size}
      on:change={(e: Event) => {
        const how = chosen(e);
        const now = p.within === 'columns' ? p.laid?.rect.wide_mm : p.laid?.rect.high_mm;
        set({
          size_mm: how === 'size' ? Math.max(1, Math.round(now ?? 300)) : null,
          by_contents: how === 'contents',
        });
      }}
    >
      <SelectItem value="share" text="an equal share" />
      <SelectItem value="size" text="a size" />
      <SelectItem value="contents" text="by what goes in" />
    </Select>
    {#if size === 'size'}
      <LengthField
        label="Size"
        value={p.cell.size_mm ?? 1}
        least={1}
        onchange={(mm) => set({ size_mm: mm })}
      />
    {/if}
  {/if}
  {#if !p.split}
    <Select
      labelText="In it"
      size="sm"
      selected={fill.fill}
      on:change={(e: Event) => set({ fill: { ...MADE[chosen(e) as keyof typeof MADE] } as unknown as Fill })}
    >
      {#each FILLS as [value, text] (value)}<SelectItem {value} {text} />{/each}
    </Select>
  {/if}
  {#if fill.fill === 'shelves'}
    <Count label="Shelves" value={fill.count ?? 1} most={20} onchange={(count) => setFill({ count })} />
    <Select
      labelText="They are"
      size="sm"
      selected={fill.held ?? 'pins'}
      on:change={(e: Event) => setFill({ held: chosen(e) })}
    >
      <SelectItem value="pins" text="on pins" />
      <SelectItem value="fixed" text="fixed" />
    </Select>
    <LengthField
      label="Thick"
      value={fill.thick_mm ?? 18}
      least={1}
      onchange={(mm) => setFill({ thick_mm: mm! })}
    />
  {:else if fill.fill === 'drawers'}
    <Count label="Drawers" value={fill.count ?? 3} most={12} onchange={(count) => setFill({ count })} />
    <LengthField
      label="Lowest box high"
      optional
      help="empty: all alike"
      value={fill.heights_mm?.[0] ?? null}
      onchange={(mm) => setFill({ heights_mm: mm ? [mm] : [] })}
    />
  {/if}
  {#if slides}
    <Select
      labelText="Slides"
      size="sm"
      selected={slides.kind ?? 'side'}
      on:change={(e: Event) => {
        const kind = chosen(e);
        setFill({ slides: { ...slides, kind, side_mm: { side: 12.7, under: 5, wood: 1.5 }[kind] ?? 12.7 } });
      }}
    >
      {#each OPTIONS.slideKinds as kind (kind)}<SelectItem
          value={kind}
          text={{ side: 'at the sides', under: 'under the box', wood: 'wooden runners' }[kind]}
        />{/each}
    </Select>
    <LengthField
      label="Taken at each side"
      value={slides.side_mm ?? 12.7}
      least={0}
      onchange={(mm) => setFill({ slides: { ...slides, side_mm: mm! } })}
    />
    <LengthField
      label="Free over the box"
      value={slides.over_mm ?? 15}
      least={0}
      onchange={(mm) => setFill({ slides: { ...slides, over_mm: mm! } })}
    />
  {/if}
  <Select
    labelText="Door"
    size="sm"
    selected={door?.hangs ?? ''}
    on:change={(e: Event) => (chosen(e) ? setDoor({ hangs: chosen(e) }) : set({ door: null }))}
  >
    <SelectItem value="" text="none" />
    {#each OPTIONS.hangs as h (h)}<SelectItem value={h} text={HANGS[h]} />{/each}
  </Select>
  {#if door}
    <Select
      labelText="It lies"
      size="sm"
      selected={door.lies ?? 'full overlay'}
      on:change={(e: Event) => setDoor({ lies: chosen(e) })}
    >
      {#each OPTIONS.lies as v (v)}<SelectItem value={v} text={v} />{/each}
    </Select>
    <Select
      labelText="Hinge"
      size="sm"
      selected={door.hinge ?? 'not chosen'}
      on:change={(e: Event) => setDoor({ hinge: chosen(e) })}
    >
      {#each OPTIONS.hinges as v (v)}<SelectItem value={v} text={v} />{/each}
    </Select>
    <LengthField
      label="Gap round it"
      value={door.gap_mm ?? 2}
      least={0}
      onchange={(mm) => setDoor({ gap_mm: mm! })}
    />
  {/if}
</div>
{#if !p.split}<Things things={p.cell.holds ?? []} onchange={(holds: Content[]) => set({ holds })} />{/if}

<style>
  .live {
    font-size: 0.8125rem;
    color: var(--w-chalk);
    margin: 0.4rem 0;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(7.5rem, 1fr));
    gap: 0.6rem;
    align-items: end;
  }
</style>
