<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { NoticeTarget } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose }: { onclose: () => void } = $props();
  const targets = live<NoticeTarget[]>(() => `/bring-ups/${bringUpId()}/notices`);
  let sort = $state<'webhook' | 'mail'>('webhook');
  let to = $state('');
  let secret = $state('');
  const lead = $derived(session.me?.role === 'lead');

  async function add(): Promise<void> {
    try {
      secret = (await api.post<{ secret: string }>(`/bring-ups/${bringUpId()}/notices`, { sort, to })).secret ?? '';
      to = '';
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }

  async function remove(target: NoticeTarget): Promise<void> {
    try {
      await api.delete(`/notices/${target.id}`);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }
</script>

<Dialog title={m.prove.notices} {onclose}>
  <p class="sub">{m.prove.noticesSay}</p>
  {#each targets.data ?? [] as target (target.id)}
    <section>
      <span
        >{target.sort === 'mail' ? m.prove.mail : m.prove.webhook} <b class="mono">{target.to}</b><br /><span
          class="sub"
          class:fault={target.fault}
          >{target.fault || (target.sentAt ? m.prove.sent(atTime(target.sentAt)) : m.prove.neverSent)}</span
        ></span
      >
      {#if lead}<B look="stop" onclick={() => void remove(target)}>{m.prove.remove}</B>{/if}
    </section>
  {:else}
    <p>{m.prove.noNotice}</p>
  {/each}
  {#if secret}<section class="made">
      <div>
        <p>{m.prove.secret}</p>
        <pre class="mono">{secret}</pre>
      </div>
    </section>{/if}
  {#if lead}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <Select
        size="sm"
        bind:value={sort}
        items={[
          { value: 'webhook', name: m.prove.webhook },
          { value: 'mail', name: m.prove.mail },
        ]}
        placeholder=""
        aria-label={m.prove.notices}
      />
      <Input
        size="sm"
        bind:value={to}
        required
        placeholder={sort === 'mail' ? m.prove.mailSample : m.prove.webhookSample}
        aria-label={sort === 'mail' ? m.prove.mail : m.prove.webhook}
        spellcheck="false"
      />
      <B type="submit" look="go">{m.prove.add}</B>
    </form>
  {/if}
</Dialog>

<style>
  section {
    border-top: 1px solid var(--line2);
    padding: 10px 0;
    display: flex;
    gap: 10px;
    align-items: center;
    justify-content: space-between;
  }
  section > span {
    overflow-wrap: anywhere;
    min-width: 0;
  }
  .fault {
    color: var(--fault);
  }
  .made pre {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    font-size: 11.5px;
  }
  form {
    display: grid;
    grid-template-columns: 150px 1fr auto;
    gap: 8px;
    border-top: 1px solid var(--line2);
    padding-top: 12px;
  }
  @media (max-width: 600px) {
    form {
      grid-template-columns: 1fr;
    }
  }
</style>
