<script lang="ts">
  import { m } from '../../messages';
  import B from '../../parts/B.svelte';
  import { formOf, withField, withValue, type FormField, type FormPage } from './form';
  import type { KindFault } from './types';

  /** The same text as a form: what it shows is changed at its place, and the rest of the text is left as it is. */
  let {
    text,
    faults,
    readonly,
    ontyped,
  }: { text: string; faults: KindFault[]; readonly: boolean; ontyped: (text: string) => void } = $props();
  const t = m.kinds.formView;
  const view = $derived(formOf(text));
  const names = t.names;
  let fresh = $state<Record<number, { name: string; value: string }>>({});
  const faultOf = (at: FormField) => faults.find((fault) => fault.path === at.path)?.reason;
  const change = (at: FormField, value: string) => ontyped(withValue(text, at, value));

  function add(page: FormPage, place: number): void {
    const row = fresh[place];
    if (!row?.name.trim() || !row.value.trim()) return;
    ontyped(withField(text, page, row.name.trim(), row.value.trim()));
    fresh[place] = { name: '', value: '' };
  }
</script>

{#snippet one(at: FormField, name: string)}
  {@const fault = faultOf(at)}
  <label>
    <span>{name}</span>
    <input
      value={at.value}
      {readonly}
      spellcheck="false"
      aria-invalid={fault ? 'true' : undefined}
      onchange={(event) => change(at, event.currentTarget.value)}
    />
    {#if fault}<span class="fault">{fault}</span>{/if}
  </label>
{/snippet}

<div class="form">
  {#if !view}
    <p class="sheet">{t.none}</p>
  {:else}
    <section class="sheet">
      <h2>{t.what}</h2>
      {#each view.fields as at (at.path)}{@render one(at, names[at.name] ?? at.name)}{/each}
    </section>
    {#each view.pages as page, i (i)}
      <section class="sheet">
        <h2>{t.page(page.title)}</h2>
        {#each page.fields as at (at.path)}{@render one(at, at.name)}{/each}
        {#if !readonly}
          {@const row = fresh[i] ?? { name: '', value: '' }}
          <div class="add">
            <input
              aria-label={t.field}
              placeholder={t.field}
              value={row.name}
              oninput={(event) => (fresh[i] = { ...row, name: event.currentTarget.value })}
            />
            <input
              class="mono"
              aria-label={t.value}
              placeholder={'{address}'}
              value={row.value}
              oninput={(event) => (fresh[i] = { ...row, value: event.currentTarget.value })}
            />
            <B onclick={() => add(page, i)}>{t.add}</B>
          </div>
        {/if}
      </section>
    {/each}
    {#if view.facts.length > 0}
      <section class="sheet">
        <h2>{t.facts}</h2>
        {#each view.facts as fact (fact.title)}
          <fieldset>
            <legend>{fact.title}</legend>
            {#each fact.fields as at (at.path)}{@render one(at, names[at.name] ?? at.name)}{/each}
          </fieldset>
        {/each}
      </section>
    {/if}
    {#if view.textOnly.length > 0}
      <p class="sub">{t.textOnly(view.textOnly.map((key) => names[key] ?? key).join(', '))}</p>
    {/if}
  {/if}
</div>

<style>
  .form {
    display: grid;
    gap: 10px;
    max-height: min(70vh, 640px);
    overflow: auto;
  }
  section {
    padding: 10px 14px;
    display: grid;
    gap: 8px;
  }
  h2 {
    font-size: 14.5px;
    margin: 0;
  }
  p {
    margin: 0;
    padding: 8px 14px;
  }
  label {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 2fr);
    gap: 3px 12px;
    align-items: center;
  }
  label > span:first-child {
    overflow-wrap: anywhere;
  }
  .fault {
    grid-column: 2;
    color: var(--fault);
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 4px 0;
    display: grid;
    gap: 5px;
  }
  legend {
    font-weight: 600;
    padding: 0;
  }
  .add {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1.6fr) auto;
    gap: 12px;
  }
  input {
    min-width: 0;
    width: 100%;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--paper);
    padding: 4px 8px;
  }
  input[aria-invalid='true'] {
    border-color: var(--fault);
  }
  @media (max-width: 600px) {
    label,
    .add {
      grid-template-columns: 1fr;
    }
    .fault {
      grid-column: 1;
    }
  }
</style>
