<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { SignStanding, UnitPart } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';

  /**
   * What may happen to a unit after it was in use: it is opened for a change, a machine of it is replaced, or it is
   * retired.
   */
  let { units, start, onclose }: { units: SignStanding[]; start: SignStanding; onclose: () => void } = $props();
  const l = m.handover.life;
  type Act = 'reopenings' | 'replacements' | 'retirement';
  // svelte-ignore state_referenced_locally
  let unitId = $state(start.unitId);
  const unit = $derived(units.find((each) => each.unitId === unitId) ?? start);
  // svelte-ignore state_referenced_locally
  let act = $state<Act>(start.state === 'SIGNED' ? 'reopenings' : 'replacements');
  const parts = createQuery(() => ({
    queryKey: ['parts', unitId],
    queryFn: () => api.get<UnitPart[]>(`/units/${unitId}/members`),
  }));
  let member = $state('');
  const part = $derived(parts.data?.find((each) => each.member === member) ?? parts.data?.[0]);
  let typed = $state<Record<string, string>>({});
  let firstAddress = $state('');
  let why = $state('');
  let faults = $state<Record<string, string>>({});
  let fault = $state('');
  let busy = $state(false);

  async function carryOut(): Promise<void> {
    busy = true;
    faults = {};
    fault = '';
    try {
      await api.post(
        `/units/${unitId}/${act}`,
        act === 'replacements'
          ? { member: part?.member ?? '', facts: typed, firstAddress: firstAddress || null, why }
          : { why },
      );
      notices.say(l.done[act](unit.unit));
      lookAgain();
      onclose();
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) fault = (error as Error).message;
    }
    busy = false;
  }
</script>

<Dialog title={l.title} {onclose}>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void carryOut();
    }}
  >
    <label
      >{l.unit}<Select
        bind:value={unitId}
        items={units.map((each) => ({ value: each.unitId, name: each.unit }))}
        placeholder=""
      /></label
    >
    <fieldset>
      <legend>{l.what}</legend>
      {#each Object.entries(l.acts) as [value, words] (value)}
        <label class="act"
          ><input type="radio" bind:group={act} {value} disabled={value === 'reopenings' && unit.state !== 'SIGNED'} />
          <span><b>{words[0]}</b><br /><span class="sub">{words[1]}</span></span></label
        >
      {/each}
    </fieldset>
    {#if act === 'replacements'}
      {#if (parts.data?.length ?? 0) > 1}<label
          >{l.machine}<Select
            bind:value={() => part?.member ?? '', (to: string) => (member = to)}
            items={(parts.data ?? []).map((each) => ({ value: each.member, name: each.member || unit.unit }))}
            placeholder=""
          /></label
        >{/if}
      {#if parts.data?.length === 0}<p class="sub">{l.noParts}</p>{/if}
      <div class="facts">
        {#each Object.entries(part?.facts ?? {}) as [name, bears] (name)}
          <label
            >{l.fact(bears.title, bears.value)}<Input
              class="mono"
              bind:value={() => typed[name] ?? '', (to: string) => (typed[name] = to)}
              aria-invalid={name in faults}
              spellcheck="false"
              autocomplete="off"
            />{#if faults[name]}<span class="fault">{faults[name]}</span>{/if}</label
          >
        {/each}
        <label
          >{l.first}<Input
            class="mono"
            bind:value={firstAddress}
            aria-invalid={'firstAddress' in faults}
            spellcheck="false"
            autocomplete="off"
          />{#if faults.firstAddress}<span class="fault">{faults.firstAddress}</span>{/if}</label
        >
      </div>
    {/if}
    <label
      >{m.handover.itemReason}<Input bind:value={why} aria-invalid={'why' in faults} />{#if faults.why}<span
          class="fault">{faults.why}</span
        >{/if}</label
    >
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
    <div class="end">
      <B onclick={onclose}>{m.handover.notNow}</B><B
        type="submit"
        look="stop"
        disabled={busy || !why.trim() || (act === 'replacements' && !part)}>{l.press[act](unit.unit)}</B
      >
    </div>
  </form>
</Dialog>

<style>
  form {
    display: grid;
    gap: 10px;
  }
  label {
    display: grid;
    gap: 3px;
    font-size: 13px;
    color: var(--ink2);
  }
  fieldset {
    border: 0;
    padding: 0;
    display: grid;
    gap: 6px;
  }
  legend {
    font-size: 13px;
    color: var(--ink2);
    padding: 0 0 4px;
  }
  .act {
    display: flex;
    gap: 9px;
    align-items: flex-start;
    color: var(--ink);
  }
  .act input {
    margin-top: 4px;
    accent-color: var(--lamp-ink);
  }
  .act b {
    font-weight: 600;
  }
  .facts {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px;
    align-items: end;
  }
  .fault {
    color: var(--fault);
    font-size: 12.5px;
  }
  .end {
    display: flex;
    gap: 8px;
    justify-content: flex-end;
  }
  @media (max-width: 700px) {
    .facts {
      grid-template-columns: 1fr;
    }
  }
</style>
