<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import B from '../../parts/B.svelte';
  import ReadText from '../../parts/ReadText.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /** Brings in what is in use already, so that it is not given out. */
  interface Report {
    fresh: { address: string; name: string; source: string }[];
    ours: number;
    elsewhere: number;
    faults: { line: number; value: string; reason: string }[];
  }
  let { onclose }: { onclose: () => void } = $props();
  const e = m.allocate.existing;
  const base = `/bring-ups/${bringUpId()}/address-imports`;
  const SHOWN = 500;

  function taken(report: Report): void {
    const addresses = report.fresh.map((use) => use.address);
    notices.say(
      e.taken(addresses.length),
      () => void api.post(`${base}/forget`, { addresses }).then(lookAgain, (error: unknown) => notices.fault(error)),
    );
  }
</script>

<ReadText
  title={e.title}
  intro={e.text}
  placeholder="10.40.8.77 printer.ardal.example"
  draft="existing-{bringUpId()}"
  accept=".csv,.txt,.leases,text/plain,text/csv"
  read={(text: string, preview: boolean) => api.postText<Report>(`${base}?preview=${preview}`, text)}
  news={(report: Report) => report.fresh.length}
  take={e.take}
  ontaken={taken}
  {onclose}
>
  {#snippet others(look: (source: (preview: boolean) => Promise<Report>) => void, busy: boolean)}
    <p>
      <B disabled={busy} onclick={() => look((preview) => api.post<Report>(`${base}/transfer?preview=${preview}`))}
        >{e.zone}</B
      >
    </p>
  {/snippet}
  {#snippet found(report: Report)}<b>{report.fresh.length}</b>
    {e.fresh}{report.ours ? ` · ${report.ours} ${e.ours}` : ''}{report.elsewhere
      ? ` · ${report.elsewhere} ${e.elsewhere}`
      : ''}{/snippet}
  {#snippet rest(report: Report)}
    {#if report.fresh.length > 0}
      <div class="sheet scroll box">
        <table class="tbl">
          <tbody
            >{#each report.fresh.slice(0, SHOWN) as use (use.address)}<tr
                ><td class="mono">{use.address}</td><td class="mono">{use.name}</td><td class="sub">{use.source}</td
                ></tr
              >{/each}</tbody
          >
        </table>
      </div>
    {/if}
  {/snippet}
</ReadText>

<style>
  p {
    margin: 0 0 10px;
  }
  .box {
    max-height: 300px;
    overflow: auto;
    margin-bottom: 12px;
  }
</style>
