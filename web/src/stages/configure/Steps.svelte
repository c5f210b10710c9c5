<script lang="ts">
  import { live } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime, inFull } from '../../lib/time';
  import type { Lane, StepView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';

  let { lane, busy, onretry, onaside }: { lane: Lane; busy: boolean; onretry: () => void; onaside: () => void } =
    $props();
  const steps = live<StepView[]>(() => `/setups/${lane.runId}/steps`);
</script>

<h2 class="mono">{lane.name}</h2>
<p class="sub"><span class="mono">{lane.address}</span> · {lane.position} · {m.configure.state[lane.state]}</p>
{#if lane.note && lane.state !== 'DONE'}
  <div class="say" class:wait={lane.state === 'CANCELLED'}>
    <b>{lane.note}</b>{#if lane.advice}<br />{lane.advice}{/if}
  </div>
{/if}
{#if session.mayWork && ['STOPPED', 'CANCELLED', 'SET_ASIDE'].includes(lane.state)}
  <div class="row">
    <B look="go" disabled={busy} onclick={onretry}>{m.configure.retry}</B>
    {#if lane.state === 'STOPPED'}<B disabled={busy} onclick={onaside}>{m.configure.setAside}</B>{/if}
  </div>
{/if}
<h3>{m.configure.steps}</h3>
<ol>
  {#each steps.data ?? [] as step, i (i)}
    <li>
      <Mark mark={step.holds ? 'done' : 'fault'} size={15} />
      <div>
        <b>{step.step}</b><br /><span class="sub"
          ><span class="mono" title={inFull(step.at)}>{atTime(step.at)}</span> {step.note}</span
        >
      </div>
    </li>
  {/each}
</ol>

<style>
  p {
    margin: 2px 0 8px;
  }
  .row {
    display: flex;
    gap: 8px;
    margin-bottom: 8px;
    flex-wrap: wrap;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 20px 1fr;
    gap: 6px;
    padding: 5px 0;
    border-bottom: 1px solid var(--line2);
    align-items: start;
  }
  li b {
    font-weight: 600;
  }
  li div {
    overflow-wrap: anywhere;
  }
</style>
