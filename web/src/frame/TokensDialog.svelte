<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { api, Problem } from '../lib/api';
  import { notices } from '../lib/notices.svelte';
  import { live, lookAgain } from '../lib/query';
  import { session } from '../lib/session.svelte';
  import { atTime } from '../lib/time';
  import type { TokenView } from '../lib/types';
  import B from '../parts/B.svelte';
  import Dialog from '../parts/Dialog.svelte';
  import { m } from '../messages';

  let { onclose }: { onclose: () => void } = $props();
  const t = m.tokens;
  const tokens = live<TokenView[]>(() => '/tokens');
  const ROLES = ['viewer', 'engineer', 'lead'];
  const roles = ROLES.slice(0, ROLES.indexOf(session.me?.role ?? 'viewer') + 1);
  let name = $state('');
  let role = $state('viewer');
  let days = $state('90');
  let made = $state('');
  let faults = $state<Record<string, string>>({});
  let fault = $state('');

  async function make(): Promise<void> {
    faults = {};
    fault = '';
    try {
      made = (await api.post<{ token: string }>('/tokens', { name, role, days: Number(days) || 0 })).token;
      name = '';
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) fault = (error as Error).message;
    }
    lookAgain();
  }

  const revoke = (token: TokenView) =>
    void api
      .delete(`/tokens/${token.id}`)
      .then(
        () => notices.say(t.revoked(token.name)),
        (error: unknown) => notices.fault(error),
      )
      .finally(lookAgain);
</script>

<Dialog title={t.title} {onclose}>
  <p class="sub">{t.say}</p>
  {#each tokens.data ?? [] as token (token.id)}
    <div class="token">
      <span
        ><b>{token.name}</b>
        <span class="sub"
          >{t.may[token.role]}, {t.ends(token.endsAt.slice(0, 10))}, {token.usedAt
            ? t.used(atTime(token.usedAt))
            : t.neverUsed}</span
        ></span
      ><B look="stop" onclick={() => revoke(token)}>{t.revoke}</B>
    </div>
  {:else}<p>{t.none}</p>{/each}
  {#if made}
    <div class="made">
      <p>{t.once}</p>
      <pre class="mono">{made}</pre>
      <B onclick={() => void navigator.clipboard.writeText(made).then(() => notices.say(m.prove.copied))}
        >{m.prove.copy}</B
      >
    </div>
  {/if}
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void make();
    }}
  >
    <label
      >{t.name}<Input
        bind:value={name}
        placeholder="monitoring"
        aria-invalid={'name' in faults}
        spellcheck="false"
      />{#if faults.name}<span class="fault">{faults.name}</span>{/if}</label
    >
    <label
      >{t.role}<Select
        bind:value={role}
        items={roles.map((each) => ({ value: each, name: t.may[each] ?? each }))}
        placeholder=""
      />{#if faults.role}<span class="fault">{faults.role}</span>{/if}</label
    >
    <label
      >{t.days}<Input inputmode="numeric" bind:value={days} aria-invalid={'days' in faults} />{#if faults.days}<span
          class="fault">{faults.days}</span
        >{/if}</label
    >
    <B type="submit" look="go" disabled={!name.trim()}>{t.make}</B>
  </form>
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
</Dialog>

<style>
  .token {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    align-items: center;
    border-top: 1px solid var(--line2);
    padding: 8px 0;
  }
  b {
    font-weight: 600;
  }
  .made pre {
    font-size: 12px;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 8px;
    margin: 6px 0;
  }
  form {
    display: grid;
    grid-template-columns: 2fr 2fr 1fr auto;
    gap: 8px;
    align-items: end;
    border-top: 1px solid var(--line2);
    padding-top: 12px;
    margin-top: 8px;
  }
  label {
    display: grid;
    gap: 3px;
    font-size: 13px;
    color: var(--ink2);
  }
  .fault {
    color: var(--fault);
    font-size: 12.5px;
  }
  @media (max-width: 700px) {
    form {
      grid-template-columns: 1fr;
    }
  }
</style>
