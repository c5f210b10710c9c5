<script lang="ts">
  import { atTime, inFull, usually } from '../../../lib/time';
  import type { MarkName } from '../../../lib/types';
  import Mark from '../../../parts/Mark.svelte';
  import { m } from '../../../messages';
  import ReadOnMachine from '../../../parts/ReadOnMachine.svelte';
  import Fields from './Fields.svelte';
  import type { BenchStep, LineStanding, Member } from './types';

  /**
   * Question, answer, and where the answer comes from, in the order of the work. By hand each is ticked by a person.
   */
  let {
    member,
    standing,
    mayWork,
    ontick,
    onreveal,
    oncompared,
  }: {
    member: Member;
    standing: LineStanding | null;
    mayWork: boolean;
    ontick: (place: number, done: boolean) => void;
    onreveal: (place: number, field: string) => Promise<string | null>;
    oncompared: () => void;
  } = $props();

  /** How long a password stays in sight. */
  const SECONDS = 10;
  let revealed = $state.raw<{ place: number; text: string } | null>(null);

  /** What fills itself in a moment later is nobody's to tick. */
  const byHand = $derived(
    member.state === 'BY_HAND' && !(member.atPages && member.fillsPages && member.mode !== 'WATCH'),
  );
  const comesFirst = (step: BenchStep) => step.marks.includes('FIRST');
  const rows = $derived(
    member.steps.map((step) => ({ ...step, progress: standing?.progress[step.place] ?? step.progress })),
  );
  const steps = $derived([...rows.filter(comesFirst), ...rows.filter((step) => !comesFirst(step))]);
  const before = $derived(steps.findIndex((step) => !comesFirst(step)));
  const leftOut = $derived(
    member.state === 'DONE' && steps.length > 0 && steps.every((step) => step.progress === 'LEFT_OUT'),
  );
  const shut = $derived(member.state === 'SHUT' && steps.some((step) => comesFirst(step) && step.progress === 'OPEN'));
  const hold = $derived(standing ? standing.hold : member.hold);
  const waiting = $derived(
    (standing?.state ?? member.state) === 'WAITING'
      ? (steps.find((step) => step.sort === 'waits' && step.progress === 'OPEN')?.place ?? -1)
      : -1,
  );
  const now = $derived.by(() => {
    if (hold && hold.step >= 0) return hold.step;
    if (waiting >= 0) return waiting;
    return standing && standing.asks >= 0
      ? standing.asks
      : (steps.find((step) => step.progress === 'SENT' || step.progress === 'OPEN')?.place ?? -1);
  });
  const known = $derived(standing?.identified ?? member.identified);
  const begun = $derived(shut || (member.state !== '' && member.state !== 'SHUT'));
  const compares = (step: BenchStep) => step.marks.includes('COMPARES');
  const asksFirst = $derived(
    member.compare !== null && member.dialogueId !== null && !member.steps.some(compares) ? member.compare : null,
  );
  const ticks = (step: BenchStep) =>
    mayWork &&
    !(compares(step) && !member.compare?.at) &&
    (byHand || (comesFirst(step) && member.dialogueId !== null && member.state !== 'DONE'));

  function mark(step: BenchStep): MarkName {
    if (step.progress === 'DONE') return 'done';
    if (step.progress === 'LEFT_OUT') return 'dark';
    if (step.place === now && begun)
      return step.sort === 'waits'
        ? 'wait'
        : hold && ['REFUSED', 'DIFFERS', 'WRONG_MACHINE', 'SKIPPED', 'AGAIN'].includes(hold.why)
          ? 'fault'
          : 'work';
    return step.sort === 'waits' ? 'dark' : 'set';
  }

  /** Keeps the step that is asked now in sight; the list scrolls, the page does not. */
  function inSight(place: number) {
    return (list: HTMLElement) => {
      const row = list.querySelector<HTMLElement>(`[data-place="${place}"]`);
      if (row) list.scrollTop = Math.max(0, row.offsetTop - list.clientHeight / 3);
    };
  }

  async function reveal(place: number): Promise<void> {
    const text = await onreveal(place, '');
    if (text === null) return;
    const shown = { place, text };
    revealed = shown;
    setTimeout(() => revealed === shown && (revealed = null), SECONDS * 1000);
  }

  async function copy(text: string): Promise<void> {
    await navigator.clipboard.writeText(text);
  }
</script>

<ol {@attach inSight(now)} class:hand={byHand}>
  {#if asksFirst}
    <li class:past={asksFirst.at !== null}>
      <Mark mark={asksFirst.at ? 'done' : 'set'} size={16} />
      <div>
        <span class="t">{m.compare.title}</span>
        {#if asksFirst.at}
          <div class="src">
            <span class="mono" title={inFull(asksFirst.at)}>{atTime(asksFirst.at)}</span>
            {m.compare.read(asksFirst.by ?? '', asksFirst.read ?? '')}
          </div>
        {:else if mayWork}<ReadOnMachine dialogueId={member.dialogueId!} onrecorded={oncompared} />{/if}
      </div>
    </li>
  {/if}
  {#each steps as step, i (step.place)}
    {#if i === before && !byHand && member.identity}
      <li
        class:past={known || leftOut}
        class:cur={begun && !shut && !known && !leftOut && (now <= 0 || member.state === 'UNSURE')}
      >
        <Mark
          mark={known || leftOut ? 'done' : begun && !shut ? (hold?.why === 'WRONG_MACHINE' ? 'fault' : 'work') : 'set'}
          size={16}
        />
        <div>
          <span class="t">{m.bench.rightMachine}</span>
          <div class="src">{leftOut ? m.bench.leftOut : known ? m.bench.isRight : m.bench.mustShow}</div>
        </div>
        <span class="v mono">{member.identity}</span>
      </li>
    {/if}
    {#if step.sort === 'waits'}
      <li
        class="prerequisite"
        data-place={step.place}
        class:past={step.progress === 'DONE'}
        aria-current={step.place === now && begun ? 'step' : undefined}
      >
        <Mark mark={mark(step)} size={15} />
        <span>{m.bench.waits(step.title, usually(step.about))}</span>
        {#if ticks(step)}<input
            type="checkbox"
            aria-label={m.bench.tick(step.title)}
            checked={step.progress === 'DONE'}
            onchange={(event) => ontick(step.place, event.currentTarget.checked)}
          />{/if}
      </li>
    {:else}
      <li
        data-place={step.place}
        class:tick={ticks(step)}
        class:past={step.progress === 'DONE' || step.progress === 'LEFT_OUT'}
        class:cur={step.place === now && begun}
        aria-current={step.place === now && begun ? 'step' : undefined}
      >
        <Mark mark={mark(step)} size={16} />
        <div>
          <span class="t">{step.title}</span>
          {#each step.marks.filter((each) => m.bench.marks[each]) as each (each)}<span
              class="mk"
              class:perm={['PERMANENT', 'DESTROYS', 'CONSENT'].includes(each)}>{m.bench.marks[each]}</span
            >{/each}
          <div class="src">
            {#if step.progress === 'DONE' && step.at}<span class="mono" title={inFull(step.at)}>{atTime(step.at)}</span>
              {!step.by
                ? ''
                : step.sort === 'page'
                  ? m.bench.filledInBy(step.by)
                  : m.bench.by(step.by)}{' '}{/if}{step.progress === 'LEFT_OUT'
              ? m.bench.notAsked
              : step.progress === 'LATER'
                ? m.bench.later
                : step.source}
          </div>
          {#if step.sort === 'page' && (step.marks.includes('FIRST') || !member.atPages)}<Fields
              fields={step.fields}
              onreveal={mayWork && member.dialogueId !== null && step.progress !== 'DONE'
                ? (label: string) => onreveal(step.place, label)
                : null}
            />{/if}
          {#if compares(step) && member.compare?.at}
            <div class="src">{m.compare.read(member.compare.by ?? '', member.compare.read ?? '')}</div>
          {:else if compares(step) && mayWork}
            <ReadOnMachine dialogueId={member.dialogueId!} onrecorded={oncompared} />
          {/if}
        </div>
        <span class="v mono">
          {#if step.sort === 'asked' && !step.marks.includes('SECRET')}
            <button
              type="button"
              title={m.bench.copy}
              aria-label="{m.bench.copy} {step.answer}"
              onclick={() => void copy(step.answer)}>{step.answer || m.bench.enter}</button
            >
          {:else if step.sort === 'asked' && mayWork && member.dialogueId !== null}
            <button
              type="button"
              class:bare={revealed?.place === step.place}
              title={m.bench.reveal}
              aria-label={revealed?.place === step.place ? undefined : `${m.bench.reveal}: ${step.title}`}
              onclick={() => void reveal(step.place)}
              >{revealed?.place === step.place ? revealed.text : step.answer}</button
            >
          {:else}{step.answer}{/if}
          {#if step.times > 1 && step.sort !== 'page'}<span class="bad">{m.bench.times(step.times)}</span>{/if}
        </span>
        {#if ticks(step)}<input
            type="checkbox"
            aria-label={m.bench.tick(step.title)}
            checked={step.progress === 'DONE'}
            onchange={(event) => ontick(step.place, event.currentTarget.checked)}
          />{/if}
      </li>
    {/if}
  {/each}
</ol>

<style>
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
    overflow-y: auto;
    flex: 1;
    min-height: 120px;
    position: relative;
  }
  li {
    display: grid;
    grid-template-columns: 22px 1fr auto;
    gap: 8px;
    padding: 5px 12px;
    border-top: 1px solid var(--line2);
    align-items: center;
  }
  .hand li,
  .tick {
    grid-template-columns: 22px 1fr auto 26px;
  }
  li:first-child {
    border-top: 0;
  }
  .past .t,
  .past .v {
    color: var(--ink2);
  }
  .cur {
    background: var(--lamp2);
    border-left: 4px solid var(--lamp);
    padding: 8px 12px 8px 8px;
  }
  .cur .t {
    font-weight: 650;
  }
  .prerequisite {
    background: var(--wait2);
    color: var(--wait);
    font-weight: 600;
    font-size: 13px;
    display: flex;
  }
  .prerequisite input {
    margin-left: auto;
  }
  .prerequisite.past {
    font-weight: 400;
  }
  .src {
    font-size: 11.5px;
    color: var(--ink2);
  }
  .mk {
    font-size: 11px;
    color: var(--ink2);
    border: 1px solid var(--line);
    border-radius: 3px;
    padding: 0 5px;
    margin-left: 6px;
  }
  .mk.perm {
    color: var(--fault);
    border-color: var(--fault);
  }
  .v {
    text-align: right;
    max-width: 210px;
    overflow-wrap: anywhere;
  }
  .v button {
    font: inherit;
    color: inherit;
    padding: 0 2px;
    border-radius: 3px;
  }
  .v button:hover {
    background: var(--line2);
  }
  .v .bare {
    background: var(--lamp2);
    outline: 1px solid var(--lamp-ink);
  }
  @media (max-width: 640px) {
    li:has(:global(dl)) {
      grid-template-columns: 22px 1fr;
    }
    .hand li:has(:global(dl)),
    .tick:has(:global(dl)) {
      grid-template-columns: 22px 1fr 26px;
    }
    li:has(:global(dl)) .v {
      grid-column: 2;
      grid-row: 2;
      text-align: left;
      max-width: none;
    }
  }
  @media print {
    ol {
      overflow: visible;
    }
  }
</style>
