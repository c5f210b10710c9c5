<script lang="ts">
  import { tick } from 'svelte';
  import { Select } from 'flowbite-svelte';
  import { tail } from '../../lib/address';
  import { api } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime, inFull } from '../../lib/time';
  import type { Endpoint, MarkName, ProveView, RungName } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Ladder from '../../parts/Ladder.svelte';
  import ManyRows from '../../parts/ManyRows.svelte';
  import Mark from '../../parts/Mark.svelte';
  import Missing from '../../parts/Missing.svelte';
  import { m } from '../../messages';
  import { bringUpId, choose, chosenAddress, chosenUnit, go, route } from '../../routes';
  import Cards from './Cards.svelte';
  import EndpointDetail from './EndpointDetail.svelte';
  import NoticesDialog from './NoticesDialog.svelte';
  import VantagesDialog from './VantagesDialog.svelte';

  const view = live<ProveView>(() => `/bring-ups/${bringUpId()}/prove`);
  /** The one chosen, else the first that does not hold. */
  const on = $derived.by(() => {
    const all = view.data?.endpoints ?? [];
    const unit = chosenUnit();
    return (
      (unit === null
        ? undefined
        : (all.find((endpoint) => endpoint.claimId === chosenAddress()) ??
          all.find((endpoint) => endpoint.unitId === unit))) ??
      all.find((endpoint) => !endpoint.proven && endpoint.at) ??
      null
    );
  });
  const only = $derived((route.search as Record<string, unknown>).only === 'broken');
  const shown = $derived((view.data?.endpoints ?? []).filter((endpoint) => !only || !endpoint.proven));
  /** Rack by rack; what lives on a host is in none. */
  type Line = { rack: string; units: number[]; endpoint: null } | { endpoint: Endpoint };
  const lines = $derived.by(() => {
    const racks: Record<string, Endpoint[]> = {};
    for (const endpoint of shown) (racks[endpoint.position.split(' ')[0]!] ??= []).push(endpoint);
    return Object.entries(racks).flatMap<Line>(([rack, all]) => [
      { rack, units: [...new Set(all.map((endpoint) => endpoint.unitId))], endpoint: null },
      ...all.map((endpoint) => ({ endpoint })),
    ]);
  });
  let table = $state<{ show: (index: number) => void }>();
  const marks: Record<string, MarkName> = { HOLDS: 'done', BROKEN: 'fault', NOT_REACHED: 'dark', NOT_MEASURED: 'dark' };

  async function post(path: string, body?: unknown): Promise<void> {
    try {
      await api.post(path, body);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }

  const check = (units: number[] | null) => void post(`/bring-ups/${bringUpId()}/checks`, { units });

  const RUNGS: RungName[] = ['ANSWERS', 'PORT', 'TLS', 'SERVICE', 'IDENTITY', 'AS_PLANNED', 'SAFE'];

  /** Which dialog is open. */
  let open = $state<'' | 'vantages' | 'notices'>('');

  function move(by: number): void {
    const order = lines.flatMap((line) => line.endpoint ?? []);
    const at = order.findIndex((endpoint) => endpoint.claimId === on?.claimId);
    const next = order[Math.max(0, Math.min(order.length - 1, at + by))];
    if (!next) return;
    choose(next.unitId, next.claimId);
    table?.show(lines.findIndex((line) => line.endpoint === next));
    void tick().then(() => document.getElementById(`endpoint-${next.claimId}`)?.scrollIntoView({ block: 'nearest' }));
  }

  /** Units of which something was checked and does not hold. */
  const off = $derived([
    ...new Set(
      (view.data?.endpoints ?? [])
        .filter((endpoint) => endpoint.at && !endpoint.proven && !endpoint.settingUp)
        .map((endpoint) => endpoint.unitId),
    ),
  ]);

  async function pace(minutes: number): Promise<void> {
    try {
      await api.put(`/bring-ups/${bringUpId()}/checks/pace`, { minutes });
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }

  const sendAgain = (units: number[]) => void post(`/bring-ups/${bringUpId()}/record-pushes`, { units });

  const BESIDE = ['NAME', 'REVERSE', 'TIME'] as const;

  function besideOf(endpoint: Endpoint): { mark: MarkName; word: string }[] {
    return BESIDE.map((mark) => {
      const standing = endpoint.beside[mark];
      return {
        mark: standing ? marks[standing]! : 'dark',
        word: `${m.prove.beside[mark]}: ${standing ? m.prove.standing[standing] : m.prove.never}`,
      };
    });
  }

  function cells(endpoint: Endpoint): { mark: MarkName; word: string }[] {
    return m.prove.cols.map((col, i) => {
      const standing = endpoint.standings[i];
      if (endpoint.settingUp) return { mark: 'wait', word: `${col}: ${m.prove.settingUp}` };
      return {
        mark: standing ? marks[standing]! : 'dark',
        word: `${col}: ${standing ? m.prove.standing[standing] : m.prove.never}`,
      };
    });
  }

  const keys = onKeys({
    c: () => session.mayWork && check(null),
    x: () => void (session.mayWork && on && check([on.unitId])),
    j: () => move(1),
    k: () => move(-1),
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    Escape: () => choose(null),
  });
</script>

<svelte:window onkeydown={keys} />
{#if view.data && view.data.endpoints.length === 0}
  <div class="page">
    <div class="main"><Missing text={m.prove.none} stage="allocate" link={m.stages.allocate} /></div>
  </div>
{:else if view.data}
  <div class="page">
    <div class="main">
      <h1 class="visually-hidden">{m.stages.prove}</h1>
      <div class="head">
        <h2>{m.prove.title}</h2>
        <span class="sub">
          {m.prove.endpoints(view.data.endpoints.length)}{#if view.data.lastAt}{' · '}{m.prove.last}
            <span title={inFull(view.data.lastAt)}>{atTime(view.data.lastAt)}</span>
            {m.prove.from}
            <button type="button" class="place" onclick={() => (open = 'vantages')}>{view.data.vantage}</button>{/if}
        </span>
        <span class="end">
          <label class="sub"
            ><input
              type="checkbox"
              checked={only}
              onchange={(event) => go(route.pathname + (event.currentTarget.checked ? '?only=broken' : ''))}
            />
            {m.prove.onlyBroken}</label
          >
          {#if session.mayWork}
            {#if view.data.checking > 0}
              <span class="sub">{m.prove.checking(view.data.checking)}</span><B
                look="stop"
                onclick={() => void post(`/bring-ups/${bringUpId()}/checks/cancel`)}>{m.prove.cancel}</B
              >
            {/if}
            <label class="sub"
              >{m.prove.pace}
              <Select
                size="sm"
                value={view.data.minutes}
                items={[...new Set([0, 15, 60, 1440, view.data.minutes])].map((minutes) => ({
                  value: minutes,
                  name: m.prove.paces[minutes] ?? `${minutes} min`,
                }))}
                placeholder=""
                onchange={(event) => void pace(Number(event.currentTarget.value))}
              />
            </label>
            <B onclick={() => (open = 'notices')}>{m.prove.notices}</B>
            {#if off.length > 0}<B onclick={() => check(off)}>{m.prove.checkOff(off.length)}</B>{/if}
            <B look="go" key="c" onclick={() => check(null)}>{m.prove.checkAll}</B>
          {/if}
        </span>
      </div>
      <div class="sheet">
        <ManyRows
          bind:this={table}
          items={lines}
          key={(line: Line) => line.endpoint?.claimId ?? `rack ${'rack' in line ? line.rack : ''}`}
          height={(line: Line) => (line.endpoint ? 30 : 26)}
          cols={13}
          label={m.prove.title}
        >
          {#snippet head()}
            <tr
              ><th>{m.prove.endpoint}</th><th>{m.prove.ladder}</th>{#each m.prove.cols as col, i (col)}<th class="k"
                  >{#if session.mayWork}<button
                      type="button"
                      class="rung"
                      title={m.prove.upTo(col)}
                      aria-label={m.prove.upTo(col)}
                      onclick={() => void post(`/bring-ups/${bringUpId()}/checks`, { units: null, rung: RUNGS[i] })}
                      >{col}</button
                    >{:else}{col}{/if}</th
                >{/each}{#each BESIDE as mark (mark)}<th class="k">{m.prove.beside[mark]}</th>{/each}<th>ms</th></tr
            >
          {/snippet}
          {#snippet row(line: Line)}
            {#if line.endpoint}
              {@const endpoint = line.endpoint}
              <tr
                id="endpoint-{endpoint.claimId}"
                class:on={endpoint.claimId === on?.claimId}
                class:unready={!endpoint.ready && !endpoint.at}
                onclick={() => choose(endpoint.unitId, endpoint.claimId)}
              >
                <td class="name"
                  ><button type="button" onclick={() => choose(endpoint.unitId, endpoint.claimId)}
                    ><b class="mono">{endpoint.name}</b></button
                  >
                  <span class="sub"
                    >{endpoint.role === 'management' ? '' : endpoint.role}
                    <span class="mono">{tail(endpoint.address)}</span></span
                  ></td
                >
                <td><Ladder standings={endpoint.settingUp ? [] : endpoint.standings} /></td>
                {#each cells(endpoint) as cell, i (i)}<td class="k"
                    >{#if endpoint.checking && i === 0}<Mark mark="work" size={16} />{:else}<Mark
                        mark={cell.mark}
                        size={16}
                        word={cell.word}
                      />{/if}</td
                  >{/each}
                {#each besideOf(endpoint) as cell, i (i)}<td class="k"
                    >{#if endpoint.at}<Mark mark={cell.mark} size={16} word={cell.word} />{/if}</td
                  >{/each}
                <td class="mono sub">{endpoint.millis === null ? '' : endpoint.millis.toFixed(1)}</td>
              </tr>
            {:else}
              <tr class="group"
                ><th colspan="13" scope="rowgroup"
                  >{m.prove.rack(line.rack)}{#if session.mayWork}<button
                      type="button"
                      class="rack"
                      onclick={() => check(line.units)}>{line.rack ? m.prove.checkRack : m.prove.checkThese}</button
                    >{/if}</th
                ></tr
              >
            {/if}
          {/snippet}
        </ManyRows>
      </div>
      <Cards view={view.data} onsend={sendAgain} />
    </div>
    <aside class="side" aria-label={m.prove.endpoint}>
      {#if on}<EndpointDetail
          unitId={on.unitId}
          claimId={on.claimId}
          oncheck={() => on && check([on.unitId])}
          onsend={() => on && sendAgain([on.unitId])}
        />{:else}<p class="sub">{m.prove.choose}</p>{/if}
    </aside>
  </div>
{/if}

{#if open === 'vantages'}<VantagesDialog onclose={() => (open = '')} />{:else if open === 'notices'}<NoticesDialog
    onclose={() => (open = '')}
  />{/if}

<style>
  .place {
    font: inherit;
    color: inherit;
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .place:hover {
    text-decoration-style: solid;
  }
  .rung {
    font: inherit;
    color: inherit;
    padding: 2px 0;
    border-radius: 3px;
  }
  .rung:hover {
    text-decoration: underline;
  }
  tr {
    height: 30px;
  }
  .group {
    height: 26px;
  }
  .name {
    padding: 2px 8px;
    white-space: nowrap;
  }
  .name b {
    font-weight: 600;
  }
  .rack {
    float: right;
    font: inherit;
    font-weight: 400;
    color: var(--ink2);
    background: none;
    border: 0;
    cursor: pointer;
  }
  .rack:hover {
    text-decoration: underline;
  }
  .unready .name b {
    font-weight: 400;
    color: var(--ink2);
  }
  .k {
    padding-left: 2px;
    padding-right: 2px;
    font-size: 11.5px;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .side {
    width: 336px;
  }
  @media (max-width: 900px) {
    .side {
      width: auto;
    }
  }
</style>
