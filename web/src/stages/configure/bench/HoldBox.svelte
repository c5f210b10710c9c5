<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import B from '../../../parts/B.svelte';
  import { m } from '../../../messages';
  import { bringUpId, path } from '../../../routes';
  import type { Hold } from './types';

  /** Why nothing is sent now, and what a person can do about it. What must be typed is typed here letter by letter. */
  let {
    hold,
    mayWork,
    busy,
    recover,
    ongo,
    onlog,
  }: {
    hold: Hold;
    mayWork: boolean;
    busy: boolean;
    /** How the machine gets its planned network again; empty where nobody described it. */
    recover: string;
    ongo: (typed: string) => void;
    /** Fetches the machine's own log; null where nobody described how. */
    onlog: (() => void) | null;
  } = $props();
  let typed = $state('');
  const calm = $derived(
    ['NEXT', 'RESTARTS', 'TERMS', 'PREREQUISITE', 'PEER', 'DATE', 'PERMANENT', 'CONSENT'].includes(hold.why),
  );
  const offNetwork = $derived(['OVERDUE', 'LATE', 'UNREACHED', 'DIFFERS'].includes(hold.why));
  const SHORTEST_REASON = 10;
  const consents = $derived(hold.why === 'CONSENT');
  const wants = $derived(hold.typed !== '' || consents);
  const right = $derived(
    consents ? typed.trim().length >= SHORTEST_REASON : hold.typed === '' || typed.trim() === hold.typed,
  );
  /** Typed, never pasted nor dropped: that is what it is for. */
  const typeIt = (event: Event) => event.preventDefault();
</script>

<form
  class="say"
  class:calm
  aria-live="polite"
  onsubmit={(event) => {
    event.preventDefault();
    ongo(typed);
    typed = '';
  }}
>
  <p>
    {hold.sentence}
    {#if hold.why === 'PREREQUISITE' && hold.step >= 0}<a href={path(bringUpId(), 'prepare')}>{m.bench.openSheet}</a
      >{/if}
  </p>
  {#if hold.shown && !calm}<pre class="mono">{hold.shown.split('\n').slice(-4).join('\n')}</pre>{/if}
  {#if recover && offNetwork}<p>{m.bench.recover(recover)}</p>{/if}
  {#if mayWork && ((hold.passable && (wants || hold.why !== 'NEXT')) || (onlog && !calm))}
    <div class="row">
      {#if consents}<label class="reason"
          ><span class="visually-hidden">{m.bench.consentReason}</span><Input
            bind:value={typed}
            placeholder={m.bench.consentReason}
            autocomplete="off"
            maxlength={500}
          /></label
        >{:else if wants}<label
          ><span class="visually-hidden">{m.bench.typeThis(hold.typed)}</span><Input
            class="mono"
            bind:value={typed}
            placeholder={m.bench.typeHere}
            autocomplete="off"
            spellcheck="false"
            onpaste={typeIt}
            ondrop={typeIt}
          /></label
        >{/if}
      {#if hold.passable}<B look={calm ? 'go' : 'plain'} type="submit" disabled={busy || !right}
          >{m.bench.goOn[hold.why] ?? m.bench.goOn.other}</B
        >{/if}
      {#if onlog && !calm}<B disabled={busy} onclick={onlog}>{m.bench.log.fetch}</B>{/if}
    </div>
  {/if}
</form>

<style>
  .say {
    margin: 0;
    border-radius: 0;
    padding: 8px 12px;
    border-top: 1px solid var(--line2);
  }
  .calm {
    background: var(--lamp2);
    border-left-color: var(--lamp);
  }
  .reason {
    flex: 1 1 260px;
  }
  p {
    margin: 0 0 4px;
  }
  pre {
    margin: 4px 0 6px;
    font-size: 12px;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    max-height: 76px;
    overflow: auto;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    margin-top: 6px;
    flex-wrap: wrap;
  }
  label {
    flex: 1;
    min-width: 180px;
  }
</style>
