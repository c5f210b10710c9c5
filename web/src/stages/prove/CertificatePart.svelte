<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';

  /** Has the machine's certificate replaced by a signed one: its request out, the chain back. */
  let { claimId, request, oncheck }: { claimId: number; request: string | null; oncheck: () => void } = $props();
  let chain = $state('');
  let busy = $state(false);

  async function doing(act: () => Promise<unknown>): Promise<boolean> {
    busy = true;
    try {
      await act();
      return true;
    } catch (error) {
      notices.fault(error);
      return false;
    } finally {
      busy = false;
      lookAgain();
    }
  }

  async function putIn(): Promise<void> {
    if (await doing(() => api.post(`/endpoints/${claimId}/certificate-chain`, { chain }))) {
      chain = '';
      notices.say(m.prove.putInDone);
      oncheck();
    }
  }
</script>

{#if request}
  <p class="sub">{m.prove.requestMade}</p>
  <pre class="mono">{request}</pre>
  <div class="row">
    <B onclick={() => void navigator.clipboard.writeText(request).then(() => notices.say(m.prove.copied))}
      >{m.prove.copy}</B
    >
  </div>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void putIn();
    }}
  >
    <label class="sub"
      >{m.prove.chain}<Textarea
        bind:value={chain}
        rows={4}
        class="w-full font-mono text-xs"
        required
        spellcheck="false"
      /></label
    >
    <B type="submit" look="go" disabled={busy}>{m.prove.putIn}</B>
  </form>
{/if}
<div class="row">
  <B disabled={busy} onclick={() => void doing(() => api.post(`/endpoints/${claimId}/certificate-request`, {}))}
    >{m.prove.request}</B
  >
</div>

<style>
  pre {
    font-size: 10px;
    max-height: 110px;
    overflow: auto;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 6px;
    margin: 4px 0;
  }
  .row {
    display: flex;
    gap: 8px;
    margin: 6px 0;
  }
  p {
    margin: 6px 0 2px;
  }
  form {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  form label {
    width: 100%;
  }
</style>
