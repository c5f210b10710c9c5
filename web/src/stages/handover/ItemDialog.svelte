<script lang="ts">
  import { Input, Select } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { lookAgain } from '../../lib/query';
  import type { HandoverView, SignStanding } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let {
    units,
    start = null,
    onclose,
  }: { units: SignStanding[]; start?: HandoverView['proposed'][number] | null; onclose: () => void } = $props();
  let sort = $state<'open' | 'exception'>('open');
  // svelte-ignore state_referenced_locally
  let unit = $state(start?.unitId ?? 0);
  // svelte-ignore state_referenced_locally
  let text = $state(start?.text ?? '');
  let reason = $state('');
  // svelte-ignore state_referenced_locally
  let due = $state(start?.due ?? '');
  let faults = $state<Record<string, string>>({});
  let fault = $state('');

  async function note(): Promise<void> {
    faults = {};
    fault = '';
    try {
      await api.post(`/bring-ups/${bringUpId()}/items`, { sort, unit: unit || null, text, reason, due: due || null });
      lookAgain();
      onclose();
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) fault = (error as Error).message;
    }
  }
</script>

<Dialog title={m.handover.item} {onclose}>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void note();
    }}
  >
    <label
      >{m.handover.itemSort}<Select
        size="sm"
        bind:value={sort}
        items={[
          { value: 'open', name: m.handover.sorts.open },
          { value: 'exception', name: m.handover.sorts.exception },
        ]}
        placeholder=""
      /></label
    >
    <label
      >{m.handover.itemUnit}<Select
        size="sm"
        bind:value={unit}
        items={[
          { value: 0, name: m.handover.allUnits },
          ...units.map((each) => ({ value: each.unitId, name: each.unit })),
        ]}
        placeholder=""
      /></label
    >
    <label
      >{m.handover.itemText}<Input
        size="sm"
        bind:value={text}
        placeholder={m.handover.itemTextSample}
        aria-invalid={!!faults.text}
      />{#if faults.text}<span class="fault">{faults.text}</span>{/if}</label
    >
    <label
      >{m.handover.itemReason}<Input
        size="sm"
        bind:value={reason}
        aria-invalid={!!faults.reason}
      />{#if faults.reason}<span class="fault">{faults.reason}</span>{/if}</label
    >
    <label
      >{m.handover.itemDue}<Input
        size="sm"
        type="date"
        bind:value={due}
        aria-invalid={!!faults.due}
      />{#if faults.due}<span class="fault">{faults.due}</span>{/if}</label
    >
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
    <div class="end">
      <B onclick={onclose}>{m.handover.notNow}</B><B type="submit" look="go">{m.handover.noteIt}</B>
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
  .fault {
    color: var(--fault);
    font-size: 12.5px;
  }
  .end {
    display: flex;
    gap: 8px;
    justify-content: flex-end;
  }
</style>
