<script lang="ts">
  import { api } from '../../lib/api';
  import { download } from '../../lib/download';
  import { onKeys } from '../../lib/keys';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime, inFull } from '../../lib/time';
  import type { ChainLook, HandoverView, SignStanding } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import ManyRows from '../../parts/ManyRows.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import { bringUpId, choose, path } from '../../routes';
  import CredentialsDialog from './CredentialsDialog.svelte';
  import ItemDialog from './ItemDialog.svelte';
  import LifeDialog from './LifeDialog.svelte';
  import PasswordChanges from './PasswordChanges.svelte';
  import SignDialog from './SignDialog.svelte';

  const view = live<HandoverView>(() => `/bring-ups/${bringUpId()}/handover`);
  const lead = $derived(session.me?.role === 'lead');
  const units = $derived(view.data?.units ?? []);
  const signed = $derived(units.filter((unit) => unit.state === 'SIGNED'));
  const ready = $derived(units.filter((unit) => unit.state === 'READY'));
  const blocked = $derived(units.filter((unit) => unit.state === 'BLOCKED'));
  const MOST_REASONS = 6;
  const MOST_RECORDS = 40;
  let all = $state(false);
  /** What blocks signing, and of which units; an address in it is each unit's own. */
  const reasons = $derived.by(() => {
    const groups: Record<string, SignStanding[]> = {};
    for (const unit of blocked) (groups[unit.why] ??= []).push(unit);
    return Object.entries(groups).sort(([, a], [, b]) => Number(b[0]?.fault) - Number(a[0]?.fault));
  });
  const byUnit = $derived(new Map(units.map((unit) => [unit.unitId, unit])));
  let open = $state<'' | 'sign' | 'item' | 'credentials' | 'passwords'>('');
  let changing = $state<SignStanding | null>(null);
  let noting = $state<HandoverView['proposed'][number] | null>(null);
  let looked = $state<ChainLook | null>(null);
  let busy = $state(false);

  const file = (name: string) => `/api/bring-ups/${bringUpId()}/exports/${name}`;
  const fetchFile = (name: string) => location.assign(file(name));

  async function tried(work: () => Promise<void>): Promise<void> {
    busy = true;
    try {
      await work();
    } catch (error) {
      notices.fault(error);
    }
    busy = false;
    lookAgain();
  }

  const verify = () => tried(async () => void (looked = await api.post<ChainLook>('/chain/verifications')));
  const pack = (paper: string) => tried(() => download(`/bring-ups/${bringUpId()}/packs?paper=${paper}`, {}));
  const closeItem = (id: number) => tried(async () => void (await api.delete(`/items/${id}`)));

  const named = (list: SignStanding[]) =>
    list
      .slice(0, 2)
      .map((unit) => unit.unit)
      .join(', ') + (list.length > 2 ? m.handover.andMore(list.length - 2) : '');
  const keys = onKeys({
    s: () => void (lead && ready.length > 0 && (open = 'sign')),
    v: () => void verify(),
    d: () => fetchFile('endpoints.csv'),
    p: () => void (units[0] && (open = 'passwords')),
  });
</script>

<svelte:window onkeydown={keys} />
{#if view.data}
  <div class="page">
    <div class="main">
      <article class="sheet">
        <h1>{view.data.name}: {m.handover.title}</h1>
        <hr />
        <div class="figures">
          <div><b>{signed.length}</b><span class="sub">{m.handover.unitsSigned(units.length)}</span></div>
          <div>
            <b>{view.data.lines.filter((line) => line.provenAt).length}</b><span class="sub"
              >{m.handover.endpointsProven(view.data.lines.length)}</span
            >
          </div>
          <div><b>{view.data.names}</b><span class="sub">{m.handover.nameRecords}</span></div>
          <div>
            <b>{view.data.items.length}</b><span class="sub">{m.handover.openItems(view.data.items.length)}</span>
          </div>
        </div>
        {#if view.data.lines.length > 0}
          <ManyRows
            items={view.data.lines}
            key={(line: HandoverView['lines'][number]) => line.claimId}
            cols={m.handover.cols.length}
            label={m.handover.title}
          >
            {#snippet head()}<tr
                >{#each m.handover.cols as col (col)}<th>{col}</th>{/each}</tr
              >{/snippet}
            {#snippet row(line: HandoverView['lines'][number])}
              {@const unit = byUnit.get(line.unitId)}
              <tr>
                <td class="mono"><b>{line.name}</b></td><td>{line.role}</td><td class="mono">{line.address}</td><td
                  class="mono">{line.serial || '—'}</td
                >
                <td class="mono sub" title={line.certificate}
                  >{line.certificate ? line.certificate.slice(0, 8) + '…' : '—'}</td
                >
                <td class="proof">
                  {#if unit?.state === 'SIGNED'}<Mark mark="done" size={15} />
                    {m.handover.signedWord}
                    <span title={unit.signedAt ? inFull(unit.signedAt) : ''}
                      >{unit.signedAt ? atTime(unit.signedAt) : ''}</span
                    >
                  {:else if line.provenAt}<Mark mark="lit" size={15} />
                    {m.handover.proven} <span title={inFull(line.provenAt)}>{atTime(line.provenAt)}</span>
                  {:else}<Mark mark="dark" size={15} /> {m.handover.notProven}{/if}
                </td>
              </tr>
            {/snippet}
          </ManyRows>
        {:else}<p>{m.handover.empty}</p>{/if}
        {#if signed.length > 0}
          <h3>{m.handover.records}</h3>
          {#each signed.slice(0, all ? signed.length : MOST_RECORDS) as unit (unit.unitId)}
            <p class="record">
              <b class="mono">{unit.unit}</b>
              <span class="sub"
                >{m.handover.signedBy(unit.signedBy)}
                <span title={unit.signedAt ? inFull(unit.signedAt) : ''}
                  >{unit.signedAt ? atTime(unit.signedAt) : ''}</span
                >
                · {m.handover.record}
                <span class="mono" title={unit.digest ?? ''}>{unit.digest?.slice(0, 4)}…{unit.digest?.slice(60)}</span
                ></span
              >{#if lead}
                <button type="button" class="again" onclick={() => (changing = unit)}>{m.handover.life.open}</button
                >{/if}
            </p>
          {/each}
          {#if !all && signed.length > MOST_RECORDS}<button type="button" class="again" onclick={() => (all = true)}
              >{m.handover.allRecords(signed.length)}</button
            >{/if}
        {/if}
        {#if view.data.retired.length > 0}
          <h3>{m.handover.life.retired}</h3>
          {#each view.data.retired as unit (unit.at + unit.name)}
            <p class="record">
              <b class="mono">{unit.name}</b>
              <span class="sub"
                >{unit.serial}{unit.serial && unit.place ? ', ' : ''}{unit.place}
                <span title={inFull(unit.at)}>{atTime(unit.at)}</span>. {m.handover.life.retiredSay(
                  unit.why,
                  unit.by,
                )}</span
              >
            </p>
          {/each}
        {/if}
        {#if view.data.items.length > 0}
          <h3>{m.handover.known}</h3>
          {#each view.data.items as item (item.id)}
            <p class="record">
              {#if item.unit}<b class="mono">{item.unit}</b>:
              {/if}{item.text}, <span class:late={item.late}>{m.handover.due(item.due)}</span>.
              <span class="sub">{item.reason} ({item.lead})</span>{#if lead}
                <button type="button" class="again" onclick={() => void closeItem(item.id)}>{m.handover.close}</button
                >{/if}
            </p>
          {/each}
        {/if}
      </article>
    </div>
    <aside class="side" aria-label={m.handover.give}>
      <h2>{m.handover.between}</h2>
      <div class="gap"></div>
      {#if ready.length > 0}<div class="note">
          <span class="t">{m.handover.ready(ready.length)}</span><br /><span class="sub">{named(ready)}</span>
        </div>{/if}
      {#each reasons.slice(0, MOST_REASONS) as [why, of] (why)}
        <a
          class="note"
          class:fault={of[0]?.fault}
          class:quiet={!of[0]?.fault}
          href={path(bringUpId(), 'prove')}
          onclick={() => of[0] && choose(of[0].unitId)}
          ><span class="t">{of.length === 1 ? of[0]?.unit : m.handover.units(of.length)}</span><br /><span class="sub"
            >{why}{of.length > 1 ? ` ${named(of)}` : ''}</span
          ></a
        >
      {/each}
      {#each view.data.proposed.slice(0, MOST_REASONS) as each (`${each.unitId} ${each.text}`)}
        <div class="note">
          <span class="t">{each.unit}</span><br /><span class="sub">{each.text}</span>{#if lead}<br /><button
              type="button"
              class="again first"
              onclick={() => {
                noting = each;
                open = 'item';
              }}>{m.handover.noteThis}</button
            >{/if}
        </div>
      {/each}
      {#if reasons.length > MOST_REASONS}<p class="sub">
          {m.handover.more(reasons.slice(MOST_REASONS).reduce((sum, [, of]) => sum + of.length, 0))}
        </p>{/if}
      {#if units.length > 0 && signed.length === units.length}<p class="sub">{m.handover.none}</p>{/if}
      <div class="do">
        {#if lead}<B look="go" key="s" disabled={ready.length === 0} onclick={() => (open = 'sign')}
            >{m.handover.sign(ready.length)}</B
          >{:else if ready.length > 0}<p class="sub">{m.handover.leadSigns}</p>{/if}
        <B key="v" disabled={busy} onclick={() => void verify()}>{m.handover.verify}</B>
        {#if lead}<B
            onclick={() => {
              noting = null;
              open = 'item';
            }}>{m.handover.item}</B
          >{/if}
        {#if lead && units[0]}<B onclick={() => (changing = units[0] ?? null)}>{m.handover.life.title}</B>{/if}
        {#if units[0]}<B key="p" onclick={() => (open = 'passwords')}>{m.handover.passwords.title}</B>{/if}
      </div>
      {#if looked}
        <div class="note" class:fault={looked.breaks.length > 0} role="status">
          {#if looked.breaks.length === 0}<span class="t">{m.handover.holds}</span><br /><span class="sub"
              >{m.handover.links(looked.links, looked.records)}
              <span class="mono" title={looked.last}>{looked.last.slice(0, 4)}…{looked.last.slice(60)}</span></span
            >
          {:else}<span class="t">{m.handover.broken(looked.breaks.length)}</span
            >{#each looked.breaks as each (each.number + each.why)}<br /><span class="sub"
                >{m.handover.link} {each.number}: {each.why}</span
              >{/each}{/if}
        </div>
      {/if}
      <h3>{m.handover.give}</h3>
      {#if session.mayWork}<div class="give">
          <span>{m.handover.pack}</span><span class="two"
            ><B disabled={busy || signed.length === 0} onclick={() => void pack('a4')}>A4</B><B
              disabled={busy || signed.length === 0}
              onclick={() => void pack('letter')}>Letter</B
            ></span
          >
        </div>{/if}
      {#each view.data.exports as name (name)}
        <div class="give">
          <span>{m.handover.files[name] ?? m.handover.zone(name.slice(6, -5))}</span><B
            key={name === 'endpoints.csv' ? 'd' : undefined}
            onclick={() => fetchFile(name)}>{m.handover.ends[name] ?? m.handover.zoneEnd}</B
          >
        </div>
      {/each}
      {#if lead}<div class="give">
          <span>{m.handover.credentials}</span><B disabled={signed.length === 0} onclick={() => (open = 'credentials')}
            >{m.handover.forKey}</B
          >
        </div>{/if}
    </aside>
  </div>
{/if}

{#if open === 'sign'}<SignDialog {ready} onclose={() => (open = '')} />{:else if open === 'item'}<ItemDialog
    {units}
    start={noting}
    onclose={() => (open = '')}
  />{:else if open === 'credentials'}<CredentialsDialog
    onclose={() => (open = '')}
  />{:else if open === 'passwords'}<PasswordChanges onclose={() => (open = '')} />{/if}
{#if changing}<LifeDialog {units} start={changing} onclose={() => (changing = null)} />{/if}

<style>
  article {
    padding: 26px 34px;
  }
  hr {
    border: 0;
    border-top: 2px solid var(--ink);
    margin: 12px 0;
  }
  h3 {
    margin: 18px 0 4px;
  }
  .figures {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    gap: 14px;
    margin-bottom: 12px;
    padding-bottom: 8px;
    border-bottom: 1px solid var(--line);
  }
  .figures b {
    display: block;
    font-size: 21px;
    font-weight: 680;
  }
  td {
    white-space: nowrap;
    height: 30px;
  }
  td b {
    font-weight: 600;
  }
  .proof {
    font-size: 13px;
  }
  .proof :global(svg) {
    display: inline;
    vertical-align: -3px;
  }
  .record {
    margin: 3px 0;
  }
  .record b {
    font-weight: 600;
  }
  .late {
    color: var(--fault);
    font-weight: 600;
  }
  .again.first {
    margin-left: 0;
  }
  .again {
    margin-left: 6px;
    font: inherit;
    font-size: 12.5px;
    color: var(--ink2);
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .side {
    width: 344px;
  }
  .note.quiet {
    border-color: var(--line);
  }
  .do {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin: 12px 0;
  }
  .give {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 8px;
    border-bottom: 1px solid var(--line2);
    padding: 4px 0;
    font-size: 13.5px;
  }
  .give span {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .two {
    display: flex;
    gap: 6px;
  }
  .gap {
    height: 10px;
  }
  @media (max-width: 900px) {
    .side {
      width: auto;
    }
  }
  @media (max-width: 700px) {
    article {
      padding: 16px;
    }
    .figures {
      grid-template-columns: repeat(2, 1fr);
    }
  }
  @media print {
    .side,
    .again {
      display: none;
    }
  }
</style>
