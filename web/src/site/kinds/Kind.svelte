<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { chosenKind, searched } from '../../routes';
  import SiteBand from '../SiteBand.svelte';
  import Differences from './Differences.svelte';
  import KindAdjustments from './KindAdjustments.svelte';
  import KindDryRun from './KindDryRun.svelte';
  import KindHistory from './KindHistory.svelte';
  import KindRead from './KindRead.svelte';
  import KindText from './KindText.svelte';
  import LearnSetup from './LearnSetup.svelte';
  import Trials from './Trials.svelte';
  import type { Change, KindPage, RecordingTrial } from './types';

  /** One kind: to read, as text, its versions, and what sites do otherwise. */
  const t = m.kinds;
  const TABS = $derived(
    session.mayWork
      ? ['read', 'text', 'learn', 'try', 'history', 'adjust']
      : ['read', 'text', 'try', 'history', 'adjust'],
  );
  const id = $derived(chosenKind());
  const page = live<KindPage>(() => `/catalogue/${id}`);
  const draft = $derived(page.data?.draft ?? null);
  const line = $derived(page.data?.line);
  const tab = $derived(
    TABS.includes(searched('tab'))
      ? searched('tab')
      : line && line.version === null && !draft?.summary
        ? 'text'
        : 'read',
  );
  const next = $derived((line?.version ?? 0) + 1);
  let publishing = $state(false);
  let note = $state('');
  /** The recordings that the draft does not agree with, once the server has said so. */
  let disagree = $state<RecordingTrial[]>([]);
  let despite = $state('');
  let updating = $state<Change[] | null>(null);
  let busy = $state(false);

  async function act(work: () => Promise<unknown>, done: string): Promise<void> {
    busy = true;
    try {
      await work();
      notices.say(done);
    } catch (error) {
      notices.fault(error);
    } finally {
      busy = false;
    }
    lookAgain();
  }

  async function publish(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const version = next;
    busy = true;
    try {
      await api.postIf(`/catalogue/${id}/publish`, { note, despite }, draft!.version);
      notices.say(t.published(version));
      closePublishing();
    } catch (error) {
      const recordings = error instanceof Problem ? error.members.recordings : undefined;
      if (recordings) disagree = recordings as RecordingTrial[];
      else {
        notices.fault(error);
        closePublishing();
      }
    } finally {
      busy = false;
    }
    lookAgain();
  }

  function closePublishing(): void {
    publishing = false;
    note = '';
    despite = '';
    disagree = [];
  }

  async function showUpdate(): Promise<void> {
    try {
      updating = await api.get<Change[]>(`/catalogue/${id}/difference?from=${line!.version}&to=0`);
    } catch (error) {
      notices.fault(error);
    }
  }

  async function update(): Promise<void> {
    updating = null;
    await act(() => api.post(`/catalogue/${id}/update`), t.published(next));
  }
</script>

<SiteBand at="kinds" />
<main id="work" tabindex="-1">
  {#if page.error && !page.data}
    <p class="say" role="alert">{page.error.message} <a href="/kinds">{t.title}</a></p>
  {:else if page.data && line}
    <div class="head">
      <h1>{line.version ? line.title : draft?.title || line.title}</h1>
      {#if line.version}<span class="tag">{t.version(line.version)}</span>{/if}
      {#if line.draft}<span class="tag draft">{t.tags.draft}</span>{/if}
      {#if line.retired}<span class="tag">{t.tags.retired}</span>{/if}
      <span class="sub mono">{line.id}</span>
      <span class="end">
        {#if session.me?.role === 'lead'}
          {#if line.retired}
            <B
              disabled={busy}
              onclick={() => void act(() => api.post(`/catalogue/${id}/bring-back`), t.broughtBack(line.title))}
              >{t.bringBack}</B
            >
          {:else if line.version}
            <B
              disabled={busy}
              onclick={() => void act(() => api.post(`/catalogue/${id}/retire`), t.retired(line.title))}>{t.retire}</B
            >
          {/if}
          {#if line.draft}
            <B look="go" disabled={busy || !draft || draft.faults.length > 0} onclick={() => (publishing = true)}
              >{t.publish(next)}</B
            >
          {/if}
        {/if}
      </span>
    </div>
    {#if page.data.fault}<p class="say wait" role="alert">{page.data.fault}</p>{/if}
    {#if line.update}
      <p class="say wait">
        {t.updateSay}
        {#if session.me?.role === 'lead'}<B onclick={() => void showUpdate()}>{t.update}</B>{/if}
      </p>
    {/if}
    <div class="tabs">
      {#each TABS as each (each)}
        <a href="/kinds/{id}?tab={each}" aria-current={each === tab ? 'page' : undefined}
          >{t.tabs[each]}{each === 'adjust' && page.data.adjustments.length > 0
            ? ` ${page.data.adjustments.length}`
            : ''}{each === 'history' && page.data.history.length > 1 ? ` ${page.data.history.length}` : ''}</a
        >
      {/each}
    </div>
    {#if tab === 'read'}
      <KindRead page={page.data} {draft} />
    {:else if tab === 'text'}
      {#key id}<KindText page={page.data} {draft} />{/key}
    {:else if tab === 'learn'}
      {#key id}<LearnSetup page={page.data} {draft} />{/key}
    {:else if tab === 'try'}
      {#key id}<KindDryRun page={page.data} {draft} />{/key}
    {:else if tab === 'history'}
      <KindHistory page={page.data} />
    {:else}
      <KindAdjustments page={page.data} />
    {/if}
  {/if}
</main>
{#if publishing && line}
  <Dialog title={t.publishTitle(next, line.title)} onclose={closePublishing}>
    <p>{t.publishSay}</p>
    <form onsubmit={(event) => void publish(event)}>
      <Label>{t.note}<Input bind:value={note} maxlength={400} /></Label>
      {#if disagree.length > 0}
        <p role="alert">{t.disagree}</p>
        <Trials trials={disagree} />
        <Label>{t.despite}<Input bind:value={despite} required maxlength={400} /></Label>
      {/if}
      <div><B look="go" type="submit" disabled={busy}>{t.publish(next)}</B></div>
    </form>
  </Dialog>
{/if}
{#if updating && line}
  <Dialog title={t.updateTitle(line.title)} wide onclose={() => (updating = null)}>
    <Differences changes={updating} />
    <B look="go" onclick={() => void update()}>{t.publish(next)}</B>
  </Dialog>
{/if}

<style>
  main {
    max-width: 1240px;
    margin: 14px auto;
    padding: 0 18px;
    display: grid;
    gap: 10px;
  }
  main:focus {
    outline: none;
  }
  .head {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  h1 {
    margin: 0;
  }
  .end {
    margin-left: auto;
    display: flex;
    gap: 8px;
  }
  .tag {
    font-size: 12px;
    border: 1px solid var(--line);
    border-radius: 3px;
    padding: 0 6px;
    background: var(--sheet);
  }
  .tag.draft {
    background: var(--lamp2);
    border-color: var(--lamp);
  }
  .tabs {
    display: flex;
    gap: 4px;
    border-bottom: 1px solid var(--line);
    flex-wrap: wrap;
  }
  .tabs a {
    padding: 6px 12px;
    color: var(--ink2);
    font-weight: 560;
    text-decoration: none;
    border-bottom: 3px solid transparent;
    margin-bottom: -1px;
  }
  .tabs a[aria-current] {
    color: var(--ink);
    border-bottom-color: var(--lamp);
  }
  .say {
    display: flex;
    gap: 12px;
    align-items: center;
    margin: 0;
  }
  form {
    display: grid;
    gap: 10px;
  }
</style>
