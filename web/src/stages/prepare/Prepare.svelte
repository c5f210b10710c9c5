<script lang="ts">
  import { api } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { PrepareView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { bringUpId, chosenUnit, choose } from '../../routes';
  import LabelImport from './LabelImport.svelte';
  import NetworkCard from './NetworkCard.svelte';
  import NetworkForm from './NetworkForm.svelte';

  const sheet = live<PrepareView>(() => `/bring-ups/${bringUpId()}/prepare`);
  let importing = $state(false);
  let stating = $state(false);
  const units = $derived(sheet.data?.units ?? []);
  const known = $derived(units.filter((unit) => unit.serial).length);

  async function undo(importId: number): Promise<void> {
    try {
      await api.post(`/label-imports/${importId}/undo`);
      notices.say(m.prepare.undone);
      lookAgain();
    } catch (error) {
      notices.fault(error);
    }
  }

  const keys = onKeys({ i: () => session.mayWork && (importing = true), e: () => session.mayWork && (stating = true) });
</script>

<svelte:window onkeydown={keys} />
<div class="page">
  <div class="main">
    <h1 class="visually-hidden">{m.stages.prepare}</h1>
    {#if sheet.data}
      <div class="head"><h2>{m.prepare.groundwork}</h2></div>
      <NetworkCard view={sheet.data} onstate={() => (stating = true)} />
      <div class="head facts">
        <h2>{m.prepare.facts}</h2>
        <span class="sub">{m.prepare.factsText(known, units.length)}</span>
        <span class="end">
          {#if session.mayWork}
            {#if sheet.data.groundwork.undoableImport}
              {@const importId = sheet.data.groundwork.undoableImport}
              <B onclick={() => void undo(importId)}>{m.prepare.undo}</B>
            {/if}
            <B look={known < units.length || units.length === 0 ? 'go' : 'plain'} key="i" onclick={() => (importing = true)}>{m.prepare.importTitle}</B>
          {/if}
        </span>
      </div>
      <div class="sheet scroll">
        <table class="tbl cells">
          <thead><tr>{#each Object.values(m.prepare.cols) as col (col)}<th>{col}</th>{/each}</tr></thead>
          <tbody>
            {#each units as unit (unit.id)}
              <tr class:on={unit.id === chosenUnit()} onclick={() => choose(unit.id)}>
                <td><b class="mono">{unit.position}</b></td>
                {#if unit.serial}
                  <td class="mono">{unit.serial}</td><td class="mono">{unit.mac}</td><td>{unit.model}</td>
                  {#if unit.firstAddress}<td class="mono">{unit.firstAddress}</td>{:else}<td class="sub">{m.prepare.byMac}</td>{/if}
                {:else}
                  <td class="missing">{m.prepare.findOut}</td><td class="missing">{m.prepare.findOut}</td><td class="missing">{m.prepare.findOut}</td><td></td>
                {/if}
              </tr>
            {:else}
              <tr><td colspan="5" class="none">{m.board.none}</td></tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
  </div>
  <aside class="side" aria-label={m.prepare.wrongTitle}>
    <h2>{m.prepare.wrongTitle}</h2>
    <div class="gap"></div>
    {#each sheet.data?.groundwork.findings ?? [] as finding (finding.code)}
      <div class="note" class:fault={finding.blocks}><span class="t">{finding.what}</span><br /><span class="sub">{finding.why}</span></div>
    {:else}
      {#if sheet.data?.groundwork.network}<p class="sub">{m.prepare.fine}</p>{/if}
    {/each}
  </aside>
</div>
{#if importing}<LabelImport onclose={() => (importing = false)} />{/if}
{#if stating && sheet.data}<NetworkForm start={sheet.data.groundwork.network} onclose={() => (stating = false)} />{/if}

<style>
  .facts { margin-top: 16px; }
  .cells td, .cells th { border-left: 1px solid var(--line2); height: 30px; }
  .cells td:first-child, .cells th:first-child { border-left: 0; }
  .missing { background: var(--fault2); color: var(--fault); font-size: 12.5px; }
  .none { padding: 14px; }
  .gap { height: 10px; }
</style>
