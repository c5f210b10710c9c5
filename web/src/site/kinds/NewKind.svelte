<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { session } from '../../lib/session.svelte';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { go } from '../../routes';
  import SiteBand from '../SiteBand.svelte';
  import type { Draft } from './types';

  /** A new kind in three minutes: a machine that a person sets up on its own pages, from a value sheet. */
  const t = m.kinds.form;
  const OTHER = 'other';
  interface Row {
    name: string;
    value: string;
    other: string;
  }
  let title = $state('');
  let shortName = $state('');
  let shortTyped = $state(false);
  let members = $state('');
  let each = $state('1');
  let shared = $state('0');
  let label = $state('');
  let user = $state('');
  let password = $state('');
  let port = $state('443');
  let closed = $state('23');
  let firstPage = $state('');
  let sheet = $state<{ title: string; rows: Row[] }[]>([
    {
      title: t.network,
      rows: [
        [t.values.address, '{address}'],
        [t.values.mask, '{mask}'],
        [t.values.gateway, '{gateway}'],
        [t.values.name, '{name}'],
        [t.values.dns, '{name-server-1}'],
        [t.values.time, '{time-server-1}'],
        [t.values.password, '{password}'],
      ].map(([name, value]) => ({ name: name!, value: value!, other: '' })),
    },
  ]);
  let faults = $state<Record<string, string>>({});
  let busy = $state(false);
  const list = (text: string) =>
    text
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean);
  const several = $derived(list(members).length > 0);
  const known = $derived([
    ['{address}', t.values.address],
    ['{length}', t.values.length],
    ['{mask}', t.values.mask],
    ['{gateway}', t.values.gateway],
    ['{vlan}', t.values.vlan],
    ['{name}', t.values.name],
    ['{name}.{domain}', t.values.fqdn],
    ['{domain}', t.values.domain],
    ['{name-server-1}', t.values.dns],
    ['{name-server-2}', t.values.dns2],
    ['{time-server-1}', t.values.time],
    ['{time-server-2}', t.values.time2],
    ['{password}', t.values.password],
    ['{serial}', t.values.serial],
    ...(several && Number(shared) > 0
      ? [
          ['{shared.address}', t.values.shared],
          ['{shared.name}', t.values.sharedName],
        ]
      : []),
    [OTHER, t.values.other],
  ] as [string, string][]);

  /** The first letters of the title's words, as most people would abbreviate it. */
  function suggest(): void {
    if (shortTyped) return;
    const words = title
      .toLowerCase()
      .split(/[^a-z0-9]+/)
      .filter((word) => /^[a-z]/.test(word));
    shortName =
      words.length > 1
        ? words
            .map((word) => word[0])
            .join('')
            .slice(0, 8)
        : (words[0] ?? '').slice(0, 4);
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    faults = {};
    try {
      const draft = await api.post<Draft>('/catalogue', {
        title,
        shortName,
        members: list(members),
        each: Number(each),
        shared: Number(shared),
        label: list(label),
        user,
        password,
        port: Number(list(port)[0]),
        open: list(port).slice(1).map(Number),
        closed: list(closed).map(Number),
        firstPage,
        sheet: sheet
          .map((page) => ({
            title: page.title,
            fields: page.rows
              .filter((row) => row.name.trim() !== '')
              .map((row) => ({ name: row.name, value: row.value === OTHER ? row.other : row.value })),
          }))
          .filter((page) => page.fields.length > 0),
      });
      notices.say(m.kinds.text.saved);
      go(`/kinds/${draft.kindId}`);
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) notices.fault(error);
      await tick();
      document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus();
    } finally {
      busy = false;
    }
  }
</script>

{#snippet field(name: string, text: string, hint: string)}
  <span class="name">{text}</span>
  {#if faults[name]}<span class="fault">{faults[name]}</span>{:else if hint}<span class="sub">{hint}</span>{/if}
{/snippet}

<SiteBand at="kinds" />
<main id="work" tabindex="-1">
  <h1>{t.title}</h1>
  <p class="sub">{t.say} <a href="/kinds?add=text">{t.text}</a></p>
  {#if session.mayWork}
    <form onsubmit={(event) => void save(event)}>
      <section class="sheet">
        <h2>{t.what}</h2>
        <Label
          >{@render field('title', t.name, t.nameHint)}<Input
            bind:value={title}
            oninput={suggest}
            required
            maxlength={60}
            aria-invalid={faults.title ? 'true' : undefined}
          /></Label
        >
        <Label
          >{@render field('shortName', t.short, t.shortHint)}<Input
            class="mono"
            bind:value={shortName}
            oninput={() => (shortTyped = true)}
            required
            maxlength={8}
            aria-invalid={faults.shortName ? 'true' : undefined}
          /></Label
        >
        <Label
          >{@render field('members', t.members, t.membersHint)}<Input
            bind:value={members}
            maxlength={200}
            aria-invalid={faults.members ? 'true' : undefined}
          /></Label
        >
        <div class="pair">
          <Label
            >{@render field('each', several ? t.each : t.addresses, '')}<Input
              type="number"
              min={several ? 0 : 1}
              max={8}
              bind:value={each}
              aria-invalid={faults.each ? 'true' : undefined}
            /></Label
          >
          {#if several}<Label
              >{@render field('shared', t.shared, '')}<Input type="number" min={0} max={8} bind:value={shared} /></Label
            >{/if}
        </div>
        <Label
          >{@render field('label', t.label, t.labelHint)}<Input
            bind:value={label}
            maxlength={200}
            aria-invalid={faults.label ? 'true' : undefined}
          /></Label
        >
      </section>
      <section class="sheet">
        <h2>{t.access}</h2>
        <Label
          >{@render field('firstPage', t.firstPage, t.firstPageHint)}<Input
            class="mono"
            bind:value={firstPage}
            maxlength={200}
          /></Label
        >
        <div class="pair">
          <Label
            >{@render field('user', t.user, t.userHint)}<Input
              class="mono"
              bind:value={user}
              maxlength={64}
              autocomplete="off"
              spellcheck="false"
              aria-invalid={faults.user ? 'true' : undefined}
            /></Label
          >
          <Label
            >{@render field('password', t.password, t.passwordHint)}<Input
              class="mono"
              bind:value={password}
              maxlength={128}
              autocomplete="off"
              spellcheck="false"
            /></Label
          >
        </div>
        <div class="pair">
          <Label
            >{@render field('port', t.port, '')}<Input
              class="mono"
              maxlength={100}
              bind:value={port}
              aria-invalid={faults.port ? 'true' : undefined}
            /></Label
          >
          <Label
            >{@render field('closed', t.closed, '')}<Input class="mono" bind:value={closed} maxlength={100} /></Label
          >
        </div>
      </section>
      <section class="sheet wide">
        <h2>{t.sheet}</h2>
        <p class="sub">{t.sheetSay}</p>
        {#if faults.sheet}<p class="fault" role="alert">{faults.sheet}</p>{/if}
        {#each sheet as page, i (i)}
          <fieldset>
            <legend>
              <label class="nth"
                ><span>{t.page(i + 1)}</span><Input bind:value={page.title} required maxlength={60} /></label
              >
            </legend>
            {#each page.rows as row, j (j)}
              <div class="row">
                <Input
                  aria-label={t.fieldName(i + 1, j + 1)}
                  bind:value={row.name}
                  maxlength={80}
                  placeholder={t.fieldHint}
                />
                <select aria-label={t.fieldValue(i + 1, j + 1)} bind:value={row.value}>
                  {#each known as [value, text] (value)}<option {value}>{text}</option>{/each}
                </select>
                {#if row.value === OTHER}<Input
                    aria-label={t.fieldText(i + 1, j + 1)}
                    bind:value={row.other}
                    maxlength={120}
                  />{:else}<span></span>{/if}
                <button
                  type="button"
                  class="x"
                  aria-label={t.removeField(i + 1, j + 1)}
                  onclick={() => page.rows.splice(j, 1)}>×</button
                >
              </div>
            {/each}
            <B onclick={() => page.rows.push({ name: '', value: '{address}', other: '' })}>{t.addField}</B>
          </fieldset>
        {/each}
        <div>
          <B onclick={() => sheet.push({ title: '', rows: [{ name: '', value: '{address}', other: '' }] })}
            >{t.addPage}</B
          >
        </div>
      </section>
      <div class="wide">
        <B look="go" type="submit" disabled={busy}>{t.save}</B> <span class="sub">{t.saveSay}</span>
      </div>
    </form>
  {/if}
</main>

<style>
  main {
    max-width: 1100px;
    margin: 14px auto 40px;
    padding: 0 18px;
    display: grid;
    gap: 8px;
  }
  main:focus {
    outline: none;
  }
  h1,
  p {
    margin: 0;
  }
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 12px;
    align-items: start;
  }
  .wide {
    grid-column: 1 / -1;
  }
  section {
    padding: 12px 16px;
    display: grid;
    gap: 10px;
    min-width: 0;
  }
  h2 {
    font-size: 15px;
    margin: 0;
  }
  .name {
    display: block;
  }
  .sub {
    font-weight: 400;
  }
  .fault {
    color: var(--fault);
    font-size: 13px;
    font-weight: 400;
  }
  .pair {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 12px;
    align-items: end;
  }
  fieldset {
    border: 1px solid var(--line);
    border-radius: 5px;
    padding: 8px 12px 12px;
    display: grid;
    gap: 6px;
    min-width: 0;
  }
  .nth {
    display: flex;
    gap: 8px;
    align-items: center;
    white-space: nowrap;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) minmax(0, 2fr) 32px;
    gap: 8px;
    align-items: center;
  }
  select {
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    padding: 7px 8px;
    min-width: 0;
  }
  .x {
    font-size: 18px;
    color: var(--ink2);
    padding: 4px;
  }
  fieldset > :global(button.lych),
  section > div > :global(button.lych) {
    justify-self: start;
  }
  @media (max-width: 800px) {
    form {
      grid-template-columns: minmax(0, 1fr);
    }
    .row {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 32px;
    }
    .row > :nth-child(3) {
      grid-column: 1 / 3;
      grid-row: 2;
    }
  }
</style>
