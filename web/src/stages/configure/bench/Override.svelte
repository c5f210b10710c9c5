<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import B from '../../../parts/B.svelte';
  import Dialog from '../../../parts/Dialog.svelte';
  import { m } from '../../../messages';

  /** Asks for the reason to go on although something speaks against it. */
  let {
    title = m.bench.prerequisiteTitle,
    sentence,
    busy,
    ongo,
    onclose,
  }: {
    title?: string;
    sentence: string;
    busy: boolean;
    ongo: (reason: string) => void;
    onclose: () => void;
  } = $props();
  const SHORTEST = 8;
  let reason = $state('');
</script>

<Dialog {title} {onclose}>
  <p>{sentence}</p>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      ongo(reason);
    }}
  >
    <label>{m.bench.reason}<Input bind:value={reason} /></label>
    <div class="row">
      <B look="go" type="submit" disabled={busy || reason.trim().length < SHORTEST}>{m.bench.override}</B><B
        onclick={onclose}>{m.bench.leave}</B
      >
    </div>
  </form>
</Dialog>

<style>
  .row {
    display: flex;
    gap: 8px;
    margin-top: 12px;
  }
</style>
