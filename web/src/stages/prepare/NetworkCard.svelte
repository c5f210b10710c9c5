<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { PrepareView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { view, onstate }: { view: PrepareView; onstate: () => void } = $props();
  const network = $derived(view.groundwork.network);
  const blocked = $derived(view.groundwork.findings.some((finding) => finding.blocks));

  async function take(networkId: number): Promise<void> {
    try {
      await api.post(`/bring-ups/${bringUpId()}/network/choice`, { networkId });
      lookAgain();
    } catch (error) {
      notices.fault(error);
    }
  }
</script>

{#if network}
  <div class="cards">
    <div class="sheet">
      <div class="t"><Mark mark={blocked ? 'fault' : 'done'} size={15} /> <b>{network.name}</b></div>
      <span class="mono">{network.prefix}</span>{#if network.vlan}<span class="sub">{' · '}VLAN {network.vlan}</span>{/if}<br />
      <span class="sub">{m.prepare.fields.gateway} <span class="mono">{network.gateway || '—'}</span></span>
    </div>
    <div class="sheet">
      <div class="t"><Mark mark={network.nameServers.length ? 'set' : 'fault'} size={15} /> <b>{m.prepare.fields.nameServers}</b></div>
      <span class="mono">{network.nameServers.join(', ') || '—'}</span><br /><span class="sub">{m.prepare.fields.domain} <span class="mono">{network.domain}</span></span>
    </div>
    <div class="sheet">
      <div class="t"><Mark mark={network.timeServers.length ? 'set' : 'fault'} size={15} /> <b>{m.prepare.fields.timeServers}</b></div>
      <span class="mono">{network.timeServers.join(', ') || '—'}</span>
    </div>
    <div class="sheet">
      <div class="t"><Mark mark={view.groundwork.free >= view.groundwork.toPlace && network.ranges.length ? 'done' : 'fault'} size={15} /> <b>{m.prepare.fields.ranges}</b></div>
      <span class="sub">{view.groundwork.free} {m.prepare.free} · {view.groundwork.toPlace} {m.prepare.toPlace}</span><br />
      {#if session.mayWork}<B key="e" onclick={onstate}>{m.prepare.change}</B>{/if}
    </div>
  </div>
{:else}
  <div class="sheet empty">
    {#if session.mayWork}
      <B look="go" key="e" onclick={onstate}>{m.prepare.state}</B>
      {#if view.choices.length > 0}
        <p class="sub">{m.prepare.choose}</p>
        {#each view.choices as choice (choice.id)}
          <B onclick={() => void take(choice.id)}>{choice.name} <span class="mono">{choice.prefix}</span></B>
        {/each}
      {/if}
    {:else}{m.allocate.noNetwork}{/if}
  </div>
{/if}

<style>
  .cards { display: grid; grid-template-columns: repeat(auto-fit, minmax(190px, 1fr)); gap: 9px; }
  .cards .sheet { padding: 8px 11px; font-size: 13px; line-height: 1.5; }
  .t { display: flex; gap: 6px; align-items: center; }
  .empty { padding: 16px; display: flex; gap: 12px; align-items: center; flex-wrap: wrap; }
  .empty p { margin: 0; }
</style>
