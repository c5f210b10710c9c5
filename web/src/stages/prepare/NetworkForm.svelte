<script lang="ts">
  import { Input, Label, Select } from 'flowbite-svelte';
  import { tick, untrack } from 'svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { PrepareView, RangeText, Statement } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /** What another network of the site leans on is proposed for the first one of a bring-up. */
  let {
    start,
    like,
    further,
    onclose,
  }: { start: Statement | null; like?: PrepareView['choices'][number]; further: boolean; onclose: () => void } =
    $props();
  const key = `lychnos-network-${bringUpId()}-${untrack(() => start?.id ?? (further ? 'further' : 'first'))}`;
  const f = m.prepare.fields;
  const purposes = Object.entries(m.prepare.purpose).map(([value, name]) => ({ value, name }));

  interface Draft {
    name: string;
    prefix: string;
    gateway: string;
    vlan: string;
    domain: string;
    nameServers: string;
    timeServers: string;
    ranges: RangeText[];
    purpose: string;
    segment: string;
    realm: string;
    mtu: string;
    permanent: boolean;
    version: string | null;
  }

  function fresh(): Draft {
    const kept = sessionStorage.getItem(key);
    if (kept) return JSON.parse(kept) as Draft;
    return start
      ? {
          ...start,
          vlan: start.vlan === null ? '' : String(start.vlan),
          nameServers: start.nameServers.join(' '),
          timeServers: start.timeServers.join(' '),
          mtu: start.mtu === null ? '' : String(start.mtu),
          ranges: start.ranges.map((range) => ({ ...range })),
        }
      : {
          name: '',
          prefix: '',
          gateway: '',
          vlan: '',
          domain: untrack(() => like?.domain) ?? '',
          nameServers: untrack(() => like?.nameServers)?.join(' ') ?? '',
          timeServers: untrack(() => like?.timeServers)?.join(' ') ?? '',
          purpose: untrack(() => further) ? 'storage-data' : 'management',
          segment: '',
          realm: '',
          mtu: '',
          permanent: false,
          version: null,
          ranges: [
            { purpose: 'pool', run: '', note: '' },
            { purpose: 'dhcp', run: '', note: '' },
          ],
        };
  }

  const draft = $state(untrack(fresh));
  let faults = $state<Record<string, string>>({});
  let fault = $state('');
  let busy = $state(false);

  /** What was typed outlives a reload. */
  function keep(): void {
    sessionStorage.setItem(key, JSON.stringify(draft));
  }

  const words = (text: string) => text.split(/[\s,;]+/).filter(Boolean);

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    faults = {};
    fault = '';
    try {
      await api.put(`/bring-ups/${bringUpId()}/${further ? 'networks' : 'network'}`, {
        ...draft,
        id: start?.id ?? null,
        mtu: draft.mtu === '' ? null : Number(draft.mtu),
        vlan: draft.vlan === '' ? null : Number(draft.vlan),
        nameServers: words(draft.nameServers),
        timeServers: words(draft.timeServers),
        ranges: draft.ranges.filter((range) => range.run.trim() !== ''),
      });
      sessionStorage.removeItem(key);
      notices.say(m.prepare.saved);
      lookAgain();
      onclose();
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (error instanceof Problem && error.status === 412) {
        // after the message, the person can save again
        draft.version = String(error.members.version);
        lookAgain();
      }
      fault = Object.keys(faults).length === 0 ? (error instanceof Problem ? error.detail : String(error)) : '';
      await tick();
      document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus();
    } finally {
      busy = false;
    }
  }

  function cancel(): void {
    sessionStorage.removeItem(key);
    onclose();
  }

  const id = $props.id();
  const rangeFault = $derived(
    Object.entries(faults)
      .filter(([field]) => field.startsWith('ranges'))
      .map(([, reason]) => reason),
  );
</script>

{#snippet text(
  field:
    'name' | 'prefix' | 'gateway' | 'vlan' | 'domain' | 'nameServers' | 'timeServers' | 'segment' | 'realm' | 'mtu',
  hint?: string,
)}
  <div class="field {field}">
    <Label for="{id}-{field}">{f[field]}</Label>
    <Input
      id="{id}-{field}"
      class={field === 'name' ? '' : 'mono'}
      bind:value={draft[field]}
      oninput={keep}
      aria-invalid={field in faults}
      aria-describedby="{id}-{field}-hint"
      spellcheck="false"
      autocomplete="off"
    />
    <span id="{id}-{field}-hint" class={field in faults ? 'bad' : 'sub'}>{faults[field] ?? hint ?? ''}</span>
  </div>
{/snippet}

<Dialog title={start ? f.name + ': ' + start.name : m.prepare.define} wide {onclose}>
  <form onsubmit={(event) => void save(event)}>
    {@render text('name')}
    {@render text('prefix', m.prepare.hints.prefix)}
    {@render text('gateway')}
    {@render text('vlan', m.prepare.hints.vlan)}
    {@render text('domain')}
    <div class="field">
      <Label for="{id}-purpose">{f.purpose}</Label>
      <Select
        id="{id}-purpose"
        class="w-full"
        items={Object.entries(m.prepare.purposes).map(([value, name]) => ({ value, name }))}
        bind:value={draft.purpose}
        onchange={keep}
        disabled={!further}
      />
    </div>
    {@render text('mtu', m.prepare.hints.mtu)}
    {@render text('segment', m.prepare.hints.segment)}
    {@render text('realm', m.prepare.hints.realm)}
    {@render text('nameServers', m.prepare.hints.servers)}
    {@render text('timeServers', m.prepare.hints.servers)}
    <fieldset>
      <legend>{f.ranges} <span class="sub">{m.prepare.hints.run}</span></legend>
      {#each draft.ranges as range, i (i)}
        <div class="range">
          <Select class="w-full" aria-label={f.ranges} items={purposes} bind:value={range.purpose} onchange={keep} />
          <Input
            class="mono"
            aria-label="{f.ranges} {i + 1}"
            bind:value={range.run}
            oninput={keep}
            placeholder=".101-.180"
            aria-invalid={`ranges.${i}` in faults}
          />
          <Input aria-label={m.prepare.note} bind:value={range.note} oninput={keep} placeholder={m.prepare.note} />
          <B
            onclick={() => {
              draft.ranges.splice(i, 1);
              keep();
            }}>{m.prepare.removeRange}</B
          >
        </div>
      {/each}
      {#each rangeFault as reason (reason)}<p class="bad">{reason}</p>{/each}
      <B
        onclick={() => {
          draft.ranges.push({ purpose: 'pool', run: '', note: '' });
          keep();
        }}>{m.prepare.addRange}</B
      >
    </fieldset>
    <label class="perm sub"
      ><input type="checkbox" bind:checked={draft.permanent} onchange={keep} /> {m.prepare.permanentNetwork}</label
    >
    {#if fault}<p class="say" role="alert">{fault}</p>{/if}
    <div class="row">
      <B look="go" type="submit" disabled={busy}>{m.prepare.save}</B><B onclick={cancel}>{m.prepare.cancel}</B>
    </div>
  </form>
</Dialog>

<style>
  form {
    display: grid;
    grid-template-columns: repeat(12, 1fr);
    gap: 10px 14px;
  }
  .field {
    grid-column: span 4;
  }
  .nameServers,
  .timeServers,
  .segment,
  .realm {
    grid-column: span 6;
  }
  fieldset,
  .row,
  .say,
  .perm {
    grid-column: 1 / -1;
  }
  .domain {
    grid-column: span 8;
  }
  fieldset {
    border: 0;
    padding: 0;
    display: grid;
    gap: 7px;
    justify-items: start;
  }
  legend {
    font-weight: 500;
    padding-bottom: 4px;
  }
  .range {
    display: grid;
    grid-template-columns: 190px 1fr 1fr auto;
    gap: 8px;
    width: 100%;
    align-items: center;
  }
  .row {
    display: flex;
    gap: 8px;
  }
  p {
    margin: 0;
  }
  @media (max-width: 700px) {
    .field,
    .nameServers,
    .timeServers,
    .segment,
    .realm,
    .domain {
      grid-column: 1 / -1;
    }
    .range {
      grid-template-columns: 1fr 1fr;
    }
  }
</style>
