<script lang="ts">
  import type { NetworkTab } from '../../lib/types';
  import { m } from '../../messages';
  import { isV4 } from './ribbon';
  import { show } from './shown';

  /** The networks of the bring-up, with how full each is; the one that is shown is marked. */
  let { tabs, shown }: { tabs: NetworkTab[]; shown: number } = $props();
  const a = m.allocate;
</script>

<div class="tabs">
  {#each tabs as each (each.id)}
    <button
      type="button"
      class="sheet tab"
      class:on={each.id === shown}
      aria-pressed={each.id === shown}
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

<style>
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
</style>
