<script lang="ts">
  import { QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';
  import './routes';
  import AgainDialog from './account/AgainDialog.svelte';
  import Invite from './account/Invite.svelte';
  import SignIn from './account/SignIn.svelte';
  import Notices from './frame/Notices.svelte';
  import { again } from './lib/again.svelte';
  import { queries } from './lib/query';
  import { session } from './lib/session.svelte';
  import { m } from './messages';

  void session.ask();
</script>

<QueryClientProvider client={queries}>
  {#if location.pathname === '/invite'}
    <Invite />
  {:else if session.state.status === 'in'}
    <Router />
  {:else if session.state.status === 'out'}
    <SignIn door={session.state.door} />
  {:else if session.state.status === 'silent'}
    <main class="quiet">
      <p>{m.frame.unreachable}</p>
      <button onclick={() => void session.ask()}>{m.configure.retry}</button>
    </main>
  {:else}
    <main class="quiet"><p class="sub">{m.frame.loading}</p></main>
  {/if}
  {#if again.asking}<AgainDialog />{/if}
  <Notices />
</QueryClientProvider>

<style>
  .quiet {
    padding: 40px;
    text-align: center;
  }
</style>
