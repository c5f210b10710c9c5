<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { lookAgain } from '../../lib/query';
  import type { SignStanding } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';

  let { unit, onclose }: { unit: SignStanding; onclose: () => void } = $props();
  let why = $state('');
  let fault = $state('');

  async function open(): Promise<void> {
    fault = '';
    try {
      await api.post(`/units/${unit.unitId}/reopenings`, { why });
      lookAgain();
      onclose();
    } catch (error) {
      fault = (error as Error).message;
    }
  }
</script>

<Dialog title={m.handover.reopenTitle(unit.unit)} {onclose}>
  <form onsubmit={(event) => { event.preventDefault(); void open(); }}>
    <p>{m.handover.reopenSay}</p>
    <Input size="sm" bind:value={why} aria-label={m.handover.itemReason} placeholder={m.handover.itemReason} />
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
    <div class="end"><B onclick={onclose}>{m.handover.notNow}</B><B type="submit" look="stop" disabled={!why.trim()}>{m.handover.reopen}</B></div>
  </form>
</Dialog>

<style>
  form { display: grid; gap: 10px; } .fault { color: var(--fault); } .end { display: flex; gap: 8px; justify-content: flex-end; }
</style>
