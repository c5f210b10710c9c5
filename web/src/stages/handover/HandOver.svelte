<script lang="ts">
  import { onKeys } from '../../lib/keys';
  import { live } from '../../lib/query';
  import { atTime, inFull } from '../../lib/time';
  import type { HandoverView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import { bringUpId, path } from '../../routes';

  const view = live<HandoverView>(() => `/bring-ups/${bringUpId()}/handover`);
  const file = $derived(`/api/bring-ups/${bringUpId()}/handover/endpoints.csv`);
  const download = () => location.assign(file);
  const keys = onKeys({ d: download });
</script>

<svelte:window onkeydown={keys} />
{#if view.data}
  <div class="page">
    <div class="main">
      <article class="sheet">
        <h1>{view.data.name}: {m.handover.title}</h1>
        <hr />
        <div class="figures">
          <div><b>{view.data.proven}</b><span class="sub">{m.handover.accepted(view.data.proven, view.data.units)}</span></div>
          <div><b>{view.data.lines.length}</b><span class="sub">{m.handover.placed}</span></div>
        </div>
        {#if view.data.lines.length > 0}
          <div class="scroll">
            <table class="tbl">
              <thead><tr>{#each m.handover.cols as col (col)}<th>{col}</th>{/each}</tr></thead>
              <tbody>
                {#each view.data.lines as line (line.name)}
                  <tr>
                    <td class="mono"><b>{line.name}</b></td><td class="mono">{line.address}</td><td class="mono">{line.serial ?? '—'}</td><td class="mono">{line.mac || '—'}</td>
                    <td class="mono sub" title={line.fingerprint}>{line.fingerprint ? line.fingerprint.slice(0, 12) + '…' : '—'}</td>
                    <td class="proof">
                      {#if line.provenAt}<Mark mark="done" size={15} /> {m.handover.proven} <span title={inFull(line.provenAt)}>{atTime(line.provenAt)}</span>
                      {:else}<Mark mark="dark" size={15} /> {m.handover.notProven}{/if}
                    </td>
                  </tr>
                {/each}
              </tbody>
            </table>
          </div>
        {:else}<p>{m.handover.empty}</p>{/if}
      </article>
    </div>
    <aside class="side" aria-label={m.handover.give}>
      <h2>{m.handover.between}</h2>
      <div class="gap"></div>
      {#if view.data.proven < view.data.units}
        <a class="note" href={path(bringUpId(), 'prove') + '?only=broken'}><span class="t">{m.handover.open(view.data.units - view.data.proven)}</span></a>
      {:else}<p class="sub">{m.handover.none}</p>{/if}
      <h3>{m.handover.give}</h3>
      <div class="give"><span>{m.handover.csv}</span><B key="d" onclick={download}>CSV</B></div>
    </aside>
  </div>
{/if}

<style>
  article { padding: 28px 34px; }
  hr { border: 0; border-top: 2px solid var(--ink); margin: 14px 0; }
  .figures { display: flex; gap: 60px; margin-bottom: 14px; }
  .figures b { display: block; font-size: 21px; font-weight: 680; }
  td { white-space: nowrap; height: 29px; }
  td b { font-weight: 600; }
  .proof { font-size: 13px; }
  .proof :global(svg) { display: inline; vertical-align: -3px; }
  .give { display: flex; justify-content: space-between; align-items: center; border-bottom: 1px solid var(--line2); padding: 5px 0; }
  .gap { height: 10px; }
  @media (max-width: 700px) { article { padding: 16px; } }
</style>
