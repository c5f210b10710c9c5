<script lang="ts">
  import { flushSync, onMount } from 'svelte';
  import { api } from '../../lib/api';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { CellText, FactsReport, Finding, KindBrief, PrepareView, SheetRow, Statement } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { bringUpId, chosenUnit, choose } from '../../routes';
  import AddUnits from './AddUnits.svelte';
  import FactGrid from './FactGrid.svelte';
  import SiteDialog from './SiteDialog.svelte';
  import SiteSummary from './SiteSummary.svelte';
  import LabelImport from './LabelImport.svelte';
  import NetworkForm from './NetworkForm.svelte';
  import RackChecks from './RackChecks.svelte';
  import Requests from './Requests.svelte';
  import TableImport from './TableImport.svelte';
  import { keyOf, keyOfKind } from './sheet';

  const sheet = live<PrepareView>(() => `/bring-ups/${bringUpId()}/prepare`);
  let open = $state<'labels' | 'table' | 'ground' | 'units' | 'rack' | 'requests' | null>(null);
  let stating = $state<{ start: Statement | null } | null>(null);
  let all = $state(false);
  /** Thousands of units are written out only for paper. */
  let printing = $state(false);
  const grids = $state<Record<string, { enter: (last: boolean) => void }>>({});
  let lastChange = $state<number | null>(null);
  const units = $derived(sheet.data?.units ?? []);
  const known = $derived(sheet.data?.knownUnits ?? 0);
  const present = $derived(sheet.data?.kinds ?? []);
  const titleOf = (kind: KindBrief) =>
    present.some((other) => other.id === kind.id && other.version !== kind.version)
      ? `${kind.title}, ${m.kinds.version(kind.version)}`
      : kind.title;
  const findings = $derived(sheet.data?.site.findings ?? []);

  /** The facts that have a cell in this row; those of a unit are in the row of its first member. */
  const shownFacts = (kind: KindBrief, row: SheetRow) =>
    kind.facts.filter((fact) => !fact.secret && (fact.scope === 'MEMBER' || row.first));

  function measure(): void {
    if (session.mayWork)
      void api.post(`/bring-ups/${bringUpId()}/measure`).catch((error: unknown) => notices.fault(error));
  }
  onMount(measure);

  async function tried<T>(work: () => Promise<T>): Promise<T | null> {
    try {
      return await work();
    } catch (error) {
      notices.fault(error);
      return null;
    } finally {
      lookAgain();
    }
  }

  async function set(cells: CellText[]): Promise<FactsReport | null> {
    const report = await tried(() => api.put<FactsReport>(`/bring-ups/${bringUpId()}/facts`, { cells }));
    if (report?.changeId) {
      const { changeId } = report;
      lastChange = changeId;
      if (report.changed > 1) notices.say(m.prepare.set(report.changed), () => void undo(changeId));
    }
    return report;
  }

  async function undo(change: number | null): Promise<void> {
    if (change === null) return;
    lastChange = null;
    if ((await tried(() => api.post(`/sheet-changes/${change}/undo`))) !== null) notices.say(m.prepare.changeUndone);
  }

  function follow(unit: number): void {
    if (unit !== chosenUnit()) choose(unit);
  }

  /** From the grid of one kind to that of its neighbour. */
  function cross(index: number, by: number): void {
    const next = present[index + by];
    if (next) grids[keyOfKind(next)]?.enter(by < 0);
  }

  function undoLast(): void {
    void undo(lastChange);
  }

  function undoChange(change: number): void {
    void undo(change);
  }

  function openForm(start: Statement | null): void {
    open = null;
    stating = { start };
  }

  async function undoLabels(): Promise<void> {
    const importId = sheet.data?.site.undoableImport;
    if (importId && (await tried(() => api.post(`/label-imports/${importId}/undo`))) !== null)
      notices.say(m.prepare.undone);
  }

  async function take(networkId: number): Promise<void> {
    await tried(() => api.post(`/bring-ups/${bringUpId()}/network/choice`, { networkId }));
  }

  async function fix(finding: Finding): Promise<void> {
    if ((await tried(() => api.post(`/bring-ups/${bringUpId()}/fixes`, finding.fix))) !== null) measure();
  }

  const keys = onKeys({
    i: () => session.mayWork && (open = 'labels'),
    t: () => session.mayWork && (open = 'table'),
    a: () => session.mayWork && (open = 'units'),
    e: () => session.mayWork && (sheet.data?.site.network ? (open = 'ground') : (stating = { start: null })),
    m: measure,
    r: () => units.length > 0 && (open = 'rack'),
    q: () => units.length > 0 && (open = 'requests'),
  });
</script>

<svelte:window
  onkeydown={keys}
  onbeforeprint={() => flushSync(() => (printing = true))}
  onafterprint={() => (printing = false)}
/>
<div class="page">
  <div class="main">
    <h1 class="visually-hidden">{m.stages.prepare}</h1>
    {#if sheet.data}
      {@const view = sheet.data}
      <div class="ground">
        <SiteSummary
          {view}
          onstate={() => (stating = { start: null })}
          onopen={() => (open = 'ground')}
          onmeasure={measure}
        />
        {#if !view.site.network && view.choices.length > 0 && session.mayWork}
          <p class="sub choices">
            {m.prepare.choose}
            {#each view.choices as choice (choice.id)}<B onclick={() => void take(choice.id)}
                >{choice.name} <span class="mono">{choice.prefix}</span></B
              >{' '}{/each}
          </p>
        {/if}
      </div>
      <div class="head facts">
        <h2>{m.prepare.facts}</h2>
        {#if units.length > 0}<span class="sub">{m.prepare.factsText(known, units.length)}</span>{/if}
        <span class="end">
          {#if units.length > 0}<label class="sub"
              ><input type="checkbox" bind:checked={all} /> {m.prepare.allFacts}</label
            >{/if}
          {#if session.mayWork}
            {#if view.site.undoableImport}<B onclick={() => void undoLabels()}>{m.prepare.undo}</B>{/if}
            <B key="a" look={units.length === 0 ? 'go' : 'plain'} onclick={() => (open = 'units')}
              >{m.prepare.add.title}</B
            >
            <B key="i" look={known < units.length ? 'go' : 'plain'} onclick={() => (open = 'labels')}
              >{m.prepare.importTitle}</B
            >
            <B key="t" onclick={() => (open = 'table')}>{m.prepare.table.short}</B>
          {/if}
          {#if units.length > 0}
            <B key="r" onclick={() => (open = 'rack')}>{m.prepare.rack.title}</B>
            <B key="q" onclick={() => (open = 'requests')}>{m.prepare.requests.short}</B>
            <a class="button" href="/api/bring-ups/{bringUpId()}/facts.csv" download="facts.csv">CSV</a>
            <B onclick={() => print()}>{m.prepare.print}</B>
          {/if}
        </span>
      </div>
      {#if sheet.data}
        {#each present as kind, i (keyOfKind(kind))}
          {#if present.length > 1}<h3 class="kind">
              <a href="/kinds/{kind.id}">{titleOf(kind)}</a>
              <span class="sub">{m.frame.units(units.filter((unit) => keyOf(unit) === keyOfKind(kind)).length)}</span>
            </h3>{/if}
          <FactGrid
            bind:this={grids[keyOfKind(kind)]}
            name={kind.id}
            rows={view.rows.filter((row) => keyOf(row) === keyOfKind(kind))}
            kinds={present}
            {all}
            chosen={chosenUnit()}
            editable={session.mayWork}
            onset={set}
            onundo={undoLast}
            onchoose={follow}
            onbeyond={(by: number) => cross(i, by)}
          />
        {:else}
          <p class="sheet none">{m.prepare.noUnits}</p>
        {/each}
      {/if}
      {#if units.length > 0}<p class="sub legend">{m.prepare.legend}</p>{/if}
      {#if printing}<div class="carry">
          <h2>{m.prepare.carry}</h2>
          {#each present as kind (keyOfKind(kind))}
            <p>
              <b>{titleOf(kind)}</b>{' '}{#if kind.plug}{m.prepare.add.plug}
                {kind.plug}.{' '}{/if}{#if kind.bring.length}{m.prepare.add.bring} {kind.bring.join(', ')}.{/if}
            </p>
            {#each view.rows.filter((row) => keyOf(row) === keyOfKind(kind)) as row (row.unitId + row.member)}
              <div class="unit">
                <b class="mono">{row.unit}</b>
                {row.member}
                {#each shownFacts(kind, row) as fact (fact.name)}
                  <span class="fact"
                    ><span class="sub">{fact.title}</span>
                    <span class="mono">{row.cells[fact.name]?.value ?? '____________'}</span></span
                  >
                {/each}
              </div>
            {/each}
          {/each}
        </div>{/if}
    {/if}
  </div>
  <aside class="side" aria-label={m.prepare.wrongTitle}>
    <h2>{m.prepare.wrongTitle}</h2>
    <div class="gap"></div>
    {#each findings as finding, i (finding.code + (finding.about.unitId ?? finding.about.networkId ?? '') + i)}
      <div class="note" class:fault={finding.blocks}>
        <span class="t">{finding.what}</span><br /><span class="sub">{finding.why}</span>
        {#if finding.fix && session.mayWork}<br /><button type="button" class="fix" onclick={() => void fix(finding)}
            >{finding.fix.label}</button
          >{/if}
      </div>
    {:else}
      {#if sheet.data}<p class="sub">{sheet.data.site.network ? m.prepare.fine : m.prepare.nothingYet}</p>{/if}
    {/each}
  </aside>
</div>
{#if open === 'labels'}<LabelImport onclose={() => (open = null)} />{/if}
{#if open === 'table'}<TableImport onclose={() => (open = null)} onundo={undoChange} />{/if}
{#if open === 'rack'}<RackChecks onclose={() => (open = null)} />{/if}
{#if open === 'requests'}<Requests onclose={() => (open = null)} />{/if}
{#if open === 'units'}<AddUnits onclose={() => (open = null)} />{/if}
{#if open === 'ground' && sheet.data}<SiteDialog
    view={sheet.data}
    onclose={() => (open = null)}
    onnetwork={openForm}
  />{/if}
{#if stating && sheet.data}<NetworkForm
    start={stating.start}
    like={sheet.data.choices.find((choice) => choice.purpose === 'management')}
    further={sheet.data.site.network !== null}
    onclose={() => {
      stating = null;
      measure();
    }}
  />{/if}

<style>
  .facts {
    margin-top: 16px;
  }
  .kind {
    margin: 10px 0 4px;
  }
  .none {
    padding: 14px;
    margin: 0;
  }
  .gap {
    height: 10px;
  }
  .choices {
    margin: 10px 0;
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
  }
  .legend {
    margin: 2px 0 0;
  }
  .fix {
    color: var(--lamp-ink);
    font-weight: 600;
    text-decoration: underline;
    font-size: 13px;
    padding: 2px 0;
    text-align: left;
  }
  .button {
    padding: 5px 12px;
    font: 550 13.5px var(--font-sans);
    border: 1px solid var(--ink2);
    border-radius: 5px;
    color: var(--ink);
    text-decoration: none;
    background: var(--sheet);
  }
  .side {
    max-height: calc(100vh - 114px);
    overflow-y: auto;
    position: sticky;
    top: 0;
  }
  .carry {
    display: none;
  }
  .unit {
    margin: 0 0 5px 12px;
    break-inside: avoid;
  }
  .fact {
    margin-left: 12px;
    display: inline-block;
  }
  @media print {
    .ground,
    .side,
    .facts .end,
    .facts .sub,
    .legend {
      display: none;
    }
    .carry {
      display: block;
      font-size: 12px;
    }
    .carry p {
      margin: 10px 0 3px;
    }
  }
</style>
