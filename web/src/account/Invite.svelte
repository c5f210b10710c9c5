<script lang="ts">
  import { Button, Input, Label } from 'flowbite-svelte';
  import { api, Problem } from '../lib/api';
  import { session } from '../lib/session.svelte';
  import Lamp from '../parts/Lamp.svelte';
  import { m } from '../messages';

  const t = m.account;
  /** It stands behind the #, so that no server and no proxy writes it into a log. */
  const token = location.hash.slice(1);
  let who = $state<{ login: string; name: string } | null>(null);
  let password = $state('');
  let fault = $state('');
  let busy = $state(true);

  void api
    .post<{ login: string; name: string }>('/invitation', { token })
    .then((found) => (who = found), told)
    .finally(() => (busy = false));

  function told(error: unknown): void {
    fault = error instanceof Problem ? error.detail : String(error);
  }

  async function accept(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    fault = '';
    try {
      await api.post('/invitation/password', { token, password });
      history.replaceState(null, '', '/');
      await session.ask();
      location.replace('/');
    } catch (error) {
      told(error);
    } finally {
      busy = false;
    }
  }
</script>

<main>
  <form class="sheet" onsubmit={(event) => void accept(event)}>
    <div class="name"><Lamp /> {m.name}</div>
    <h1>{t.welcome}</h1>
    {#if who}
      <p>{t.invited(who.name)}</p>
      <Label>{m.signIn.login}<Input class="mono" value={who.login} readonly autocomplete="username" /></Label>
      <Label
        >{t.new}<Input
          type="password"
          bind:value={password}
          required
          autocomplete="new-password"
          aria-invalid={fault ? 'true' : undefined}
        /><span class="sub">{t.newHint}</span></Label
      >
      <Button type="submit" disabled={busy || !password}>{t.set}</Button>
    {/if}
    {#if fault}<p class="say" role="alert">{fault}</p>{/if}
    {#if !who && !busy}<a href="/">{m.signIn.title}</a>{/if}
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
    width: 360px;
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
