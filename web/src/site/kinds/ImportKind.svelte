<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { go } from '../../routes';
  import Differences from './Differences.svelte';
  import KindSays from './KindSays.svelte';
  import Trials from './Trials.svelte';
  import type { Draft, PackageView } from './types';

  /** A kind that comes as one file: what is in it is shown first, and then it becomes a draft. */
  let { onclose }: { onclose: () => void } = $props();
  const t = m.kinds.importing;
  const ZIP = 'application/zip';
  let file = $state.raw<File | null>(null);
  let seen = $state.raw<PackageView | null>(null);
  let fault = $state('');
  let busy = $state(false);

  async function choose(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    file = event.currentTarget.files?.[0] ?? null;
    seen = null;
    fault = '';
    if (!file) return;
    busy = true;
    try {
      seen = await api.postFile<PackageView>('/kinds/packages/check', file, ZIP);
    } catch (error) {
      fault = error instanceof Error ? error.message : String(error);
    } finally {
      busy = false;
    }
  }

  async function take(): Promise<void> {
    busy = true;
    try {
      const draft = await api.postFile<Draft>('/kinds/packages', file!, ZIP, '0');
      notices.say(t.taken);
      lookAgain();
      onclose();
      go(`/kinds/${draft.kindId}?tab=text`);
    } catch (error) {
      fault = error instanceof Error ? error.message : String(error);
    } finally {
      busy = false;
    }
  }
</script>

<Dialog title={t.open} wide {onclose}>
  <p class="sub">{t.say}</p>
  <label>{t.file} <input type="file" accept=".zip" disabled={busy} onchange={(event) => void choose(event)} /></label>
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  {#if seen}
    {#if seen.faults.length > 0}
      <p class="fault" role="alert">{t.faults}</p>
      <ul>
        {#each seen.faults as each, i (i)}
          <li>
            {m.kinds.text.at(each.line, each.column)}
            {#if each.path}<code>{each.path}</code>{/if}
            {each.reason}
          </li>
        {/each}
      </ul>
    {:else}
      <h2>{seen.title} <span class="sub mono">{seen.kind}</span></h2>
      <h3>{t.recordings}</h3>
      <Trials trials={seen.recordings} />
      {#if seen.newest}
        <h3>{t.differs(seen.newest)}</h3>
        <Differences changes={seen.changes} />
      {:else}
        <p class="sub">{t.fresh}</p>
        {#if seen.summary}<KindSays summary={seen.summary} way="" narrow />{/if}
      {/if}
      <div class="take"><B look="go" disabled={busy} onclick={() => void take()}>{t.take}</B></div>
    {/if}
  {/if}
</Dialog>

<style>
  p {
    margin: 0 0 10px;
  }
  h2 {
    font-size: 15px;
    margin: 12px 0 0;
  }
  h3 {
    font-size: 13.5px;
    margin: 10px 0 4px;
  }
  ul {
    padding-left: 18px;
    list-style: disc;
  }
  .fault {
    color: var(--fault);
  }
  .take {
    margin-top: 12px;
    position: sticky;
    bottom: 0;
    background: var(--sheet);
    padding: 6px 0;
  }
</style>
