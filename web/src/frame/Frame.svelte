<script lang="ts">
  import type { Snippet } from 'svelte';
  import { onDestroy } from 'svelte';
  import { onKeys } from '../lib/keys';
  import { live as ask, queries } from '../lib/query';
  import { session } from '../lib/session.svelte';
  import { atTime, onDay } from '../lib/time';
  import type { BoardView } from '../lib/types';
  import { Live } from '../live/live.svelte';
  import Lamp from '../parts/Lamp.svelte';
  import { m } from '../messages';
  import { bringUpId, chosenUnit, go, path, stageOfPath, stages } from '../routes';
  import Course from './Course.svelte';
  import Find from './Find.svelte';
  import KeysHelp from './KeysHelp.svelte';
  import You from './You.svelte';

  let { children }: { children: Snippet } = $props();
  const live = new Live(queries, () => void session.stillIn());
  live.open();
  onDestroy(() => live.close());

  /** Only the Board shows the units themselves; it asks the same and shares the answer. */
  const board = ask<BoardView>(() =>
    live.ready ? `/bring-ups/${bringUpId()}/board${stageOfPath() === 'board' ? '' : '?rows=false'}` : null,
  );
  let find = $state<{ focus: () => void } | null>(null);
  let help = $state(false);
  let afterG = $state(false);

  function to(key: string): void {
    const index = key === 'b' ? 0 : Number(key);
    const stage = stages[index];
    if (stage) go(path(bringUpId(), stage, chosenUnit()));
  }

  function keys(event: KeyboardEvent): void {
    if (afterG) {
      afterG = false;
      if (/^[b1-5]$/.test(event.key)) {
        event.preventDefault();
        to(event.key);
        return;
      }
    }
    onKeys({ '/': () => find?.focus(), '?': () => (help = true), g: () => (afterG = true) })(event);
  }
</script>

<svelte:window onkeydown={keys} />
<a
  class="skip"
  href="#work"
  onclick={(event) => {
    event.preventDefault();
    document.getElementById('work')?.focus();
  }}>{m.frame.skip}</a
>
<header class="night">
  <a class="name" href="/" aria-label={m.frame.others}><Lamp /><span>{m.name}</span></a>
  <div class="where">
    {#if board.data}<b>{board.data.name}</b>{#if board.data.due}<span class="due"
          >{' · '}{m.frame.due} {onDay(board.data.due)}</span
        >{/if}{/if}
  </div>
  <Find bind:this={find} />
  <You onkeyshelp={() => (help = true)} />
</header>
<Course board={board.data} />
{#if !live.connected}
  <p class="lost" role="status">{m.frame.lost} {atTime(live.lostAt)}. {m.frame.lostEnd}</p>
{/if}
{#if board.error && !board.data}
  <main class="page"><p class="main say" role="alert">{board.error.message} <a href="/">{m.frame.others}</a></p></main>
{:else}
  <main id="work" tabindex="-1">
    {#if live.ready}{@render children()}{/if}
  </main>
{/if}
{#if help}<KeysHelp onclose={() => (help = false)} />{/if}

<style>
  .night {
    background: var(--night);
    color: #fff;
    min-height: 52px;
    display: flex;
    align-items: center;
    padding: 8px 18px;
    gap: 16px;
    flex-wrap: wrap;
  }
  .name {
    font-weight: 650;
    font-size: 17px;
    display: flex;
    gap: 9px;
    align-items: center;
    color: #fff;
    text-decoration: none;
  }
  .where {
    color: var(--moon);
    border-left: 1px solid var(--night-line);
    padding-left: 16px;
  }
  .where b {
    color: #fff;
    font-weight: 600;
  }
  .lost {
    margin: 0;
    background: var(--wait2);
    color: var(--wait);
    padding: 6px 18px;
    font-weight: 600;
  }
  .skip {
    position: absolute;
    left: -999px;
    top: 0;
    background: var(--sheet);
    padding: 8px;
    z-index: 30;
  }
  .skip:focus {
    left: 0;
  }
  main:focus {
    outline: none;
  }
  .night :global(:focus-visible) {
    outline-color: #f3b43a;
  }
  @media (max-width: 600px) {
    .night {
      padding: 8px 12px;
      gap: 8px 12px;
    }
    .where {
      padding-left: 12px;
      flex: 1;
    }
    .name span,
    .due {
      display: none;
    }
  }
</style>
