<!-- Who works, and what is for them. -->
<script lang="ts">
  import { OPTIONS } from '../../../api/fields';
  import type { Person, Sessions } from '../../../api/types';
  import { Button } from '../../../carbon';
  import { key } from '../../../entry/inputs';
  import Chips from './Chips.svelte';
  import { swapped, toggled, type Put } from './lists';
  import TextField from '../../../entry/TextField.svelte';

  let { sessions: s, put }: { sessions: Sessions; put: Put } = $props();
  type Skill = NonNullable<Person['never']>[number];
  const people = $derived(s.people ?? []);
  const skills = (OPTIONS.skills as readonly Skill[]).map((k) => ({ key: k, name: k }));
  const able = (p: Person) => skills.map((k) => k.key).filter((k) => !(p.never ?? []).includes(k));
  const change = (i: number, part: Partial<Person>) => put({ people: swapped<Person>(people, i, part) });
  /** Whoever goes is named in no session any more. */
  function remove(id: string) {
    const free = <T extends { people?: readonly string[] }>(all: readonly T[]) =>
      all.map((x) => ({ ...x, people: (x.people ?? []).filter((p) => p !== id) }));
    put({
      people: people.filter((p) => p.id !== id),
      habits: free(s.habits ?? []),
      one_offs: free(s.one_offs ?? []),
    });
  }
</script>

<h2>Who works</h2>
{#each people as person, i (person.id)}
  <div class="row">
    <TextField value={person.name} ontext={(name) => change(i, { name })} />
    <Chips
      label="{person.name} does"
      all={skills}
      on={able(person)}
      onturn={(skill) => change(i, { never: toggled(person.never ?? [], skill) })}
    />
    <button class="link" onclick={() => remove(person.id)}>Remove</button>
  </div>
{:else}
  <p class="empty">One person who can do all, while nobody is named.</p>
{/each}
<Button
  size="small"
  kind="ghost"
  on:click={() =>
    put({ people: [...people, { id: key('p'), name: people.length ? 'Helper' : 'Myself', never: [] }] })}
  >Add somebody</Button
>
