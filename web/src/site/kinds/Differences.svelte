<script lang="ts">
  import { m } from '../../messages';
  import type { Change } from './types';

  /** What differs between two versions of a kind. */
  let { changes }: { changes: Change[] } = $props();
  const t = m.kinds.history;
</script>

{#if changes.length === 0}
  <p>{t.same}</p>
{:else}
  <ul>
    {#each changes as change, i (i)}
      <li>
        <span class="sort {change.sort.toLowerCase()}">{t.sorts[change.sort]}</span>
        <span class="sub">{t.parts[change.part]}</span>
        <b>{change.what}</b>
        {#if change.sort === 'CHANGED' || change.sort === 'MOVED'}
          <span
            ><del>{change.before || m.kinds.adjust.nothing}</del> →
            <ins>{change.after || m.kinds.adjust.nothing}</ins></span
          >
        {:else if (change.after || change.before) !== change.what}
          <span>{change.after || change.before}</span>
        {/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    list-style: none;
    padding: 0;
    margin: 0 0 12px;
    display: grid;
    gap: 5px;
  }
  li {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: baseline;
    overflow-wrap: anywhere;
  }
  .sort {
    font-size: 12px;
    border-radius: 3px;
    padding: 0 6px;
    background: var(--line2);
  }
  .added {
    background: var(--proof2);
    color: var(--proof-ink);
  }
  .removed {
    background: var(--fault2);
    color: var(--fault);
  }
  ins {
    text-decoration: none;
    font-weight: 560;
  }
</style>
