<!-- What a place is: its size, what kind of place, and which of its surfaces are measured. -->
<script lang="ts">
  import type { Place, SurfaceName } from '../../../api/types';
  import { Checkbox, Select, SelectItem, TextInput } from '../../../carbon';
  import LengthField from '../../../entry/LengthField.svelte';

  interface Props {
    place: Place;
    /** The job's other places, one of which may meet this one in a corner. */
    others: readonly Place[];
    onchange: (part: Partial<Place>) => void;
  }
  let { place, others, onchange }: Props = $props();
  const SURFACES: SurfaceName[] = ['floor', 'back', 'left', 'right', 'ceiling'];
  /** Each kind brings the surfaces that matter there; they can be changed. */
  const kindOf = (
    kind: Place['kind'],
    name: string,
    surfaces: SurfaceName[],
    frame: Place['frame'] = 'gravity',
  ) => ({ kind, name, surfaces, frame });
  const KINDS = {
    open: kindOf('open', 'Open run', ['floor', 'back']),
    corner: kindOf('corner', 'Into a corner', ['floor', 'back', 'left']),
    alcove: kindOf('alcove', 'Alcove, three walls', ['floor', 'back', 'left', 'right']),
    'under a slope': kindOf('under a slope', 'Under a slope or stair', ['floor', 'back', 'ceiling']),
    overhead: kindOf('overhead', 'Overhead', ['back', 'ceiling']),
    vehicle: kindOf('vehicle', 'Vehicle or boat side', ['floor', 'back'], 'body'),
  };
  const NAMES = {
    floor: 'Floor',
    back: 'Back wall',
    left: 'Left wall',
    right: 'Right wall',
    ceiling: 'Ceiling',
  };
  const take = ({ kind, surfaces, frame }: (typeof KINDS)['open']) => onchange({ kind, surfaces, frame });
</script>

<div class="fields">
  <TextInput
    labelText="Name"
    size="sm"
    value={place.name}
    on:input={(e: CustomEvent<string | number | null>) => onchange({ name: String(e.detail ?? '') })}
  />
  <LengthField label="Long" value={place.width_mm} least={1} onchange={(mm) => onchange({ width_mm: mm! })} />
  <LengthField label="Deep" value={place.depth_mm} least={1} onchange={(mm) => onchange({ depth_mm: mm! })} />
  <LengthField
    label="High"
    value={place.height_mm}
    least={1}
    onchange={(mm) => onchange({ height_mm: mm! })}
  />
  <Select
    labelText="How true is the building?"
    size="sm"
    selected={place.character ?? 'typical'}
    on:change={(e: Event) =>
      onchange({ character: (e.target as HTMLSelectElement).value as 'true' | 'typical' | 'rough' })}
  >
    <SelectItem value="true" text="True: new, flat floors" />
    <SelectItem value="typical" text="Typical" />
    <SelectItem value="rough" text="Rough: old, settled, hand-plastered" />
  </Select>
  <Select
    labelText="Kind of place"
    size="sm"
    selected={place.kind}
    on:change={(e: Event) => take(KINDS[(e.target as HTMLSelectElement).value as Place['kind']])}
  >
    {#each Object.values(KINDS) as k (k.kind)}<SelectItem value={k.kind} text={k.name} />{/each}
  </Select>
  <Select
    labelText="Level is"
    size="sm"
    selected={place.frame}
    on:change={(e: Event) => onchange({ frame: (e.target as HTMLSelectElement).value as Place['frame'] })}
  >
    <SelectItem value="gravity" text="by gravity (a room)" />
    <SelectItem value="body" text="the vehicle's own floor" />
  </Select>
  {#if others.length}
    <Select
      labelText="The right wall is the back of"
      size="sm"
      selected={place.right_is_back_of ?? ''}
      on:change={(e: Event) => onchange({ right_is_back_of: (e.target as HTMLSelectElement).value || null })}
    >
      <SelectItem value="" text="no other place" />
      {#each others as b (b.id)}<SelectItem value={b.id} text={b.name} />{/each}
    </Select>
  {/if}
  {#if place.kind === 'under a slope'}
    <Select
      labelText="The ceiling"
      size="sm"
      selected={place.knee?.along ?? ''}
      on:change={(e: Event) => {
        const along = (e.target as HTMLSelectElement).value;
        onchange({
          knee:
            along === ''
              ? null
              : {
                  along: along as 'x' | 'y',
                  at_mm: (along === 'x' ? place.width_mm : place.depth_mm) / 2,
                },
        });
      }}
    >
      <SelectItem value="" text="slopes all over" />
      <SelectItem value="x" text="is flat, then slopes along the run" />
      <SelectItem value="y" text="is flat, then slopes out of the back" />
    </Select>
    {#if place.knee}
      {@const knee = place.knee}
      <LengthField
        label="Slopes from"
        value={knee.at_mm}
        least={0}
        onchange={(mm) => onchange({ knee: { ...knee, at_mm: mm! } })}
      />
    {/if}
  {/if}
</div>
<fieldset>
  <legend>Surfaces you will measure</legend>
  {#each SURFACES as surface (surface)}
    <Checkbox
      labelText={NAMES[surface]}
      checked={(place.surfaces ?? []).includes(surface)}
      on:check={(e: CustomEvent<boolean>) =>
        onchange({
          surfaces: SURFACES.filter((s) => (s === surface ? e.detail : (place.surfaces ?? []).includes(s))),
        })}
    />
  {/each}
</fieldset>

<style>
  .fields {
    display: grid;
    grid-template-columns: 1.4fr repeat(3, 0.65fr) 1.2fr 1.3fr 1.2fr;
    gap: 1rem;
    align-items: start;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 1.25rem 0 0;
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1.5rem;
  }
  fieldset :global(.bx--form-item) {
    flex: none;
  }
  legend {
    font-size: 0.75rem;
    color: var(--w-ink-soft);
    margin-bottom: 0.25rem;
  }
  @media (max-width: 760px) {
    .fields {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
