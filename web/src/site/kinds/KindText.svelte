<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { api } from '../../lib/api';
  import { decoded } from '../../lib/decode';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import KindEditor from './KindEditor.svelte';
  import KindFormView from './KindFormView.svelte';
  import KindPreview from './KindPreview.svelte';
  import type { Draft, KindFault, KindPage, KindPreview as Preview } from './types';

  /** The text of a kind: as it was published, or a draft that can be edited, with every fault at its line. */
  let { page, draft }: { page: KindPage; draft: Draft | null } = $props();
  const t = m.kinds.text;
  /** A preview of a long kind takes longer than its faults, which are shown at once. */
  const PREVIEW_AFTER = 350;
  const id = $derived(page.line.id);
  let published = $state('');
  let text = $state<string | null>(null);
  /** The version of the draft that the text on the screen was made from. */
  let seen = $state('0');
  let faults = $state.raw<KindFault[] | null>(null);
  let preview = $state.raw<Preview | null>(null);
  let busy = $state(false);
  let as = $state<'text' | 'form'>('text');
  /** The text that is being checked; what is typed meanwhile is checked as soon as the answer is there. */
  let checking: string | null = null;
  let previewing: ReturnType<typeof setTimeout> | undefined;
  const changed = $derived(text !== null && text !== (draft?.text ?? ''));

  $effect(() => {
    const version = page.line.version;
    if (version) void api.text(`/catalogue/${id}/versions/${version}`).then((all) => (published = all));
  });
  // what somebody else has saved is shown, unless something is typed here that would be lost
  $effect(() => {
    const now = draft;
    untrack(() => {
      if (now && (text === null || !editedSince())) {
        text = now.text;
        seen = now.version;
        faults = now.faults;
        last = now.text;
        void check();
      } else if (!now && last !== '' && !editedSince()) {
        // it was published or deleted: what is published is shown again
        text = null;
        last = '';
        seen = '0';
      }
    });
  });
  let last = '';
  const editedSince = () => text !== null && text !== last;

  async function check(): Promise<void> {
    if (checking !== null || text === null) return;
    const asked = (checking = text);
    try {
      const found = await api.postText<KindFault[]>('/kinds/check', asked);
      if (asked === text) {
        faults = found;
        clearTimeout(previewing);
        if (found.length === 0) previewing = setTimeout(() => void show(asked), preview ? PREVIEW_AFTER : 0);
      }
    } catch (error) {
      notices.fault(error);
    } finally {
      checking = null;
    }
    if (text !== null && asked !== text) void check();
  }

  /** While somebody is typing, the preview from before stays. */
  async function show(asked: string): Promise<void> {
    try {
      const found = await api.postText<Preview>('/kinds/preview', asked);
      if (asked === text && found.summary) preview = found;
    } catch (error) {
      notices.fault(error);
    }
  }

  async function load(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    text = decoded(await file.arrayBuffer());
    void check();
  }

  async function save(): Promise<void> {
    busy = true;
    try {
      const saved = await api.putTextIf<Draft>(`/catalogue/${id}/draft`, text ?? '', seen);
      seen = saved.version;
      last = saved.text;
      faults = saved.faults;
      notices.say(t.saved);
    } catch (error) {
      notices.fault(error);
    } finally {
      busy = false;
    }
    lookAgain();
  }

  async function discard(): Promise<void> {
    busy = true;
    try {
      await api.deleteIf(`/catalogue/${id}/draft`, seen);
      text = null;
      last = '';
      seen = '0';
      notices.say(t.discarded);
    } catch (error) {
      notices.fault(error);
    } finally {
      busy = false;
    }
    lookAgain();
  }

  function edit(): void {
    text = published;
    last = '';
    seen = '0';
    void check();
  }

  async function goTo(line: number, column: number): Promise<void> {
    as = 'text';
    await tick();
    editor?.goTo(line, column);
  }

  let editor = $state<{ goTo: (line: number, column: number) => void }>();
</script>

{#if text !== null}
  <div class="views" role="group" aria-label={m.kinds.formView.label}>
    {#each ['text', 'form'] as const as each (each)}
      <button type="button" aria-pressed={as === each} onclick={() => (as = each)}
        >{m.kinds.formView.views[each]}</button
      >
    {/each}
  </div>
  <div class="two">
    {#if as === 'form'}<KindFormView
        {text}
        faults={faults ?? []}
        readonly={!session.mayWork}
        ontyped={(now: string) => {
          text = now;
          void check();
        }}
      />{:else}<KindEditor
        bind:this={editor}
        {text}
        faults={faults ?? []}
        readonly={!session.mayWork}
        ontyped={(now: string) => {
          text = now;
          void check();
        }}
      />{/if}
    <aside class="sheet">
      <h2 aria-live="polite">{faults ? t.faults(faults.length) : t.checking}</h2>
      {#if faults && faults.length > 0}
        <ol>
          {#each faults as fault, i (i)}
            <li>
              <button type="button" onclick={() => void goTo(fault.line, fault.column)}
                >{t.at(fault.line, fault.column)}</button
              >
              {#if fault.path}<code>{fault.path}</code>{/if}
              {fault.reason}
            </li>
          {/each}
        </ol>
      {/if}
      {#if session.mayWork}
        <div class="acts">
          <B look="go" disabled={busy || !changed} onclick={() => void save()}>{t.save}</B>
          {#if draft}<B look="stop" disabled={busy} onclick={() => void discard()}>{t.discard}</B>{/if}
          {#if changed}<span class="sub">{t.unsaved}</span>{/if}
        </div>
        <label class="file"
          >{t.upload} <input type="file" accept=".yaml,.yml,.txt" onchange={(e) => void load(e)} /></label
        >
      {/if}
      <p class="sub">{t.keys}</p>
    </aside>
  </div>
  {#if preview?.summary}
    <h2>{faults && faults.length > 0 ? t.saysBefore : t.says}</h2>
    <KindPreview summary={preview.summary} way={preview.way} example={preview.example} />
  {/if}
{:else if published}
  <div class="bar">
    <span class="sub">{t.reading(page.line.version!)}</span>
    {#if session.mayWork}<B onclick={edit}>{t.edit}</B>{/if}
    <a href="/api/catalogue/{id}/versions/{page.line.version}" download>{m.kinds.download}</a>
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <pre class="sheet mono" tabindex="0" aria-label={t.label}>{published}</pre>
{/if}

<style>
  .views {
    display: flex;
    gap: 4px;
  }
  .views button {
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--sheet);
    padding: 3px 12px;
    font-size: 13px;
  }
  .views button[aria-pressed='true'] {
    border-color: var(--lamp);
    background: var(--lamp2);
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 2fr) minmax(260px, 1fr);
    gap: 12px;
    align-items: start;
  }
  aside {
    padding: 12px 14px;
    display: grid;
    gap: 10px;
  }
  h2 {
    font-size: 15px;
    margin: 0;
  }
  ol {
    list-style: none;
    padding: 0;
    margin: 0;
    display: grid;
    gap: 8px;
    max-height: 420px;
    overflow: auto;
  }
  li {
    border-left: 3px solid var(--fault);
    padding-left: 8px;
    overflow-wrap: anywhere;
  }
  li button {
    display: block;
    color: var(--fault);
    font-weight: 560;
    text-decoration: underline;
  }
  code {
    font: 12.5px var(--font-mono);
    color: var(--ink2);
  }
  .acts,
  .bar {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  .file {
    font-size: 13px;
    display: grid;
    gap: 3px;
  }
  pre {
    margin: 0;
    padding: 12px 14px;
    overflow: auto;
    font-size: 13px;
    line-height: 1.45;
  }
  @media (max-width: 800px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
