<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { again } from '../lib/again.svelte';
  import { api, Problem } from '../lib/api';
  import { session } from '../lib/session.svelte';
  import B from '../parts/B.svelte';
  import Dialog from '../parts/Dialog.svelte';
  import { m } from '../messages';

  let password = $state('');
  let fault = $state('');
  let busy = $state(false);

  async function confirm(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    fault = '';
    try {
      await api.post('/session/confirm', { password });
      again.end(true);
    } catch (error) {
      fault = error instanceof Problem ? error.detail : String(error);
    } finally {
      busy = false;
    }
  }
</script>

<Dialog title={m.account.againTitle} onclose={() => again.end(false)}>
  <form onsubmit={(event) => void confirm(event)}>
    <p class="sub">{m.account.againSay}</p>
    <input type="text" autocomplete="username" value={session.me?.login} readonly hidden />
    <Label
      >{m.account.old}<Input
        type="password"
        bind:value={password}
        required
        autocomplete="current-password"
        aria-invalid={fault ? 'true' : undefined}
      /></Label
    >
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
    <div><B look="go" type="submit" disabled={busy || !password}>{m.account.confirm}</B></div>
  </form>
</Dialog>

<style>
  form {
    display: grid;
    gap: 12px;
  }
  p {
    margin: 0;
  }
  .fault {
    color: var(--fault);
  }
</style>
