<script lang="ts">
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import type { RecordingTrial } from './types';

  /** What came of recordings, one line each, with the first thing that differs. */
  let { trials }: { trials: RecordingTrial[] } = $props();
  const t = m.kinds.kept;
</script>

<ul>
  {#each trials as trial (trial.name)}
    <li>
      <Mark mark={trial.agrees ? 'done' : 'fault'} size={15} />
      <span class="mono">{trial.name}</span>
      <span class="sub">{trial.agrees ? t.agrees : t.disagrees(trial.faults.length, trial.open.length)}</span>
      {#if trial.faults[0]}<span class="why">{trial.faults[0]}</span>{/if}
    </li>
  {:else}
    <li class="sub">{m.kinds.importing.none}</li>
  {/each}
</ul>

<style>
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 5px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 3px 8px;
    align-items: baseline;
    overflow-wrap: anywhere;
  }
  .why {
    flex-basis: 100%;
    padding-left: 23px;
  }
</style>
