<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { LabelReport } from '../../lib/types';
  import ReadText from '../../parts/ReadText.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose }: { onclose: () => void } = $props();
  const NONE = '';
  /** What a person has said of the columns; empty for what is proposed. */
  let chosen = $state<Record<number, string>>({});
  const asked = () =>
    Object.entries(chosen)
      .filter(([, meaning]) => meaning !== NONE)
      .map(([index, meaning]) => `${index}:${meaning}`)
      .join(',');
  const secret = (text: string) => /passw|pwd/i.test(text);

  /** One thing is read from one column: the column that had it before loses it. */
  function choose(report: LabelReport, index: number, meaning: string, again: () => void): void {
    const now = Object.fromEntries(report.columns.map((column) => [column.index, column.meaning]));
    for (const other of Object.keys(now)) if (now[Number(other)] === meaning) now[Number(other)] = NONE;
    now[index] = meaning;
    chosen = now;
    again();
  }

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
    api.postText<LabelReport>(
      `/bring-ups/${bringUpId()}/labels?preview=${preview}${asked() ? `&columns=${asked()}` : ''}`,
      text,
    )}
  mayKeep={(text: string) => !secret(text)}
  {news}
  take={m.prepare.take}
  ontaken={taken}
  {onclose}
>
  {#snippet found(report: LabelReport)}<b>{report.taken.length}</b> {m.prepare.right}{/snippet}
  {#snippet rest(report: LabelReport, again: () => void)}
    {#if report.columns.length > 0}
      <p class="sub">{m.prepare.columns.say}</p>
      <div class="sheet scroll columns">
        {#each report.columns as column (column.index)}
          <label>
            <span class="head">{column.heading || m.prepare.columns.nth(column.index + 1)}</span>
            <select
              value={column.meaning}
              onchange={(event) => choose(report, column.index, event.currentTarget.value, again)}
            >
              <option value="">{m.prepare.columns.none}</option>
              {#each Object.entries(m.prepare.columns.meanings) as [meaning, title] (meaning)}<option value={meaning}
                  >{title}</option
                >{/each}
            </select>
            <span class="mono sub sample">{column.sample}</span>
          </label>
        {/each}
      </div>
    {/if}
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
  .columns {
    display: flex;
    gap: 12px;
    padding: 8px 12px;
    margin-bottom: 12px;
    overflow-x: auto;
  }
  .columns label {
    display: grid;
    gap: 3px;
    min-width: 108px;
    align-content: start;
    font-size: 13px;
  }
  .head {
    font-weight: 600;
  }
  .sample {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    max-width: 180px;
  }
  select {
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    padding: 5px 6px;
  }
  .box {
    max-height: 260px;
    overflow: auto;
    margin-bottom: 12px;
  }
</style>
