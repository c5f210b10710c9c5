<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /**
   * A button of ours over Flowbite's: `go` does the next thing, `stop` ends something, `plain` all else. Shows its key.
   */
  let {
    look = 'plain',
    key,
    disabled = false,
    type = 'button',
    onclick,
    children,
  }: {
    look?: 'go' | 'stop' | 'plain';
    key?: string;
    disabled?: boolean;
    type?: 'button' | 'submit';
    onclick?: () => void;
    children: Snippet;
  } = $props();
</script>

<Button {type} {disabled} {onclick} color={look === 'go' ? 'primary' : 'alternative'} class="lych {look}">
  {@render children()}{#if key}<kbd>{key.toUpperCase()}</kbd>{/if}
</Button>

<style>
  :global(button.lych) {
    padding: 5px 12px;
    font: 550 13.5px var(--font-sans);
    border: 1px solid var(--ink2);
    border-radius: 5px;
    gap: 7px;
    white-space: nowrap;
  }
  :global(button.lych.plain) {
    background: var(--sheet);
    color: var(--ink);
  }
  :global(button.lych.plain:hover:not(:disabled)) {
    background: var(--line2);
    color: var(--ink);
  }
  :global(button.lych.go) {
    background: var(--go);
    border-color: var(--go-edge);
    color: var(--go-ink);
  }
  :global(button.lych.go:hover:not(:disabled)) {
    background: var(--go-edge);
  }
  :global(button.lych.stop) {
    background: var(--sheet);
    border: 2px solid var(--fault);
    color: var(--fault);
  }
  :global(button.lych.stop kbd) {
    opacity: 1;
  }
  :global(button.lych.stop:hover:not(:disabled)) {
    background: var(--fault2);
    color: var(--fault);
  }
</style>
