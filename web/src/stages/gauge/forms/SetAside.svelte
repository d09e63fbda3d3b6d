<!-- Why a reading shall count no more. -->
<script lang="ts">
  import { Modal, TextInput } from '../../../carbon';

  interface Props {
    onclose: () => void;
    onaside: (reason: string) => void;
  }
  let p: Props = $props();
  let reason = $state('');
</script>

<Modal
  open
  size="sm"
  modalHeading="Set the reading aside"
  primaryButtonText="Set aside"
  primaryButtonDisabled={!reason.trim()}
  secondaryButtonText="Keep it"
  on:click:button--secondary={() => p.onclose()}
  on:close={() => p.onclose()}
  on:submit={() => p.onaside(reason.trim())}
>
  <TextInput labelText="Why" placeholder="The rule stood on a pipe clip" bind:value={reason} />
  <p class="quiet">It stays on record with your reason, and can be put back.</p>
</Modal>

<style>
  p {
    font-size: 0.875rem;
    margin-top: 0.5rem;
  }
</style>
