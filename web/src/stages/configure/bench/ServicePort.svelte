<script lang="ts">
  import { api } from '../../../lib/api';
  import { notices } from '../../../lib/notices.svelte';
  import { session } from '../../../lib/session.svelte';
  import B from '../../../parts/B.svelte';
  import type { MarkName } from '../../../lib/types';
  import Mark from '../../../parts/Mark.svelte';
  import { m } from '../../../messages';
  import type { BenchView, ServicePortAnswer } from './types';

  /** Whether the laptop at the service port reaches the machine: tried from the vantage points that are connected. */
  let { port, unitId }: { port: NonNullable<BenchView['servicePort']>; unitId: number } = $props();

  const marks: Record<ServicePortAnswer['state'], MarkName> = {
    ANSWERS: 'done',
    SILENT: 'fault',
    OTHER_SUBNET: 'fault',
    NOT_TRIED: 'dark',
  };
  let answers = $state.raw<ServicePortAnswer[] | null>(null);
  let asking = $state(false);

  async function tryIt(): Promise<void> {
    asking = true;
    try {
      answers = await api.post<ServicePortAnswer[]>(`/units/${unitId}/console/service-port`);
    } catch (error) {
      notices.fault(error);
    } finally {
      asking = false;
    }
  }
</script>

<div class="port">
  <p>
    {m.bench.servicePort.set(port.laptop)}
    <a href={port.page} target="_blank" rel="noreferrer">{port.page}</a>
  </p>
  {#if session.mayWork}<B disabled={asking} onclick={() => void tryIt()}>{m.bench.servicePort.try(port.address)}</B
    >{/if}
  {#if answers}
    <ul aria-live="polite">
      {#each answers as answer (answer.from)}<li>
          <Mark mark={marks[answer.state]} size={15} word={m.bench.servicePort.states[answer.state]} />
          {answer.sentence}
        </li>{:else}<li>{m.bench.servicePort.none}</li>{/each}
    </ul>
  {/if}
</div>

<style>
  .port {
    margin-top: 14px;
    padding-top: 10px;
    border-top: 1px solid var(--line2);
  }
  p {
    margin: 0 0 8px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 10px 0 2px;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: baseline;
    padding: 3px 0;
  }
</style>
