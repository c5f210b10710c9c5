<script lang="ts">
  import { m } from '../../messages';
  import type { KindSummary, Remark } from './types';

  /** What a kind says: its setup, its facts, its addresses, what is checked, what firewalls must let through. */
  let { summary, way, narrow = false }: { summary: KindSummary; way: string; narrow?: boolean } = $props();
  const t = m.kinds.read;
</script>

{#snippet remarks(all: Remark[], more = '')}
  {#each all as remark, i (remark.text)}{i > 0 ? ', ' : ''}{#if remark.grave}<b>{remark.text}</b
      >{remark.more}{:else}{remark.text}{remark.more}{/if}{/each}{#if more}{all.length ? ', ' : ''}{more}{/if}
{/snippet}

<div class="two" class:narrow>
  <section class="sheet">
    <h2>{t.setup}</h2>
    {#if summary.setup.steps.length === 0}
      <p>{way === 'redfish' ? t.redfish : t.noSetup}</p>
    {:else}
      {#if summary.setup.line || summary.setup.oneByOne}
        <p class="sub">
          {summary.setup.line ? t.line(summary.setup.line) : ''}
          {summary.setup.oneByOne ? t.one : ''}
        </p>
      {/if}
      <ol>
        {#each summary.setup.steps as step, i (i)}
          <li>
            {step.title}
            {#if step.remarks.length > 0}<span class="sub">{@render remarks(step.remarks)}</span>{/if}
            {#if step.answer}<code>{step.answer}</code>{/if}
          </li>
        {/each}
      </ol>
      {#if summary.setup.wipe.length > 0}<p class="sub">{t.wipe(summary.setup.wipe.join(', '))}</p>{/if}
    {/if}
  </section>
  <div class="column">
    <section class="sheet">
      <h2>{t.facts}</h2>
      <dl>
        {#each summary.facts as fact (fact.name)}
          <dt>
            {fact.title}
            {#if fact.whose !== "the unit's"}<span class="sub">{fact.whose}</span>{/if}
          </dt>
          <dd>
            {[fact.find, fact.asked].filter(Boolean).join('; ')}
            <span class="sub">{@render remarks(fact.remarks, fact.fallback ? t.unless(fact.fallback) : '')}</span>
          </dd>
        {/each}
      </dl>
    </section>
    <section class="sheet">
      <h2>{t.addresses}</h2>
      <ul>
        {#each summary.addresses as each (each)}<li>{each}</li>{/each}
        <li>{t.named(summary.name.pattern, summary.name.longest)}</li>
      </ul>
    </section>
    <section class="sheet">
      <h2>{t.proven}</h2>
      <ul>
        {#each summary.proven as each (each)}<li>{each}</li>{/each}
        {#if summary.coverage.notMeasured.length > 0}
          <li class="sub">{t.notMeasured}: {summary.coverage.notMeasured.join('; ')}</li>
        {/if}
        <li>{summary.restart}</li>
      </ul>
    </section>
    {#if summary.flows.length > 0}
      <section class="sheet">
        <h2>{t.flows}</h2>
        <ul>
          {#each summary.flows as each (each)}<li>{each}</li>{/each}
        </ul>
      </section>
    {/if}
  </div>
</div>

<style>
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 12px;
    align-items: start;
  }
  .two.narrow {
    grid-template-columns: minmax(0, 1fr);
  }
  .column {
    display: grid;
    gap: 12px;
  }
  section {
    padding: 12px 16px;
    min-width: 0;
  }
  h2 {
    font-size: 15px;
    margin: 0 0 6px;
  }
  ol,
  ul {
    margin: 0;
    padding-left: 22px;
    display: grid;
    gap: 3px;
  }
  ol {
    list-style: decimal;
  }
  ul {
    list-style: disc;
  }
  code {
    font-family: var(--font-mono);
    font-size: 12.5px;
    color: var(--proof-ink);
    background: var(--proof2);
    border-radius: 3px;
    padding: 0 4px;
    overflow-wrap: anywhere;
  }
  dl {
    margin: 0;
    display: grid;
    grid-template-columns: minmax(110px, 0.8fr) 2fr;
    gap: 4px 14px;
  }
  dt {
    font-weight: 560;
  }
  dt::first-letter,
  li::first-letter {
    text-transform: uppercase;
  }
  dd {
    margin: 0;
  }
  section p {
    margin: 4px 0;
  }
  @media (max-width: 800px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
