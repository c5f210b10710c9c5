<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';

  /** A table whose rows have one height: of many only those in sight are drawn, in a box that scrolls by itself. */
  let { items, cols, row, height = 30, many = 150, label }: { items: T[]; cols: string[]; row: Snippet<[T]>; height?: number; many?: number; label: string } = $props();
  const BESIDE = 12;
  let scrolled = $state(0);
  let seen = $state(600);
  const windowed = $derived(items.length > many);
  const first = $derived(windowed ? Math.max(0, Math.floor(scrolled / height) - BESIDE) : 0);
  const last = $derived(windowed ? Math.min(items.length, Math.ceil((scrolled + seen) / height) + BESIDE) : items.length);
</script>

<!-- a box that scrolls, to its side on a phone, is reached by keyboard -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroll" class:windowed role="region" aria-label={label} tabindex={0} bind:clientHeight={seen} onscroll={(event) => (scrolled = event.currentTarget.scrollTop)}>
  <table class="tbl" aria-rowcount={items.length + 1}>
    <thead><tr>{#each cols as col (col)}<th>{col}</th>{/each}</tr></thead>
    <tbody>
      {#if first > 0}<tr class="room" style:height="{first * height}px"><td colspan={cols.length}></td></tr>{/if}
      {#each items.slice(first, last) as item (item)}{@render row(item)}{/each}
      {#if last < items.length}<tr class="room" style:height="{(items.length - last) * height}px"><td colspan={cols.length}></td></tr>{/if}
    </tbody>
  </table>
</div>

<style>
  .windowed { max-height: 62vh; overflow: auto; } .windowed thead th { position: sticky; top: 0; background: var(--sheet); z-index: 1; }
  .room td { padding: 0; border: 0; }
  @media print { .windowed { max-height: none; } }
</style>
