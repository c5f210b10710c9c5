<script lang="ts">
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { SignStanding } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { ready, onclose }: { ready: SignStanding[]; onclose: () => void } = $props();
  // as it was when the dialog was opened: that is what is signed, or nothing is
  // svelte-ignore state_referenced_locally
  const seen = ready.map((unit) => ({ unit: unit.unitId, face: unit.face, name: unit.unit }));
  let chosen = $state(seen.map((unit) => unit.unit));
  let busy = $state(false);
  let fault = $state('');

  async function sign(): Promise<void> {
    busy = true;
    fault = '';
    try {
      const signed = await api.post<{ name: string; digest: string }[]>(`/bring-ups/${bringUpId()}/signatures`, {
        units: seen.filter((unit) => chosen.includes(unit.unit)).map(({ unit, face }) => ({ unit, face })),
      });
      notices.say(m.handover.signed(signed.length));
      lookAgain();
      onclose();
    } catch (error) {
      fault = (error as Error).message;
      lookAgain();
    }
    busy = false;
  }
</script>

<Dialog title={m.handover.signTitle(chosen.length)} {onclose}>
  <p>{m.handover.signSay}</p>
  <div class="list">
    {#each seen as unit (unit.unit)}
      <label
        ><input
          type="checkbox"
          checked={chosen.includes(unit.unit)}
          onchange={(event) =>
            (chosen = event.currentTarget.checked
              ? [...chosen, unit.unit]
              : chosen.filter((each) => each !== unit.unit))}
        /> <b class="mono">{unit.name}</b></label
      >
    {/each}
  </div>
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  <div class="end">
    <B onclick={onclose}>{m.handover.notNow}</B><B
      look="go"
      disabled={busy || chosen.length === 0}
      onclick={() => void sign()}>{m.handover.sign(chosen.length)}</B
    >
  </div>
</Dialog>

<style>
  .list {
    max-height: 300px;
    overflow-y: auto;
    border: 1px solid var(--line2);
    border-radius: 5px;
    padding: 6px 10px;
    margin: 10px 0;
    columns: 2 180px;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 3px 0;
    break-inside: avoid;
  }
  b {
    font-weight: 600;
  }
  .fault {
    color: var(--fault);
  }
  .end {
    display: flex;
    gap: 8px;
    justify-content: flex-end;
  }
</style>
