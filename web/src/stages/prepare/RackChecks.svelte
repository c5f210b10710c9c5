<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime, inFull } from '../../lib/time';
  import type { RackChecksView, RackMachine } from '../../lib/types';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /** What is ticked at the rack: one entry for each machine, by its place, for a phone in the cold aisle too. */
  let { onclose }: { onclose: () => void } = $props();
  const g = m.prepare.rack;
  /** Thousands of checkboxes at once would take seconds. */
  const MOST = 200;
  const path = () => `/bring-ups/${bringUpId()}/rack-checks`;
  const view = live<RackChecksView>(path);
  let rack = $state('');
  let openOnly = $state(false);
  /** Ticks that the server has not answered yet, by machine and check. */
  let sending = $state<Record<string, boolean>>({});

  const rackOf = (machine: RackMachine) => machine.location.split(' ')[0] ?? '';
  const racks = $derived(
    [...new Set((view.data?.machines ?? []).map(rackOf).filter((name) => name !== ''))].sort((a, b) =>
      a.localeCompare(b, 'en', { numeric: true }),
    ),
  );
  const shown = $derived(
    (view.data?.machines ?? [])
      .filter((machine) => rack === '' || rackOf(machine) === rack)
      .filter((machine) => !openOnly || machine.checks.some((check) => !check.at))
      .sort((a, b) => a.location.localeCompare(b.location, 'en', { numeric: true })),
  );
  const key = (machine: RackMachine, text: string) => `${machine.unitId} ${machine.member} ${text}`;

  async function tick(machine: RackMachine, check: string, done: boolean): Promise<void> {
    const own = key(machine, check);
    sending = { ...sending, [own]: done };
    try {
      await api.put(path(), { unit: machine.unitId, member: machine.member, check, done });
    } catch (error) {
      notices.fault(error);
    } finally {
      lookAgain();
      const rest = { ...sending };
      delete rest[own];
      sending = rest;
    }
  }
</script>

<Dialog title={g.title} wide {onclose}>
  {#if view.data && view.data.all > 0}
    <div class="filters">
      <span class="sub" role="status">{g.ticked(view.data.done, view.data.all)}</span>
      <label class="sub"
        >{g.rack}
        <select bind:value={rack}
          ><option value="">{g.everyRack}</option>{#each racks as name (name)}<option>{name}</option>{/each}</select
        ></label
      >
      <label class="sub"><input type="checkbox" bind:checked={openOnly} /> {g.openOnly}</label>
    </div>
    <ul>
      {#each shown.slice(0, MOST) as machine (machine.unitId + machine.member)}
        <li>
          <h3>
            <span class="mono">{machine.unit}</span>
            {machine.member} <span class="sub">{machine.location || g.noPlace}</span>
          </h3>
          {#each machine.checks as check (check.text)}
            {@const done = sending[key(machine, check.text)] ?? Boolean(check.at)}
            <label class="check" class:done>
              <input
                type="checkbox"
                checked={done}
                disabled={!session.mayWork}
                onchange={(event) => void tick(machine, check.text, event.currentTarget.checked)}
              />
              <span>
                {check.text}{#if check.late}<span class="late">{g.late}</span>{/if}
                {#if check.at}<span class="sub" title={inFull(check.at)}>{g.by(check.by ?? '', atTime(check.at))}</span
                  >{/if}
              </span>
            </label>
          {/each}
        </li>
      {:else}
        <li class="sub">{g.allTicked}</li>
      {/each}
    </ul>
    {#if shown.length > MOST}<p class="sub">{g.first(MOST, shown.length)}</p>{/if}
  {:else if view.data}
    <p class="sub">{g.none}</p>
  {/if}
</Dialog>

<style>
  .filters {
    display: flex;
    gap: 18px;
    flex-wrap: wrap;
    align-items: center;
    margin-bottom: 12px;
  }
  select {
    padding: 4px 8px;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(310px, 100%), 1fr));
    gap: 14px 26px;
  }
  h3 {
    font-size: 14px;
    margin: 0 0 4px;
  }
  .check {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr);
    align-items: baseline;
    padding: 6px 0;
    border-top: 1px solid var(--line2);
  }
  .check.done > span {
    color: var(--ink2);
  }
  .late {
    margin-left: 8px;
    font-size: 12px;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 0 5px;
  }
</style>
