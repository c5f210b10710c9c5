<script lang="ts">
  import { present } from '../../../lib/clock.svelte';
  import { atTime } from '../../../lib/time';
  import { m } from '../../../messages';
  import type { ConsoleLane, Part } from './types';

  /** Everything on consoles on one time axis: solid where hands are wanted, hatched where the machine works. */
  let {
    lanes,
    chosen,
    onchoose,
  }: { lanes: ConsoleLane[]; chosen: number | null; onchoose: (lane: ConsoleLane) => void } = $props();

  const MINUTE = 60_000;
  const SHORTEST = 8 * MINUTE;
  const LONGEST_BACK = 60 * MINUTE;
  const at = (iso: string | null) => (iso ? new Date(iso).getTime() : present.now);
  const open = (lane: ConsoleLane) => lane.state !== 'DONE';
  const ahead = (lane: ConsoleLane) => (open(lane) ? lane.ahead.reduce((sum, part) => sum + part.about * 1000, 0) : 0);
  const from = $derived(
    Math.max(
      present.now - LONGEST_BACK,
      Math.min(present.now - MINUTE, ...lanes.flatMap((lane) => lane.parts.map((part) => at(part.from)))),
    ),
  );
  const to = $derived(
    Math.max(from + SHORTEST, present.now + 2 * MINUTE, ...lanes.map((lane) => present.now + ahead(lane) + MINUTE)),
  );
  const x = (moment: number) => Math.max(0, Math.min(100, ((moment - from) / (to - from)) * 100));
  const ticks = $derived(Array.from({ length: 5 }, (_, i) => from + ((to - from) * i) / 4));

  interface Segment {
    left: number;
    width: number;
    look: string;
    text: string;
    title: string;
  }

  function segment(begin: number, end: number, look: string, text: string, title: string): Segment {
    return { left: x(begin), width: Math.max(0.3, x(end) - x(begin)), look, text, title };
  }

  const late = (part: Part) => part.atMost > 0 && at(part.to) - at(part.from) > part.atMost * 1000;

  function segments(lane: ConsoleLane): Segment[] {
    const past = lane.parts.map((part) => {
      const look =
        part.kind === 'wait' ? 'idle' : part.kind === 'held' ? (part.to ? 'gone' : 'held') : part.to ? 'gone' : 'hand';
      const text =
        part.kind === 'wait' ? part.title : part.kind === 'held' ? (part.to ? '' : m.bench.yourTurn) : m.bench.hands;
      const took = Math.round((at(part.to) - at(part.from)) / 1000);
      return segment(
        at(part.from),
        at(part.to),
        look + (late(part) ? ' late' : ''),
        text,
        m.bench.took(part.title || text, took, part.about),
      );
    });
    let begin = present.now;
    const coming =
      open(lane) && lane.state !== 'BY_HAND'
        ? lane.ahead.map((part) => {
            const next = segment(
              begin,
              begin + part.about * 1000,
              'idle coming',
              part.title,
              m.bench.expected(part.title, part.about),
            );
            begin += part.about * 1000;
            return next;
          })
        : [];
    return [...past, ...coming];
  }
</script>

<div class="axis mono" aria-hidden="true">
  {#each ticks as moment (moment)}<span>{atTime(moment)}</span>{/each}
</div>
<div class="sheet lanes">
  {#each lanes as lane (lane.dialogueId)}
    <button
      type="button"
      class="lane"
      class:on={lane.dialogueId === chosen}
      aria-pressed={lane.dialogueId === chosen}
      onclick={() => onchoose(lane)}
    >
      <span class="n mono">{lane.name}</span>
      <span class="trk">
        {#each segments(lane) as part, i (i)}<span
            class="seg {part.look}"
            style:left="{part.left}%"
            style:width="{part.width}%"
            title={part.title}>{part.width > 5 ? part.text : ''}</span
          >{/each}
        <span class="now" style:left="{x(present.now)}%"></span>
      </span>
      <span class="w" class:f={lane.state === 'HELD' || lane.state === 'CUT' || lane.state === 'STOPPED'}
        >{lane.prerequisite || m.bench.states[lane.state]}</span
      >
    </button>
  {/each}
</div>

<style>
  .axis {
    display: flex;
    justify-content: space-between;
    margin: 0 150px 2px 190px;
    font-size: 11.5px;
    color: var(--ink2);
  }
  /* whole rows: five in a low window, where the bench below needs the room, else as many as a sixth of it holds */
  .lanes {
    padding: 6px 0;
    margin-bottom: 12px;
    max-height: calc(14px + max(5, round(down, 17vh / 25px)) * 25px);
    overflow-y: auto;
  }
  .lane {
    display: flex;
    align-items: center;
    width: 100%;
    height: 25px;
    padding: 0 12px;
    font: inherit;
    font-size: 12.5px;
    color: inherit;
    text-align: left;
    gap: 10px;
  }
  .lane.on {
    background: var(--lamp2);
  }
  .n {
    width: 168px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .w {
    width: 128px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    color: var(--ink2);
  }
  .w.f {
    color: var(--fault);
    font-weight: 600;
  }
  .trk {
    flex: 1;
    position: relative;
    height: 17px;
  }
  .seg {
    position: absolute;
    height: 17px;
    border-radius: 3px;
    font-size: 11px;
    line-height: 16px;
    padding: 0 5px;
    overflow: hidden;
    white-space: nowrap;
  }
  .hand {
    background: var(--lamp);
    color: #241600;
  }
  .held {
    background: var(--lamp2);
    border: 1px solid var(--lamp-ink);
    color: var(--lamp-ink);
  }
  .gone {
    background: var(--line);
    color: var(--ink2);
  }
  .idle {
    background: repeating-linear-gradient(
      135deg,
      var(--wait2) 0 4px,
      color-mix(in srgb, var(--wait) 28%, var(--wait2)) 4px 8px
    );
    color: var(--wait);
  }
  .coming {
    opacity: 0.6;
  }
  .late {
    outline: 1.5px solid var(--fault);
  }
  .now {
    position: absolute;
    top: -4px;
    bottom: -4px;
    width: 2px;
    background: var(--fault);
  }
  @media (max-width: 700px) {
    .axis {
      display: none;
    }
    .n {
      width: 120px;
    }
    .w {
      display: none;
    }
  }
</style>
