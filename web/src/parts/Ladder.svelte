<script lang="ts">
  import type { Standing } from '../lib/types';
  import { m } from '../messages';

  /** The seven rungs, growing; filled while they hold, crossed where the first one breaks, hollow where not measured. */
  let { standings }: { standings: Standing[] } = $props();
  const step = 62 / 7;
  const broken = $derived(standings.indexOf('BROKEN'));
  const height = $derived(standings.filter((standing) => standing === 'HOLDS').length);
  const label = $derived(
    standings.length === 0
      ? m.prove.never
      : broken < 0
        ? `${height}/7`
        : `${height}/7, ${m.prove.cols[broken]} ${m.prove.standing.BROKEN}`,
  );
  const fill = (standing: Standing | undefined) =>
    standing === 'HOLDS'
      ? 'var(--proof)'
      : standing === 'BROKEN'
        ? 'var(--fault)'
        : standing === 'NOT_MEASURED'
          ? 'none'
          : 'var(--rung-off)';
</script>

<svg width="62" height="20" viewBox="0 0 62 20" role="img" aria-label={label}>
  {#each { length: 7 }, i (i)}
    {@const x = 1 + i * step}
    {@const y = 15 - i * 1.9}
    <rect
      {x}
      {y}
      width={step - 2}
      height={3 + i * 1.9}
      rx="1"
      fill={fill(standings[i])}
      stroke={standings[i] === 'NOT_MEASURED' ? 'var(--rung-skip)' : 'none'}
    />
    {#if i === broken}
      <path
        d="M{x + 0.6} {Math.max(0.5, y - 4.5)}l{step - 3.4} 3.4m0-3.4l-{step - 3.4} 3.4"
        stroke="var(--fault)"
        stroke-width="1.4"
      />
    {/if}
  {/each}
</svg>

<style>
  svg {
    flex: none;
    vertical-align: -4px;
  }
</style>
