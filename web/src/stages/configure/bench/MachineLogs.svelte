<script lang="ts">
  import { atTime } from '../../../lib/time';
  import { m } from '../../../messages';
  import type { BenchView } from './types';

  /** The logs of a unit's machines that were kept when something failed. */
  let { logs }: { logs: BenchView['logs'] } = $props();
  const size = (characters: number) => (characters < 1000 ? `${characters} B` : `${Math.round(characters / 1000)} kB`);
</script>

<details>
  <summary>{m.bench.log.title} {logs.length}</summary>
  <ul>
    {#each logs as log (log.id)}
      <li>
        <a href="/api/machine-logs/{log.id}" target="_blank" rel="noopener"
          >{m.bench.log.one(log.member, atTime(log.at), size(log.characters))}</a
        >
      </li>
    {/each}
  </ul>
</details>

<style>
  details {
    padding: 6px 12px;
    border-top: 1px solid var(--line2);
    font-size: 13px;
  }
  ul {
    list-style: none;
    margin: 4px 0 0;
    padding: 0;
  }
</style>
