<script lang="ts">
  import { m } from '../../messages';
  import KindSays from './KindSays.svelte';
  import type { KindExample, KindSummary } from './types';

  /** What a description comes to while it is written: with made-up values, as the screens will show it. */
  let { summary, way, example }: { summary: KindSummary; way: string; example: KindExample | null } = $props();
  const t = m.kinds.preview;
  const TABS = ['facts', 'addresses', 'sheet', 'steps', 'checks', 'page'];
  let tab = $state('steps');
  const members = $derived(example?.members ?? []);
  const isPage = (sort: string) => sort === 'page' || sort === 'controller';

  function move(event: KeyboardEvent): void {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!by) return;
    tab = TABS[(TABS.indexOf(tab) + by + TABS.length) % TABS.length]!;
    document.getElementById(`preview-${tab}`)?.focus();
  }
</script>

<div class="tabs" role="tablist" aria-label={t.label}>
  {#each TABS as each (each)}
    <button
      type="button"
      role="tab"
      id="preview-{each}"
      aria-selected={each === tab}
      tabindex={each === tab ? 0 : -1}
      onclick={() => (tab = each)}
      onkeydown={move}>{t.tabs[each]}</button
    >
  {/each}
</div>
<div role="tabpanel" aria-labelledby="preview-{tab}">
  {#if tab === 'page'}
    <KindSays {summary} {way} />
  {:else if tab === 'facts'}
    <dl class="sheet">
      {#each summary.facts as fact (fact.name)}
        <dt>{fact.title} <span class="sub">{fact.whose}</span></dt>
        <dd>
          {[fact.find, fact.asked].filter(Boolean).join('; ')}
          {fact.fallback ? m.kinds.read.unless(fact.fallback) : ''}
        </dd>
      {/each}
    </dl>
  {:else if tab === 'checks'}
    <ul class="sheet">
      {#each summary.proven as each (each)}<li>{each}</li>{/each}
      <li>{summary.restart}</li>
      {#if summary.coverage.notMeasured.length > 0}
        <li class="sub">{m.kinds.read.notMeasured}: {summary.coverage.notMeasured.join('; ')}</li>
      {/if}
    </ul>
  {:else if !example}
    <p class="sub">{t.none}</p>
  {:else}
    <p class="sub">{t.say(example.unit)}</p>
    {#if tab === 'addresses'}
      <table class="sheet">
        <thead><tr><th>{t.role}</th><th>{t.address}</th><th>{t.name}</th><th>{t.purpose}</th></tr></thead>
        <tbody>
          {#each example.places as place (`${place.role} ${place.address}`)}
            <tr
              ><td>{place.role}</td><td class="mono">{place.address}</td><td class="mono">{place.name}</td><td
                >{place.purpose}</td
              ></tr
            >
          {:else}
            <tr><td colspan="4">{t.noAddresses}</td></tr>
          {/each}
        </tbody>
      </table>
    {:else}
      <div class="members">
        {#each members as member (member.label)}
          {@const steps = member.steps.filter((step) => isPage(step.sort) === (tab === 'sheet'))}
          <section class="sheet">
            {#if member.label}<h3>{member.label}</h3>{/if}
            <ol>
              {#each steps as step, i (i)}
                <li class:off={!step.asked}>
                  <span>{step.title}</span>
                  {#if step.answer}<code>{step.answer}</code>{/if}
                  {#if !step.asked}<span class="sub">{t.notAsked}</span>{/if}
                  {#if Object.keys(step.fields).length > 0}
                    <dl>
                      {#each Object.entries(step.fields) as [name, value] (name)}
                        <dt class:mono={step.sort === 'summary'}>{name}</dt>
                        <dd class="mono">{value || t.notEntered}</dd>
                      {/each}
                    </dl>
                  {/if}
                </li>
              {:else}
                <li>{tab === 'sheet' ? t.noPages : t.noSteps}</li>
              {/each}
            </ol>
          </section>
        {/each}
      </div>
    {/if}
  {/if}
</div>

<style>
  .tabs {
    display: flex;
    gap: 4px;
    flex-wrap: wrap;
    border-bottom: 1px solid var(--line);
  }
  .tabs button {
    padding: 5px 11px;
    color: var(--ink2);
    font-weight: 560;
    border-bottom: 3px solid transparent;
    margin-bottom: -1px;
  }
  .tabs button[aria-selected='true'] {
    color: var(--ink);
    border-bottom-color: var(--lamp);
  }
  p {
    margin: 6px 0;
  }
  .members {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 380px), 1fr));
    gap: 12px;
    align-items: start;
  }
  section,
  ul,
  dl.sheet {
    padding: 10px 14px;
    margin: 0;
  }
  ul {
    padding-left: 30px;
    list-style: disc;
  }
  h3 {
    font-size: 13.5px;
    margin: 0 0 4px;
  }
  ol {
    margin: 0;
    padding-left: 22px;
    list-style: decimal;
    display: grid;
    gap: 4px;
  }
  li {
    overflow-wrap: anywhere;
  }
  li.off > span:first-child {
    color: var(--ink2);
    text-decoration: line-through;
  }
  li > span:first-child::first-letter {
    text-transform: uppercase;
  }
  dl {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
    gap: 2px 12px;
    margin: 3px 0;
    font-size: 13px;
  }
  dt {
    color: var(--ink2);
    overflow-wrap: anywhere;
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    padding: 4px 14px;
    overflow-wrap: anywhere;
  }
  th {
    font-size: 12.5px;
    color: var(--ink2);
  }
  tbody tr {
    border-top: 1px solid var(--line2);
  }
</style>
