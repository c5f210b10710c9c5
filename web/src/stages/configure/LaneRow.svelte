<script lang="ts">
  import { present } from '../../lib/clock.svelte';
  import { atTime, inFull, lasting } from '../../lib/time';
  import type { Lane, MarkName } from '../../lib/types';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';

  /**
   * One unit's way through the steps: done ones solid, the one under way in amber, or violet while the machine works.
   */
  let {
    lane,
    on,
    done = m.configure.state.DONE,
    onchoose,
  }: { lane: Lane; on: boolean; done?: string; onchoose: () => void } = $props();
  const FOLLOW = 8;
  const waits = $derived(lane.state === 'RUNNING' && lane.stepNumber === FOLLOW);
  const mark: MarkName = $derived(
    waits
      ? 'wait'
      : (
          {
            WAITING: 'set',
            RUNNING: 'work',
            DONE: 'done',
            STOPPED: 'fault',
            CANCELLED: 'dark',
            SET_ASIDE: 'fault',
          } as const
        )[lane.state],
  );
  const kind = (i: number) =>
    lane.state === 'DONE' || i + 1 < lane.stepNumber
      ? 'past'
      : i + 1 > lane.stepNumber || lane.stepNumber === 0
        ? 'to'
        : lane.state === 'RUNNING'
          ? waits
            ? 'waits'
            : 'now'
          : lane.state === 'STOPPED' || lane.state === 'SET_ASIDE'
            ? 'broke'
            : 'to';
</script>

<button type="button" class="lane" class:on aria-pressed={on} onclick={onchoose}>
  <span class="who"><b class="mono">{lane.name}</b> <span class="sub">{lane.position}</span></span>
  <span class="bar" aria-hidden="true"
    >{#each { length: lane.steps }, i (i)}<i class={kind(i)}></i>{/each}</span
  >
  <span class="say"
    ><Mark {mark} size={15} />
    {#if lane.state === 'RUNNING'}
      <span class:w={waits}>{lane.cancelling ? m.configure.cancelling : lane.step}</span>
      {#if lane.stepAt}<span class="mono sub">{lasting(lane.stepAt, present.now)}</span>{/if}
    {:else if lane.state === 'DONE'}
      <span>{done} <span title={inFull(lane.endedAt)}>{atTime(lane.endedAt)}</span></span>
    {:else}
      <span class="text" class:f={lane.state === 'STOPPED' || lane.state === 'SET_ASIDE'}
        >{lane.state === 'STOPPED' ? lane.note : m.configure.state[lane.state]}</span
      >
    {/if}
  </span>
</button>

<style>
  .lane {
    display: grid;
    grid-template-columns: 200px minmax(120px, 260px) 1fr;
    gap: 14px;
    align-items: center;
    width: 100%;
    text-align: left;
    padding: 7px 12px;
    border-top: 1px solid var(--line2);
    font: inherit;
    color: inherit;
  }
  .lane:first-child {
    border-top: 0;
  }
  .lane.on {
    background: var(--lamp2);
  }
  .who {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  b {
    font-weight: 600;
  }
  .bar {
    display: flex;
    gap: 2px;
  }
  i {
    flex: 1;
    height: 14px;
    border-radius: 2px;
    background: var(--line2);
  }
  .past {
    background: var(--proof);
  }
  .now {
    background: var(--lamp);
    outline: 1px solid var(--lamp-ink);
  }
  .waits {
    background: repeating-linear-gradient(135deg, var(--wait2) 0 4px, var(--wait) 4px 8px);
  }
  .broke {
    background: var(--fault);
  }
  .say {
    all: unset;
    display: flex;
    gap: 7px;
    align-items: center;
    min-width: 0;
    font-size: 13px;
  }
  .text {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .w {
    color: var(--wait);
  }
  .f {
    color: var(--fault);
  }
  @media (max-width: 700px) {
    .lane {
      grid-template-columns: 1fr;
      gap: 4px;
    }
    .text {
      white-space: normal;
    }
  }
</style>
