<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import Mark from '../../parts/Mark.svelte';
  import { m } from '../../messages';
  import { path } from '../../routes';
  import Differences from './Differences.svelte';
  import { lasting, type Change, type KindPage } from './types';

  /** The versions of a kind, what changed in each, and where each is used. */
  let { page }: { page: KindPage } = $props();
  const t = m.kinds.history;
  type Use = KindPage['uses'][number];
  interface Moved {
    moved: number;
    stay: { unit: string; reason: string }[];
  }
  let compared = $state<{ from: number; to: number; changes: Change[] } | null>(null);
  let moving = $state<{ use: Use; changes: Change[] } | null>(null);
  let outcome = $state<Moved | null>(null);
  let reason = $state('');
  let busy = $state(false);

  const difference = (from: number, to: number) =>
    api.get<Change[]>(`/catalogue/${page.line.id}/difference?from=${from}&to=${to}`);

  async function compare(to: number): Promise<void> {
    try {
      compared = { from: to - 1, to, changes: await difference(to - 1, to) };
    } catch (error) {
      notices.fault(error);
    }
  }

  async function beginMove(use: Use): Promise<void> {
    try {
      outcome = null;
      moving = { use, changes: await difference(use.version, page.line.version!) };
    } catch (error) {
      notices.fault(error);
    }
  }

  async function move(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    try {
      outcome = await api.post<Moved>(`/catalogue/${page.line.id}/move`, {
        bringUpId: moving!.use.bringUpId,
        from: moving!.use.version,
        to: page.line.version,
        reason,
      });
      notices.say(t.moved(outcome.moved));
      if (outcome.stay.length === 0) moving = null;
    } catch (error) {
      notices.fault(error);
    } finally {
      busy = false;
    }
    lookAgain();
  }
</script>

<section class="sheet">
  {#each page.history as each (each.version)}
    <div class="row">
      <b>{m.kinds.version(each.version)}</b>
      <span class="what"
        >{each.note}
        {#if each.despite}<span class="sub">{t.despite(each.despite)}</span>{/if}
        <span class="sub">{atTime(each.at)} {each.shipped && !each.by ? t.by('') : t.by(each.by)}</span></span
      >
      <span class="sub">{m.frame.units(each.units)}</span>
      <span class="acts">
        {#if each.version > 1}<B onclick={() => void compare(each.version)}>{t.compare}</B>{/if}
        <a href="/api/catalogue/{page.line.id}/versions/{each.version}" download>{m.kinds.download}</a>
        <a href="/api/catalogue/{page.line.id}/versions/{each.version}/package" download>{t.export}</a>
      </span>
    </div>
  {/each}
</section>
<h2>{t.uses}</h2>
{#if page.uses.length === 0}
  <p>{t.noUses}</p>
{:else}
  <section class="sheet">
    {#each page.uses as use (`${use.bringUpId} ${use.version}`)}
      <div class="row">
        <a href={path(use.bringUpId, 'prepare')}>{use.bringUp}</a>
        <span class="what">{t.use(use.units, use.version)}</span>
        <span></span>
        <span class="acts">
          {#if session.mayWork && page.line.version && use.version !== page.line.version}<B
              onclick={() => void beginMove(use)}>{t.move(page.line.version)}</B
            >{/if}
        </span>
      </div>
    {/each}
  </section>
{/if}
{#if page.setups.length > 0}
  <h2>{t.setups}</h2>
  <section class="sheet">
    {#each page.setups as setup, i (i)}
      <div class="row">
        <a class="mono" href="{path(setup.bringUpId, 'configure')}?unit={setup.unitId}">{setup.unit}</a>
        <span class="what outcome"
          ><Mark mark={setup.state === 'DONE' ? 'done' : 'fault'} size={14} />
          {m.kinds.results[setup.state] ?? setup.state.toLowerCase()}
          <span class="sub">{m.kinds.version(setup.version)}</span></span
        >
        <span class="sub">{lasting(setup.seconds)}</span>
        <span class="sub acts">{atTime(setup.endedAt)}</span>
      </div>
    {/each}
  </section>
{/if}
{#if compared}
  <Dialog title={t.differences(compared.from, compared.to)} wide onclose={() => (compared = null)}>
    <Differences changes={compared.changes} />
  </Dialog>
{/if}
{#if moving}
  <Dialog title={t.moveTitle(moving.use.bringUp, page.line.version!)} wide onclose={() => (moving = null)}>
    <Differences changes={moving.changes} />
    <p class="sub">{t.moveSay}</p>
    {#if outcome && outcome.stay.length > 0}
      <p class="say wait">{t.stay}</p>
      <ul>
        {#each outcome.stay as each (each.unit)}<li><b>{each.unit}</b> {each.reason}</li>{/each}
      </ul>
    {/if}
    <form onsubmit={(event) => void move(event)}>
      {#if session.me?.role === 'lead'}<Label
          >{m.kinds.adjust.reason}<Input bind:value={reason} maxlength={400} /></Label
        >{/if}
      <div><B look="go" type="submit" disabled={busy}>{t.move(page.line.version!)}</B></div>
    </form>
  </Dialog>
{/if}

<style>
  .row {
    display: grid;
    grid-template-columns: minmax(90px, 1fr) minmax(0, 3fr) 90px auto;
    gap: 14px;
    padding: 9px 14px;
    align-items: center;
  }
  .row + .row {
    border-top: 1px solid var(--line2);
  }
  .what {
    overflow-wrap: anywhere;
  }
  .outcome {
    display: flex;
    gap: 7px;
    align-items: center;
  }
  .acts {
    display: flex;
    gap: 12px;
    align-items: center;
    justify-content: flex-end;
  }
  h2 {
    font-size: 15px;
    margin: 8px 0 0;
  }
  ul {
    padding-left: 20px;
    list-style: disc;
  }
  form {
    display: grid;
    gap: 10px;
    margin-top: 10px;
  }
  @media (max-width: 700px) {
    .row {
      grid-template-columns: 1fr;
      gap: 4px;
    }
    .acts {
      justify-content: flex-start;
    }
  }
</style>
