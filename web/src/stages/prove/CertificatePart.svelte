<script lang="ts">
  import { Textarea } from 'flowbite-svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import type { CertificateWay, Endpoint, Signing } from '../../lib/types';

  /**
   * Has the machine's certificate replaced by a signed one: its request out, the chain back. Where the machine has no
   * interface for that, a person makes the request and installs the certificate on its page.
   */
  let {
    endpoint,
    way,
    signing,
    oncheck,
  }: { endpoint: Endpoint; way: CertificateWay; signing: Signing | null; oncheck: () => void } = $props();
  const t = m.prove.byHand;
  let chain = $state('');
  let request = $state('');
  let entering = $state(false);
  let busy = $state(false);
  const path = $derived(`/endpoints/${endpoint.claimId}/certificate-`);

  async function doing(what: string, body: Record<string, string>): Promise<boolean> {
    busy = true;
    try {
      await api.post(path + what, body);
      return true;
    } catch (error) {
      notices.fault(error);
      return false;
    } finally {
      busy = false;
      lookAgain();
    }
  }

  async function enter(): Promise<void> {
    if (await doing('request', { request })) {
      request = '';
      entering = false;
    }
  }

  async function putIn(): Promise<void> {
    const byHand = signing?.way === 'BY_HAND';
    if (await doing('chain', { chain })) {
      chain = '';
      if (!byHand) done();
    }
  }

  async function installed(): Promise<void> {
    if (await doing('installed', {})) done();
  }

  function done(): void {
    notices.say(m.prove.putInDone);
    oncheck();
  }

  function copy(text: string): void {
    void navigator.clipboard.writeText(text).then(() => notices.say(m.prove.copied));
  }
</script>

{#snippet pem(say: string, text: string)}
  <p class="sub">{say}</p>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <pre class="mono" tabindex="0" aria-label={say}>{text}</pre>
{/snippet}

{#snippet entry(
  label: string,
  press: string,
  submit: () => Promise<void>,
  get: () => string,
  set: (to: string) => void,
)}
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void submit();
    }}
  >
    <label class="sub"
      >{label}<Textarea
        bind:value={get, set}
        rows={4}
        class="w-full font-mono text-xs"
        required
        spellcheck="false"
      /></label
    >
    <B type="submit" look="go" disabled={busy}>{press}</B>
  </form>
{/snippet}

{#if signing?.chain}
  {@render pem(t.install, signing.chain)}
  <div class="row">
    <B look="go" disabled={busy} onclick={() => void installed()}>{t.installed}</B>
    <B onclick={() => copy(signing?.chain ?? '')}>{m.prove.copy}</B>
  </div>
{:else if signing}
  {@render pem(m.prove.requestMade, signing.request)}
  <div class="row"><B onclick={() => copy(signing?.request ?? '')}>{m.prove.copy}</B></div>
  {@render entry(
    m.prove.chain,
    signing.way === 'BY_HAND' ? t.check : m.prove.putIn,
    putIn,
    () => chain,
    (to) => (chain = to),
  )}
{/if}
{#if entering}
  <p class="sub">{t.names([endpoint.fqdn, endpoint.address])}</p>
  {@render entry(
    t.request,
    t.enter,
    enter,
    () => request,
    (to) => (request = to),
  )}
{/if}
<div class="row">
  {#if way !== 'BY_HAND'}<B disabled={busy} onclick={() => void doing('request', {})}>{m.prove.request}</B>{/if}
  <B onclick={() => (entering = !entering)}>{entering ? t.cancel : t.begin}</B>
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
    flex-wrap: wrap;
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
