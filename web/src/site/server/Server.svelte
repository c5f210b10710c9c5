<script lang="ts">
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { DoctorLine, MarkName } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import SiteBand from '../SiteBand.svelte';

  /** What the server needs of its machine, its database and its vantage points, for those who run it. */
  const t = m.server;
  const MARKS: Record<DoctorLine['state'], MarkName> = { GOOD: 'done', LOOK: 'work', BAD: 'fault' };
  const lines = live<DoctorLine[]>(() => (session.me?.role === 'lead' ? '/doctor' : null));
  const amiss = $derived((lines.data ?? []).filter((line) => line.state !== 'GOOD').length);
</script>

<SiteBand at="server" />
<main id="work" tabindex="-1">
  <div class="head">
    <h1>{t.title}</h1>
    {#if session.me?.role === 'lead'}<B onclick={lookAgain}>{t.again}</B>{/if}
  </div>
  {#if session.me?.role !== 'lead'}
    <p>{t.leadsOnly}</p>
  {:else if lines.data}
    <p class="sub" aria-live="polite">{t.found(amiss)}</p>
    <ul class="sheet">
      {#each lines.data as line (line.code + line.text)}
        <li>
          <Mark mark={MARKS[line.state]} word={t.states[line.state]} />
          <div>
            {line.text}
            {#if line.advice}<p class="sub">{line.advice}</p>{/if}
          </div>
        </li>
      {/each}
    </ul>
  {/if}
</main>

<style>
  main {
    max-width: 900px;
    margin: 0 auto;
    padding: 20px 18px 40px;
    width: 100%;
  }
  .head {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
  }
  h1,
  p {
    margin: 0;
  }
  main > p {
    margin: 6px 0 14px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr);
    gap: 10px;
    padding: 9px 14px;
    border-top: 1px solid var(--line2);
    overflow-wrap: anywhere;
  }
  li:first-child {
    border-top: 0;
  }
</style>
