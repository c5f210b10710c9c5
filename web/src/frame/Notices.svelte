<script lang="ts">
  import { notices } from '../lib/notices.svelte';
  import { m } from '../messages';
</script>

<div class="notices" aria-live="polite">
  {#each notices.list as notice (notice.id)}
    <div class="notice" class:fault={notice.fault} role={notice.fault ? 'alert' : 'status'}>
      <span>{notice.text}</span>
      {#if notice.undo}
        <button
          type="button"
          onclick={() => {
            notice.undo?.();
            notices.close(notice.id);
          }}>{m.frame.undo}</button
        >
      {/if}
      <button type="button" aria-label={m.frame.close} onclick={() => notices.close(notice.id)}>×</button>
    </div>
  {/each}
</div>

<style>
  .notices {
    position: fixed;
    left: 50%;
    bottom: 18px;
    transform: translateX(-50%);
    display: grid;
    gap: 8px;
    z-index: 20;
    width: max-content;
    max-width: calc(100vw - 24px);
  }
  .notice {
    background: var(--night);
    color: #fff;
    border-radius: 6px;
    padding: 9px 14px;
    display: flex;
    gap: 14px;
    align-items: center;
  }
  .notice.fault {
    background: var(--fault2);
    color: var(--ink);
    border: 1px solid var(--fault);
  }
  button {
    font-weight: 620;
    text-decoration: underline;
    padding: 2px 4px;
  }
</style>
