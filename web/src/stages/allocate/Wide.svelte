<script lang="ts">
  import type { Density } from '../../lib/types';
  import { m } from '../../messages';

  /** A large network, one bar for every 256 addresses; choosing one looks into it. */
  let { density, onopen }: { density: Density[]; onopen: (prefix: string) => void } = $props();
  const used = $derived(density.filter((each) => each.pool > 0 || each.taken > 0 || each.kept > 0));
</script>

<div class="sheet wide">
  {#each used as each (each.first)}
    <button
      type="button"
      onclick={() => onopen(`${each.first}/24`)}
      title={m.allocate.density(each.taken, each.pool, each.kept)}
    >
      <span class="mono">{each.first.replace(/\.0$/, '')}</span>
      <span class="bar"
        ><i class="taken" style="width:{(each.taken / 256) * 100}%"></i><i
          class="kept"
          style="width:{(each.kept / 256) * 100}%"
        ></i></span
      >
      <span class="sub">{each.taken}</span>
    </button>
  {:else}<p class="sub">{m.allocate.nothingIn}</p>{/each}
</div>

<style>
  .wide {
    padding: 10px;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
    gap: 4px 14px;
    max-height: calc(100vh - 300px);
    overflow: auto;
  }
  button {
    display: grid;
    grid-template-columns: 84px 1fr 34px;
    gap: 8px;
    align-items: center;
    padding: 3px 6px;
    border-radius: 4px;
    text-align: left;
  }
  button:hover {
    background: var(--lamp2);
  }
  .bar {
    height: 12px;
    background: var(--line2);
    border-radius: 3px;
    display: flex;
    overflow: hidden;
  }
  .taken {
    background: var(--proof);
  }
  .kept {
    background: var(--rung-skip);
  }
</style>
