<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { Input, Label } from 'flowbite-svelte';
  import { number, span, text } from '../../lib/address';
  import { api, Problem } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { Fit, Fits, Growth, PrepareView, Proposal, ProposalLine, RibbonView, Probed } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Missing from '../../parts/Missing.svelte';
  import { m } from '../../messages';
  import { bringUpId, chosenUnit, go, path, route } from '../../routes';
  import BringIn from './BringIn.svelte';
  import NamesPanel from './NamesPanel.svelte';
  import NameByHand from './NameByHand.svelte';
  import Ribbon from './Ribbon.svelte';
  import { isV4 } from './ribbon';
  import RunsSix from './RunsSix.svelte';
  import Wide from './Wide.svelte';

  const a = m.allocate;
  const search = $derived(route.search as Record<string, string>);
  const from = $derived(String(search.from ?? ''));
  const tab = $derived(Number(search.network ?? 0) || null);
  const zoom = $derived(String(search.zoom ?? ''));
  const ribbon = live<RibbonView>(() => `/bring-ups/${bringUpId()}/ribbon${tab ? `?network=${tab}` : ''}`);
  let pattern = $state<string | null>(null);
  let typed = $state('');
  let typedStart = $state('');
  let raced = $state('');
  let busy = $state(false);
  let nth = $state(0);
  let bringing = $state(false);
  let probed = $state<Probed | null>(null);

  const proposal = createQuery(() => ({
    queryKey: ['live', 'proposal', bringUpId(), pattern, from],
    placeholderData: (previous: Proposal | undefined) => previous,
    queryFn: () => {
      const query = new URLSearchParams({
        ...(pattern === null ? {} : { pattern }),
        ...(from ? { from } : {}),
      }).toString();
      return api.get<Proposal>(`/bring-ups/${bringUpId()}/proposal?${query}`);
    },
  }));
  const waiting = $derived(proposal.data?.lines ?? []);
  const unitsWaiting = $derived([
    ...new Map([
      ...waiting.map((line) => [line.unitId, line.unit] as const),
      ...(proposal.data?.unplaced ?? []).map((each) => [each.unitId, each.unit] as const),
    ]).entries(),
  ]);
  const named = $derived(
    unitsWaiting.some(([id]) => waiting.filter((line) => line.unitId === id).length > 1) ||
      unitsWaiting.length !== waiting.length,
  );
  /** A chosen unit without addresses is allocated alone; otherwise all units without addresses are. */
  const single = $derived(
    chosenUnit() !== null && unitsWaiting.some(([id]) => id === chosenUnit()) ? chosenUnit() : null,
  );

  const fits = createQuery(() => ({
    queryKey: ['live', 'fits', bringUpId(), single, from],
    enabled: single !== null,
    queryFn: () => api.get<Fits>(`/bring-ups/${bringUpId()}/fits?unit=${single}${from ? `&at=${from}` : ''}`),
  }));
  const options = $derived(single === null ? [] : (fits.data?.fits ?? []));
  const fit = $derived<Fit | undefined>(options[Math.min(nth, options.length - 1)]);
  const lines = $derived<ProposalLine[]>(single === null ? waiting : (fit?.lines ?? []));
  const growth = $derived<Growth[]>(single === null ? (proposal.data?.growth ?? []) : (fit?.growth ?? []));
  const here = $derived(ribbon.data?.density.length ? zoom : (ribbon.data?.prefix ?? ''));
  const unitCount = $derived(new Set(lines.map((line) => line.unitId)).size);

  const byUnit = $derived(
    [
      ...lines.reduce(
        (units, line) => units.set(line.unitId, [...(units.get(line.unitId) ?? []), line]),
        new Map<number, ProposalLine[]>(),
      ),
    ].slice(0, 300),
  );

  /** Within a network the last octet tells them apart; with several, the last two. */
  function shortAddress(address: string): string {
    return isV4(address)
      ? '.' +
          address
            .split('.')
            .slice(ribbon.data && ribbon.data.tabs.length > 1 ? 2 : 3)
            .join('.')
      : address;
  }

  function show(change: Record<string, string | null>): void {
    const next: Record<string, string> = { ...search };
    for (const [key, value] of Object.entries(change)) {
      if (value === null || value === '') delete next[key];
      else next[key] = value;
    }
    const query = new URLSearchParams(next).toString();
    go(route.pathname + (query ? '?' + query : ''));
  }

  function start(address: string): void {
    nth = 0;
    probed = null;
    show({ from: address });
  }

  async function next(): Promise<void> {
    if (single !== null) {
      if (from) start('');
      else nth = options.length ? (nth + 1) % options.length : 0;
      probed = null;
      return;
    }
    const first = lines[0]?.address;
    if (!first || !isV4(first)) return;
    const after = text(number(first) + 1);
    try {
      const other = await api.get<Proposal>(`/bring-ups/${bringUpId()}/proposal?from=${after}`);
      start(other.lines.length > 0 ? after : '');
    } catch (error) {
      notices.fault(error);
    }
  }

  async function tried(work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work();
      return true;
    } catch (error) {
      notices.fault(error);
      return false;
    } finally {
      lookAgain();
    }
  }

  async function take(): Promise<void> {
    if (lines.length === 0 || busy) return;
    busy = true;
    raced = '';
    try {
      const { allocation } = await api.post<{ allocation: string }>(`/bring-ups/${bringUpId()}/allocations`, {
        pattern: single === null ? proposal.data?.pattern : null,
        lines: lines.map(({ unitId, role, networkId, address, hostName, alias }) => ({
          unitId,
          role,
          networkId,
          address,
          hostName,
          alias,
        })),
        growth,
      });
      notices.say(a.taken(lines.length), () => void undo(allocation));
      probed = null;
      start('');
    } catch (error) {
      if (error instanceof Problem && error.status === 409) raced = error.detail;
      else notices.fault(error);
    } finally {
      busy = false;
      lookAgain();
    }
  }

  async function undo(allocation: string): Promise<void> {
    if (await tried(() => api.post(`/bring-ups/${bringUpId()}/allocations/${allocation}/undo`))) notices.say(a.undone);
  }

  async function sound(addresses: string[]): Promise<void> {
    busy = true;
    await tried(async () => (probed = await api.post<Probed>(`/bring-ups/${bringUpId()}/probes`, { addresses })));
    busy = false;
  }

  const MOST_SWEPT = 2048;
  let swept = $state<{ network: number; at: number; asked: number; answering: number } | null>(null);
  const poolAddresses = $derived(
    (ribbon.data?.strips ?? [])
      .filter((strip) => strip.purpose === 'pool' && isV4(strip.first))
      .flatMap((strip) =>
        Array.from({ length: Math.min(MOST_SWEPT + 1, number(strip.last) - number(strip.first) + 1) }, (_, i) =>
          text(number(strip.first) + i),
        ),
      ),
  );

  /** Asks every address of the pools: what answers and is not ours becomes an unknown device. */
  async function sweep(): Promise<void> {
    const network = ribbon.data?.networkId ?? 0;
    busy = true;
    await tried(async () => {
      const answer = await api.post<Probed>(`/bring-ups/${bringUpId()}/probes`, { addresses: poolAddresses });
      swept = { network, at: Date.now(), asked: answer.asked, answering: answer.answering.length };
    });
    busy = false;
  }

  /** Keeps addresses that were marked: a range of the network like any other. */
  async function keep(first: string, last: string): Promise<void> {
    if (!session.mayWork) return;
    await tried(async () => {
      const { site } = await api.get<PrepareView>(`/bring-ups/${bringUpId()}/prepare`);
      const network = site.networks.find((each) => each.id === ribbon.data?.networkId);
      if (!network) return;
      const before = network.ranges;
      const put = (ranges: typeof before, version: string | null) =>
        api.put(`/bring-ups/${bringUpId()}/networks`, { ...network, ranges, version });
      await put([...before, { purpose: 'kept', run: `${first}-${last}`, note: a.keptNote }], network.version);
      notices.say(a.keptSaid(span([first, last])), () => void tried(() => put(before, null)));
    });
  }

  const undoable = $derived(ribbon.data?.undo?.count ?? 0);

  async function undoLast(): Promise<void> {
    if (ribbon.data?.undo) await undo(ribbon.data.undo.allocation);
  }

  function lookInto(prefix: string): void {
    show({ zoom: prefix });
  }

  function keepRun(first: string, last: string): void {
    void keep(first, last);
  }

  async function release(unit: number): Promise<void> {
    if (await tried(() => api.post(`/units/${unit}/release`))) notices.say(a.released);
  }

  const chosenSeats = $derived((ribbon.data?.seats ?? []).filter((seat) => seat.unitId === chosenUnit() && seat.ours));
  const keys = onKeys({
    i: () => session.mayWork && (bringing = true),
    w: () =>
      void (session.mayWork && !busy && poolAddresses.length > 0 && poolAddresses.length <= MOST_SWEPT && sweep()),
    t: () => void (session.mayWork && take()),
    n: () => void next(),
    l: () => void (session.mayWork && lines.length > 0 && sound(lines.map((line) => line.address))),
  });
</script>

<svelte:window onkeydown={keys} />
{#if ribbon.data && ribbon.data.prefix === ''}
  <div class="page"><div class="main"><Missing text={a.noNetwork} stage="prepare" link={a.toPrepare} /></div></div>
{:else if ribbon.data}
  {@const data = ribbon.data}
  <div class="page">
    <div class="main">
      <h1 class="visually-hidden">{m.stages.allocate}</h1>
      {#if data.tabs.length > 1}
        <div class="tabs">
          {#each data.tabs as each (each.id)}
            <button
              type="button"
              class="sheet tab"
              class:on={each.id === data.networkId}
              aria-pressed={each.id === data.networkId}
              onclick={() => show({ network: String(each.id), zoom: null, from: null })}
            >
              <b>{each.name}</b><br /><span class="mono sub"
                >{each.prefix}{each.vlan ? ` · ${each.vlan}` : ''}{each.permanent ? ` · ${a.fixed}` : ''}</span
              >
              {#if isV4(each.prefix)}<span class="bar"
                  ><i class="taken" style="width:{(each.taken / each.size) * 100}%"></i><i
                    class="rest"
                    style="width:{Math.max(0, (each.size - each.free - each.taken) / each.size) * 100}%"
                  ></i></span
                >{/if}
            </button>
          {/each}
        </div>
      {/if}
      <div class="head">
        <h2>{a.title}</h2>
        <span class="sub"
          >{data.name} <span class="mono">{data.prefix}</span>{#if data.vlan}{' · '}VLAN {data.vlan}{/if}</span
        >
        {#if swept?.network === data.networkId}<span class="sub"
            >{a.swept(atTime(swept.at), swept.answering, swept.asked)}</span
          >{/if}
        {#if data.unknownDevices.length}<span class="bad">{a.unknownDevices(data.unknownDevices.length)}</span>{/if}
        <span class="end">
          {#if data.density.length && zoom}<B onclick={() => show({ zoom: null })}>{a.whole} {data.prefix}</B>{/if}
          <span class="sub">{a.drag} <kbd>R</kbd></span>
          {#if session.mayWork && data.hears && poolAddresses.length > 0 && poolAddresses.length <= MOST_SWEPT}<B
              key="w"
              disabled={busy}
              onclick={() => void sweep()}>{a.sweep}</B
            >{/if}
          {#if session.mayWork}<B key="i" onclick={() => (bringing = true)}>{a.existing.short}</B>{/if}
          {#if session.mayWork && data.undo}<B onclick={() => void undoLast()}>{a.undo(undoable)}</B>{/if}
        </span>
      </div>
      {#if !isV4(data.prefix)}<RunsSix ribbon={data} fit={lines} />
      {:else if data.density.length && !zoom}<Wide density={data.density} onopen={lookInto} />
      {:else}<Ribbon ribbon={data} window={here} fit={lines} {growth} onstart={start} onkeep={keepRun} />{/if}
      {#each data.unknownDevices as unknownDevice (unknownDevice.address)}
        <div class="sheet unknown">
          <div>
            <b>{unknownDevice.address} {a.answersNotOurs}</b><br /><span class="sub"
              >{a.firstHeard}
              {atTime(unknownDevice.firstHeard)}{unknownDevice.mac ? ` · ${m.prepare.cols.mac} ` : ''}<span class="mono"
                >{unknownDevice.mac ?? ''}</span
              >
              · {unknownDevice.sentence}</span
            >
          </div>
          {#if session.mayWork}<span class="end"
              ><B onclick={() => void keep(unknownDevice.address, unknownDevice.address)}>{a.keepIt}</B><B
                onclick={() => void sound([unknownDevice.address])}>{a.lookAgain}</B
              ></span
            >{/if}
        </div>
      {/each}
      <NamesPanel />
    </div>
    <aside class="side" aria-label={a.fits}>
      {#if chosenSeats.length > 0}
        <h2>{chosenSeats[0]?.unit}</h2>
        <table class="tbl list">
          <tbody
            >{#each chosenSeats as seat (seat.address)}<tr
                ><td>{seat.role}</td><td class="mono">{seat.address}</td><td class="mono">{seat.hostName}</td></tr
              >{/each}</tbody
          >
        </table>
        <div class="row">
          {#if session.mayWork}<B onclick={() => void release(chosenSeats[0]!.unitId)}>{a.release}</B>{/if}
        </div>
      {/if}
      {#if unitsWaiting.length === 0 && !proposal.data?.fault}
        <h2>{a.all}</h2>
        <p class="sub">{a.onward} <a href={path(bringUpId(), 'configure')}>{m.stages.configure}</a></p>
      {:else}
        <h2>{single !== null ? a.placeOne(fits.data?.unit ?? '') : a.place(unitsWaiting.length)}</h2>
        {#if single !== null}
          <p class="sub">{fits.data?.kind}. {fits.data?.about}</p>
          {#if session.mayWork && fits.data}{#key single}<NameByHand unitId={single} now={fits.data.unit} />{/key}{/if}
        {:else if named}
          <p class="sub units">
            {#each unitsWaiting.slice(0, 14) as [id, unit] (id)}<button
                type="button"
                class="mono"
                onclick={() => {
                  nth = 0;
                  probed = null;
                  show({ unit: String(id), from: null });
                }}>{unit}</button
              >{' '}{/each}{#if unitsWaiting.length > 14}…{/if}
          </p>
        {/if}
        {#if raced}<p class="say" role="alert">{raced}</p>{/if}
        {#if single === null}
          <form
            onsubmit={(event) => {
              event.preventDefault();
              pattern = typed;
            }}
          >
            <Label for="pattern">{a.pattern}</Label>
            <Input
              id="pattern"
              class="mono"
              value={pattern ?? proposal.data?.pattern ?? ''}
              oninput={(event: Event) => (typed = (event.currentTarget as HTMLInputElement).value)}
              onchange={() => (pattern = typed || pattern)}
              spellcheck="false"
              aria-describedby="pattern-hint"
            />
            <span id="pattern-hint" class="sub mono">{a.patternHint}</span>
          </form>
          {#if proposal.data?.fault}<p class="say" role="alert">{proposal.data.fault}</p>{/if}
          {#each proposal.data?.unplaced ?? [] as each (each.unitId)}{#if !proposal.data?.fault}<p class="say">
                <b>{each.unit}</b>: {each.why}
              </p>{/if}{/each}
          {#if lines.length > 0}<div class="opt">
              <b class="mono"
                >{unitCount === lines.length && isV4(lines[0]!.address)
                  ? span(lines.map((line) => line.address))
                  : a.addresses(lines.length)}</b
              > <span class="sub">{proposal.data?.reason}</span>
            </div>{/if}
        {:else}
          {#if fits.data?.fault}<p class="say" role="alert">{fits.data.fault}</p>{/if}
          <h3>{a.runs}</h3>
          {#each options as option, i (i)}
            <button
              type="button"
              class="opt"
              class:quiet={option !== fit}
              aria-pressed={option === fit}
              onclick={() => {
                nth = i;
                probed = null;
              }}
            >
              <b class="mono"
                >{span(
                  option.lines
                    .filter((line) => line.networkId === option.lines[0]!.networkId && isV4(line.address))
                    .map((line) => line.address),
                )}</b
              >
              <span class="sub">{option.reasons.join(', ')}</span>
            </button>
          {/each}
          <form
            onsubmit={(event) => {
              event.preventDefault();
              start(typedStart.trim());
            }}
          >
            <Label for="begin">{a.begin}</Label>
            <Input
              id="begin"
              class="mono"
              bind:value={typedStart}
              placeholder={options[0]?.lines[0]?.address ?? ''}
              spellcheck="false"
              autocomplete="off"
            />
          </form>
          {#if fits.data?.almost}<div class="opt quiet bad">{fits.data.almost}</div>{/if}
          <div class="row"><B onclick={() => show({ unit: null, from: null })}>{a.placeAll}</B></div>
        {/if}
        {#if lines.length > 0}
          {#if probed}
            <p class="say" class:good={probed.answering.length === 0}>
              {!probed.possible
                ? a.notMeasured
                : probed.answering.length === 0
                  ? a.silent(probed.asked)
                  : probed.answering.map((each) => `${each.address} ${each.sentence}`).join('; ')}
            </p>
          {/if}
          {#if session.mayWork}
            <div class="row">
              <B look="go" key="t" disabled={busy} onclick={() => void take()}>{a.take(lines.length)}</B>
            </div>
          {/if}
          <div class="row">
            <B key="n" onclick={() => void next()}>{a.next}</B>
            {#if session.mayWork}<B
                key="l"
                disabled={busy}
                onclick={() => void sound(lines.map((line) => line.address))}>{a.listen}</B
              >{/if}
            {#if from}<B onclick={() => start('')}>{a.lowest}</B>{/if}
          </div>
          <table class="tbl list">
            {#if single === null && named}
              <thead><tr><th>{a.unit}</th><th>{a.address}</th><th></th></tr></thead>
              <tbody>
                {#each byUnit as [id, own] (id)}
                  <tr
                    ><td class="mono">{own[0]!.unit}</td><td class="mono">{shortAddress(own[0]!.address)}</td><td
                      class="sub">{own.length > 1 ? a.more(own.length - 1) : ''}</td
                    ></tr
                  >
                {/each}
              </tbody>
            {:else}
              <thead
                ><tr><th>{single !== null ? a.role : a.unit}</th><th>{a.address}</th><th>{a.nameCol}</th></tr></thead
              >
              <tbody>
                {#each lines.slice(0, 300) as line (line.address)}
                  <tr
                    ><td>{single !== null ? line.role : line.position || line.unit}</td><td class="mono"
                      >{shortAddress(line.address)}</td
                    ><td class="mono">{line.hostName}</td></tr
                  >
                {/each}
                {#each single === null ? [] : growth as each (each.run)}<tr class="sub"
                    ><td>{a.growth}</td><td class="mono" colspan="2"
                      >{each.run.split('-').map(shortAddress).join(' – ')}</td
                    ></tr
                  >{/each}
              </tbody>
            {/if}
          </table>
          <h3>{a.records}</h3>
          <p class="mono zone">
            {lines[0]?.forward}<br />{lines[0]?.reverse}{#if lines.length > 1}<br />…{/if}
          </p>
        {/if}
      {/if}
    </aside>
  </div>
{/if}
{#if bringing}<BringIn onclose={() => (bringing = false)} />{/if}

<style>
  .side {
    width: 350px;
  }
  form {
    margin: 10px 0;
  }
  .tabs {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
    gap: 8px;
    margin-bottom: 12px;
  }
  .tab {
    padding: 7px 11px 9px;
    text-align: left;
    border-top: 3px solid transparent;
  }
  .tab.on {
    border-color: var(--lamp-ink);
  }
  .bar {
    display: flex;
    height: 6px;
    background: var(--line2);
    border-radius: 3px;
    overflow: hidden;
    margin-top: 6px;
  }
  .taken {
    background: var(--proof);
  }
  .rest {
    background: var(--rung-skip);
  }
  .opt {
    border: 2px solid var(--lamp-ink);
    background: var(--lamp2);
    border-radius: 5px;
    padding: 7px 10px;
    margin: 6px 0 8px;
    display: flex;
    gap: 10px;
    justify-content: space-between;
    align-items: baseline;
    width: 100%;
    text-align: left;
  }
  .opt.quiet {
    border: 1px solid var(--line);
    background: var(--sheet);
    padding: 8px 11px;
  }
  .opt b {
    white-space: nowrap;
  }
  .opt .sub {
    text-align: right;
  }
  .row {
    display: flex;
    gap: 8px;
    margin-bottom: 8px;
    flex-wrap: wrap;
  }
  .list {
    font-size: 13px;
    margin-bottom: 8px;
  }
  .units button {
    text-decoration: underline;
    color: var(--lamp-ink);
  }
  .zone {
    overflow-wrap: anywhere;
    font-size: 11.5px;
    margin: 0 0 8px;
  }
  .unknown {
    display: flex;
    gap: 14px;
    justify-content: space-between;
    align-items: center;
    padding: 10px 14px;
    margin-top: 10px;
  }
  .unknown .end {
    display: flex;
    gap: 8px;
  }
  @media (max-width: 900px) {
    .side {
      width: auto;
    }
    .unknown {
      flex-direction: column;
      align-items: flex-start;
    }
  }
</style>
