<script lang="ts">
  import Dialog from '../parts/Dialog.svelte';
  import { m } from '../messages';
  import { stageOfPath } from '../routes';

  let { onclose }: { onclose: () => void } = $props();
  const stage = stageOfPath();
</script>

<Dialog title={m.keys.title} {onclose}>
  <dl>
    {#each [...(m.keys.stage[stage] ?? []), ...m.keys.list] as [key, what] (key)}
      <dt><kbd>{key}</kbd></dt>
      <dd>{what}</dd>
    {/each}
  </dl>
</Dialog>

<style>
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 8px 18px;
    margin: 0;
  }
  dd {
    margin: 0;
  }
</style>
