<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { download } from '../../lib/download';
  import { lookAgain } from '../../lib/query';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  let { onclose }: { onclose: () => void } = $props();
  let key = $state('');
  let fault = $state('');

  async function seal(): Promise<void> {
    fault = '';
    try {
      await download(`/bring-ups/${bringUpId()}/credentials`, { key });
      lookAgain();
      onclose();
    } catch (error) {
      fault = (error as Error).message;
    }
  }
</script>

<Dialog title={m.handover.credentials} {onclose}>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void seal();
    }}
  >
    <p>{m.handover.credentialsSay}</p>
    <Textarea
      bind:value={key}
      rows={8}
      class="mono"
      aria-label={m.handover.key}
      placeholder={m.handover.keySample}
      spellcheck="false"
    />
    {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
    <div class="end">
      <B onclick={onclose}>{m.handover.notNow}</B><B type="submit" look="go" disabled={!key.trim()}>{m.handover.seal}</B
      >
    </div>
  </form>
</Dialog>

<style>
  form {
    display: grid;
    gap: 10px;
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
