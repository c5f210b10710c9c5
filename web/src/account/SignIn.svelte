<script lang="ts">
  import { Button, Input, Label } from 'flowbite-svelte';
  import { api, Problem } from '../lib/api';
  import { session } from '../lib/session.svelte';
  import type { Door } from '../lib/types';
  import Lamp from '../parts/Lamp.svelte';
  import { m } from '../messages';

  let { door }: { door: Door } = $props();
  let login = $state('');
  let password = $state('');
  let code = $state('');
  let name = $state('');
  let fault = $state('');
  let busy = $state(false);

  async function enter(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    fault = '';
    try {
      if (door.firstLeadWanted) await api.post('/first-lead', { code, login, name, password });
      else await api.post('/session', { login, password });
      await session.ask();
    } catch (error) {
      fault = error instanceof Problem ? error.detail : String(error);
    } finally {
      busy = false;
    }
  }
</script>

<main>
  <form class="sheet" onsubmit={(event) => void enter(event)}>
    <div class="name"><Lamp /> {m.name}</div>
    {#if door.firstLeadWanted}
      <h1>{m.signIn.firstTitle}</h1>
      <p class="sub">{m.signIn.firstText}</p>
      <Label>{m.signIn.code}<Input class="mono" bind:value={code} required autocomplete="one-time-code" /></Label>
      <Label>{m.signIn.fullName}<Input bind:value={name} required autocomplete="name" /></Label>
    {:else}
      <h1>{m.signIn.title}</h1>
    {/if}
    <Label
      >{m.signIn.login}<Input
        class="mono"
        bind:value={login}
        required
        autocomplete="username"
        autocapitalize="none"
        spellcheck="false"
      /></Label
    >
    <Label>
      {door.firstLeadWanted ? m.signIn.newPassword : m.signIn.password}
      <Input
        type="password"
        bind:value={password}
        required
        autocomplete={door.firstLeadWanted ? 'new-password' : 'current-password'}
      />
    </Label>
    {#if fault}<p class="say" role="alert">{fault}</p>{/if}
    <Button type="submit" disabled={busy}>{door.firstLeadWanted ? m.signIn.firstButton : m.signIn.button}</Button>
    {#if door.lab}<p class="sub">{m.signIn.lab}</p>{/if}
  </form>
</main>

<style>
  main {
    min-height: 100vh;
    display: grid;
    place-items: center;
    padding: 16px;
  }
  form {
    width: 340px;
    max-width: 100%;
    padding: 24px 26px;
    display: grid;
    gap: 14px;
  }
  p {
    margin: 0;
  }
  .name {
    display: flex;
    gap: 9px;
    align-items: center;
    font-weight: 650;
    font-size: 17px;
    background: var(--night);
    color: #fff;
    margin: -24px -26px 4px;
    padding: 12px 26px;
    border-radius: 6px 6px 0 0;
  }
</style>
