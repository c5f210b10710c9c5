<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { ConfigureView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId, choose, chosenUnit, path } from '../../routes';
  import Bench from './bench/Bench.svelte';
  import Lanes from './bench/Lanes.svelte';
  import Override from './bench/Override.svelte';
  import Several from './bench/Several.svelte';
  import type { ConsoleLane, LanesView, Startable } from './bench/types';
  import LaneRow from './LaneRow.svelte';
  import Steps from './Steps.svelte';

  const view = live<ConfigureView>(() => `/bring-ups/${bringUpId()}/configure`);
  const consoles = live<LanesView>(() => `/bring-ups/${bringUpId()}/lanes`);
  let member = $state(0);
  let asking = $state(false);
  let several = $state(false);
  let width = $state(3);
  let busy = $state(false);
  const lanes = $derived(view.data?.lanes ?? []);
  const under = $derived((view.data?.counts.RUNNING ?? 0) + (view.data?.counts.WAITING ?? 0));
  const chosen = $derived(
    lanes.find((lane) => lane.unitId === chosenUnit()) ??
      lanes.find((lane) => lane.state === 'STOPPED') ??
      lanes.find((lane) => lane.state === 'RUNNING'),
  );

  const onLines = $derived<ConsoleLane[]>(consoles.data?.lanes ?? []);
  const startable = $derived<Startable[]>(consoles.data?.startable ?? []);
  /** The unit at the bench: the chosen one, or else the first that waits for a person, or the first of all. */
  const benchUnit = $derived.by(() => {
    const at = chosenUnit();
    const there = (unit: number) =>
      onLines.some((lane) => lane.unitId === unit) || startable.some((unit_) => unit_.unitId === unit);
    if (at && there(at)) return at;
    if (at && lanes.some((lane) => lane.unitId === at)) return null;
    return (
      (
        onLines.find((lane) => lane.state === 'HELD') ??
        onLines.find((lane) => lane.state !== 'DONE') ??
        (lanes.length === 0 ? (onLines[0] ?? startable[0]) : undefined)
      )?.unitId ?? null
    );
  });

  const chosenLane = $derived(
    onLines.filter((lane) => lane.unitId === benchUnit)[Math.max(0, member)]?.dialogueId ?? null,
  );

  function openLane(lane: ConsoleLane): void {
    open(lane.unitId, onLines.filter((each) => each.unitId === lane.unitId).indexOf(lane));
  }

  function turn(index: number): void {
    member = index;
  }

  function open(unit: number, index: number): void {
    member = index;
    choose(unit);
  }

  /** What is outside the change window of its unit, and waits for a reason. */
  let outside = $state<{ path: string; body: Record<string, unknown>; sentence: string } | null>(null);

  async function post(path: string, body: Record<string, unknown> = {}): Promise<void> {
    busy = true;
    try {
      await api.post(path, body);
      outside = null;
    } catch (error) {
      if (error instanceof Problem && error.members.reasonWanted === true && !outside)
        outside = { path, body, sentence: error.detail };
      else notices.fault(error);
    } finally {
      busy = false;
      asking = false;
      several = false;
      lookAgain();
    }
  }

  function beginSeveral(units: number[], mode: 'ASK' | 'RUN'): void {
    void post(`/bring-ups/${bringUpId()}/consoles`, { units, mode });
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
  <div class="main" class:benching={benchUnit !== null}>
    <h1 class="visually-hidden">{m.stages.configure}</h1>
    <div class="head">
      <h2>{m.configure.title}</h2>
      <span class="sub"
        >{onLines.length > 0 && lanes.length === 0 ? m.bench.legend : m.configure.hold[view.data?.hold ?? 'NONE']}</span
      >
      <span class="end">
        {#if session.mayWork && onLines.some((lane) => !['DONE', 'SHUT', 'BY_HAND', 'STOPPED'].includes(lane.state))}<B
            look="stop"
            onclick={() => void post(`/bring-ups/${bringUpId()}/consoles/stop`)}>{m.bench.stopAll}</B
          >{/if}
        {#if session.mayWork && view.data}
          {#if view.data.ready > 0}<B look="go" key="s" disabled={busy} onclick={() => (asking = true)}
              >{m.configure.start(view.data.ready)}</B
            >{/if}
          {#if under > 0}<B
              look="stop"
              disabled={busy}
              onclick={() => void post(`/bring-ups/${bringUpId()}/setups/cancel`)}>{m.configure.cancel}</B
            >{/if}
        {/if}
      </span>
    </div>
    {#if onLines.length > 0}
      <Lanes lanes={onLines} chosen={chosenLane} onchoose={openLane} />
    {/if}
    {#if startable.length > 0}
      <p class="ready">
        <span class="sub">{m.bench.ready}</span>
        {#each startable as unit (unit.unitId)}<button
            type="button"
            class="mono"
            class:on={unit.unitId === benchUnit}
            title="{unit.kindTitle} {unit.position}"
            onclick={() => open(unit.unitId, 0)}>{unit.name}</button
          >{' '}{/each}{#if session.mayWork && startable.filter((unit) => !unit.alone).length > 1}<B
            disabled={busy}
            onclick={() => (several = true)}>{m.bench.several.open(startable.filter((unit) => !unit.alone).length)}</B
          >{/if}
      </p>
    {/if}
    {#if benchUnit}{#key benchUnit}<Bench unitId={benchUnit} {member} onmember={turn} />{/key}{/if}
    {#if lanes.length > 0 || (onLines.length === 0 && startable.length === 0)}
      <div class="sheet">
        {#each lanes as lane (lane.runId)}
          <LaneRow {lane} on={lane.runId === chosen?.runId} onchoose={() => choose(lane.unitId)} />
        {:else}
          {#if view.data}<p class="none">
              {m.configure.none}{' '}{#if view.data.ready > 0}<span class="mono">{view.data.readyNames}</span>{:else}{m
                  .configure.first[0]} <a href={path(bringUpId(), 'prepare')}>{m.stages.prepare}</a>
                {m.configure.first[1]} <a href={path(bringUpId(), 'allocate')}>{m.stages.allocate}</a>
                {m.configure.first[2]}{/if}
            </p>{/if}
        {/each}
      </div>
    {/if}
  </div>
  {#if !benchUnit}
    <aside class="side" aria-label={m.configure.steps}>
      {#if chosen}
        <Steps
          lane={chosen}
          {busy}
          onretry={() => void post(`/setups/${chosen.runId}/retry`)}
          onaside={() => void post(`/setups/${chosen.runId}/set-aside`)}
        />
      {:else}
        <p class="sub">{m.configure.choose}</p>
      {/if}
    </aside>
  {/if}
</div>
{#if several}<Several {startable} {busy} onbegin={beginSeveral} onclose={() => (several = false)} />{/if}
{#if outside}
  {@const asked = outside}
  <Override
    title={m.bench.windowTitle}
    sentence={asked.sentence}
    {busy}
    ongo={(reason) => void post(asked.path, { ...asked.body, reason })}
    onclose={() => (outside = null)}
  />
{/if}
{#if asking && view.data}
  <Dialog title={m.configure.confirm(view.data.ready)} onclose={() => (asking = false)}>
    <p class="mono">{view.data.readyNames}</p>
    <p>{m.configure.confirmText}</p>
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void post(`/bring-ups/${bringUpId()}/setups`, { width: Number(width) });
      }}
    >
      <label class="width"
        ><Input class="mono" type="number" min="1" max="50" bind:value={width} /> {m.configure.width}</label
      >
      <div class="row">
        <B look="go" type="submit" disabled={busy}>{m.configure.confirmYes}</B><B onclick={() => (asking = false)}
          >{m.configure.confirmNo}</B
        >
      </div>
    </form>
  </Dialog>
{/if}

<style>
  .benching {
    display: flex;
    flex-direction: column;
    padding-bottom: 12px;
  }
  .ready {
    margin: 0 0 10px;
    display: flex;
    gap: 8px;
    align-items: baseline;
    flex-wrap: wrap;
  }
  .ready button {
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 2px 9px;
    background: var(--sheet);
  }
  .ready button.on {
    background: var(--lamp2);
    border-color: var(--lamp-ink);
  }
  .none {
    padding: 16px;
    margin: 0;
  }
  .side {
    width: 340px;
  }
  .width {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .width :global(input) {
    width: 70px;
  }
  .row {
    display: flex;
    gap: 8px;
    margin-top: 14px;
  }
  @media (max-width: 900px) {
    .side {
      width: auto;
    }
  }
</style>
