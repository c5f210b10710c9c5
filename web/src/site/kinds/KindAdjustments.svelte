<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import type { AdjustmentRow, KindPage, Place } from './types';

  /** What sites, or single bring-ups, do otherwise than the kind says, beside what it says. */
  let { page }: { page: KindPage } = $props();
  const t = m.kinds.adjust;
  let adjusting = $state<Place | null>(null);
  let where = $state('');
  let value = $state('');
  let password = $state('');
  let reason = $state('');
  let faults = $state<Record<string, string>>({});
  let busy = $state(false);
  const lead = $derived(session.me?.role === 'lead');
  const of = (place: Place) => page.adjustments.filter((each) => each.what === place.what);

  function open(place: Place): void {
    const site = page.sites[0];
    adjusting = place;
    where = site ? `${site.id}` : '';
    value = place.value;
    password = '';
    reason = '';
    faults = {};
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    faults = {};
    const [siteId, bringUpId] = where.split(' ').map(Number);
    try {
      await api.post(`/catalogue/${page.line.id}/adjustments`, {
        siteId,
        bringUpId: bringUpId ?? null,
        what: adjusting!.what,
        value,
        password,
        reason,
      });
      adjusting = null;
      notices.say(t.saved);
      lookAgain();
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) notices.fault(error);
      await tick();
      document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus();
    } finally {
      busy = false;
    }
  }

  async function remove(row: AdjustmentRow): Promise<void> {
    try {
      await api.delete(`/catalogue/${page.line.id}/adjustments/${row.id}`);
      notices.say(t.removed);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }
</script>

<p class="sub">{t.say} {lead ? '' : t.leads}</p>
{#if page.sites.length === 0}<p>{t.noSite}</p>{/if}
<section class="sheet">
  <div class="row heads"><span>{t.what}</span><span>{t.kinds}</span><span>{t.site}</span><span></span></div>
  {#each page.places as place (place.what)}
    <div class="row">
      <b>{place.title}</b>
      <span class="value" class:sub={!place.value}>{place.value || t.nothing}</span>
      <span>
        {#each of(place) as row (row.id)}
          <span class="own">
            <span class="value mark">{row.value || t.nothing}</span>
            {#if row.hasPassword}<span class="sub">{t.password}</span>{/if}
            <span class="sub"
              >{row.bringUp ?? t.wholeSite(row.site)}: {row.reason} ({t.by(row.by, atTime(row.at))})</span
            >
            {#if lead}<button type="button" onclick={() => void remove(row)}>{t.remove}</button>{/if}
          </span>
        {/each}
      </span>
      <span class="end"
        >{#if lead && page.sites.length > 0}<B onclick={() => open(place)}>{t.make}</B>{/if}</span
      >
    </div>
  {/each}
</section>
{#if adjusting}
  <Dialog title={t.makeTitle(adjusting.title)} onclose={() => (adjusting = null)}>
    <form onsubmit={(event) => void save(event)}>
      <Label
        >{t.where}<select bind:value={where}>
          {#each page.sites as site (site.id)}
            <option value={`${site.id}`}>{t.wholeSite(site.name)}</option>
            {#each site.bringUps as each (each.id)}<option value={`${site.id} ${each.id}`}>{each.name}</option>{/each}
          {/each}
        </select></Label
      >
      <Label
        >{adjusting.secret ? t.user : t.value}<Input
          class="mono"
          bind:value
          maxlength={400}
          spellcheck="false"
          aria-invalid={faults.value ? 'true' : undefined}
        /><span class="sub">{t.form(adjusting.form)}</span>{#if faults.value}<span class="fault">{faults.value}</span
          >{/if}</Label
      >
      {#if adjusting.secret}
        <Label
          >{t.newPassword}<Input
            class="mono"
            type="password"
            bind:value={password}
            maxlength={128}
            autocomplete="off"
            aria-invalid={faults.password ? 'true' : undefined}
          />{#if faults.password}<span class="fault">{faults.password}</span>{/if}</Label
        >
      {/if}
      <Label
        >{t.reason}<Input
          bind:value={reason}
          maxlength={400}
          aria-invalid={faults.reason ? 'true' : undefined}
        />{#if faults.reason}<span class="fault">{faults.reason}</span>{/if}</Label
      >
      {#if faults.siteId || faults.what}<p class="fault" role="alert">{faults.siteId ?? faults.what}</p>{/if}
      <div><B look="go" type="submit" disabled={busy}>{t.save}</B></div>
    </form>
  </Dialog>
{/if}

<style>
  p {
    margin: 0;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr) minmax(0, 2fr) 84px;
    gap: 14px;
    padding: 8px 14px;
    align-items: center;
  }
  .row + .row {
    border-top: 1px solid var(--line2);
  }
  .row b {
    font-weight: 560;
  }
  .row b::first-letter {
    text-transform: uppercase;
  }
  .heads {
    background: var(--group);
    color: var(--ink2);
    font-size: 12.5px;
    font-weight: 600;
  }
  .value {
    font-family: var(--font-mono);
    font-size: 13px;
    overflow-wrap: anywhere;
  }
  .value.mark {
    background: var(--lamp2);
    border-radius: 3px;
    padding: 0 4px;
  }
  .own {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: baseline;
  }
  .own button {
    text-decoration: underline;
    font-size: 13px;
  }
  .fault {
    color: var(--fault);
    font-size: 13px;
  }
  form {
    display: grid;
    gap: 10px;
  }
  select {
    display: block;
    width: 100%;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    padding: 6px 8px;
  }
  @media (max-width: 800px) {
    .heads {
      display: none;
    }
    .row {
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 4px 10px;
    }
    .row > :nth-child(2),
    .row > :nth-child(3) {
      grid-column: 1;
    }
    .row > .end {
      grid-column: 2;
      grid-row: 1;
    }
  }
</style>
