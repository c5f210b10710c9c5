<script lang="ts">
  import { api } from '../../lib/api';
  import { columnsOf } from '../../lib/columns';
  import { notices } from '../../lib/notices.svelte';
  import type { TableReport } from '../../lib/types';
  import Columns from '../../parts/Columns.svelte';
  import ReadText from '../../parts/ReadText.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose, onundo }: { onclose: () => void; onundo: (change: number) => void } = $props();
  const t = m.prepare.table;
  /** What a person has said of the columns; empty for what is proposed. */
  let chosen = $state<Record<number, string>>({});

  function taken(report: TableReport): void {
    const { changeId } = report;
    notices.say(t.taken(report.cells), changeId ? () => onundo(changeId) : undefined);
  }
</script>

<ReadText
  title={t.title}
  intro={t.text}
  placeholder={'unit\tmember\tserial\tconsole line'}
  draft="table-{bringUpId()}"
  read={(text: string, preview: boolean) =>
    api.postText<TableReport>(`/bring-ups/${bringUpId()}/facts.csv?preview=${preview}${columnsOf(chosen)}`, text)}
  news={(report: TableReport) => report.cells}
  take={t.take}
  ontaken={taken}
  {onclose}
>
  {#snippet found(report: TableReport)}<b>{report.cells}</b> {t.cells}{/snippet}
  {#snippet rest(report: TableReport, again: () => void)}
    <Columns
      columns={report.columns}
      meanings={report.meanings.map((each): [string, string] => [each.word, each.title])}
      onchoose={(all: Record<number, string>) => {
        chosen = all;
        again();
      }}
    />
  {/snippet}
</ReadText>
