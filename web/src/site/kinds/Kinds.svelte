<script lang="ts">
  import { Label, Textarea } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { decoded } from '../../lib/decode';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { go, searched } from '../../routes';
  import SiteBand from '../SiteBand.svelte';
  import ImportKind from './ImportKind.svelte';
  import { lasting, type Draft, type KindLine } from './types';

  /** Every kind: how it is set up, who uses it, how its setups came out. */
  const t = m.kinds;
  const lines = live<KindLine[]>(() => '/catalogue');
  let adding = $state(searched('add') === 'text');
  let importing = $state(false);
  let text = $state('');
  let fault = $state('');

  async function load(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const file = event.currentTarget.files?.[0];
    if (file) text = decoded(await file.arrayBuffer());
  }

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const id = /^kind:\s*["']?([a-z][a-z0-9-]{0,39})["']?\s*(?:#.*)?$/m.exec(text)?.[1];
    if (!id) {
      fault = t.addNoId;
      return;
    }
    try {
      await api.putTextIf<Draft>(`/catalogue/${id}/draft`, text, '0');
      adding = false;
      text = '';
      lookAgain();
      go(`/kinds/${id}?tab=text`);
    } catch (error) {
      fault = '';
      notices.fault(error);
    }
  }
</script>

<SiteBand at="kinds" />
<main id="work" tabindex="-1">
  <div class="head">
    <h1>{t.title}</h1>
    {#if session.mayWork}<span class="acts"
        ><B onclick={() => (importing = true)}>{t.importing.open}</B><B onclick={() => (adding = true)}>{t.addText}</B
        ><B look="go" onclick={() => go('/kinds/new')}>{t.add}</B></span
      >{/if}
  </div>
  <p class="sub">{t.say}</p>
  {#if lines.data?.length === 0}
    <p>{t.none}</p>
  {:else if lines.data}
    <div class="sheet" role="table" aria-label={t.title}>
      <div class="row heads" role="row">
        <span role="columnheader">{t.columns.kind}</span><span role="columnheader">{t.columns.way}</span><span
          role="columnheader">{t.columns.version}</span
        ><span role="columnheader">{t.columns.units}</span><span role="columnheader">{t.columns.setups}</span><span
          role="columnheader">{t.columns.last}</span
        >
      </div>
      {#each lines.data as line (line.id)}
        <div class="row" role="row" class:off={line.retired}>
          <span role="cell"
            ><a href="/kinds/{line.id}">{line.title}</a>
            {#if line.draft}<i class="tag draft">{t.tags.draft}</i>{/if}{#if line.update}<i class="tag draft"
                >{t.tags.update}</i
              >{/if}{#if line.retired}<i class="tag">{t.tags.retired}</i>{/if}</span
          >
          <span role="cell" data-title={t.columns.way}>{t.ways[line.way] ?? line.way}</span>
          <span role="cell" data-title={t.columns.version}
            >{#if line.version}{line.version}
              <span class="sub">{line.shipped ? t.tags.shipped : t.tags.site}</span>{/if}</span
          >
          <span role="cell" data-title={t.columns.units}>{line.units ? t.units(line.units, line.older) : ''}</span>
          <span role="cell" data-title={t.columns.setups}
            >{line.done || line.last ? t.setups(line.done, lasting(line.usualSeconds)) : ''}</span
          >
          <span role="cell" data-title={t.columns.last}
            >{#if line.last}{t.results[line.last.state] ?? line.last.state.toLowerCase()}, {atTime(
                line.last.at,
              )}{/if}</span
          >
        </div>
      {/each}
    </div>
  {/if}
</main>
{#if importing}<ImportKind onclose={() => (importing = false)} />{/if}
{#if adding}
  <Dialog title={t.addText} wide onclose={() => (adding = false)}>
    <form onsubmit={(event) => void add(event)}>
      <p class="sub">{t.addSay}</p>
      <label class="file"
        >{m.read.file} <input type="file" accept=".yaml,.yml,.txt" onchange={(e) => void load(e)} /></label
      >
      <Label
        >{t.addPaste}<Textarea
          class="mono w-full"
          rows={14}
          bind:value={text}
          spellcheck="false"
          aria-invalid={fault ? 'true' : undefined}
        /></Label
      >
      {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
      <div><B look="go" type="submit" disabled={text.trim() === ''}>{t.addSave}</B></div>
    </form>
  </Dialog>
{/if}

<style>
  main {
    max-width: 1240px;
    margin: 18px auto;
    padding: 0 18px;
    display: grid;
    gap: 10px;
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
  .head + p {
    margin: 0;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 2.4fr) 1.2fr 1fr 1.3fr 1.4fr 1.3fr;
    gap: 12px;
    padding: 8px 14px;
    align-items: baseline;
  }
  .row + .row {
    border-top: 1px solid var(--line2);
  }
  .heads {
    background: var(--group);
    color: var(--ink2);
    font-size: 12.5px;
    font-weight: 600;
  }
  .off a {
    color: var(--ink2);
  }
  .row a {
    font-weight: 600;
  }
  .tag {
    font-style: normal;
    font-size: 12px;
    border: 1px solid var(--line);
    border-radius: 3px;
    padding: 0 5px;
    margin-left: 4px;
    background: var(--sheet);
  }
  .tag.draft {
    background: var(--lamp2);
    border-color: var(--lamp);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  .file {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  form {
    display: grid;
    gap: 10px;
  }
  form p {
    margin: 0;
  }
  .fault {
    color: var(--fault);
  }
  @media (max-width: 800px) {
    .heads {
      display: none;
    }
    .row {
      grid-template-columns: 1fr 1fr;
      gap: 3px 12px;
    }
    .row > :first-child {
      grid-column: 1 / -1;
    }
    [data-title]:empty {
      display: none;
    }
    [data-title]:not(:empty)::before {
      content: attr(data-title) ': ';
      color: var(--ink2);
      font-size: 12.5px;
    }
  }
</style>
