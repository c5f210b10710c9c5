<script lang="ts">
  import type { MarkName } from '../lib/types';
  import { m } from '../messages';

  /** A state: its shape first, its colour second, its word for those who hear the page. */
  let { mark, size = 17, word }: { mark: MarkName; size?: number; word?: string } = $props();
</script>

<svg width={size} height={size} viewBox="0 0 18 18" role="img" aria-label={word ?? m.marks[mark]}>
  {#if mark === 'dark'}
    <circle cx="9" cy="9" r="6" fill="none" stroke="var(--dark-mark)" stroke-width="1.6" />
  {:else if mark === 'set'}
    <circle cx="9" cy="9" r="6" fill="none" stroke="var(--ink2)" stroke-width="1.6" /><circle
      cx="9"
      cy="9"
      r="2.2"
      fill="var(--ink2)"
    />
  {:else if mark === 'work'}
    <circle cx="9" cy="9" r="6" fill="none" stroke="var(--lamp-ink)" stroke-width="1.6" /><path
      d="M9 3a6 6 0 0 1 0 12z"
      fill="var(--lamp)"
    />
  {:else if mark === 'wait'}
    <path
      d="M4 3h10L9 9l5 6H4l5-6z"
      fill="var(--wait2)"
      stroke="var(--wait)"
      stroke-width="1.5"
      stroke-linejoin="round"
    />
  {:else if mark === 'lit'}
    <circle cx="9" cy="9" r="4.6" fill="var(--lamp)" stroke="var(--lamp-ink)" stroke-width="1.3" />
    <g stroke="var(--lamp-ink)" stroke-width="1.4" stroke-linecap="round"
      ><path d="M9 .9v1.4M9 15.7v1.4M.9 9h1.4M15.7 9h1.4M3.3 3.3l1 1M13.7 13.7l1 1M3.3 14.7l1-1M13.7 4.3l1-1" /></g
    >
  {:else if mark === 'done'}
    <rect x="2.5" y="2.5" width="13" height="13" rx="3" fill="var(--proof)" />
    <path
      d="M5.6 9.2l2.4 2.5 4.6-5.2"
      fill="none"
      stroke="var(--on-proof)"
      stroke-width="1.9"
      stroke-linecap="round"
      stroke-linejoin="round"
    />
  {:else}
    <path d="M9 1.8L16.6 15.6H1.4z" fill="var(--fault)" /><path
      d="M9 6.6v4.2M9 12.6v1"
      stroke="var(--on-fault)"
      stroke-width="1.7"
      stroke-linecap="round"
    />
  {/if}
</svg>

<style>
  svg {
    flex: none;
  }
</style>
