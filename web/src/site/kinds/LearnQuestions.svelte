<script lang="ts">
  import { untrack } from 'svelte';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { STEP_MARKS, toggled, type Answers, type Meaning, type StepMark } from './learn';
  import type { LessonView } from './types';

  /** What only a person knows about a setup. Each answer is learnt from at once. */
  let {
    lesson,
    answers,
    busy,
    proposals,
    onanswer,
    onlook,
  }: {
    lesson: LessonView;
    answers: Answers;
    busy: boolean;
    proposals: Record<string, StepMark[]>;
    onanswer: (answers: Answers) => void;
    onlook: (entry: number) => void;
  } = $props();
  const t = m.kinds.learn;
  const MEANINGS: Meaning[] = ['FACT', 'SAME', 'ALWAYS'];
  let marks = $state.raw<Record<string, StepMark[]>>(untrack(() => proposals));
  let parts = $state<Record<string, string>>({});
  let found = $state<Record<string, string>>({});

  const typed = (entry: number): string => lesson.lines.find((line) => line.entry === entry)?.typed ?? '';

  function told(entries: number[]): void {
    const of = Object.fromEntries(
      entries.filter((entry) => parts[entry]?.trim()).map((entry) => [entry, [parts[entry]!.trim()]]),
    );
    onanswer({ ...answers, commandsTold: true, parts: of });
  }
</script>

<section class="asks" aria-label={t.onlyYou}>
  <h2>{t.onlyYou}</h2>
  {#each lesson.questions as question, i (i)}
    {@const entry = question.entries[0] ?? -1}
    <div class="sheet card">
      {#if question.sort === 'TEXT'}
        <p>
          <button type="button" class="link" onclick={() => onlook(entry)}
            >{t.youTyped(typed(entry), question.evidence[0] ?? '')}</button
          >
        </p>
        <div class="chips">
          {#each MEANINGS as meaning (meaning)}<B
              disabled={busy}
              onclick={() => onanswer({ ...answers, texts: { ...answers.texts, [entry]: meaning } })}
              >{t.meaning[meaning]}</B
            >{/each}
        </div>
      {:else if question.sort === 'VALUE'}
        <p>{t.whichValue(typed(entry), question.evidence[0] ?? '')}</p>
        <div class="chips">
          {#each question.options as option (option)}<B
              disabled={busy}
              onclick={() => onanswer({ ...answers, values: { ...answers.values, [entry]: option } })}
              ><span class="mono">{option}</span></B
            >{/each}
        </div>
      {:else if question.sort === 'COMMANDS'}
        <p>{t.commands}</p>
        {#each question.entries as each (each)}
          <label class="command"
            ><span class="mono">{typed(each)}</span>
            <input bind:value={parts[each]} placeholder={t.part} aria-label={t.partOf(typed(each))} /></label
          >
        {/each}
        <div><B look="go" disabled={busy} onclick={() => told(question.entries)}>{t.noPassword}</B></div>
      {:else if question.sort === 'MARKS'}
        <p>{t.marks}</p>
        <div class="marks">
          {#each question.entries as each, n (each)}
            <span class="mono question">{question.evidence[n]}</span>
            <span class="chips">
              {#each STEP_MARKS as mark (mark)}<button
                  type="button"
                  class="chip"
                  aria-pressed={(marks[each] ?? []).includes(mark)}
                  onclick={() => (marks = toggled(marks, each, mark))}>{t.mark[mark]}</button
                >{/each}
            </span>
          {/each}
        </div>
        <div><B look="go" disabled={busy} onclick={() => onanswer({ ...answers, marks })}>{t.marksRight}</B></div>
      {:else}
        <p class="bad">{question.sort === 'IDENTITY' ? t.identity : t.cursorKeys}</p>
      {/if}
    </div>
  {:else}
    <p class="sub">{t.nothingLeft}</p>
  {/each}
  {#if lesson.identified}<p class="sheet card safe">{t.identified}</p>{/if}
  {#if !lesson.wakes}<p class="sheet card">{t.asleep}</p>{/if}
  {#if lesson.facts.length > 0}
    <form
      class="sheet card"
      onsubmit={(event) => {
        event.preventDefault();
        onanswer({ ...answers, found: { ...answers.found, ...found } });
      }}
    >
      <p>{t.facts}</p>
      {#each lesson.facts as fact (fact.name)}
        <label class="command"
          ><span>{fact.title}</span>
          {#if fact.sort !== 'MADE_SECRET'}<input
              bind:value={found[fact.name]}
              placeholder={fact.find || t.find}
              aria-label={t.findOf(fact.title)}
              maxlength={200}
            />{/if}</label
        >
      {/each}
      <div><B type="submit" disabled={busy}>{t.findKeep}</B></div>
    </form>
  {/if}
</section>

<style>
  .asks {
    display: grid;
    gap: 10px;
  }
  h2,
  p {
    margin: 0;
  }
  .card {
    padding: 10px 12px;
    display: grid;
    gap: 8px;
    border-left: 4px solid var(--lamp);
  }
  .card.safe {
    border-left-color: var(--proof);
  }
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .link {
    text-align: left;
    overflow-wrap: anywhere;
  }
  .command {
    display: grid;
    gap: 3px;
    overflow-wrap: anywhere;
  }
  .command input {
    font-size: 13px;
    min-width: 0;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 3px 8px;
    background: var(--paper);
  }
  @media (max-width: 1000px) {
    .asks {
      order: -1;
    }
  }
  .marks {
    display: grid;
    gap: 4px 8px;
    max-height: 36vh;
    overflow: auto;
  }
  .question {
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  .chip {
    border: 1px solid var(--line);
    border-radius: 9px;
    padding: 0 8px;
    font-size: 12px;
  }
  .chip[aria-pressed='true'] {
    background: var(--lamp2);
    border-color: var(--lamp);
  }
</style>
