<script lang="ts">
  import type { BoardView, StageName } from '../lib/types';
  import { m } from '../messages';
  import { bringUpId, chosenUnit, path, stageOfPath, stages } from '../routes';

  /** The five verbs of the work in their order, each with what is open in it: the navigation. */
  let { board }: { board: BoardView | undefined } = $props();
  const on = $derived(stageOfPath());
  const of = (stage: StageName) => (stage === 'board' ? undefined : board?.course[stage]);

  /** On a phone only two or three stages fit: the one that is open is brought into view. */
  function intoView(nav: HTMLElement): void {
    const open = nav.querySelector<HTMLElement>('[aria-current]');
    if (on && open) nav.scrollLeft = open.offsetLeft - (nav.clientWidth - open.offsetWidth) / 2;
  }
</script>

<nav aria-label={m.frame.course} {@attach intoView}>
  {#each stages as stage (stage)}
    {@const part = of(stage)}
    <a
      href={path(bringUpId(), stage, chosenUnit())}
      class={stage}
      class:on={stage === on}
      aria-current={stage === on ? 'page' : undefined}
    >
      <b>{m.stages[stage]}</b>
      <span class="sub">
        {#if stage === 'board'}{board ? m.frame.units(board.units) : ''}
        {:else if part}{#if part.fault}<span class="bad">{part.fault}</span>{' · '}{/if}{part.text}{/if}
      </span>
      {#if part}<span class="fill"><i style="width:{part.percent}%"></i></span>{/if}
    </a>
  {/each}
</nav>

<style>
  nav {
    display: flex;
    background: var(--sheet);
    border-bottom: 1px solid var(--line);
    height: 62px;
    padding: 0 18px;
    overflow-x: auto;
    position: relative;
  }
  a {
    flex: 1 0 120px;
    padding: 9px 14px 0;
    position: relative;
    color: var(--ink2);
    text-decoration: none;
    font-weight: 400;
    white-space: nowrap;
    overflow: hidden;
  }
  a.board {
    flex: 0 0 112px;
  }
  b {
    display: block;
    color: var(--ink);
    font-weight: 620;
    font-size: 15.5px;
  }
  .fill {
    position: absolute;
    left: 14px;
    right: 14px;
    bottom: 0;
    height: 4px;
    background: var(--line2);
    border-radius: 2px 2px 0 0;
  }
  i {
    display: block;
    height: 4px;
    background: var(--proof);
    border-radius: 2px 2px 0 0;
  }
  a.on {
    background: var(--paper);
  }
  a.on b {
    color: var(--lamp-ink);
  }
  a.on .fill,
  a.on i {
    background: var(--lamp);
  }
  a:focus-visible {
    outline-offset: -3px;
  }
  @media (max-width: 600px) {
    nav {
      padding: 0 4px;
    }
    a {
      flex-basis: 150px;
    }
  }
</style>
