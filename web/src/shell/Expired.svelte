<!-- The session ran out: the password is asked for over the page, and all that is on it stays. -->
<script lang="ts">
  import { Refused } from '../api/client';
  import { Button, Modal, PasswordInput } from '../carbon';
  import { session } from '../state/session.svelte';

  let password = $state('');
  let refusal = $state('');

  async function attempt(how: () => Promise<void>) {
    refusal = '';
    try {
      await how();
      password = '';
    } catch (fault) {
      if (!(fault instanceof Refused)) throw fault;
      refusal = `${fault.fault.message} ${fault.fault.mend}`;
    }
  }
  const again = () => attempt(() => session.signIn(session.who?.user ?? '', password));
</script>

{#if session.expired}
  <Modal
    open
    modalHeading="Sign in again, {session.name}"
    primaryButtonText="Sign in"
    primaryButtonDisabled={!password}
    secondaryButtonText="Not now"
    preventCloseOnClickOutside
    on:submit={() => void again()}
    on:click:button--secondary={() => session.answer(false)}
    on:close={() => session.answer(false)}
  >
    <p>Your session has ended. What is on this page stays, and goes on when you are signed in.</p>
    <PasswordInput
      labelText="Password"
      autocomplete="current-password"
      bind:value={password}
      invalid={refusal !== ''}
      invalidText={refusal}
      on:keydown={(e: KeyboardEvent) => e.key === 'Enter' && password && void again()}
    />
    {#if session.who?.demo}
      <Button kind="ghost" size="small" on:click={() => void attempt(() => session.openDemo())}
        >Open the demo again</Button
      >
    {/if}
  </Modal>
{/if}

<style>
  p {
    margin-bottom: 0.75rem;
  }
</style>
