<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { PasswordChangesView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';
  import LaneRow from '../configure/LaneRow.svelte';

  /** The passwords of machines in use are replaced: the first machine alone, then several at once. */
  let { onclose }: { onclose: () => void } = $props();
  const g = m.handover.passwords;
  const path = () => `/bring-ups/${bringUpId()}/password-changes`;
  const view = live<PasswordChangesView>(path);
  const lead = $derived(session.me?.role === 'lead');
  let rack = $state('');
  let one = $state('');
  let width = $state(5);
  let chosen = $state<number | null>(null);
  let busy = $state(false);

  const rackOf = (position: string) => position.split(' ')[0] ?? '';
  const units = $derived(view.data?.units ?? []);
  const racks = $derived([...new Set(units.map((unit) => rackOf(unit.position)).filter((name) => name !== ''))].sort());
  const meant = $derived(
    units.filter(
      (unit) => (rack === '' || rackOf(unit.position) === rack) && (one === '' || String(unit.unitId) === one),
    ),
  );
  const lanes = $derived(
    [...(view.data?.lanes ?? [])].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true })),
  );
  const lane = $derived(lanes.find((each) => each.runId === chosen) ?? lanes.find((each) => each.state === 'STOPPED'));
  const running = $derived(lanes.some((each) => each.state === 'WAITING' || each.state === 'RUNNING'));

  async function act(to: string, body: object = {}): Promise<void> {
    busy = true;
    try {
      await api.post(to, body);
    } catch (error) {
      notices.fault(error);
    }
    busy = false;
    lookAgain();
  }
</script>

<Dialog title={g.title} wide {onclose}>
  {#if view.data}
    <p>{g.say}</p>
    {#if units.length > 0 && lead}
      <form
        onsubmit={(event) => {
          event.preventDefault();
          void act(path(), { units: meant.map((unit) => unit.unitId), width });
        }}
      >
        <label
          >{g.rack}
          <select bind:value={rack} onchange={() => (one = '')}
            ><option value="">{g.everyRack}</option>{#each racks as name (name)}<option>{name}</option>{/each}</select
          ></label
        >
        <label
          >{g.unit}
          <select bind:value={one}
            ><option value="">{g.everyUnit}</option
            >{#each units.filter((unit) => rack === '' || rackOf(unit.position) === rack) as unit (unit.unitId)}<option
                value={String(unit.unitId)}>{unit.name}</option
              >{/each}</select
          ></label
        >
        <label>{g.width} <input type="number" min="1" max="50" bind:value={width} /></label>
        <B type="submit" look="go" disabled={busy || meant.length === 0}>{g.start(meant.length)}</B>
      </form>
    {:else if units.length === 0 && lanes.length === 0}
      <p class="sub">{g.none}</p>
    {/if}
    {#if lanes.length > 0}
      {#if m.handover.passwords.hold[view.data.hold]}<p class="sub" role="status">{g.hold[view.data.hold]}</p>{/if}
      <div class="lanes sheet">
        {#each lanes as each (each.runId)}
          <LaneRow lane={each} on={each.runId === lane?.runId} done={g.done} onchoose={() => (chosen = each.runId)} />
        {/each}
      </div>
      {#if lane && (lane.state === 'STOPPED' || lane.state === 'CANCELLED' || lane.state === 'SET_ASIDE')}
        <div class="note" class:fault={lane.state === 'STOPPED'}>
          <span class="t">{lane.name}</span><br />{lane.note}{#if lane.advice}<br /><span class="sub"
              >{lane.advice}</span
            >{/if}
          {#if lead}
            <div class="do">
              <B disabled={busy} onclick={() => void act(`/password-changes/${lane.runId}/retry`)}
                >{m.configure.retry}</B
              >
              {#if lane.state === 'STOPPED'}<B
                  disabled={busy}
                  onclick={() => void act(`/password-changes/${lane.runId}/set-aside`)}>{m.configure.setAside}</B
                >{/if}
            </div>
          {/if}
        </div>
      {/if}
      {#if running && lead}<B look="stop" disabled={busy} onclick={() => void act(`${path()}/cancel`)}>{g.cancel}</B
        >{/if}
    {/if}
  {/if}
</Dialog>

<style>
  form,
  .do {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 16px;
    align-items: end;
    margin: 10px 0 16px;
  }
  label {
    display: grid;
    gap: 3px;
    font-size: 13px;
  }
  select,
  input {
    padding: 5px 8px;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
  }
  input {
    width: 74px;
  }
  .lanes {
    margin: 8px 0 12px;
  }
</style>
