<script lang="ts">
  import type { Snippet } from 'svelte';
  import { m } from '../messages';

  /** A native dialog: keeps the focus inside, closes with Esc, gives the focus back. `whole` fills the window. */
  let {
    title,
    wide = false,
    whole = false,
    onclose,
    children,
  }: { title: string; wide?: boolean; whole?: boolean; onclose: () => void; children: Snippet } = $props();
  const id = $props.id();

  function show(dialog: HTMLDialogElement): void {
    dialog.showModal();
  }

  /**
   * Closed at the keystroke: the browser's own notice comes later, and would close what the next key has opened
   * meanwhile.
   */
  function escape(event: KeyboardEvent & { currentTarget: HTMLDialogElement }): void {
    if (event.key !== 'Escape' || event.defaultPrevented) return;
    event.preventDefault();
    event.currentTarget.close();
    onclose();
  }

  function closed(event: Event & { currentTarget: HTMLDialogElement }): void {
    if (event.currentTarget.isConnected) onclose();
  }
</script>

<dialog {@attach show} class:wide class:whole aria-labelledby="{id}-title" onkeydown={escape} onclose={closed}>
  <header>
    <h2 id="{id}-title">{title}</h2>
    <button type="button" class="x" aria-label={m.frame.close} onclick={onclose}>×</button>
  </header>
  {@render children()}
</dialog>

<style>
  dialog {
    margin: auto;
    width: 560px;
    max-width: calc(100vw - 24px);
    max-height: calc(100vh - 40px);
    background: var(--sheet);
    color: var(--ink);
    border: 1px solid var(--line);
    border-radius: 8px;
    padding: 16px 20px 20px;
    overflow: auto;
  }
  dialog.wide {
    width: 860px;
  }
  /* the whole window, for what is read from a distance */
  dialog.whole[open] {
    width: 100vw;
    max-width: 100vw;
    height: 100dvh;
    max-height: 100dvh;
    border: 0;
    border-radius: 0;
    display: flex;
    flex-direction: column;
  }
  dialog::backdrop {
    background: rgb(20 14 8 / 55%);
  }
  header {
    display: flex;
    align-items: center;
    margin-bottom: 10px;
  }
  .x {
    margin-left: auto;
    font-size: 20px;
    line-height: 1;
    padding: 2px 8px;
    border-radius: 4px;
  }
</style>
