<script lang="ts">
  import { untrack } from 'svelte';
  import { api } from '../../lib/api';
  import { decoded } from '../../lib/decode';
  import { live } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { MarkName } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import KeptRecordings from './KeptRecordings.svelte';
  import KeepRecording from './KeepRecording.svelte';
  import type { Draft, KindPage, KindTried, RecordingOfKind, UnitOfKind } from './types';

  /** A recorded console, played against the description: what would be sent when, and where it would stop. */
  let { page, draft }: { page: KindPage; draft: Draft | null } = $props();
  const t = m.kinds.dryRun;
  const recordings = live<RecordingOfKind[]>(() => `/catalogue/${page.line.id}/recordings`);
  let chosen = $state('');
  let own = $state<{ name: string; text: string; timing: string } | null>(null);
  let units = $state.raw<UnitOfKind[] | null>(null);
  let unit = $state<UnitOfKind | null>(null);
  let member = $state('');
  let tried = $state.raw<KindTried | null>(null);
  let fault = $state('');
  let busy = $state(false);
  let at = $state(0);

  const moments = $derived(tried?.moments ?? []);
  const moment = $derived(moments[at]);
  const end = $derived(moments.at(-1)?.at ?? 0);

  $effect(() => {
    const first = recordings.data?.[0]?.path;
    untrack(() => {
      if (chosen === '' && first && session.mayWork) void choose(first);
    });
  });

  async function choose(path: string): Promise<void> {
    chosen = path;
    units = null;
    await run(() => api.text(path));
  }

  /** A log, and beside it the timing of a log, which is nothing but numbers. */
  async function load(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const files = [...(event.currentTarget.files ?? [])];
    if (files.length === 0) return;
    const texts = await Promise.all(
      files.map(async (file) => ({ name: file.name, text: decoded(await file.arrayBuffer()) })),
    );
    const timing = texts.find((each) => texts.length > 1 && /^\s*\d+(\.\d+)? \d+\s/.test(each.text));
    const log = texts.find((each) => each !== timing)!;
    own = { ...log, timing: timing?.text ?? '' };
    chosen = 'file';
    tried = null;
    fault = '';
    // our own recordings say themselves what the line was answered with
    if ((log.text.split('\n', 1)[0] ?? '').includes('"lychnos"')) {
      units = null;
      await run(() => Promise.resolve(log.text));
    } else {
      units = await api.get<UnitOfKind[]>(`/catalogue/${page.line.id}/units`);
    }
  }

  async function tryWith(): Promise<void> {
    if (!own || !unit) return;
    const { text, timing } = own;
    await run(() => Promise.resolve(text), { timing, unit: unit.id, member });
  }

  async function run(read: () => Promise<string>, more: object = {}): Promise<void> {
    const asked = chosen;
    busy = true;
    fault = '';
    try {
      const recording = await read();
      const body = { description: draft?.text ?? '', recording, ...more };
      const found = await api.post<KindTried>('/kinds/dry-run', body);
      if (asked !== chosen) return;
      tried = found;
      // where it stops is looked at first
      at = Math.max(
        0,
        found.moments.findIndex((each) => each.event === 'DIFFERED'),
      );
    } catch (error) {
      tried = null;
      fault = error instanceof Error ? error.message : String(error);
    } finally {
      busy = false;
    }
  }

  /** What can be kept of what was played: the recording of a setup, or a file. */
  const keepable = $derived.by(() => {
    const setup = recordings.data?.find((each) => each.path === chosen);
    if (setup?.dialogue) return { name: `${setup.unit} ${setup.member}`.trim(), dialogue: setup.dialogue, file: null };
    if (chosen !== 'file' || !own) return null;
    const file = {
      description: draft?.text ?? '',
      recording: own.text,
      timing: own.timing,
      ...(units && unit ? { unit: unit.id, member } : {}),
    };
    return { name: own.name.replace(/\.[a-z]+$/, ''), dialogue: null, file };
  });

  const clock = (seconds: number): string =>
    `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, '0')}`;
  /** Where a step went wrong, or its answer was sent, or else where it was done. */
  function momentOf(step: number): number {
    const of = (event: string) => moments.findIndex((each) => each.step === step && each.event === event);
    return [of('DIFFERED'), of('SENT'), of('DONE'), of('ASKED')].find((found) => found >= 0) ?? -1;
  }
  function markOf(step: number, progress: string): MarkName {
    if (moments.some((each) => each.step === step && each.event === 'DIFFERED')) return 'fault';
    if (progress === 'DONE') return 'done';
    return progress === 'SENT' ? 'work' : 'dark';
  }
  const asked = (step: number): string =>
    moments.find((each) => each.step === step && each.event === 'ASKED')?.text ?? '';
</script>

<p class="sub">
  {t.say}
  {draft ? t.draft : page.line.version ? t.version(page.line.version) : ''}
</p>
{#if recordings.data}
  <div class="choose" role="group" aria-label={t.recordings}>
    {#each recordings.data as each (each.path)}
      <button
        type="button"
        class:on={each.path === chosen}
        aria-pressed={each.path === chosen}
        disabled={busy || !session.mayWork}
        onclick={() => void choose(each.path)}
        >{each.at ? `${each.unit}${each.member ? ` ${each.member}` : ''}, ${atTime(each.at)}` : t.shipped}</button
      >
    {:else}
      <span>{page.summary?.setup.steps.length === 0 ? t.noConsole : t.none}</span>
    {/each}
    {#if session.mayWork}
      <label class="file"
        >{t.file}
        <input type="file" multiple accept=".cast,.txt,.log,.json,.timing" onchange={(e) => void load(e)} /></label
      >
    {/if}
    {#if own && chosen === 'file'}<span class="mono">{own.name}</span>{/if}
  </div>
{/if}
<KeptRecordings {page} {draft} {chosen} {busy} onplay={(path: string) => void choose(path)} />
{#if units && chosen === 'file'}
  {#if units.length === 0}
    <p>{t.noUnits}</p>
  {:else}
    <form
      class="choose"
      onsubmit={(event) => {
        event.preventDefault();
        void tryWith();
      }}
    >
      <label
        >{t.values}
        <select bind:value={unit} required onchange={() => (member = unit?.members[0] ?? '')}>
          <option value={null} disabled>{t.choose}</option>
          {#each units as each (each.id)}<option value={each}>{each.name}, {each.bringUp}</option>{/each}
        </select></label
      >
      {#if unit && unit.members.length > 1}
        <label
          >{t.member}
          <select bind:value={member}>
            {#each unit.members as each (each)}<option value={each}>{each}</option>{/each}
          </select></label
        >
      {/if}
      <B type="submit" look="go" disabled={busy || !unit}>{t.play}</B>
    </form>
  {/if}
{/if}
{#if fault}<p class="say wait" role="alert">{fault}</p>{/if}
{#if tried}
  <p class="result" aria-live="polite">
    <Mark mark={tried.agrees ? 'done' : 'fault'} />
    <b
      >{tried.agrees
        ? t.passes(tried.steps.length)
        : [
            tried.differences.length > 0 ? t.stops(tried.differences.length) : '',
            tried.open.length > 0 ? t.open(tried.open.length) : '',
          ]
            .filter(Boolean)
            .join(', ')}</b
    >
    {#if keepable}{#key chosen}<KeepRecording kind={page.line.id} {...keepable} />{/key}{/if}
  </p>
  <div class="two">
    <section class="night" aria-label={t.moment}>
      {#if moment}
        <div class="bar">
          <span>{t.of(clock(moment.at), clock(end))}</span>
          {#if moment.step !== null}<b>{tried.steps[moment.step]?.title}</b>{/if}
        </div>
        <pre class="mono">{moment.screen.join('\n')}</pre>
        <p class="happens" class:bad={moment.event === 'DIFFERED'}>
          {moment.event === 'SENT'
            ? t.sends(moment.text)
            : moment.event === 'ASKED'
              ? t.asks + moment.text
              : moment.text}
        </p>
        <input
          type="range"
          min="0"
          max={moments.length - 1}
          bind:value={at}
          aria-label={t.moment}
          aria-valuetext={`${clock(moment.at)} ${moment.step === null ? '' : (tried.steps[moment.step]?.title ?? '')}`}
        />
      {:else}
        <p class="happens">{t.nothing}</p>
      {/if}
    </section>
    <ol class="sheet">
      {#each tried.steps as step, i (i)}
        {@const where = momentOf(i)}
        <li class:on={moment?.step === i}>
          <Mark mark={markOf(i, step.progress)} size={15} />
          {#if where >= 0}
            <button type="button" onclick={() => (at = where)}
              ><span>{step.title}</span><span class="sub mono">{clock(moments[where]!.at)}</span></button
            >
          {:else}
            <span>{step.title}</span>
            <span class="sub">{step.progress === 'LEFT_OUT' ? t.leftOut : t.notReached}</span>
          {/if}
          {#if asked(i)}<span class="sub asks">{t.asks}{asked(i)}</span>{/if}
        </li>
      {/each}
    </ol>
  </div>
{/if}

<style>
  p {
    margin: 0;
  }
  .choose {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
  }
  .choose button {
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--sheet);
    padding: 3px 10px;
    font-size: 13px;
  }
  .choose button.on {
    border-color: var(--lamp);
    background: var(--lamp2);
  }
  .file {
    font-size: 13px;
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
  }
  .result {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 2fr) minmax(260px, 1fr);
    gap: 12px;
    align-items: start;
  }
  .night {
    background: var(--night);
    color: var(--moon);
    border-radius: 5px;
    padding: 10px 14px;
    display: grid;
    gap: 8px;
    position: sticky;
    top: 8px;
  }
  .bar {
    display: flex;
    gap: 12px;
    justify-content: space-between;
    border-bottom: 1px solid var(--night-line);
    padding-bottom: 6px;
  }
  pre {
    margin: 0;
    min-height: 24em;
    max-height: 56vh;
    overflow: auto;
    font-size: 13px;
    line-height: 1.4;
  }
  .happens {
    min-height: 1.4em;
    overflow-wrap: anywhere;
  }
  .happens.bad {
    color: #ffb3a1;
  }
  input[type='range'] {
    width: 100%;
    accent-color: var(--lamp);
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 6px 0;
    max-height: 72vh;
    overflow: auto;
  }
  li {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr) auto;
    gap: 2px 8px;
    align-items: baseline;
    padding: 4px 12px;
    border-bottom: 1px solid var(--line2);
  }
  li.on {
    background: var(--lamp2);
  }
  li button {
    grid-column: 2 / 4;
    display: flex;
    justify-content: space-between;
    gap: 8px;
    text-align: left;
    width: 100%;
  }
  li > span:first-of-type::first-letter,
  li button > span:first-child::first-letter {
    text-transform: uppercase;
  }
  .asks {
    grid-column: 2 / 4;
    font-size: 12.5px;
  }
  @media (max-width: 800px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
    .night {
      position: static;
    }
  }
</style>
