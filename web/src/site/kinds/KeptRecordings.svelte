<script lang="ts">
  import { untrack } from 'svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import type { Draft, KeptRecording, KindPage, RecordingTrial } from './types';

  /** The recordings that are kept with a kind, and whether its draft agrees with each. */
  let {
    page,
    draft,
    chosen,
    busy,
    onplay,
  }: {
    page: KindPage;
    draft: Draft | null;
    chosen: string;
    busy: boolean;
    onplay: (path: string) => void;
  } = $props();
  const t = m.kinds.kept;
  const id = $derived(page.line.id);
  const kept = live<KeptRecording[]>(() => `/catalogue/${id}/recordings/kept`);
  let trials = $state.raw<RecordingTrial[]>([]);

  // they are played again when the draft or the recordings are others
  $effect(() => {
    const playable = session.mayWork && (draft ? draft.faults.length === 0 : page.line.version !== null);
    const which = `${draft?.version ?? ''} ${page.line.version} ${(kept.data ?? []).map((each) => each.id).join(' ')}`;
    if (playable && kept.data && kept.data.length > 0) untrack(() => void play(which));
  });
  let asked = '';
  async function play(which: string): Promise<void> {
    if (which === asked) return;
    asked = which;
    try {
      const found = await api.post<RecordingTrial[]>(`/catalogue/${id}/recordings/trials`);
      if (which === asked) trials = found;
    } catch (error) {
      notices.fault(error);
    }
  }
  const outcome = (recording: number) => trials.find((each) => each.id === recording);

  async function remove(recording: KeptRecording): Promise<void> {
    try {
      await api.delete(`/catalogue/${id}/recordings/kept/${recording.id}`);
      notices.say(t.removed(recording.name));
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }
</script>

{#if kept.data && (kept.data.length > 0 || page.summary?.setup.steps.length !== 0)}
  <section class="sheet" aria-label={t.title}>
    <h2>{t.title}</h2>
    {#each kept.data as each (each.id)}
      {@const found = outcome(each.id)}
      {@const path = `/catalogue/${id}/recordings/kept/${each.id}`}
      <div class="row" class:on={path === chosen}>
        <Mark mark={found ? (found.agrees ? 'done' : 'fault') : 'dark'} size={15} />
        <button type="button" class="mono" disabled={busy || !session.mayWork} onclick={() => onplay(path)}
          >{each.name}</button
        >
        <span class="sub"
          >{found ? (found.agrees ? t.agrees : t.disagrees(found.faults.length, found.open.length)) : ''}
          {each.stays ? t.stays : ''}</span
        >
        <span class="sub">{each.keptBy ?? ''} {atTime(each.keptAt)}</span>
        {#if session.mayWork}<span><B onclick={() => void remove(each)}>{t.remove}</B></span>{/if}
      </div>
    {:else}
      <p class="sub">{t.none}</p>
    {/each}
    {#if kept.data.length > 0}<p class="sub">{t.say}</p>{/if}
  </section>
{/if}

<style>
  section {
    padding: 8px 14px;
  }
  h2 {
    font-size: 14px;
    margin: 0 0 4px;
  }
  p {
    margin: 0;
  }
  .row {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr) minmax(0, 1.4fr) auto auto;
    gap: 10px;
    align-items: baseline;
    padding: 3px 0;
  }
  .row.on {
    background: var(--lamp2);
  }
  button {
    text-align: left;
    text-decoration: underline;
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    .row {
      grid-template-columns: 18px 1fr;
    }
    .row > :nth-child(n + 3) {
      grid-column: 2;
      justify-self: start;
    }
  }
</style>
