<script lang="ts">
  import Mark from '../../../parts/Mark.svelte';
  import { m } from '../../../messages';
  import type { BenchStep, Member } from './types';

  /** Members side by side. What must be equal and is not, and what must differ and does not, is marked. */
  let { members }: { members: Member[] } = $props();
  type Row = { title: string; marks: string[]; cells: (BenchStep | undefined)[]; wrong: boolean };

  const asked = (member: Member) => member.steps.filter((step) => step.sort === 'asked');
  const said = (step: BenchStep | undefined) => (step ? step.sent || step.answer : '');

  const rows = $derived.by<Row[]>(() => {
    const titles = [...new Set(members.flatMap((member) => asked(member).map((step) => step.title)))];
    return titles.map((title) => {
      const cells = members.map((member) => asked(member).find((step) => step.title === title));
      const there = cells.filter((cell): cell is BenchStep => cell !== undefined && cell.progress !== 'LEFT_OUT');
      const values = new Set(there.map(said));
      const differs = there.some((step) => step.marks.includes('DIFFERS'));
      const secret = there.some((step) => step.marks.includes('SECRET'));
      const wrong = !secret && there.length > 1 && (differs ? values.size < there.length : values.size > 1);
      return { title, marks: there[0]?.marks ?? [], cells, wrong };
    });
  });
  const wrong = $derived(rows.filter((row) => row.wrong).length);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="cmp" role="region" aria-label={m.bench.compare} tabindex="0">
  <p class="sub">{wrong === 0 ? m.bench.compareFine : m.bench.compareWrong(wrong)}</p>
  <table class="tbl">
    <thead><tr><th>{m.bench.question}</th>{#each members as member (member.label)}<th>{member.label}</th>{/each}</tr></thead>
    <tbody>
      {#each rows as row (row.title)}
        <tr class:wrong={row.wrong}>
          <th scope="row">{#if row.wrong}<Mark mark="fault" size={14} />{/if}{row.title}{#if row.marks.includes('DIFFERS')}{' '}<span class="sub">{m.bench.mayDiffer}</span>{/if}</th>
          {#each row.cells as cell, i (i)}<td class="mono" class:sent={cell?.progress === 'DONE'}>{cell ? (cell.progress === 'LEFT_OUT' ? m.bench.notAskedHere : said(cell) || m.bench.enter) : '—'}</td>{/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .cmp { overflow: auto; flex: 1; padding: 8px 4px; }
  p { margin: 2px 8px 8px; }
  tbody th { border-top: 1px solid var(--line2); font-weight: 500; color: var(--ink); white-space: normal; }
  td { color: var(--ink2); } td.sent { color: var(--ink); }
  .wrong td, .wrong th { color: var(--fault); background: var(--fault2); }
</style>
