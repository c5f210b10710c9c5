<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { TraitChange } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /**
   * One thing that is not as it was accepted, with both values; a person accepts the new one, or holds it for a fault.
   */
  let { change, brief = false, onlook }: { change: TraitChange; brief?: boolean; onlook?: () => void } = $props();
  let asking = $state(false);
  let reason = $state('');

  const short = (value: string) => (brief && value.length > 24 ? `${value.slice(0, 22)}…` : value);

  async function decide(accept: boolean): Promise<void> {
    try {
      await api.post(`/endpoints/${change.claimId}/changes`, {
        what: change.what,
        now: change.now,
        accept,
        reason: accept ? null : reason,
      });
      asking = false;
      await api.post(`/bring-ups/${bringUpId()}/checks`, { units: [change.unitId] });
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }
</script>

<p>
  <b
    >{brief
      ? m.prove.changedOf(change.name, change.what, atTime(change.since))
      : `${change.what}, ${atTime(change.since)}`}</b
  ><br />
  {m.prove.was} <span class="mono">{short(change.before)}</span>, {m.prove.is}
  <span class="mono now">{short(change.now)}</span>
  {#if change.fault}<br /><span class="fault">{m.prove.held(change.by, change.reason)}</span
    >{:else if !change.acceptable && !brief}<br /><span class="sub">{m.prove.notAcceptable}</span>{/if}
</p>
{#if brief}
  <B onclick={onlook}>{m.prove.look}</B>
{:else if session.mayWork}
  {#if asking}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void decide(false);
      }}
    >
      <label class="sub">{m.prove.why}<Input size="sm" bind:value={reason} maxlength={400} required autofocus /></label>
      <B type="submit" look="stop">{m.prove.hold}</B>
    </form>
  {:else}
    <div class="row">
      {#if change.acceptable}<B onclick={() => void decide(true)}
          >{change.what === 'certificate' || change.what === 'host key' ? m.prove.acceptSerial : m.prove.accept}</B
        >{/if}
      {#if !change.fault}<B onclick={() => (asking = true)}>{m.prove.hold}</B>{/if}
    </div>
  {/if}
{/if}

<style>
  p {
    margin: 4px 0;
    overflow-wrap: anywhere;
    font-size: 13px;
  }
  .mono {
    font-size: 11.5px;
  }
  .now {
    color: var(--fault);
    font-weight: 650;
  }
  .fault {
    color: var(--fault);
  }
  .row,
  form {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: end;
    margin: 6px 0 8px;
  }
  form label {
    flex: 1 1 160px;
  }
</style>
