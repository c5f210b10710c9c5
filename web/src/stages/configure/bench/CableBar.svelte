<script lang="ts">
  import { notices } from '../../../lib/notices.svelte';
  import { m } from '../../../messages';
  import { cables, serial } from './cables.svelte';

  /** Beside the console of a member whose line is a serial port of this computer: plugged in or not, and by whom. */
  let { dialogue, settings, lineUp }: { dialogue: number; settings: string; lineUp: boolean } = $props();

  const g = m.bench.cable;
  const cable = $derived(cables.of(dialogue));

  $effect(() => {
    void cables.resume(dialogue);
  });

  async function choose(): Promise<void> {
    try {
      cables.plug(dialogue, await serial()!.requestPort());
    } catch (error) {
      // nothing was chosen: the person has closed the browser's own dialog
      if (!(error instanceof DOMException && error.name === 'NotFoundError')) notices.fault(error);
    }
  }
</script>

<div class="bar" role="status">
  {#if cable}
    <span class:bad={cable.state === 'lost' || cable.state === 'taken'}
      >{g.states[cable.state]}{cable.fault ? ` (${cable.fault})` : ''}</span
    >
    <span class="end">
      {#if cable.state === 'lost'}<button type="button" onclick={() => cable.again()}>{g.again}</button>{/if}
      <button type="button" onclick={() => cables.unplug(dialogue)}>{g.disconnect}</button>
    </span>
  {:else if lineUp}
    <span>{g.elsewhere}</span>
  {:else if serial()}
    <span>{g.wanted(settings)}</span>
    <span class="end"><button type="button" class="go" onclick={() => void choose()}>{g.connect}</button></span>
  {:else}
    <span>{g.unsupported}</span>
  {/if}
</div>

<style>
  .bar {
    display: flex;
    gap: 12px;
    align-items: center;
    padding: 6px 12px;
    background: #352c24;
    color: #e4dfd6;
    font-size: 12.5px;
    min-height: 34px;
  }
  .end {
    margin-left: auto;
    display: flex;
    gap: 8px;
    flex: none;
  }
  .bad {
    color: #f0a08c;
  }
  button {
    color: #f4efe6;
    border: 1px solid #8d7f6e;
    border-radius: 4px;
    padding: 2px 10px;
    font-size: 12px;
  }
  .go {
    background: #f3b43a;
    border-color: #f3b43a;
    color: #1a1613;
    font-weight: 600;
  }
</style>
