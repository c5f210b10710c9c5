<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { LabelReport } from '../../lib/types';
  import ReadText from '../../parts/ReadText.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose }: { onclose: () => void } = $props();
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
    api.postText<LabelReport>(`/bring-ups/${bringUpId()}/labels?preview=${preview}`, text)}
  {news}
  take={m.prepare.take}
  ontaken={taken}
  {onclose}
>
  {#snippet found(report: LabelReport)}<b>{report.taken.length}</b> {m.prepare.right}{/snippet}
  {#snippet rest(report: LabelReport)}
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
