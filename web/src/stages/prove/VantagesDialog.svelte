<script lang="ts">
  import { Checkbox, Input } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { VantageView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';

  let { onclose }: { onclose: () => void } = $props();
  const vantages = live<VantageView[]>(() => '/vantages');
  const ground = live<{ id: number; name: string; prefix: string }[]>(() => '/vantages/networks');
  let name = $state('');
  let made = $state<{ name: string; token: string } | null>(null);
  let revoking = $state<VantageView | null>(null);
  const lead = $derived(session.me?.role === 'lead');

  async function doing<T>(act: () => Promise<T>): Promise<T | null> {
    try {
      return await act();
    } catch (error) {
      notices.fault(error);
      return null;
    } finally {
      lookAgain();
    }
  }

  async function make(): Promise<void> {
    made = await doing(() => api.post<{ name: string; token: string }>('/vantages', { name }));
    if (made) name = '';
  }

  function give(vantage: VantageView, network: number, on: boolean): void {
    const networks = Object.keys(vantage.networks)
      .map(Number)
      .filter((id) => id !== network);
    void doing(() => api.put(`/vantages/${vantage.id}/networks`, { networks: on ? [...networks, network] : networks }));
  }

  const command = $derived(
    made ? `LYCHNOS_VANTAGE_TOKEN=${made.token} ./lychnos vantage --join ${location.origin}` : '',
  );
</script>

<Dialog title={m.prove.vantages} {onclose}>
  <p class="sub">{m.prove.vantagesSay}</p>
  {#each vantages.data ?? [] as vantage (vantage.id)}
    <section>
      <div class="head">
        <Mark
          mark={vantage.linked ? 'done' : 'fault'}
          size={14}
          word={vantage.linked ? m.prove.linked : m.prove.cut(null)}
        /><b class="mono">{vantage.name}</b>
        <span class="sub"
          >{vantage.linked ? m.prove.linked : m.prove.cut(vantage.seenAt ? atTime(vantage.seenAt) : null)}</span
        >
        {#if vantage.otherVersion && !vantage.linked}<span class="sub">{m.prove.otherVersion}</span>{/if}
        {#if lead}<span class="end"><B look="stop" onclick={() => (revoking = vantage)}>{m.prove.revoke}</B></span>{/if}
      </div>
      {#if revoking?.id === vantage.id}<div class="ask">
          <span>{m.prove.revokeSay(vantage.name)}</span>
          <B
            look="stop"
            onclick={() => {
              revoking = null;
              void doing(() => api.delete(`/vantages/${vantage.id}`));
            }}>{m.prove.revoke}</B
          >
        </div>{/if}
      <div class="nets">
        <span class="sub">{m.prove.reaches}</span>
        {#each ground.data ?? [] as network (network.id)}
          <label
            ><Checkbox
              checked={String(network.id) in vantage.networks}
              disabled={!lead}
              onchange={(event) => give(vantage, network.id, event.currentTarget.checked)}
            />
            {network.name} <span class="mono">{network.prefix}</span></label
          >
        {/each}
      </div>
    </section>
  {:else}
    <p>{m.prove.noVantage}</p>
  {/each}
  {#if made}
    <section class="made">
      <p>{m.prove.token}</p>
      <pre class="mono">{command}</pre>
      <B onclick={() => void navigator.clipboard.writeText(command).then(() => notices.say(m.prove.copied))}
        >{m.prove.copy}</B
      >
    </section>
  {/if}
  {#if lead}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <label class="sub"
        >{m.prove.newVantage}<Input
          size="sm"
          bind:value={name}
          required
          placeholder="hall-3"
          spellcheck="false"
        /></label
      >
      <B type="submit" look="go">{m.prove.make}</B>
    </form>
  {/if}
</Dialog>

<style>
  section {
    border-top: 1px solid var(--line2);
    padding: 10px 0;
  }
  .head {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .end {
    margin-left: auto;
  }
  .nets {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    margin-top: 6px;
    font-size: 13px;
  }
  .nets label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .ask {
    background: var(--fault2);
    padding: 8px 10px;
    border-radius: 5px;
    display: flex;
    gap: 10px;
    align-items: center;
    margin-top: 6px;
  }
  .made pre {
    font-size: 11px;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 8px;
    margin: 6px 0;
  }
  form {
    display: flex;
    gap: 8px;
    align-items: end;
    border-top: 1px solid var(--line2);
    padding-top: 12px;
    margin-top: 4px;
  }
  form label {
    flex: 1;
  }
</style>
