<script lang="ts">
  import type { Standing } from '../lib/types';
  import { m } from '../messages';

  /**
   * The seven rungs between two rails, the first at the bottom. A rung that passes is filled, one that fails is in the
   * color of faults with a cross beside it, one that is not measurable from here is an outline, and one that was not
   * checked is pale.
   */
  let { standings }: { standings: Standing[] } = $props();
  const RUNGS = 7;
  const y = (rung: number) => 19.2 - rung * 2.75;
  const broken = $derived(standings.indexOf('BROKEN'));
  const height = $derived(standings.filter((standing) => standing === 'HOLDS').length);
  const label = $derived(
    standings.length === 0
      ? m.prove.never
      : broken < 0
        ? m.prove.rungs(height)
        : m.prove.rungsAndFault(height, m.prove.cols[broken]!),
  );
  const color = (standing: Standing | undefined) =>
    standing === 'HOLDS'
      ? 'var(--proof)'
      : standing === 'BROKEN'
        ? 'var(--fault)'
        : standing === 'NOT_MEASURED'
          ? 'var(--rung-skip)'
          : 'var(--rung-off)';
</script>

<svg width="30" height="22" viewBox="0 0 30 22" role="img" aria-label={label}>
  <path d="M7 1v20M22 1v20" stroke="var(--rung-rail)" stroke-width="1.4" />
  {#each { length: RUNGS }, rung (rung)}
    <path
      d="M7.7 {y(rung)}h13.6"
      stroke={color(standings[rung])}
      stroke-width={standings[rung] === 'NOT_MEASURED' ? 1 : 1.9}
      stroke-dasharray={standings[rung] === 'NOT_MEASURED' ? '1.5 1.5' : undefined}
    />
    {#if rung === broken}
      <path d="M24.5 {y(rung) - 2}l4 4m0 -4l-4 4" stroke="var(--fault)" stroke-width="1.4" />
    {/if}
  {/each}
</svg>

<style>
  svg {
    flex: none;
    vertical-align: -5px;
  }
</style>
