<script lang="ts">
  import { onMount } from 'svelte';
  import { calls } from '../../api/calls';
  import { Refused } from '../../api/client';
  import { Button, Form, InlineNotification, PasswordInput, TextInput } from '../../carbon';
  import { router } from '../../router.svelte';
  import Mark from '../../shell/Mark.svelte';
  import { session } from '../../state/session.svelte';

  const key = /^\/join\/([\w-]+)$/.exec(location.pathname)?.[1] ?? '';
  let user = $state('');
  let password = $state('');
  let code = $state('');
  /** Whose new password a link is for; undefined while it is looked at, null where it is for somebody new. */
  let whose = $state<string | null | undefined>(key ? undefined : null);
  const first = $derived(!key && (session.who?.first ?? false));

  onMount(() => {
    if (key) void attempt(async () => (whose = (await calls.invitation(key)).user ?? null) && undefined);
  });

  async function enter() {
    if (key) {
      await session.join(key, user || (whose ?? ''), password);
      router.go('/', true);
    } else if (first) await session.makeFirst(user, password, code);
    else await session.signIn(user, password);
  }
  let refusal = $state('');
  let busy = $state(false);

  async function attempt(how: () => Promise<unknown>) {
    busy = true;
    refusal = '';
    try {
      await how();
    } catch (fault) {
      if (!(fault instanceof Refused)) throw fault;
      refusal = `${fault.fault.message} ${fault.fault.mend}`;
    } finally {
      busy = false;
    }
  }
</script>

<main>
  <div class="picture" aria-hidden="true">
    <svg viewBox="0 0 520 400" preserveAspectRatio="xMidYMax slice">
      <path class="earth" d="M0 292 C60 320 110 318 160 300 S250 276 300 276 S420 300 520 322 V400 H0Z" />
      <path class="floor" d="M0 292 C60 320 110 318 160 300 S250 276 300 276 S420 300 520 322" />
      <path class="chalk" d="M0 274 H520" />
      <g class="box">
        <rect x="52" y="120" width="132" height="154" />
        <rect x="184" y="120" width="132" height="154" />
        <rect x="316" y="120" width="132" height="154" />
        <path d="M118 128 V266 M250 128 V266 M382 128 V266" />
      </g>
      <g class="shim">
        <path
          d="M62 274 h14 v35 h-14z M162 274 h14 v22 h-14z M194 274 h14 v11 h-14z M424 274 h14 v24 h-14z M326 274 h14 v5 h-14z"
        />
      </g>
      <path class="top" d="M44 106 H456 V120 H44Z" />
      <g class="words">
        <text x="69" y="334">17.5</text>
        <text x="170" y="324">11</text>
        <text x="431" y="328">12</text>
      </g>
    </svg>
  </div>
  <div class="side">
    <Mark />
    <h1>Fit straight things into crooked places</h1>
    <p class="quiet">
      Measure how far the floor and walls are out. Wobble tells you where level starts, what goes under every
      foot and what goes behind every screw.
    </p>
    {#if refusal}
      <InlineNotification
        lowContrast
        hideCloseButton
        kind="error"
        title="Not signed in."
        subtitle={refusal}
      />
    {/if}
    {#if session.who?.demo && !key}
      <Button disabled={busy} on:click={() => attempt(() => session.openDemo())}>Open the demo</Button>
      <p class="or quiet">or sign in</p>
    {/if}
    {#if first}
      <p>Nobody can sign in here yet. Make the first user, who keeps this server and invites the others.</p>
    {:else if key && whose !== undefined}
      <p>{whose ? `Choose a new password, ${whose}.` : 'You are invited. Choose a name and a password.'}</p>
    {/if}
    <Form
      novalidate
      on:submit={(e: Event) => {
        e.preventDefault();
        void attempt(enter);
      }}
    >
      {#if !whose}<TextInput labelText="Name" autocomplete="username" bind:value={user} />{/if}
      <PasswordInput
        labelText="Password"
        autocomplete={key || first ? 'new-password' : 'current-password'}
        helperText={key || first ? 'At least eight characters that nobody would guess.' : ''}
        bind:value={password}
      />
      {#if first && !session.who?.local}
        <TextInput labelText="Code that the server printed when it started" bind:value={code} />
      {/if}
      <Button
        type="submit"
        kind={session.who?.demo ? 'tertiary' : 'primary'}
        disabled={busy || !(user || whose) || !password}
        >{first ? 'Make the first user' : key ? 'Go on' : 'Sign in'}</Button
      >
    </Form>
  </div>
</main>

<style>
  main {
    min-height: 100vh;
    display: grid;
    grid-template-columns: 1.25fr 1fr;
  }
  .picture {
    position: relative;
    background: var(--w-page);
    overflow: hidden;
    min-height: 0;
    border-right: 1px solid var(--w-line);
  }
  .picture svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  .earth {
    fill: var(--w-earth);
  }
  .floor,
  .box {
    fill: var(--w-unit);
    stroke: var(--w-ink);
    stroke-width: 1.5;
  }
  .floor {
    fill: none;
    stroke-width: 2.5;
  }
  .chalk {
    stroke: var(--w-chalk);
    stroke-width: 1.5;
  }
  .shim {
    fill: var(--w-chalk);
  }
  .top {
    fill: var(--w-brass-fill);
    stroke: var(--w-ink);
  }
  .words text {
    font: 600 15px var(--w-mono);
    fill: var(--w-chalk);
    text-anchor: middle;
  }
  .side {
    overflow: hidden;
    background: var(--w-sheet);
    padding: 3rem clamp(1.5rem, 4vw, 4rem);
    display: flex;
    flex-direction: column;
    justify-content: center;
    gap: 1rem;
  }
  .side > :global(*) {
    max-width: 26rem;
  }
  h1 {
    font-size: 2rem;
    margin: 1rem 0 0;
    text-wrap: balance;
  }
  .or {
    margin: 0.25rem 0 -0.5rem;
  }
  .side :global(form) {
    display: grid;
    gap: 1rem;
    width: 100%;
  }
  .side :global(form .bx--form-item) {
    width: 100%;
  }
  @media (max-width: 760px) {
    main {
      grid-template-columns: 1fr;
      grid-template-rows: auto 1fr;
    }
    .picture {
      position: relative;
      border-right: 0;
      border-bottom: 1px solid var(--w-line);
      height: 190px;
    }
    .side {
      overflow: hidden;
      padding: 1.25rem 1.25rem 2rem;
      justify-content: start;
    }
    h1 {
      font-size: 1.5rem;
      margin: 0;
    }
  }
</style>
