<script lang="ts">
  import B from '../../../parts/B.svelte';
  import { m } from '../../../messages';
  import type { BenchView, Hold, Member, Mode } from './types';

  /** What can be pressed for a member, below its steps. */
  let {
    bench,
    member,
    begun,
    stopped,
    worked,
    mode,
    hold,
    busy,
    ondecide,
    onbegin,
    onrun,
    onclose,
    onplay,
    onlarge,
  }: {
    bench: BenchView;
    member: Member;
    /** Whether the unit is being set up. */
    begun: boolean;
    stopped: boolean;
    /** Whether the program answers this member, on its line or at its pages. */
    worked: boolean;
    mode: Mode;
    hold: Hold | null;
    busy: boolean;
    ondecide: (what: string, body?: Record<string, unknown>) => void;
    onbegin: (mode: Mode) => void;
    onrun: () => void;
    onclose: () => void;
    onplay: () => void;
    /** Shows one value after the other in large type. */
    onlarge: () => void;
  } = $props();

  /** A setup by hand that was begun has a log, whether it came to its end or not. */
  const learnable = $derived(member.dialogueId !== null && member.openedAt !== null);
</script>

<div class="foot">
  {#if bench.byHand}
    {#if !begun}
      <B look={learnable ? 'plain' : 'go'} disabled={busy} onclick={() => onbegin('ASK')}
        >{bench.runState === 'DONE' ? m.bench.setUpAgain : m.bench.manual.begin}</B
      >
      {#if learnable}<a class="go" href="/kinds/{bench.kind}?tab=learn&setup={member.dialogueId}"
          >{m.bench.manual.learn}</a
        >{/if}
    {:else if stopped}
      <B look="go" disabled={busy} onclick={() => ondecide('again')}>{m.bench.again}</B>
      <B disabled={busy} onclick={() => onclose()}>{m.bench.putAway}</B>
    {:else if worked && member.state !== 'DONE'}
      <B look="go" disabled={busy} onclick={() => ondecide('finish')}>{m.bench.manual.finish}</B>
      <span class="end"><B disabled={busy} onclick={() => onclose()}>{m.bench.putAway}</B></span>
    {/if}
  {:else if !begun && bench.runState === 'DONE'}
    <B disabled={busy} onclick={() => onbegin('ASK')}>{m.bench.setUpAgain}</B>
  {:else if !begun}
    <B look="go" disabled={busy} onclick={() => onbegin('ASK')}>{m.bench.begin.ask}</B>
    <B disabled={busy} onclick={() => onbegin('RUN')}>{m.bench.begin.run}</B>
    <B disabled={busy} onclick={() => onbegin('WATCH')}>{m.bench.begin.watch}</B>
  {:else if stopped}
    <B look="go" disabled={busy} onclick={() => ondecide('again')}>{m.bench.again}</B>
    <B disabled={busy} onclick={() => onclose()}>{m.bench.putAway}</B>
  {:else if worked && member.state !== 'DONE'}
    {#if mode !== 'RUN' || hold?.why === 'NEXT'}<B
        look="go"
        key="^⇧↵"
        disabled={busy || hold?.why !== 'NEXT'}
        onclick={() => ondecide('decision', { typed: '' })}>{m.bench.sendThis}</B
      >{/if}
    {#if mode === 'RUN'}<B key="^⇧L" disabled={busy} onclick={() => ondecide('mode', { mode: 'ask' })}
        >{m.bench.askMe}</B
      >{:else}<B key="^⇧→" disabled={busy} onclick={() => onrun()}>{m.bench.runOn}</B>{/if}
    {#if mode === 'WATCH'}<B disabled={busy} onclick={() => ondecide('mode', { mode: 'ask' })}>{m.bench.askMe}</B
      >{:else}<B key="^⇧Y" disabled={busy} onclick={() => ondecide('mode', { mode: 'watch' })}>{m.bench.iType}</B>{/if}
    <span class="end"><B look="stop" key="^⇧." onclick={() => ondecide('stop')}>{m.bench.stop}</B></span>
  {:else if member.state === 'BY_HAND'}
    {#if member.fillsPages}<B look="go" disabled={busy} onclick={() => ondecide('mode', { mode: 'ask' })}
        >{m.bench.fillIn}</B
      >{/if}
    <span class="sub">{m.bench.byHand}</span><span class="end"
      ><B onclick={onlarge}>{m.bench.large.open}</B> <B onclick={() => print()}>{m.bench.print}</B></span
    >
  {/if}
  {#if !bench.byHand && member.dialogueId && (member.state === 'DONE' || !begun) && member.openedAt}<B onclick={onplay}
      >{m.bench.play}</B
    >{/if}
</div>

<style>
  .foot {
    padding: 10px 12px;
    display: flex;
    gap: 8px;
    border-top: 1px solid var(--line);
    align-items: center;
    flex-wrap: wrap;
  }
  .foot .go {
    font-weight: 600;
  }
  .foot .end {
    margin-left: auto;
  }
  .foot :global(button.lych) {
    padding: 5px 9px;
    font-size: 13px;
    gap: 5px;
  }
  @media print {
    .foot {
      display: none;
    }
  }
</style>
