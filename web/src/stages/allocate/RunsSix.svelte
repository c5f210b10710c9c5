<script lang="ts">
  import type { ProposalLine, RibbonView } from '../../lib/types';
  import { m } from '../../messages';
  import { choose } from '../../routes';

  /** An IPv6 network has no ribbon that could be drawn: the addresses in use, in order. */
  let { ribbon, fit }: { ribbon: RibbonView; fit: ProposalLine[] } = $props();
  const mine = $derived(fit.filter((line) => line.networkId === ribbon.networkId));
</script>

<div class="sheet scroll">
  <table class="tbl">
    <thead><tr><th>{m.allocate.address}</th><th>{m.allocate.nameCol}</th><th>{m.allocate.role}</th></tr></thead>
    <tbody>
      {#each mine as line (line.address)}<tr class="on"
          ><td class="mono">{line.address}</td><td class="mono">{line.hostName}</td><td
            >{line.role} · {m.allocate.legend.fit}</td
          ></tr
        >{/each}
      {#each ribbon.seats as seat (seat.address)}
        <tr onclick={() => choose(seat.unitId)}
          ><td class="mono">{seat.address}</td><td class="mono">{seat.hostName}</td><td>{seat.role}</td></tr
        >
      {:else}{#if mine.length === 0}<tr><td colspan="3" class="sub">{m.allocate.nothingIn}</td></tr>{/if}{/each}
    </tbody>
  </table>
</div>
