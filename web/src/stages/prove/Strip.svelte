<script lang="ts">
  import { atTime } from '../../lib/time';
  import { m } from '../../messages';

  /**
   * What a rung was each time that the endpoint changed: the newest on the right. Shown once there is more than one.
   */
  let { rung, title, before }: { rung: number; title: string; before: { at: string; standings: string }[] } = $props();
  const MOST = 24;
  const words: Record<string, string> = { h: 'HOLDS', b: 'BROKEN', n: 'NOT_REACHED', m: 'NOT_MEASURED' };
  const cells = $derived(
    before
      .filter((was) => was.standings.length > rung)
      .slice(0, MOST)
      .reverse()
      .map((was) => ({ at: was.at, letter: was.standings[rung]! })),
  );
  const told = $derived(new Set(cells.map((cell) => cell.letter)).size > 1);
</script>

{#if told}
  <span
    class="strip"
    role="img"
    aria-label="{m.prove.strip(title, cells.length)}: {cells
      .map((cell) => `${atTime(cell.at)} ${m.prove.standing[words[cell.letter]!]}`)
      .join(', ')}"
  >
    {#each cells as cell, i (i)}<i class={cell.letter} title="{atTime(cell.at)} {m.prove.standing[words[cell.letter]!]}"
      ></i>{/each}
  </span>
{/if}

<style>
  .strip {
    display: flex;
    gap: 2px;
    margin-top: 3px;
    align-items: flex-end;
    height: 9px;
  }
  i {
    width: 5px;
    height: 9px;
    border-radius: 1px;
    background: var(--line);
  }
  i.h {
    background: var(--lit, var(--go));
  }
  i.b {
    background: var(--fault);
    height: 9px;
  }
  i.n {
    height: 3px;
  }
  i.m {
    height: 3px;
    background: none;
    border: 1px solid var(--line);
  }
</style>
