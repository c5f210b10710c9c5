<script lang="ts">
  import { session } from '../../lib/session.svelte';
  import { inFull } from '../../lib/time';
  import type { MarkName, RequestChange, TeamRequest } from '../../lib/types';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';

  /** One request to another team; what is entered is kept when the server refuses it. */
  let { request, onchange }: { request: TeamRequest; onchange: (fields: Partial<RequestChange>) => Promise<boolean> } =
    $props();
  const g = m.prepare.requests;
  /** Entries that the server has not taken. */
  const drafts = $state<{ person?: string; due?: string; note?: string }>({});
  let choosing = $state<TeamRequest['state'] | null>(null);

  const notSo = $derived(request.state === 'DONE' && request.tested === 'NO');
  const mark = $derived<MarkName>(
    notSo || request.late
      ? 'fault'
      : ({ TO_ASK: 'set', ASKED: 'wait', DONE: 'done', NOT_NEEDED: 'dark' } as const)[request.state],
  );
  /** What it is for, the second port, and what was measured. */
  const facts = $derived(
    [
      request.why,
      request.fallback ? g.fallback(request.fallback) : '',
      request.seen !== '' ? request.seen : request.sort ? g.notMeasured : '',
    ]
      .filter((text) => text !== '')
      .join(' · '),
  );

  async function save(field: 'person' | 'due' | 'note', value: string): Promise<void> {
    drafts[field] = value;
    if (await onchange({ [field]: value })) delete drafts[field];
  }

  async function choose(state: TeamRequest['state']): Promise<void> {
    choosing = state;
    await onchange({ state });
    choosing = null;
  }
</script>

<div class="row" title={request.changedAt ? g.changed(request.changedBy ?? '', inFull(request.changedAt)) : undefined}>
  <Mark {mark} size={15} word={request.late ? g.late : notSo ? g.doneButNot : g.states[request.state]} />
  <div class="what">
    <span class="t">{request.title}</span>
    {#if !request.planned}<span class="tag">{g.notPlanned}</span>{/if}
    {#if request.late}<span class="bad">{g.late}</span>{/if}
    <span class="sub" class:bad={notSo}>{facts}</span>
    {#if request.machines > 0}
      <details class="sub">
        <summary>{g.machines(request.machines)}</summary>
        <span class="mono">{request.examples.join(', ')}</span>{#if request.machines > request.examples.length}{g.more(
            request.machines - request.examples.length,
          )}{/if}
      </details>
    {/if}
  </div>
  <div class="fields">
    <select
      aria-label={g.stateOf(request.title)}
      value={choosing ?? request.state}
      disabled={!session.mayWork || choosing !== null}
      onchange={(event) => void choose(event.currentTarget.value as TeamRequest['state'])}
    >
      {#each Object.entries(g.states) as [state, word] (state)}<option value={state}>{word}</option>{/each}
    </select>
    <input
      class="person"
      aria-label={g.personOf(request.title)}
      placeholder={g.person}
      maxlength="80"
      readonly={!session.mayWork}
      value={drafts.person ?? request.person}
      onchange={(event) => void save('person', event.currentTarget.value)}
    />
    <input
      type="date"
      aria-label={g.dayOf(request.title)}
      readonly={!session.mayWork}
      value={drafts.due ?? request.due ?? ''}
      onchange={(event) => void save('due', event.currentTarget.value)}
    />
    <input
      class="note"
      aria-label={g.noteOf(request.title)}
      placeholder={g.note}
      maxlength="400"
      readonly={!session.mayWork}
      value={drafts.note ?? request.note}
      onchange={(event) => void save('note', event.currentTarget.value)}
    />
  </div>
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr) 372px;
    gap: 4px 10px;
    padding: 9px 0;
    align-items: start;
  }
  .what {
    display: grid;
    gap: 2px;
    overflow-wrap: anywhere;
  }
  .fields {
    display: grid;
    grid-template-columns: 104px minmax(0, 1fr) 132px;
    gap: 6px;
  }
  .note {
    grid-column: 1 / -1;
  }
  details {
    margin: 0;
  }
  summary {
    cursor: pointer;
  }
  select,
  input {
    min-width: 0;
    padding: 4px 7px;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    font-size: 13px;
  }
  .tag {
    justify-self: start;
    font-size: 12px;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 0 5px;
  }
  .bad {
    color: var(--fault);
    font-size: 13px;
  }
  @media (max-width: 760px) {
    .row {
      grid-template-columns: 22px minmax(0, 1fr);
    }
    .fields {
      grid-column: 2;
      grid-template-columns: 1fr 1fr;
    }
    .person {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
</style>
