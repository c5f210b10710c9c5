<script lang="ts">
  import { atTime, inFull } from '../../lib/time';
  import { session } from '../../lib/session.svelte';
  import type { Measured, PrepareView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';

  /** What units lean on, as it answered when it was last asked. */
  let {
    view,
    onstate,
    onopen,
    onmeasure,
  }: { view: PrepareView; onstate: () => void; onopen: () => void; onmeasure: () => void } = $props();
  const g = m.prepare.ground;
  const of = (kind: Measured['kind']) => view.services.filter((service) => service.kind === kind);
  const at = $derived(
    view.services
      .map((service) => service.at)
      .sort()
      .at(-1) ?? null,
  );
  const blocked = $derived(view.site.findings.some((finding) => finding.blocks && finding.about.networkId));
  /** Those of other bring-ups at the site are somebody else's to fix. */
  const gates = $derived(
    of('GATEWAY').filter((gate) => view.site.networks.some((network) => network.gateway === gate.address)),
  );
  const silent = $derived(gates.some((gate) => gate.state !== 'FINE'));
  const good = (list: Measured[]) => list.filter((service) => service.state === 'FINE').length;
  const from = $derived(session.me?.vantage ?? '');

  const services = $derived(
    [
      { title: g.names, list: of('NAME') },
      { title: g.time, list: of('TIME') },
      { title: g.relay, list: of('RELAY') },
      { title: g.proxy, list: of('PROXY') },
      { title: g.directory, list: of('DIRECTORY') },
    ].filter((card) => card.list.length > 0),
  );

  /** How the name servers of a card answered when they were asked for an update. */
  const updatesOf = (services: Measured[]) =>
    services.flatMap((service) => service.replies.filter((reply) => reply.request === 'UPDATE'));
</script>

<div class="head">
  <h2>
    {m.prepare.siteResources}{#if at}, {g.measured}{/if}
  </h2>
  {#if at}<span class="sub" title={inFull(at)}>{atTime(at)} {m.prove.from} {from}</span>{/if}
  <span class="end">
    {#if view.site.network}<B key="m" onclick={onmeasure}>{g.again}</B>{/if}
    {#if session.mayWork}<B
        look={view.site.network ? 'plain' : 'go'}
        key="e"
        onclick={view.site.network ? onopen : onstate}>{view.site.network ? g.open : m.prepare.define}</B
      >{/if}
  </span>
</div>
{#if view.site.network}
  <div class="cards">
    <div class="sheet">
      <div class="t">
        <Mark mark={blocked || silent ? 'fault' : 'done'} size={15} />
        <b>{g.networks(view.site.networks.length)}</b>
      </div>
      {#each view.site.networks as network (network.id)}
        <div class="line">
          <span class="mono">{network.prefix}</span>
          <span class="sub">{network.name}{network.vlan ? ` · VLAN ${network.vlan}` : ''}</span>
        </div>
      {/each}
      <span class="sub">{view.site.free} {m.prepare.free} · {view.site.toPlace} {m.prepare.toPlace}</span><br />
      {#if gates.length}
        <span class="sub"
          >{g.gateways}
          {#each gates as gate (gate.address)}<span class="mono" class:bad={gate.state !== 'FINE'}>{gate.address}</span
            >{' '}{/each}{silent ? g.silent : g.answer}</span
        >
      {/if}
    </div>
    {#each services as card (card.title)}
      <div class="sheet">
        <div class="t">
          <Mark mark={good(card.list) === card.list.length ? 'done' : 'fault'} size={15} /> <b>{card.title}</b>
          <span class="sub">{g.of(good(card.list), card.list.length)}</span>
        </div>
        {#each card.list as service (service.address)}
          <div
            class="line"
            title={Object.entries(service.detail)
              .map(([name, value]) => `${name}: ${value}`)
              .join('\n')}
          >
            <span class="mono">{service.address}</span>
            <span class="sub" class:wrong={service.state !== 'FINE'}>{service.sentence}</span>
          </div>
        {/each}
        {#if updatesOf(card.list).length > 0}
          <span class="sub">{updatesOf(card.list).every((reply) => reply.accepted) ? g.updates : g.noUpdates}</span>
        {/if}
      </div>
    {/each}
  </div>
{/if}

<style>
  .cards {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
    gap: 9px;
  }
  .cards .sheet {
    padding: 8px 11px;
    font-size: 13px;
    line-height: 1.5;
  }
  .t {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .line {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .wrong {
    color: var(--fault);
  }
</style>
