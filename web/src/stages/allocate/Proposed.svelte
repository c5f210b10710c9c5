<script lang="ts">
  import type { Growth, ProposalLine } from '../../lib/types';
  import { m } from '../../messages';
  import { isV4 } from './ribbon';

  /** The addresses that are proposed, by unit or by role, and the records of the first. */
  let {
    lines,
    growth,
    alone,
    named,
    octets,
  }: {
    lines: ProposalLine[];
    growth: Growth[];
    /** Whether they are all for one unit. */
    alone: boolean;
    /** Whether they are grouped by unit. */
    named: boolean;
    /** How many octets tell the addresses apart. */
    octets: number;
  } = $props();
  const a = m.allocate;
  const MOST = 300;

  const byUnit = $derived(
    [
      ...lines.reduce(
        (units, line) => units.set(line.unitId, [...(units.get(line.unitId) ?? []), line]),
        new Map<number, ProposalLine[]>(),
      ),
    ].slice(0, MOST),
  );

  function shortAddress(address: string): string {
    return isV4(address) ? '.' + address.split('.').slice(-octets).join('.') : address;
  }
</script>

<table class="tbl list">
  {#if !alone && named}
    <thead><tr><th>{a.unit}</th><th>{a.address}</th><th></th></tr></thead>
    <tbody>
      {#each byUnit as [id, own] (id)}
        <tr
          ><td class="mono">{own[0]!.unit}</td><td class="mono">{shortAddress(own[0]!.address)}</td><td class="sub"
            >{own.length > 1 ? a.more(own.length - 1) : ''}</td
          ></tr
        >
      {/each}
    </tbody>
  {:else}
    <thead><tr><th>{alone ? a.role : a.unit}</th><th>{a.address}</th><th>{a.nameCol}</th></tr></thead>
    <tbody>
      {#each lines.slice(0, MOST) as line (line.address)}
        <tr
          ><td>{alone ? line.role : line.position || line.unit}</td><td class="mono">{shortAddress(line.address)}</td
          ><td class="mono">{line.hostName}</td></tr
        >
      {/each}
      {#each !alone ? [] : growth as each (each.run)}<tr class="sub"
          ><td>{a.growth}</td><td class="mono" colspan="2">{each.run.split('-').map(shortAddress).join(' – ')}</td></tr
        >{/each}
    </tbody>
  {/if}
</table>
<h3>{a.records}</h3>
<p class="mono zone">
  {lines[0]?.forward}<br />{lines[0]?.reverse}{#if lines.length > 1}<br />…{/if}
</p>

<style>
  .list {
    font-size: 13px;
    margin-bottom: 8px;
  }
  .zone {
    overflow-wrap: anywhere;
    font-size: 11.5px;
    margin: 0 0 8px;
  }
</style>
