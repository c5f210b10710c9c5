<script lang="ts">
  import { Input, Label, Select } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { Invited, PersonView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import SiteBand from '../SiteBand.svelte';

  const t = m.people;
  const ROLES = ['viewer', 'engineer', 'lead'];
  const people = live<PersonView[]>(() => (session.me?.role === 'lead' ? '/people' : null));
  let inviting = $state(false);
  let login = $state('');
  let name = $state('');
  let role = $state('engineer');
  let faults = $state<Record<string, string>>({});
  let invited = $state<Invited | null>(null);
  const link = $derived(invited ? `${location.origin}/invite#${invited.token}` : '');

  /** Does something, says what was done, and reloads the list. */
  async function act(work: () => Promise<unknown>, done: string): Promise<void> {
    try {
      await work();
      notices.say(done);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }

  async function invite(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    faults = {};
    try {
      invited = await api.post<Invited>('/people', { login, name, role });
      inviting = false;
      login = '';
      name = '';
      lookAgain();
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) notices.fault(error);
      await tick();
      document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus();
    }
  }

  async function newLink(person: PersonView): Promise<void> {
    try {
      invited = await api.post<Invited>(`/people/${person.id}/invitation`);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }

  const change = (person: PersonView, what: object, done: string) =>
    void act(() => api.put(`/people/${person.id}`, what), done);
  const end = (person: PersonView) => void act(() => api.delete(`/people/${person.id}/sessions`), t.ended(person.name));

  function standing(person: PersonView): string {
    if (person.disabledAt) return t.disabledSince(atTime(person.disabledAt));
    if (!person.hasPassword) return person.invitedUntil ? t.invitedUntil(atTime(person.invitedUntil)) : t.linkTooOld;
    return person.sessions === 0
      ? t.notSignedIn
      : t.signedIn(person.sessions, person.seenAt ? atTime(person.seenAt) : '');
  }
</script>

<SiteBand at="people" />
<main id="work" tabindex="-1">
  <div class="head">
    <h1>{t.title}</h1>
    {#if session.me?.role === 'lead'}<B look="go" onclick={() => (inviting = true)}>{t.invite}</B>{/if}
  </div>
  {#if session.me?.role !== 'lead'}
    <p>{t.leadsOnly}</p>
  {:else}
    <p class="sub">{t.say}</p>
    <div class="sheet">
      {#each people.data ?? [] as person (person.id)}
        <section class:off={person.disabledAt} aria-label={person.name}>
          <div class="who">
            <b>{person.name}</b> <span class="mono">{person.login}</span>
            <p class="sub">{standing(person)}</p>
          </div>
          <label class="role"
            ><span class="sub">{t.role}</span>
            <select
              value={person.role}
              onchange={(event) =>
                change(
                  person,
                  { role: event.currentTarget.value },
                  t.roleChanged(person.name, event.currentTarget.value),
                )}
            >
              {#each ROLES as each (each)}<option value={each}>{t.roles[each]}</option>{/each}
            </select>
          </label>
          <div class="acts">
            {#if person.disabledAt}
              <B onclick={() => change(person, { disabled: false }, t.enabled(person.name))}>{t.enable}</B>
            {:else}
              <B onclick={() => void newLink(person)}>{person.hasPassword ? t.resetPassword : t.newLink}</B>
              {#if person.sessions > 0}<B onclick={() => end(person)}>{t.endSessions}</B>{/if}
              <B look="stop" onclick={() => change(person, { disabled: true }, t.disabled(person.name))}>{t.disable}</B>
            {/if}
          </div>
        </section>
      {/each}
    </div>
  {/if}
</main>
{#if inviting}
  <Dialog title={t.invite} onclose={() => (inviting = false)}>
    <form onsubmit={(event) => void invite(event)}>
      <Label
        >{t.name}<Input
          bind:value={name}
          required
          maxlength={80}
          aria-invalid={faults.name ? 'true' : undefined}
        />{#if faults.name}<span class="fault">{faults.name}</span>{/if}</Label
      >
      <Label
        >{m.signIn.login}<Input
          class="mono"
          bind:value={login}
          required
          maxlength={32}
          autocapitalize="none"
          spellcheck="false"
          placeholder="ane.holm"
          aria-invalid={faults.login ? 'true' : undefined}
        />{#if faults.login}<span class="fault">{faults.login}</span>{/if}</Label
      >
      <Label
        >{t.role}<Select
          bind:value={role}
          items={ROLES.map((each) => ({ value: each, name: `${t.roles[each]}: ${t.may[each]}` }))}
          placeholder=""
        /></Label
      >
      <div><B look="go" type="submit">{t.makeLink}</B></div>
    </form>
  </Dialog>
{/if}
{#if invited}
  <Dialog title={t.linkFor(invited.login)} onclose={() => (invited = null)}>
    <p>{t.linkSay(atTime(invited.endsAt))}</p>
    <pre class="mono">{link}</pre>
    <B look="go" onclick={() => void navigator.clipboard.writeText(link).then(() => notices.say(m.prove.copied))}
      >{t.copy}</B
    >
  </Dialog>
{/if}

<style>
  main {
    max-width: 980px;
    margin: 24px auto;
    padding: 0 16px;
    display: grid;
    gap: 12px;
  }
  main:focus {
    outline: none;
  }
  .head {
    display: flex;
    gap: 16px;
    align-items: center;
    justify-content: space-between;
    flex-wrap: wrap;
  }
  section {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 150px 340px;
    gap: 14px;
    align-items: center;
    padding: 12px 16px;
  }
  section + section {
    border-top: 1px solid var(--line2);
  }
  section.off .who {
    opacity: 0.72;
  }
  .who b {
    font-weight: 620;
  }
  .who p {
    margin: 2px 0 0;
  }
  .role {
    display: grid;
    gap: 2px;
    font-size: 12.5px;
  }
  select {
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    padding: 5px 8px;
  }
  .acts {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    justify-content: flex-end;
  }
  form {
    display: grid;
    gap: 12px;
  }
  pre {
    font-size: 12.5px;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 8px;
    margin: 8px 0;
  }
  .fault {
    color: var(--fault);
    font-size: 12.5px;
  }
  @media (max-width: 760px) {
    section {
      grid-template-columns: 1fr;
    }
    .acts {
      justify-content: flex-start;
    }
  }
</style>
