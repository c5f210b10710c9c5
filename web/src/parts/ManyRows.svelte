<script lang="ts" generics="T">
  import { flushSync, type Snippet } from 'svelte';

  interface Props {
    items: T[];
    key: (item: T) => unknown;
    head: Snippet;
    row: Snippet<[T]>;
    cols: number;
    /** Of each row, in pixels: how far it is to a row is told by it. */
    height?: (item: T) => number;
    /** Of so many rows only those in sight are drawn, in a box with its own scroll bar. */
    many?: number;
    label: string;
    /** Of each column, as CSS; then text that is too long is cut off in its cell instead of making the table wider. */
    widths?: string[];
  }

  /** A table of any number of rows. On paper all of them stand. */
  let { items, key, head, row, cols, height = () => 30, many = 150, label, widths }: Props = $props();
  const BESIDE = 10;
  let scrolled = $state(0);
  let seen = $state(600);
  let printing = $state(false);
  let box = $state<HTMLElement>();
  const windowed = $derived(items.length > many && !printing);
  const tops = $derived(
    items.reduce<number[]>(
      (sums, item) => {
        sums.push(sums.at(-1)! + height(item));
        return sums;
      },
      [0],
    ),
  );
  const first = $derived(windowed ? Math.max(0, below(scrolled) - BESIDE) : 0);
  const last = $derived(windowed ? Math.min(items.length, below(scrolled + seen) + BESIDE) : items.length);

  /** The first row that ends below a height. */
  function below(top: number): number {
    let low = 0;
    let high = items.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (tops[middle + 1]! <= top) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Brings a row into sight. */
  export function show(index: number): void {
    const top = tops[index] ?? 0;
    if (windowed && box && (top < box.scrollTop || top > box.scrollTop + seen - 80)) box.scrollTop = top - seen / 2;
  }
</script>

<svelte:window onbeforeprint={() => flushSync(() => (printing = true))} onafterprint={() => (printing = false)} />
<!-- a box that scrolls, to its side on a phone, is reached by keyboard -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="scroll"
  class:windowed
  role="region"
  aria-label={label}
  tabindex={0}
  bind:this={box}
  bind:clientHeight={seen}
  onscroll={(event) => (scrolled = event.currentTarget.scrollTop)}
>
  <table class="tbl" class:steady={widths} aria-rowcount={items.length + 1}>
    {#if widths}<colgroup
        >{#each widths as width, i (i)}<col style:width />{/each}</colgroup
      >{/if}
    <thead>{@render head()}</thead>
    <tbody>
      {#if first > 0}<tr class="room" style:height="{tops[first]}px" aria-hidden="true"><td colspan={cols}></td></tr
        >{/if}
      {#each items.slice(first, last) as item (key(item))}{@render row(item)}{/each}
      {#if last < items.length}<tr class="room" style:height="{tops.at(-1)! - tops[last]!}px" aria-hidden="true"
          ><td colspan={cols}></td></tr
        >{/if}
    </tbody>
  </table>
</div>

<style>
  .windowed {
    max-height: calc(100vh - 190px);
    overflow: auto;
  }
  .windowed :global(thead th) {
    position: sticky;
    top: 0;
    background: var(--sheet);
    z-index: 1;
  }
  .steady {
    table-layout: fixed;
  }
  .room td {
    padding: 0;
    border: 0;
  }
</style>
