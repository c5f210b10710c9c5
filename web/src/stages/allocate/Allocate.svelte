<script lang="ts">
  import { number, span, text } from '../../lib/address';
  import { api } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { PrepareView, RibbonView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Missing from '../../parts/Missing.svelte';
  import { m } from '../../messages';
  import { bringUpId, chosenUnit } from '../../routes';
  import AddUnits from '../prepare/AddUnits.svelte';
  import BringIn from './BringIn.svelte';
  import NamesPanel from './NamesPanel.svelte';
  import NetworkTabs from './NetworkTabs.svelte';
  import PlacePanel from './PlacePanel.svelte';
  import { Placing, tried, undo } from './placing.svelte';
  import Ribbon from './Ribbon.svelte';
  import { isV4 } from './ribbon';
  import RunsSix from './RunsSix.svelte';
  import { search, show } from './shown';
  import UnknownDevices from './UnknownDevices.svelte';
  import Wide from './Wide.svelte';

  /** Stage 2: which addresses the units get, in the networks of the bring-up. */
  const a = m.allocate;
  const tab = $derived(Number(search().network ?? 0) || null);
  const zoom = $derived(String(search().zoom ?? ''));
  const ribbon = live<RibbonView>(() => `/bring-ups/${bringUpId()}/ribbon${tab ? `?network=${tab}` : ''}`);
  const placing = new Placing();
  let bringing = $state(false);
  /** The MAC address of a controller that becomes a unit. */
  let adding = $state<string | null>(null);
  const here = $derived(ribbon.data?.density.length ? zoom : (ribbon.data?.prefix ?? ''));

  const MOST_SWEPT = 2048;
  let swept = $state<{ network: number; at: number; asked: number; answering: number } | null>(null);
  const poolAddresses = $derived(
    (ribbon.data?.strips ?? [])
      .filter((strip) => (strip.purpose === 'pool' || strip.purpose === 'dhcp') && isV4(strip.first))
      .flatMap((strip) =>
        Array.from({ length: Math.min(MOST_SWEPT + 1, number(strip.last) - number(strip.first) + 1) }, (_, i) =>
          text(number(strip.first) + i),
        ),
      ),
  );
  const canSweep = $derived(session.mayWork && poolAddresses.length > 0 && poolAddresses.length <= MOST_SWEPT);

  /** Asks every address of the pools and of DHCP: what answers and is not ours becomes an unknown device. */
  async function sweep(): Promise<void> {
    const network = ribbon.data?.networkId ?? 0;
    const answer = await placing.probe(poolAddresses);
    if (answer) swept = { network, at: Date.now(), asked: answer.asked, answering: answer.answering.length };
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

  const zoomTo = (prefix: string): void => show({ zoom: prefix });
  const startAt = (address: string): void => placing.start(address);
  const keepRun = (first: string, last: string): void => void keep(first, last);
  const keepOne = (address: string): void => void keep(address, address);
  const probeOne = (address: string): void => void placing.probeAndShow([address]);

  const addOne = (mac: string): void => void (adding = mac);

  async function release(unit: number): Promise<void> {
    if (await tried(() => api.post(`/units/${unit}/release`))) notices.say(a.released);
  }

  const chosenSeats = $derived((ribbon.data?.seats ?? []).filter((seat) => seat.unitId === chosenUnit() && seat.ours));
  const keys = onKeys({
    i: () => session.mayWork && (bringing = true),
    w: () => void (!placing.busy && canSweep && sweep()),
    t: () => void (session.mayWork && placing.take()),
    n: () => void placing.next(),
    l: () => void (session.mayWork && placing.lines.length > 0 && placing.probeAndShow()),
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
      {#if data.tabs.length > 1}<NetworkTabs tabs={data.tabs} shown={data.networkId} />{/if}
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
          {#if canSweep && data.hears}<B key="w" disabled={placing.busy} onclick={() => void sweep()}>{a.sweep}</B>{/if}
          {#if session.mayWork}<B key="i" onclick={() => (bringing = true)}>{a.existing.short}</B>{/if}
          {#if session.mayWork && data.undo}<B onclick={() => void undo(data.undo!.allocation)}
              >{a.undo(data.undo.count)}</B
            >{/if}
        </span>
      </div>
      {#if !isV4(data.prefix)}<RunsSix ribbon={data} fit={placing.lines} />
      {:else if data.density.length && !zoom}<Wide density={data.density} onopen={zoomTo} />
      {:else}<Ribbon
          ribbon={data}
          window={here}
          fit={placing.lines}
          growth={placing.growth}
          onstart={startAt}
          onkeep={keepRun}
        />{/if}
      <UnknownDevices devices={data.unknownDevices} onkeep={keepOne} onprobe={probeOne} onadd={addOne} />
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
      <PlacePanel {placing} octets={data.tabs.length > 1 ? 2 : 1} />
    </aside>
  </div>
{/if}
{#if adding}<AddUnits mac={adding} onclose={() => (adding = null)} />{/if}
{#if bringing}<BringIn onclose={() => (bringing = false)} />{/if}

<style>
  .side {
    width: 350px;
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
  @media (max-width: 900px) {
    .side {
      width: auto;
    }
  }
</style>
