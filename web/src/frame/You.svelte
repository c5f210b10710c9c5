<script lang="ts">
  import { session } from '../lib/session.svelte';
  import { theme } from '../lib/theme.svelte';
  import { m } from '../messages';
  import AccountDialog from '../account/AccountDialog.svelte';
  import TokensDialog from './TokensDialog.svelte';

  /** Without it the page has no keys of its own to tell of. */
  let { onkeyshelp }: { onkeyshelp?: () => void } = $props();
  let open = $state(false);
  let tokens = $state(false);
  let account = $state(false);
  let root: HTMLDivElement;

  function leave(event: FocusEvent): void {
    if (!root.contains(event.relatedTarget as Node | null)) open = false;
  }
</script>

<div class="you" bind:this={root} onfocusout={leave}>
  <span class="from">{m.frame.from} <b>{session.me?.vantage}</b></span>
  <button
    type="button"
    aria-expanded={open}
    aria-controls="you-menu"
    onclick={() => (open = !open)}
    onkeydown={(event) => event.key === 'Escape' && (open = false)}
  >
    {session.me?.login} <span aria-hidden="true">▾</span>
  </button>
  {#if open}
    <div id="you-menu" class="sheet">
      <p class="sub">{session.me?.name} · {session.me?.role}</p>
      <button type="button" onclick={() => theme.turn()}>{theme.dark ? m.frame.toLight : m.frame.toDark}</button>
      {#if onkeyshelp}<button
          type="button"
          onclick={() => {
            open = false;
            onkeyshelp();
          }}>{m.frame.keys} <kbd>?</kbd></button
        >{/if}
      {#if session.me?.role === 'lead'}<a href="/people">{m.people.title}</a>
        <a href="/server">{m.server.title}</a>{/if}
      <button
        type="button"
        onclick={() => {
          open = false;
          account = true;
        }}>{m.account.menu}</button
      >
      <button
        type="button"
        onclick={() => {
          open = false;
          tokens = true;
        }}>{m.signIn.tokens}</button
      >
      <button type="button" onclick={() => void session.signOut()}>{m.signIn.signOut}</button>
    </div>
  {/if}
</div>
{#if account}<AccountDialog onclose={() => (account = false)} />{/if}
{#if tokens}<TokensDialog onclose={() => (tokens = false)} />{/if}

<style>
  .you {
    position: relative;
    display: flex;
    gap: 14px;
    align-items: center;
    color: var(--moon);
  }
  b {
    color: #fff;
    font-weight: 600;
  }
  .you > button {
    border: 1px solid var(--night-line);
    border-radius: 5px;
    padding: 4px 9px;
    color: #fff;
  }
  #you-menu {
    position: absolute;
    z-index: 15;
    right: 0;
    top: calc(100% + 8px);
    width: 210px;
    padding: 6px;
    color: var(--ink);
  }
  #you-menu p {
    margin: 0;
    padding: 5px 8px;
  }
  #you-menu button,
  #you-menu a {
    display: block;
    color: inherit;
    text-decoration: none;
    width: 100%;
    text-align: left;
    padding: 6px 8px;
    border-radius: 4px;
  }
  #you-menu button:hover,
  #you-menu a:hover {
    background: var(--line2);
  }
  @media (max-width: 1000px) {
    .from {
      display: none;
    }
  }
</style>
