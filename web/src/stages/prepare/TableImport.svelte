<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import type { TableReport } from '../../lib/types';
  import ReadText from '../../parts/ReadText.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose, onundo }: { onclose: () => void; onundo: (change: number) => void } = $props();
  const t = m.prepare.table;

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
    api.postText<TableReport>(`/bring-ups/${bringUpId()}/facts.csv?preview=${preview}`, text)}
  news={(report: TableReport) => report.cells}
  take={t.take}
  ontaken={taken}
  {onclose}
>
  {#snippet found(report: TableReport)}<b>{report.cells}</b> {t.cells}{/snippet}
</ReadText>
