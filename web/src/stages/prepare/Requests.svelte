<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import type { RequestChange, RequestsView, TeamRequest } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';
  import RequestRow from './RequestRow.svelte';

  /** What other teams are asked for, by team: who takes care of it, until when, and whether it is so. */
  let { onclose }: { onclose: () => void } = $props();
  const g = m.prepare.requests;
  const path = () => `/bring-ups/${bringUpId()}/requests`;
  const view = live<RequestsView>(path);
  let openOnly = $state(false);
  let own = $state('');
  /** What is filled in for all of a team at once. */
  const forAll = $state<Record<string, { person: string; due: string }>>({});

  const teamOf = (request: TeamRequest): keyof typeof g.teams =>
    request.sort === undefined || request.sort === null
      ? 'OTHER'
      : request.sort.startsWith('FLOW')
        ? 'FLOW'
        : (request.sort as 'RELAY' | 'IMAGE' | 'KEY');
  const isOpen = (request: TeamRequest) => request.state === 'TO_ASK' || request.state === 'ASKED';
  /** Open requests whose result was measured: they can be marked as done. */
  const soButOpen = (requests: TeamRequest[]) =>
    requests.filter((request) => isOpen(request) && request.tested === 'YES' && request.sort !== 'FLOW_OUT');
  const teams = $derived(
    (Object.keys(g.teams) as (keyof typeof g.teams)[])
      .map((team) => ({ team, all: (view.data?.requests ?? []).filter((request) => teamOf(request) === team) }))
      .filter(({ all }) => all.length > 0)
      .map(({ team, all }) => ({ team, all, shown: all.filter((request) => !openOnly || isOpen(request)) })),
  );

  async function change(requests: TeamRequest[], fields: Partial<RequestChange>): Promise<boolean> {
    try {
      await api.put(path(), { requests: requests.map(({ key, version }) => ({ key, version })), ...fields });
      return true;
    } catch (error) {
      notices.fault(error);
      return false;
    } finally {
      lookAgain();
    }
  }

  async function applyToAll(team: string, requests: TeamRequest[]): Promise<void> {
    const { person = '', due = '' } = forAll[team] ?? {};
    const fields: Partial<RequestChange> = {};
    if (person.trim() !== '') fields.person = person;
    if (due !== '') fields.due = due;
    if (Object.keys(fields).length > 0 && (await change(requests, fields))) forAll[team] = { person: '', due: '' };
  }

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      await api.post(path(), { title: own });
      own = '';
      lookAgain();
    } catch (error) {
      notices.fault(error);
    }
  }
</script>

<Dialog title={g.title} wide {onclose}>
  {#if view.data}
    <div class="top">
      <span class="sub" role="status">{g.counted(view.data.open, view.data.requests.length, view.data.late)}</span>
      {#if view.data.requests.length > 0}
        <label class="sub"><input type="checkbox" bind:checked={openOnly} /> {g.openOnly}</label>
        <a class="button" href="/api/bring-ups/{bringUpId()}/requests.csv" download="requests.csv">CSV</a>
      {/if}
    </div>
    {#each teams as { team, all, shown } (team)}
      <section aria-label={g.teams[team]}>
        <header>
          <h3>{g.teams[team]} <span class="sub">{g.openOf(all.filter(isOpen).length, all.length)}</span></h3>
          {#if session.mayWork && soButOpen(all).length > 0}
            <B onclick={() => void change(soButOpen(all), { state: 'DONE' })}>{g.close(soButOpen(all).length)}</B>
          {/if}
          {#if session.mayWork && shown.length > 1}
            <form
              onsubmit={(event) => {
                event.preventDefault();
                void applyToAll(team, shown);
              }}
            >
              <input
                aria-label={g.personForAll}
                placeholder={g.person}
                maxlength="80"
                value={forAll[team]?.person ?? ''}
                oninput={(event) =>
                  (forAll[team] = { due: forAll[team]?.due ?? '', person: event.currentTarget.value })}
              />
              <input
                type="date"
                aria-label={g.dayForAll}
                value={forAll[team]?.due ?? ''}
                oninput={(event) =>
                  (forAll[team] = { person: forAll[team]?.person ?? '', due: event.currentTarget.value })}
              />
              <B type="submit">{g.forAll(shown.length)}</B>
            </form>
          {/if}
        </header>
        <ul>
          {#each shown as request (request.key)}
            <li><RequestRow {request} onchange={(fields: Partial<RequestChange>) => change([request], fields)} /></li>
          {/each}
        </ul>
      </section>
    {:else}
      <p class="sub">{g.none}</p>
    {/each}
    {#if session.mayWork}
      <form class="own" onsubmit={(event) => void add(event)}>
        <input aria-label={g.add} placeholder={g.addWhat} maxlength="200" bind:value={own} />
        <B type="submit">{g.add}</B>
      </form>
    {/if}
  {/if}
</Dialog>

<style>
  .top,
  section header,
  form {
    display: flex;
    gap: 8px 14px;
    flex-wrap: wrap;
    align-items: center;
  }
  section header {
    justify-content: space-between;
    margin-top: 18px;
    padding-bottom: 6px;
    border-bottom: 1px solid var(--line);
  }
  h3 {
    font-size: 15px;
    margin: 0;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    border-bottom: 1px solid var(--line2);
  }
  input:not([type='checkbox']) {
    padding: 5px 8px;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    font-size: 14px;
  }
  .own {
    margin-top: 18px;
  }
  .own input {
    flex: 1 1 240px;
  }
</style>
