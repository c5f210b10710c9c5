<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { columnsOf } from '../../lib/columns';
  import { lookAgain } from '../../lib/query';
  import type { LabelReport } from '../../lib/types';
  import Columns from '../../parts/Columns.svelte';
  import ReadText from '../../parts/ReadText.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose }: { onclose: () => void } = $props();
  /** What a person has said of the columns; empty for what is proposed. */
  let chosen = $state<Record<number, string>>({});
  const meanings = Object.entries(m.prepare.columns.meanings);
  /** A list with passwords is not kept in the browser. */
  const secret = (text: string) => /passw|pwd/i.test(text) || Object.values(chosen).includes('factory-password');

  const news = (report: LabelReport) => report.taken.filter((line) => line.change !== 'already here').length;

  function taken(report: LabelReport): void {
    const { importId } = report;
    notices.say(
      m.prepare.taken(news(report), report.faults.length),
      importId
        ? () =>
            void api.post(`/label-imports/${importId}/undo`).then(lookAgain, (error: unknown) => notices.fault(error))
        : undefined,
    );
  }
</script>

<ReadText
  title={m.prepare.importTitle}
  intro={m.prepare.importText}
  placeholder={'serial\tmac\track position\tmodel'}
  draft="labels-{bringUpId()}"
  read={(text: string, preview: boolean) =>
    api.postText<LabelReport>(`/bring-ups/${bringUpId()}/labels?preview=${preview}${columnsOf(chosen)}`, text)}
  mayKeep={(text: string) => !secret(text)}
  {news}
  take={m.prepare.take}
  ontaken={taken}
  {onclose}
>
  {#snippet found(report: LabelReport)}<b>{report.taken.length}</b> {m.prepare.right}{/snippet}
  {#snippet rest(report: LabelReport, again: () => void)}
    <Columns
      columns={report.columns}
      {meanings}
      onchoose={(all: Record<number, string>) => {
        chosen = all;
        again();
      }}
    />
    {#if report.taken.length > 0}
      <div class="sheet scroll box">
        <table class="tbl">
          <thead
            ><tr
              ><th>{m.read.line}</th><th>{m.prepare.cols.serial}</th><th>{m.prepare.cols.mac}</th><th
                >{m.prepare.cols.unit}</th
              ><th></th></tr
            ></thead
          >
          <tbody>
            {#each report.taken as line (line.line)}
              <tr
                ><td class="mono">{line.line}</td><td class="mono">{line.serial}</td><td class="mono">{line.mac}</td><td
                  >{line.position}</td
                ><td class="sub">{line.change}</td></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
  {/snippet}
</ReadText>

<style>
  .box {
    max-height: 260px;
    overflow: auto;
    margin-bottom: 12px;
  }
</style>
