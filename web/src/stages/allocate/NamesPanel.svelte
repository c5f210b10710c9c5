<script lang="ts">
  import { api } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { NamesView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /** How far the records are on their way to the name server. */
  const names = live<NamesView>(() => `/bring-ups/${bringUpId()}/names`);
  const n = m.allocate.names;
  const view = $derived(names.data);
  const total = $derived(view ? view.planned + view.made + view.refused + view.unknown : 0);

  async function push(): Promise<void> {
    try {
      await api.post(`/bring-ups/${bringUpId()}/record-pushes`);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }

  const keys = onKeys({ p: () => void (session.mayWork && total > 0 && push()) });

  async function copy(): Promise<void> {
    await navigator.clipboard.writeText(view?.zoneLines ?? '');
    notices.say(m.frame.copied);
  }
</script>

<svelte:window onkeydown={keys} />
{#if view && total > 0}
  <div class="sheet names">
    <div class="head">
      <h2>{n.title}</h2>
      <span class="sub"
        >{n.state(view.made, total)}{#if view.planned}{' · '}{view.planned} {n.planned}{/if}</span
      >
      {#if view.refused}<span class="bad">{view.refused} {n.refused}</span>{/if}
      {#if view.unknown}<span class="bad">{view.unknown} {n.unknown}</span>{/if}
      <span class="end">
        {#if session.mayWork && view.made < total}<B
            key="p"
            look={view.planned ? 'go' : 'plain'}
            onclick={() => void push()}>{view.refused || view.unknown ? n.again : n.push}</B
          >{/if}
        <B onclick={() => void copy()}>{m.allocate.copyZone}</B>
      </span>
    </div>
    {#if view.withoutZone.length}<p class="sub">
        {n.withoutZone} <span class="mono">{view.withoutZone.slice(0, 2).join(', ')}</span>
      </p>{/if}
    {#each view.open.slice(0, 6) as record (record.id)}<p class="open">
        <span class="mono">{record.line}</span><br /><span class="bad">{record.answer}</span>
      </p>{/each}
  </div>
{/if}

<style>
  .names {
    margin-top: 12px;
    padding: 10px 14px;
  }
  .head {
    margin: 0;
    align-items: center;
  }
  p {
    margin: 6px 0 0;
    overflow-wrap: anywhere;
  }
  .open {
    font-size: 12.5px;
  }
</style>
