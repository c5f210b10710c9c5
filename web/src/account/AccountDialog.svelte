<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { api, Problem } from '../lib/api';
  import { notices } from '../lib/notices.svelte';
  import { live, lookAgain } from '../lib/query';
  import { session } from '../lib/session.svelte';
  import { atTime } from '../lib/time';
  import type { SessionView } from '../lib/types';
  import B from '../parts/B.svelte';
  import Dialog from '../parts/Dialog.svelte';
  import { m } from '../messages';

  let { onclose }: { onclose: () => void } = $props();
  const t = m.account;
  const sessions = live<SessionView[]>(() => '/sessions');
  let old = $state('');
  let password = $state('');
  let faults = $state<Record<string, string>>({});
  let fault = $state('');

  async function change(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    faults = {};
    fault = '';
    try {
      await api.post('/session/password', { old, password });
      old = '';
      password = '';
      notices.say(t.changed);
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) fault = error instanceof Problem ? error.detail : String(error);
    }
    lookAgain();
  }

  const end = (each: SessionView) =>
    void api
      .delete(`/sessions/${each.id}`)
      .then(
        () => notices.say(t.ended),
        (error: unknown) => notices.fault(error),
      )
      .finally(lookAgain);
  const everywhere = () =>
    void api.delete('/sessions').then(
      () => session.ask(),
      (error: unknown) => notices.fault(error),
    );

  /** What a browser calls itself is long; what people tell two of theirs apart by is in it. */
  function browser(agent: string): string {
    const name = /Firefox|Edg|Chrome|Safari/.exec(agent)?.[0]?.replace('Edg', 'Edge') ?? '';
    const system = /Windows|Android|iPhone|iPad|Mac OS X|Linux/.exec(agent)?.[0] ?? '';
    return [name, system].filter(Boolean).join(', ') || agent || t.program;
  }
</script>

<Dialog title={t.title} {onclose}>
  <h3>{t.sessions}</h3>
  {#each sessions.data ?? [] as each (each.id)}
    <div class="row">
      <span
        ><b>{browser(each.agent)}</b>
        <span class="sub">{t.session(each.source, atTime(each.createdAt), atTime(each.seenAt))}</span></span
      >
      {#if each.own}<span class="sub">{t.this}</span>{:else}<B look="stop" onclick={() => end(each)}>{t.end}</B>{/if}
    </div>
  {/each}
  <div class="all"><B look="stop" onclick={everywhere}>{t.everywhere}</B></div>
  <h3>{t.passwordTitle}</h3>
  <form onsubmit={(event) => void change(event)}>
    <input type="text" autocomplete="username" value={session.me?.login} readonly hidden />
    <Label
      >{t.old}<Input
        type="password"
        bind:value={old}
        required
        autocomplete="current-password"
        aria-invalid={faults.old ? 'true' : undefined}
      />{#if faults.old}<span class="fault">{faults.old}</span>{/if}</Label
    >
    <Label
      >{t.new}<Input
        type="password"
        bind:value={password}
        required
        autocomplete="new-password"
        aria-invalid={faults.password ? 'true' : undefined}
      />{#if faults.password}<span class="fault">{faults.password}</span>{/if}</Label
    >
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
    <div>
      <B look="go" type="submit" disabled={!old || !password}>{t.change}</B> <span class="sub">{t.changeSay}</span>
    </div>
  </form>
</Dialog>

<style>
  h3 {
    margin: 14px 0 6px;
    font-size: 14px;
    font-weight: 650;
  }
  .row {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    align-items: center;
    border-top: 1px solid var(--line2);
    padding: 8px 0;
  }
  .all {
    border-top: 1px solid var(--line2);
    padding-top: 10px;
  }
  b {
    font-weight: 600;
    font-size: 14px;
  }
  form {
    display: grid;
    gap: 12px;
  }
  .fault {
    color: var(--fault);
    font-size: 12.5px;
  }
</style>
