<script lang="ts">
  import Mark from '../../../parts/Mark.svelte';
  import { m } from '../../../messages';
  import { compare } from './compare';
  import type { Member } from './types';

  /** Members side by side. What must be equal and is not, and what must differ and does not, is marked. */
  let { members }: { members: Member[] } = $props();

  const rows = $derived(compare(members));
  const wrong = $derived(rows.filter((row) => row.wrong).length);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="cmp" role="region" aria-label={m.bench.compare} tabindex="0">
  <p class="sub">{wrong === 0 ? m.bench.compareFine : m.bench.compareWrong(wrong)}</p>
  <table class="tbl">
    <thead
      ><tr
        ><th>{m.bench.question}</th>{#each members as member (member.label)}<th>{member.label}</th>{/each}</tr
      ></thead
    >
    <tbody>
      {#each rows as row (row.title)}
        <tr class:wrong={row.wrong}>
          <th scope="row"
            >{#if row.wrong}<Mark mark="fault" size={14} />{/if}{row.title}{#if row.differs}{' '}<span class="sub"
                >{m.bench.mayDiffer}</span
              >{/if}</th
          >
          {#each row.cells as cell, i (i)}<td class="mono" class:sent={cell?.done}
              >{cell ? (cell.leftOut ? m.bench.notAskedHere : cell.value || m.bench.enter) : '—'}</td
            >{/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .cmp {
    overflow: auto;
    flex: 1;
    padding: 8px 4px;
  }
  p {
    margin: 2px 8px 8px;
  }
  tbody th {
    border-top: 1px solid var(--line2);
    font-weight: 500;
    color: var(--ink);
    white-space: normal;
  }
  td {
    color: var(--ink2);
  }
  td.sent {
    color: var(--ink);
  }
  .wrong td,
  .wrong th {
    color: var(--fault);
    background: var(--fault2);
  }
</style>
