<script lang="ts">
  import { live } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import { atTime, inFull } from '../../lib/time';
  import type { Detail, MarkName } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Mark from '../../parts/Mark.svelte';
  import ReadOnMachine from '../../parts/ReadOnMachine.svelte';
  import CertificatePart from './CertificatePart.svelte';
  import ChangeCard from './ChangeCard.svelte';
  import Strip from './Strip.svelte';
  import { m } from '../../messages';

  let {
    unitId,
    claimId,
    oncheck,
    onsend,
  }: { unitId: number; claimId: number; oncheck: () => void; onsend: () => void } = $props();
  const detail = live<Detail>(() => `/units/${unitId}/proof?claim=${claimId}`);
  const marks: Record<string, MarkName> = { HOLDS: 'done', BROKEN: 'fault', NOT_REACHED: 'dark', NOT_MEASURED: 'dark' };
</script>

{#if detail.data}
  {@const { endpoint } = detail.data}
  <h2 class="mono">{endpoint.name}</h2>
  <div class="sub"><span class="mono">{endpoint.address}</span> · {endpoint.position} · {endpoint.serial}</div>
  {#if endpoint.settingUp}
    <div class="say wait">{m.prove.settingUp}</div>
  {:else if endpoint.at}
    <div class="say" class:good={endpoint.proven}>
      <b>{endpoint.sentence}</b>{#if detail.data.press}<br />{detail.data.press}{/if}
    </div>
  {:else}
    <div class="say wait">{endpoint.ready ? m.prove.never : m.prove.notReady}</div>
  {/if}
  {#if detail.data.toCompare !== null && session.mayWork}
    <p class="sub">{m.compare.none}</p>
    <ReadOnMachine dialogueId={detail.data.toCompare} onrecorded={oncheck} />
  {/if}
  {#each [...detail.data.rungs, ...detail.data.marks] as rung, i (rung.title)}
    <div class="rung">
      <Mark mark={marks[rung.standing]!} size={15} word={m.prove.standing[rung.standing]} /><b
        >{i < 7 ? `${i + 1} ` : ''}{rung.title}</b
      >
      <span>
        {rung.seen || m.prove.standing[rung.standing]}
        {#each rung.parts as part (part.name)}<small
            class:off={part.standing === 'BROKEN'}
            class:skip={part.standing === 'NOT_MEASURED'}
            ><Mark mark={marks[part.standing]!} size={11} word={m.prove.standing[part.standing]} /><span
              >{part.name}: {part.seen}</span
            ></small
          >{/each}
        {#if i < 7}<Strip rung={i} title={rung.title} before={detail.data.before} />{/if}
      </span>
    </div>
  {/each}
  {#if detail.data.fields.length > 0}
    <h3>{m.prove.planned}</h3>
    {#each detail.data.fields as field (field.name)}
      <div class="pair" class:off={!field.agrees}>
        <span class="sub">{field.name}</span><span class="mono">{field.planned}</span><span class="mono"
          >{field.found || '—'}</span
        >
      </div>
    {/each}
  {/if}
  {#if detail.data.changes.length > 0}
    <h3>{m.prove.changed}</h3>
    {#each detail.data.changes as change (change.what)}<ChangeCard {change} />{/each}
  {/if}
  {#if detail.data.fingerprint}
    <h3>{m.prove.certificate}</h3>
    <div class="mono print">{detail.data.fingerprint}</div>
    {#if session.mayWork && detail.data.certificate}<CertificatePart
        {endpoint}
        way={detail.data.certificate}
        signing={detail.data.signing}
        {oncheck}
      />{/if}
  {/if}
  {#if detail.data.hostKey}
    <h3>{m.prove.hostKey}</h3>
    <div class="mono print">{detail.data.hostKey}</div>
  {/if}
  {#if detail.data.firmware}<div class="sub">{m.prove.firmware} {detail.data.firmware}</div>{/if}
  {#if session.mayWork && !endpoint.settingUp}<div class="row">
      <B look={endpoint.proven ? 'plain' : 'go'} key="x" disabled={endpoint.checking} onclick={oncheck}
        >{m.prove.checkOne}</B
      >{#if endpoint.beside.NAME === 'BROKEN' || endpoint.beside.REVERSE === 'BROKEN'}<B onclick={onsend}
          >{m.prove.sendAgain}</B
        >{/if}{#if endpoint.at}<span class="sub" title={inFull(endpoint.at)}
          >{m.prove.last} {atTime(endpoint.at)} {m.prove.from} {detail.data.place}</span
        >{/if}
    </div>{/if}
  {#if detail.data.before.length > 1}
    <h3>{m.prove.before}</h3>
    {#each detail.data.before as was (was.at)}<div class="sub entry">
        <span class="mono" title={inFull(was.at)}>{atTime(was.at)}</span>
        {m.prove.rungsHeld(was.height)} · {was.sentence}
      </div>{/each}
  {/if}
  {#if detail.data.journal.length > 0}
    <h3>{m.prove.history}</h3>
    {#each detail.data.journal as entry, i (i)}<div class="sub entry">
        <span class="mono" title={inFull(entry.at)}>{atTime(entry.at)}</span>
        {entry.actor}: {entry.act}
      </div>{/each}
  {/if}
{/if}

<style>
  .rung {
    display: grid;
    grid-template-columns: 20px 84px 1fr;
    gap: 6px;
    padding: 4px 0;
    border-bottom: 1px solid var(--line2);
    font-size: 13px;
    align-items: baseline;
  }
  .rung small {
    display: flex;
    gap: 5px;
    align-items: baseline;
    color: var(--ink2);
    font-size: 12px;
  }
  .rung small.off {
    color: var(--fault);
  }
  .rung small.skip {
    color: var(--ink3, var(--ink2));
    font-style: italic;
  }
  .rung b {
    font-weight: 600;
  }
  .rung > span {
    overflow-wrap: anywhere;
    min-width: 0;
  }
  small > span {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .pair {
    display: grid;
    grid-template-columns: 76px 1fr 1fr;
    gap: 6px;
    padding: 3px 0;
    border-bottom: 1px solid var(--line2);
    align-items: baseline;
  }
  .pair .mono {
    font-size: 11.5px;
    overflow-wrap: anywhere;
  }
  .off .mono:last-child {
    color: var(--fault);
    font-weight: 650;
  }
  .print {
    font-size: 11px;
    overflow-wrap: anywhere;
  }
  .row {
    display: flex;
    gap: 10px;
    align-items: center;
    margin-top: 12px;
  }
  .entry {
    padding: 2px 0;
    overflow-wrap: anywhere;
  }
</style>
