<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { ConfigureView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId, choose, chosenUnit } from '../../routes';
  import LaneRow from './LaneRow.svelte';
  import Steps from './Steps.svelte';

  const view = live<ConfigureView>(() => `/bring-ups/${bringUpId()}/configure`);
  let asking = $state(false);
  let width = $state(3);
  let busy = $state(false);
  const lanes = $derived(view.data?.lanes ?? []);
  const under = $derived((view.data?.counts.RUNNING ?? 0) + (view.data?.counts.WAITING ?? 0));
  const chosen = $derived(lanes.find((lane) => lane.unitId === chosenUnit()) ?? lanes.find((lane) => lane.state === 'STOPPED') ?? lanes.find((lane) => lane.state === 'RUNNING'));

  async function post(path: string, body?: unknown): Promise<void> {
    busy = true;
    try {
      await api.post(path, body);
    } catch (error) {
      notices.fault(error);
    } finally {
      busy = false;
      asking = false;
      lookAgain();
    }
  }

  function move(by: number): void {
    const at = lanes.findIndex((lane) => lane.unitId === chosen?.unitId);
    const next = lanes[Math.max(0, Math.min(lanes.length - 1, at + by))];
    if (next) choose(next.unitId);
  }

  const keys = onKeys({
    s: () => session.mayWork && (view.data?.ready ?? 0) > 0 && (asking = true),
    j: () => move(1),
    k: () => move(-1),
    Escape: () => choose(null),
  });
</script>

<svelte:window onkeydown={keys} />
<div class="page">
  <div class="main">
    <h1 class="visually-hidden">{m.stages.configure}</h1>
    <div class="head">
      <h2>{m.configure.title}</h2>
      <span class="sub">{m.configure.hold[view.data?.hold ?? 'NONE']}</span>
      <span class="end">
        {#if session.mayWork && view.data}
          {#if view.data.ready > 0}<B look="go" key="s" disabled={busy} onclick={() => (asking = true)}>{m.configure.start(view.data.ready)}</B>{/if}
          {#if under > 0}<B look="stop" disabled={busy} onclick={() => void post(`/bring-ups/${bringUpId()}/rounds/cancel`)}>{m.configure.cancel}</B>{/if}
        {/if}
      </span>
    </div>
    <div class="sheet">
      {#each lanes as lane (lane.runId)}
        <LaneRow {lane} on={lane.runId === chosen?.runId} onchoose={() => choose(lane.unitId)} />
      {:else}
        {#if view.data}<p class="none">{m.configure.none}{#if view.data.ready > 0} <span class="mono">{view.data.readyNames}</span>{/if}</p>{/if}
      {/each}
    </div>
  </div>
  <aside class="side" aria-label={m.configure.steps}>
    {#if chosen}
      <Steps lane={chosen} {busy} onretry={() => void post(`/runs/${chosen.runId}/retry`)} onaside={() => void post(`/runs/${chosen.runId}/set-aside`)} />
    {:else}
      <p class="sub">{m.configure.choose}</p>
    {/if}
  </aside>
</div>
{#if asking && view.data}
  <Dialog title={m.configure.confirm(view.data.ready)} onclose={() => (asking = false)}>
    <p class="mono">{view.data.readyNames}</p>
    <p>{m.configure.confirmText}</p>
    <form onsubmit={(event) => { event.preventDefault(); void post(`/bring-ups/${bringUpId()}/rounds`, { width: Number(width) }); }}>
      <label class="width"><Input class="mono" type="number" min="1" max="50" bind:value={width} /> {m.configure.width}</label>
      <div class="row"><B look="go" type="submit" disabled={busy}>{m.configure.confirmYes}</B><B onclick={() => (asking = false)}>{m.configure.confirmNo}</B></div>
    </form>
  </Dialog>
{/if}

<style>
  .none { padding: 16px; margin: 0; }
  .side { width: 340px; }
  .width { display: flex; gap: 8px; align-items: center; }
  .width :global(input) { width: 70px; }
  .row { display: flex; gap: 8px; margin-top: 14px; }
  @media (max-width: 900px) { .side { width: auto; } }
</style>
