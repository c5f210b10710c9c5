<script lang="ts">
  import { tail } from '../../lib/address';
  import { present } from '../../lib/clock.svelte';
  import { atTime, inFull, lasting } from '../../lib/time';
  import type { Cell, Row } from '../../lib/types';
  import Ladder from '../../parts/Ladder.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';

  let { row, on, onchoose, onopen }: { row: Row; on: boolean; onchoose: () => void; onopen: () => void } = $props();
  const tone = (cell: Cell) => (cell.mark === 'fault' ? 'f' : cell.mark === 'wait' ? 'w' : '');
</script>

<tr id="unit-{row.unitId}" class:on aria-selected={on} onclick={onchoose} ondblclick={onopen}>
  <td>
    <button
      type="button"
      class="unit"
      onclick={(event) => {
        event.stopPropagation();
        onopen();
      }}
    >
      <b class="mono">{row.name}</b><br /><span class="sub"
        >{row.name === row.position
          ? row.kind.toLowerCase()
          : [row.position, row.serial ?? row.kind.toLowerCase()].filter(Boolean).join(' · ')}</span
      >
    </button>
  </td>
  <td data-stage={m.stages.prepare}
    ><div class="st">
      <Mark mark={row.prepare.mark} /><span class="cut" title={row.prepare.text}>{row.prepare.text}</span>
    </div></td
  >
  <td data-stage={m.stages.allocate}
    ><div class="st">
      <Mark mark={row.allocate.mark} /><span class="mono cut" title={row.allocate.text}
        >{row.address ? tail(row.address) + row.allocate.text.slice(row.address.length) : row.allocate.text}</span
      >
    </div></td
  >
  <td data-stage={m.stages.configure}>
    <div class="st">
      <Mark mark={row.configure.mark} />
      <span class="cut {tone(row.configure)}" title={row.configure.text}>
        {row.configure.text}
        {#if row.configure.since}<span title={inFull(row.configure.since)}
            >{row.configure.mark === 'wait'
              ? lasting(row.configure.since, present.now)
              : atTime(row.configure.since)}</span
          >{/if}
      </span>
    </div>
  </td>
  <td data-stage={m.stages.prove}>
    <div class="st">
      <Mark mark={row.prove.mark} />
      {#if row.prove.mark === 'dark'}<span>—</span>{:else}<Ladder standings={row.standings} /><span
          class="cut {tone(row.prove)}"
          title={row.prove.text}>{row.prove.text}</span
        >{/if}
    </div>
  </td>
  <td data-stage={m.stages.handover}
    ><div class="st">
      <Mark mark={row.handover.mark} /><span class="cut" title={row.handover.text}>{row.handover.text}</span>
    </div></td
  >
</tr>

<style>
  tr {
    cursor: default;
    height: 42px;
  }
  .unit {
    text-align: left;
    line-height: 1.25;
    white-space: nowrap;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .unit b {
    font-weight: 600;
  }
  .st {
    display: flex;
    gap: 7px;
    align-items: center;
    font-size: 13px;
    white-space: nowrap;
  }
  .st > :global(svg),
  .st > :global(span:not(.cut)) {
    flex: none;
  }
  .cut {
    overflow: hidden;
    text-overflow: ellipsis;
    min-width: 0;
  }
  .f {
    color: var(--fault);
  }
  .w {
    color: var(--wait);
  }
  /* a card: the unit, then a line for each pair of stages */
  @media (max-width: 700px) {
    tr {
      display: grid;
      grid-template-columns: 1fr 1fr 1fr;
      height: 132px;
      padding: 4px 0;
      border-top: 1px solid var(--line2);
      overflow: hidden;
    }
    td {
      border: 0;
      min-width: 0;
    }
    td:first-child {
      grid-column: 1 / -1;
    }
    td[data-stage]::before {
      content: attr(data-stage);
      display: block;
      font-size: 11px;
      color: var(--ink2);
    }
  }
</style>
