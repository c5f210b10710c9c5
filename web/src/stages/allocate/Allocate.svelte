<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { Input, Label } from 'flowbite-svelte';
  import { span } from '../../lib/address';
  import { api, Problem } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { Proposal, RibbonView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Missing from '../../parts/Missing.svelte';
  import { m } from '../../messages';
  import { bringUpId, chosenUnit, go, route } from '../../routes';
  import Ribbon from './Ribbon.svelte';

  const ribbon = live<RibbonView>(() => `/bring-ups/${bringUpId()}/ribbon`);
  let pattern = $state<string | null>(null);
  let typed = $state('');
  let raced = $state('');
  let busy = $state(false);
  const from = $derived(String((route.search as Record<string, string>).from ?? ''));

  const proposal = createQuery(() => ({
    queryKey: ['live', 'proposal', bringUpId(), pattern, from],
    placeholderData: (previous: Proposal | undefined) => previous,
    queryFn: () => {
      const search = new URLSearchParams({ ...(pattern === null ? {} : { pattern }), ...(from ? { from } : {}) }).toString();
      return api.get<Proposal>(`/bring-ups/${bringUpId()}/proposal?${search}`);
    },
  }));
  const lines = $derived(proposal.data?.lines ?? []);

  function start(address: string): void {
    const unit = chosenUnit();
    const search = new URLSearchParams({ ...(unit ? { unit: String(unit) } : {}), ...(address ? { from: address } : {}) }).toString();
    go(route.pathname + (search ? '?' + search : ''));
  }

  async function next(): Promise<void> {
    const first = lines[0]?.address;
    if (!first) return;
    const after = first.replace(/\d+$/, (last) => String(Number(last) + 1));
    const fit = await api.get<Proposal>(`/bring-ups/${bringUpId()}/proposal?from=${after}`);
    start(fit.lines.length > 0 ? after : '');
  }

  async function take(): Promise<void> {
    if (lines.length === 0 || busy) return;
    busy = true;
    raced = '';
    try {
      const { taking } = await api.post<{ taking: string }>(`/bring-ups/${bringUpId()}/takings`, {
        pattern: proposal.data?.pattern,
        lines: lines.map(({ unitId, address, hostName }) => ({ unitId, address, hostName })),
      });
      notices.say(m.allocate.taken(lines.length), () => void undo(taking));
      start('');
    } catch (error) {
      if (error instanceof Problem && error.status === 409) raced = error.detail;
      else notices.fault(error);
    } finally {
      busy = false;
      lookAgain();
    }
  }

  async function undo(taking: string): Promise<void> {
    try {
      await api.post(`/bring-ups/${bringUpId()}/takings/${taking}/undo`);
      notices.say(m.allocate.undone);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }

  async function copyZone(): Promise<void> {
    await navigator.clipboard.writeText(lines.flatMap((line) => [line.forward, line.reverse]).join('\n') + '\n');
    notices.say(m.frame.copied);
  }

  const keys = onKeys({ t: () => void (session.mayWork && take()), n: () => void next() });
</script>

<svelte:window onkeydown={keys} />
{#if ribbon.data && ribbon.data.prefix === ''}
  <div class="page"><div class="main"><Missing text={m.allocate.noNetwork} stage="prepare" link={m.allocate.toPrepare} /></div></div>
{:else if ribbon.data}
  {@const data = ribbon.data}
  <div class="page">
    <div class="main">
      <h1 class="visually-hidden">{m.stages.allocate}</h1>
      <div class="head">
        <h2>{m.allocate.title}</h2>
        <span class="sub">{data.name} <span class="mono">{data.prefix}</span>{#if data.vlan}{' · '}VLAN {data.vlan}{/if}</span>
        <span class="end">
          {#if session.mayWork && data.undo}{@const last = data.undo}<B onclick={() => void undo(last.taking)}>{m.allocate.undo(last.count)}</B>{/if}
        </span>
      </div>
      <Ribbon ribbon={data} fit={lines} onstart={start} />
    </div>
    <aside class="side" aria-label={m.allocate.fits}>
      {#if lines.length === 0 && !proposal.data?.fault}
        <h2>{m.allocate.all}</h2>
      {:else}
        <h2>{m.allocate.place(lines.length)}</h2>
        {#if raced}<p class="say" role="alert">{raced}</p>{/if}
        <form onsubmit={(event) => { event.preventDefault(); pattern = typed; }}>
          <Label for="pattern">{m.allocate.pattern}</Label>
          <Input id="pattern" class="mono" value={pattern ?? proposal.data?.pattern ?? ''} oninput={(event: Event) => (typed = (event.currentTarget as HTMLInputElement).value)} onchange={() => (pattern = typed || pattern)} spellcheck="false" aria-describedby="pattern-hint" />
          <span id="pattern-hint" class="sub mono">{m.allocate.patternHint}</span>
        </form>
        {#if proposal.data?.fault}<p class="say" role="alert">{proposal.data.fault}</p>{/if}
        {#if lines.length > 0}
          <div class="opt"><b class="mono">{span(lines.map((line) => line.address))}</b> <span class="sub">{proposal.data?.reason}</span></div>
          {#if session.mayWork}
            <div class="row"><B look="go" key="t" disabled={busy} onclick={() => void take()}>{m.allocate.take}</B></div>
          {/if}
          <div class="row"><B key="n" onclick={() => void next()}>{m.allocate.next}</B>{#if from}<B onclick={() => start('')}>{m.allocate.lowest}</B>{/if}</div>
          <table class="tbl list">
            <thead><tr><th>{m.allocate.unit}</th><th>{m.allocate.address}</th><th>{m.allocate.nameCol}</th></tr></thead>
            <tbody>
              {#each lines as line (line.unitId)}
                <tr><td>{line.position}</td><td class="mono">{line.address.slice(line.address.lastIndexOf('.'))}</td><td class="mono">{line.hostName}</td></tr>
              {/each}
            </tbody>
          </table>
          <h3>{m.allocate.records}</h3>
          <p class="mono zone">{lines[0]?.forward}<br />{lines[0]?.reverse}{#if lines.length > 1}<br />…{/if}</p>
          <B onclick={() => void copyZone()}>{m.allocate.copyZone}</B>
        {/if}
      {/if}
    </aside>
  </div>
{/if}

<style>
  .side { width: 338px; }
  form { margin: 10px 0; }
  .opt { border: 2px solid var(--lamp-ink); background: var(--lamp2); border-radius: 5px; padding: 7px 10px; margin: 6px 0 10px; display: flex; gap: 10px; justify-content: space-between; align-items: baseline; }
  .opt b { white-space: nowrap; }
  .row { display: flex; gap: 8px; margin-bottom: 8px; }
  .list { font-size: 13px; }
  .list td { white-space: nowrap; }
  .zone { overflow-wrap: anywhere; font-size: 11.5px; margin: 0 0 8px; }
  @media (max-width: 900px) { .side { width: auto; } }
</style>
