<!-- You: your password, all your jobs as one file, and the people who may sign in. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import { Refused } from '../../api/client';
  import { Button, PasswordInput } from '../../carbon';
  import { keys } from '../../state/keys.svelte';
  import { notices } from '../../state/notices.svelte';
  import { once } from '../../state/once';
  import { session } from '../../state/session.svelte';

  let old = $state('');
  let fresh = $state('');
  let faults = $state<Record<string, string>>({});
  let people = $state.raw<string[]>([]);
  let link = $state('');

  onMount(() => {
    keys.page = [];
    document.title = 'You · Wobble';
    void calls
      .people()
      .then((found) => (people = found))
      .catch((fault: unknown) => notices.refused(fault));
  });

  const change = once(async () => {
    faults = {};
    try {
      await session.putPassword(old, fresh);
      old = fresh = '';
      notices.add('success', 'Your password is changed.', 'Other devices have to sign in again.');
    } catch (fault) {
      if (!(fault instanceof Refused)) throw fault;
      faults = { [fault.fault.path]: `${fault.fault.message} ${fault.fault.mend}` };
    }
  });

  const invite = once(async (whom: string) => {
    try {
      link = location.origin + (await calls.invite(whom)).path;
    } catch (fault) {
      notices.refused(fault);
    }
  });
</script>

<main class="page">
  <h1>{session.name}</h1>
  <section>
    <h2>All your jobs</h2>
    <p>
      One file with every job as its document. Keep it elsewhere; “Import a job document” on the page of your
      jobs takes it back, whole.
    </p>
    <a href="/api/jobs/all.zip" download>Save all jobs as one file</a>
  </section>
  {#if !session.who?.demo}
    <section>
      <h2>Your password</h2>
      <form
        onsubmit={(e) => {
          e.preventDefault();
          void change();
        }}
      >
        <input class="unseen" autocomplete="username" value={session.who?.user} readonly tabindex="-1" />
        <PasswordInput
          labelText="Password that you sign in with"
          autocomplete="current-password"
          size="sm"
          bind:value={old}
          invalid={'$.old' in faults}
          invalidText={faults['$.old'] ?? ''}
        />
        <PasswordInput
          labelText="New password"
          autocomplete="new-password"
          size="sm"
          bind:value={fresh}
          invalid={'$.password' in faults}
          invalidText={faults['$.password'] ?? ''}
        />
        <Button type="submit" size="small" disabled={!old || !fresh}>Change it</Button>
      </form>
    </section>
  {/if}
  {#if session.who?.admin}
    <section>
      <h2>Who may sign in</h2>
      <ul>
        {#each people as name (name)}
          <li>
            {name}
            {#if name !== session.who?.user}
              <button class="link" onclick={() => void invite(name)}>Link for a new password</button>
            {/if}
          </li>
        {/each}
      </ul>
      <Button size="small" kind="tertiary" on:click={() => void invite('')}>Invite somebody</Button>
      {#if link}
        <p role="status">
          Send this link to whom it is for. It is good once, for seven days:
          <br /><code class="figure">{link}</code>
        </p>
      {/if}
    </section>
  {/if}
</main>

<style>
  p {
    max-width: 40rem;
    margin-bottom: 0.75rem;
  }
  form {
    display: grid;
    gap: 0.9rem;
    max-width: 24rem;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0 0 0.75rem;
  }
  li {
    padding: 0.2rem 0;
  }
  code {
    overflow-wrap: anywhere;
  }
</style>
