<script lang="ts">
  import { Label, Textarea } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { TableReport } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose, onundo }: { onclose: () => void; onundo: (change: number) => void } = $props();
  const t = m.prepare.table;
  const key = `lychnos-table-${bringUpId()}`;
  const LONGEST = 4_000_000;
  let text = $state(sessionStorage.getItem(key) ?? '');
  let report = $state<TableReport | null>(null);
  let fault = $state('');
  let busy = $state(false);

  async function read(preview: boolean): Promise<void> {
    busy = true;
    fault = '';
    sessionStorage.setItem(key, text.slice(0, 200_000));
    try {
      const done = await api.postText<TableReport>(`/bring-ups/${bringUpId()}/facts.csv?preview=${preview}`, text);
      if (preview) {
        report = done;
        return;
      }
      sessionStorage.removeItem(key);
      const { changeId } = done;
      notices.say(t.taken(done.cells), changeId ? () => onundo(changeId) : undefined);
      lookAgain();
      onclose();
    } catch (error) {
      fault = error instanceof Problem ? error.detail : String(error);
    } finally {
      busy = false;
    }
  }

  async function choose(event: Event): Promise<void> {
    const file = (event.currentTarget as HTMLInputElement).files?.[0];
    if (!file) return;
    if (file.size > LONGEST) {
      fault = `${file.name}: ${Math.round(file.size / 1e6)} MB. ${t.tooLarge}`;
      return;
    }
    text = await file.text();
    await read(true);
  }
</script>

<Dialog title={t.title} wide {onclose}>
  {#if report}
    <p><b>{report.cells}</b> {t.cells}{#if report.faults.length > 0}, <b class="bad">{report.faults.length}</b> {m.prepare.wrong}{/if}</p>
    {#if report.faults.length > 0}
      <div class="sheet scroll box">
        <table class="tbl">
          <thead><tr><th>{m.prepare.line}</th><th>{m.prepare.column}</th><th>{m.prepare.value}</th><th>{m.prepare.reason}</th></tr></thead>
          <tbody>
            {#each report.faults as wrong, i (i)}<tr><td class="mono">{wrong.line || ''}</td><td>{wrong.column}</td><td class="mono">{wrong.value}</td><td class="reason">{wrong.reason}</td></tr>{/each}
          </tbody>
        </table>
      </div>
    {/if}
    <div class="row">
      {#if report.cells > 0}<B look="go" disabled={busy} onclick={() => void read(false)}>{t.take(report.cells)}</B>{/if}
      <B onclick={() => (report = null)}>{m.prepare.again}</B>
    </div>
  {:else}
    <p class="sub">{t.text}</p>
    <div class="file"><Label for="table-file">{m.prepare.file}</Label><input id="table-file" type="file" accept=".csv,.tsv,.txt,text/csv,text/plain" onchange={(event) => void choose(event)} /></div>
    <Label>{m.prepare.paste}<Textarea class="mono w-full" rows={10} bind:value={text} spellcheck="false" placeholder={'unit\tmember\tserial\tconsole line'} /></Label>
    <div class="row"><B look="go" disabled={busy || text.trim() === ''} onclick={() => void read(true)}>{m.prepare.look}</B></div>
  {/if}
  {#if fault}<p class="say" role="alert">{fault}</p>{/if}
</Dialog>

<style>
  p { margin: 0 0 10px; }
  .box { max-height: 300px; overflow: auto; margin-bottom: 12px; }
  .reason { color: var(--fault); }
  .row { display: flex; gap: 8px; margin-top: 10px; }
  .file { display: flex; gap: 12px; align-items: center; margin-bottom: 12px; }
</style>
