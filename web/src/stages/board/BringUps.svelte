<script lang="ts">
  import { Input, Label, Textarea } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import { api, Problem } from '../../lib/api';
  import { live, lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { onDay } from '../../lib/time';
  import type { Brief } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { go, path } from '../../routes';
  import SiteBand from '../../site/SiteBand.svelte';

  const list = live<Brief[]>(() => '/bring-ups');
  let beginning = $state(false);
  let name = $state('');
  let siteCode = $state('');
  let siteName = $state('');
  let due = $state('');
  let positions = $state('');
  let faults = $state<Record<string, string>>({});
  let fault = $state('');

  /** Most are begun where the last one was. */
  function open(): void {
    const last = [...(list.data ?? [])].sort((a, b) => b.id - a.id)[0];
    siteName ||= last?.site ?? '';
    siteCode ||= last?.siteCode ?? '';
    beginning = true;
  }

  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    faults = {};
    fault = '';
    try {
      const brief = await api.post<Brief>('/bring-ups', {
        name,
        siteCode,
        siteName,
        due: due || null,
        positions: positions
          .split('\n')
          .map((line) => line.trim())
          .filter(Boolean),
      });
      lookAgain();
      go(path(brief.id, 'board'));
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      fault =
        Object.keys(faults).length > 0 ? (faults.name ?? '') : error instanceof Problem ? error.detail : String(error);
      await tick();
      document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus();
    }
  }
</script>

<SiteBand at="overview" />
<main>
  <h1>{m.bringUps.title}</h1>
  <div class="sheet">
    {#each list.data ?? [] as brief (brief.id)}
      <a href={path(brief.id, 'board')}
        ><b>{brief.name}</b>
        <span class="sub"
          >{brief.site} · {m.bringUps.size(brief.units, brief.signed)}{brief.due
            ? ` · ${m.frame.due} ${onDay(brief.due)}`
            : ''}</span
        ></a
      >
    {:else}
      {#if list.data}<p>{m.bringUps.none}</p>{/if}
    {/each}
  </div>
  <!-- below the list: shown before the list, it would move away under the pointer -->
  {#if session.mayWork && !list.isPending}<B look="go" onclick={open}>{m.bringUps.begin}</B>{/if}
</main>
{#if beginning}
  <Dialog title={m.bringUps.begin} onclose={() => (beginning = false)}>
    <form onsubmit={(event) => void begin(event)}>
      <Label>{m.bringUps.name}<Input bind:value={name} required maxlength={80} /></Label>
      <Label>{m.bringUps.siteName}<Input bind:value={siteName} required /></Label>
      <Label
        >{m.bringUps.site}<Input
          class="mono"
          bind:value={siteCode}
          required
          maxlength={12}
          placeholder="ard"
          aria-invalid={faults.siteCode ? 'true' : undefined}
        /><span class:bad={faults.siteCode} class="sub">{faults.siteCode ?? m.bringUps.siteHint}</span></Label
      >
      <Label>{m.bringUps.due}<Input type="date" bind:value={due} /></Label>
      <Label
        >{m.bringUps.positions}<Textarea
          class="mono w-full"
          bind:value={positions}
          rows={5}
          placeholder="R1 u5"
          aria-invalid={faults.positions ? 'true' : undefined}
        /><span class:bad={faults.positions} class="sub">{faults.positions ?? m.bringUps.positionsHint}</span></Label
      >
      {#if fault}<p class="say" role="alert">{fault}</p>{/if}
      <div><B look="go" type="submit">{m.bringUps.button}</B></div>
    </form>
  </Dialog>
{/if}

<style>
  main {
    max-width: 640px;
    margin: 30px auto;
    padding: 0 16px;
    display: grid;
    gap: 14px;
    justify-items: start;
  }
  .sheet {
    width: 100%;
  }
  .sheet a {
    display: block;
    padding: 12px 16px;
    text-decoration: none;
    color: var(--ink);
    font-weight: 400;
  }
  .sheet a + a {
    border-top: 1px solid var(--line2);
  }
  .sheet a:hover {
    background: var(--lamp2);
  }
  .sheet p {
    padding: 0 16px;
  }
  form {
    display: grid;
    gap: 12px;
  }
</style>
