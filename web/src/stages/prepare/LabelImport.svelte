<script lang="ts">
  import { Label, Textarea } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { LabelReport } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose }: { onclose: () => void } = $props();
  const key = `lychnos-labels-${bringUpId()}`;
  const LONGEST = 4_000_000;
  let text = $state(sessionStorage.getItem(key) ?? '');
  let report = $state<LabelReport | null>(null);
  let fault = $state('');
  let busy = $state(false);
  const news = $derived(report?.taken.filter((line) => line.change !== 'already here').length ?? 0);

  async function read(preview: boolean): Promise<LabelReport | null> {
    busy = true;
    fault = '';
    try {
      return await api.postText<LabelReport>(`/bring-ups/${bringUpId()}/labels?preview=${preview}`, text);
    } catch (error) {
      fault = error instanceof Problem ? error.detail : String(error);
      return null;
    } finally {
      busy = false;
    }
  }

  async function look(): Promise<void> {
    sessionStorage.setItem(key, text.slice(0, 200_000));
    report = await read(true);
  }

  async function take(): Promise<void> {
    const done = await read(false);
    if (!done) return;
    sessionStorage.removeItem(key);
    const { importId } = done;
    notices.say(m.prepare.taken(news, done.faults.length), importId ? () => void undo(importId) : undefined);
    lookAgain();
    onclose();
  }

  async function undo(importId: number): Promise<void> {
    try {
      await api.post(`/label-imports/${importId}/undo`);
      lookAgain();
    } catch (error) {
      notices.fault(error);
    }
  }

  async function choose(event: Event): Promise<void> {
    const file = (event.currentTarget as HTMLInputElement).files?.[0];
    if (!file) return;
    if (file.size > LONGEST) {
      fault = `${file.name}: ${Math.round(file.size / 1e6)} MB. At most 4 MB are read; is it the right file?`;
      return;
    }
    text = await file.text();
    await look();
  }
</script>

<Dialog title={m.prepare.importTitle} wide {onclose}>
  {#if report}
    <p><b>{report.taken.length}</b> {m.prepare.right}{#if report.faults.length > 0}, <b class="bad">{new Set(report.faults.map((f) => f.line)).size}</b> {m.prepare.wrong}{/if}</p>
    {#if report.faults.length > 0}
      <div class="sheet scroll box">
        <table class="tbl">
          <thead><tr><th>{m.prepare.line}</th><th>{m.prepare.column}</th><th>{m.prepare.value}</th><th>{m.prepare.reason}</th></tr></thead>
          <tbody>
            {#each report.faults as wrong, i (i)}
              <tr><td class="mono">{wrong.line}</td><td>{wrong.column}</td><td class="mono">{wrong.value}</td><td class="reason">{wrong.reason}</td></tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    {#if report.taken.length > 0}
      <div class="sheet scroll box">
        <table class="tbl">
          <thead><tr><th>{m.prepare.line}</th><th>{m.prepare.cols.serial}</th><th>{m.prepare.cols.mac}</th><th>{m.prepare.cols.unit}</th><th></th></tr></thead>
          <tbody>
            {#each report.taken as line (line.line)}
              <tr><td class="mono">{line.line}</td><td class="mono">{line.serial}</td><td class="mono">{line.mac}</td><td>{line.position}</td><td class="sub">{line.change}</td></tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    {#if news === 0 && report.faults.length === 0}<p class="sub">{m.prepare.nothingNew}</p>{/if}
    {#if fault}<p class="say" role="alert">{fault}</p>{/if}
    <div class="row">
      {#if news > 0}<B look="go" disabled={busy} onclick={() => void take()}>{m.prepare.take(news)}</B>{/if}
      <B onclick={() => (report = null)}>{m.prepare.again}</B>
    </div>
  {:else}
    <p class="sub">{m.prepare.importText}</p>
    <div class="file"><Label for="label-file">{m.prepare.file}</Label><input id="label-file" type="file" accept=".csv,.tsv,.txt,text/csv,text/plain" onchange={(event) => void choose(event)} /></div>
    <Label>{m.prepare.paste}<Textarea class="mono w-full" rows={10} bind:value={text} spellcheck="false" placeholder={'serial\tmac\track position\tmodel'} /></Label>
    {#if fault}<p class="say" role="alert">{fault}</p>{/if}
    <div class="row"><B look="go" disabled={busy || text.trim() === ''} onclick={() => void look()}>{m.prepare.look}</B></div>
  {/if}
</Dialog>

<style>
  p { margin: 0 0 10px; }
  .box { max-height: 260px; overflow: auto; margin-bottom: 12px; }
  .reason { color: var(--fault); }
  .row { display: flex; gap: 8px; margin-top: 10px; }
  .file { display: flex; gap: 12px; align-items: center; margin-bottom: 12px; }
</style>
