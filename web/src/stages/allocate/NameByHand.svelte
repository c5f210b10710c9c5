<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';

  /** A host name for one unit, typed in place of the one by the pattern. */
  let { unitId, now }: { unitId: number; now: string } = $props();
  const a = m.allocate.byHand;
  const id = $props.id();
  let typed = $state('');
  let fault = $state('');
  let busy = $state(false);

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    fault = '';
    try {
      await api.put(`/units/${unitId}/name`, { name: typed });
      notices.say(a.saved(typed));
      typed = '';
    } catch (error) {
      fault = error instanceof Problem ? (error.faults.name ?? error.detail) : String(error);
    } finally {
      busy = false;
    }
    lookAgain();
  }
</script>

<form onsubmit={(event) => void save(event)}>
  <Label for="{id}-name">{a.label}</Label>
  <div class="row">
    <Input
      id="{id}-name"
      class="mono"
      bind:value={typed}
      placeholder={now}
      maxlength={63}
      spellcheck="false"
      autocapitalize="none"
      aria-invalid={fault ? 'true' : undefined}
      aria-describedby="{id}-fault"
    /><B type="submit" disabled={busy || typed.trim() === ''}>{a.save}</B>
  </div>
  {#if fault}<p id="{id}-fault" class="fault" role="alert">{fault}</p>{/if}
</form>

<style>
  form {
    display: grid;
    gap: 4px;
    margin: 8px 0;
  }
  .row {
    display: flex;
    gap: 8px;
  }
  .fault {
    color: var(--fault);
    margin: 0;
    font-size: 13px;
  }
</style>
