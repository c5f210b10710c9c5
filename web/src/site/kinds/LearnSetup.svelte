<script lang="ts">
  import { api } from '../../lib/api';
  import { decoded } from '../../lib/decode';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import type { MarkName } from '../../lib/types';
  import { atTime } from '../../lib/time';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import { searched } from '../../routes';
  import LearnQuestions from './LearnQuestions.svelte';
  import { noAnswers, proposed, type Answers } from './learn';
  import type { Draft, KeptSetup, KindPage, LessonStep, LessonView, UnitOfKind } from './types';

  /** A dialogue learnt from the log of a setup by hand: what was typed, the steps it becomes, and what is asked. */
  let { page, draft }: { page: KindPage; draft: Draft | null } = $props();
  const t = m.kinds.learn;
  const id = $derived(page.line.id);
  const units = live<UnitOfKind[]>(() => `/catalogue/${id}/units`);
  const setups = live<KeptSetup[]>(() => `/catalogue/${id}/setup-logs`);
  const FILE = 0;
  let log = $state.raw<{ name: string; text: string } | null>(null);
  /** The dialogue of a setup by hand whose log is kept here, or a file. */
  let chosen = $state(Number(searched('setup')) || null);
  const kept = $derived(setups.data ?? []);
  const setup = $derived(chosen === FILE ? null : (kept.find((each) => each.dialogue === chosen) ?? kept[0] ?? null));
  let deleting = $state(false);
  let unit = $state<UnitOfKind | null>(null);
  let member = $state('');
  let lesson = $state.raw<LessonView | null>(null);
  let answers = $state.raw<Answers>(noAnswers());
  let marked = $state(-1);
  let busy = $state(false);
  let fault = $state('');

  async function load(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    log = { name: file.name, text: decoded(await file.arrayBuffer()) };
    forget();
  }

  /** What was learnt from another log says nothing of this one. */
  function forget(): void {
    lesson = null;
    answers = noAnswers();
    fault = '';
  }

  async function deleteLog(dialogue: number): Promise<void> {
    deleting = false;
    try {
      await api.delete(`/setup-logs/${dialogue}`);
      chosen = null;
      forget();
      notices.say(t.deleted);
      lookAgain();
    } catch (error) {
      notices.fault(error);
    }
  }

  async function learn(said: Answers): Promise<void> {
    if (!setup && !(log && unit)) return;
    busy = true;
    fault = '';
    try {
      const description = draft?.text ?? (await api.text(`/catalogue/${id}/versions/${page.line.version}`));
      lesson = await api.post<LessonView>('/kinds/lessons', {
        description,
        ...(setup ? { dialogue: setup.dialogue } : { recording: log?.text, unit: unit?.id, member }),
        answers: said,
      });
      answers = said;
    } catch (error) {
      fault = error instanceof Error ? error.message : String(error);
    } finally {
      busy = false;
    }
  }

  async function save(): Promise<void> {
    if (!lesson?.description) return;
    busy = true;
    try {
      await api.putTextIf<Draft>(`/catalogue/${id}/draft`, lesson.description, draft?.version ?? '0');
      notices.say(m.kinds.text.saved);
      lookAgain();
      location.assign(`/kinds/${id}?tab=text`);
    } catch (error) {
      notices.fault(error);
    } finally {
      busy = false;
    }
  }

  function markOf(step: LessonStep): MarkName {
    return step.certainty === 'OPEN' ? 'work' : 'done';
  }
  const saying = (step: LessonStep): string =>
    step.sort === 'WAITS'
      ? t.about(step.seconds)
      : step.sort === 'COMPARES'
        ? Object.values(step.fields).join(', ')
        : step.answer || (step.certainty === 'OPEN' ? '' : t.enter);
</script>

<p class="sub">{t.say}</p>
{#if units.data?.length === 0}
  <p>{t.noUnits}</p>
{:else if setups.data}
  <form
    class="choose"
    onsubmit={(event) => {
      event.preventDefault();
      void learn(noAnswers());
    }}
  >
    {#if kept.length > 0}
      <label
        >{t.from}
        <select
          value={setup?.dialogue ?? FILE}
          onchange={(event) => {
            chosen = Number(event.currentTarget.value);
            forget();
          }}
        >
          {#each kept as each (each.dialogue)}<option value={each.dialogue}
              >{t.setupOf(`${each.unit} ${each.member}`.trim(), atTime(each.at), each.ended)}</option
            >{/each}
          <option value={FILE}>{t.aFile}</option>
        </select></label
      >
    {/if}
    {#if !setup}
      <label>{t.file} <input type="file" required accept=".cast,.json" onchange={(e) => void load(e)} /></label>
      <label
        >{t.unit}
        <select bind:value={unit} required onchange={() => (member = unit?.members[0] ?? '')}>
          <option value={null} disabled>{t.choose}</option>
          {#each units.data ?? [] as each (each.id)}<option value={each}>{each.name}, {each.bringUp}</option>{/each}
        </select></label
      >
      {#if unit && unit.members.length > 1}
        <label
          >{m.kinds.dryRun.member}
          <select bind:value={member}>
            {#each unit.members as each (each)}<option value={each}>{each}</option>{/each}
          </select></label
        >
      {/if}
    {/if}
    <B type="submit" look="go" disabled={busy || !(setup || (log && unit))}>{t.learn}</B>
    {#if setup}<B disabled={busy} onclick={() => (deleting = true)}>{t.deleteLog}</B>{/if}
  </form>
{/if}
{#if deleting && setup}
  <Dialog title={t.deleteLog} onclose={() => (deleting = false)}>
    <p>{t.deleteAsk}</p>
    <div class="choose">
      <B look="stop" onclick={() => void deleteLog(setup.dialogue)}>{t.deleteLog}</B>
      <B onclick={() => (deleting = false)}>{m.bench.leave}</B>
    </div>
  </Dialog>
{/if}
{#if fault}<p class="say wait" role="alert">{fault}</p>{/if}
{#if lesson}
  <div class="result" aria-live="polite">
    <b>{t.learnt(lesson.steps.length, lesson.lines.length - 1)}</b>
    {#if !lesson.complete}<span class="bad">{t.cut}</span>{/if}
    {#if lesson.agrees !== null && lesson.agrees !== undefined}
      <span class="trial"><Mark mark={lesson.agrees ? 'done' : 'fault'} /> {lesson.agrees ? t.agrees : t.differs}</span>
    {/if}
    {#if lesson.description}<span class="end"
        ><B look="go" disabled={busy || lesson.faults.length > 0} onclick={() => void save()}>{t.save}</B></span
      >{/if}
  </div>
  {#each [...lesson.faults, ...lesson.differences] as each (each)}<p class="say wait">{each}</p>{/each}
  {#if lesson.open.length > 0}<p class="say wait">{t.open(lesson.open.join(', '))}</p>{/if}
  <div class="three">
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <section class="night mono" aria-label={t.typed} tabindex="0">
      {#each lesson.lines as line (line.entry)}
        <div class="turn" class:on={line.entry === marked} class:out={line.leftOut}>
          {#each line.shown as each, i (i)}<p>{each}</p>{/each}
          <p>
            <span>{line.question}</span>
            <span class="key">{line.typed === null ? '••••••' : line.typed}</span>
            {#if line.leftOut}<span class="note">{t.notTaken}</span>{/if}
          </p>
        </div>
      {/each}
    </section>
    <ol class="sheet">
      {#each lesson.steps as step, i (i)}
        <li class:on={step.entry === marked && step.sort !== 'COMPARES'}>
          <Mark mark={markOf(step)} size={15} />
          <button type="button" title={step.why} onclick={() => (marked = step.entry)}
            ><span>{step.title}</span><span class="mono value">{saying(step)}</span><span class="sub"
              >{t.certainty[step.certainty]}</span
            ></button
          >
        </li>
      {/each}
    </ol>
    <LearnQuestions
      {lesson}
      {answers}
      {busy}
      proposals={proposed(lesson)}
      onanswer={(said: Answers) => void learn(said)}
      onlook={(entry: number) => (marked = entry)}
    />
  </div>
{/if}

<style>
  p {
    margin: 0;
  }
  .choose,
  .result {
    display: flex;
    gap: 8px 14px;
    flex-wrap: wrap;
    align-items: center;
  }
  .trial {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .result .end {
    margin-left: auto;
  }
  .three {
    display: grid;
    grid-template-columns: minmax(0, 5fr) minmax(0, 4fr) minmax(250px, 3fr);
    gap: 12px;
    align-items: start;
  }
  .night {
    background: var(--night);
    color: var(--moon);
    border-radius: 5px;
    font-size: 13px;
    max-height: 72vh;
    overflow: auto;
  }
  .turn {
    padding: 6px 14px;
    border-bottom: 1px dashed var(--night-line);
    border-left: 4px solid transparent;
    overflow-wrap: anywhere;
  }
  .turn p,
  .turn span {
    white-space: pre-wrap;
  }
  .turn p:last-child {
    white-space: normal;
  }
  .turn.on {
    border-left-color: var(--lamp);
  }
  .turn.out .key {
    text-decoration: line-through;
  }
  .key {
    color: var(--lamp);
  }
  .note {
    float: right;
    font-family: var(--sans, inherit);
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 4px 0;
    max-height: 72vh;
    overflow: auto;
  }
  li {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr);
    gap: 8px;
    align-items: baseline;
    padding: 5px 12px;
    border-bottom: 1px solid var(--line2);
  }
  li.on {
    background: var(--lamp2);
  }
  li button {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
    gap: 8px;
    text-align: left;
    width: 100%;
  }
  .value {
    overflow-wrap: anywhere;
    font-size: 12.5px;
  }
  @media (max-width: 1000px) {
    .three {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
