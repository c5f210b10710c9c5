<script lang="ts">
  import { Label, Textarea } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /** Brings in what is in use already, so that it is not given out. */
  interface Report { fresh: { address: string; name: string; source: string }[]; ours: number; elsewhere: number; faults: { line: number; value: string; reason: string }[] }
  let { onclose }: { onclose: () => void } = $props();
  const e = m.allocate.existing;
  let text = $state('');
  let zone = $state(false);
  let report = $state<Report | null>(null);
  let fault = $state('');
  let busy = $state(false);

  async function read(fromZone: boolean, preview: boolean): Promise<void> {
    busy = true;
    fault = '';
    zone = fromZone;
    try {
      const base = `/bring-ups/${bringUpId()}/existing`;
      const done = fromZone ? await api.post<Report>(`${base}/transfer?preview=${preview}`) : await api.postText<Report>(`${base}?preview=${preview}`, text);
      if (preview) {
        report = done;
        return;
      }
      const addresses = done.fresh.map((use) => use.address);
      notices.say(e.taken(addresses.length), () => void api.post(`${base}/forget`, { addresses }).then(lookAgain, (error: unknown) => notices.fault(error)));
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
    if (file.size > 4_000_000) {
      fault = `${file.name}: ${Math.round(file.size / 1e6)} MB. ${m.prepare.table.tooLarge}`;
      return;
    }
    text = await file.text();
    await read(false, true);
  }
</script>

<Dialog title={e.title} wide {onclose}>
  {#if report}
    <p><b>{report.fresh.length}</b> {e.fresh}{report.ours ? ` · ${report.ours} ${e.ours}` : ''}{report.elsewhere ? ` · ${report.elsewhere} ${e.elsewhere}` : ''}{#if report.faults.length}, <b class="bad">{report.faults.length}</b> {m.prepare.wrong}{/if}</p>
    <div class="sheet scroll box">
      <table class="tbl">
        <tbody>
          {#each report.faults as wrong, i (i)}<tr><td class="mono">{m.prepare.line} {wrong.line}</td><td class="mono">{wrong.value}</td><td class="bad">{wrong.reason}</td></tr>{/each}
          {#each report.fresh.slice(0, 500) as use (use.address)}<tr><td class="mono">{use.address}</td><td class="mono">{use.name}</td><td class="sub">{use.source}</td></tr>{/each}
        </tbody>
      </table>
    </div>
    <div class="row">
      {#if report.fresh.length > 0}<B look="go" disabled={busy} onclick={() => void read(zone, false)}>{e.take(report.fresh.length)}</B>{/if}
      <B onclick={() => (report = null)}>{e.again}</B>
    </div>
  {:else}
    <p class="sub">{e.text}</p>
    <div class="row"><B disabled={busy} onclick={() => void read(true, true)}>{e.zone}</B></div>
    <div class="file"><Label for="existing-file">{m.prepare.file}</Label><input id="existing-file" type="file" accept=".csv,.txt,.leases,text/plain,text/csv" onchange={(event) => void choose(event)} /></div>
    <Label>{m.prepare.paste}<Textarea class="mono w-full" rows={8} bind:value={text} spellcheck="false" placeholder="10.40.8.77 printer.ardal.example" /></Label>
    <div class="row"><B look="go" disabled={busy || text.trim() === ''} onclick={() => void read(false, true)}>{m.prepare.look}</B></div>
  {/if}
  {#if fault}<p class="say" role="alert">{fault}</p>{/if}
</Dialog>

<style>
  p { margin: 0 0 10px; }
  .box { max-height: 300px; overflow: auto; margin-bottom: 12px; }
  .row { display: flex; gap: 8px; margin: 10px 0; }
  .file { display: flex; gap: 12px; align-items: center; margin-bottom: 12px; }
</style>
