<script lang="ts">
  import { m } from '../../../messages';

  /**
   * What is entered on a page, by what the page calls it: a value is copied by a click, a password is shown for a
   * moment.
   */
  let {
    fields,
    onreveal,
  }: { fields: Record<string, string>; onreveal: ((label: string) => Promise<string | null>) | null } = $props();

  /** How long a password stays in sight. */
  const SECONDS = 10;
  const HIDDEN = /^•+$/;
  let revealed = $state.raw<{ label: string; text: string } | null>(null);

  async function reveal(label: string): Promise<void> {
    const text = (await onreveal?.(label)) ?? null;
    if (text === null) return;
    const shown = { label, text };
    revealed = shown;
    setTimeout(() => revealed === shown && (revealed = null), SECONDS * 1000);
  }
</script>

<dl>
  {#each Object.entries(fields) as [label, value] (label)}
    <dt>{label}</dt>
    <dd class="mono">
      {#if revealed?.label === label}<button
          type="button"
          class="bare"
          title={m.bench.copy}
          onclick={() => void navigator.clipboard.writeText(revealed?.text ?? '')}>{revealed.text}</button
        >
      {:else if !HIDDEN.test(value)}<button
          type="button"
          title={m.bench.copy}
          aria-label="{m.bench.copy} {value}"
          onclick={() => void navigator.clipboard.writeText(value)}>{value}</button
        >
      {:else if onreveal}<button
          type="button"
          title={m.bench.reveal}
          aria-label="{m.bench.reveal}: {label}"
          onclick={() => void reveal(label)}>{value}</button
        >
      {:else}{value}{/if}
    </dd>
  {/each}
</dl>

<style>
  dl {
    display: grid;
    grid-template-columns: minmax(120px, auto) 1fr;
    gap: 3px 14px;
    margin: 4px 0;
    font-size: 13px;
  }
  dt {
    color: var(--ink2);
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
  button {
    font: inherit;
    color: inherit;
    background: none;
    border: 0;
    padding: 0;
    text-align: left;
    cursor: copy;
    overflow-wrap: anywhere;
  }
  button:hover {
    text-decoration: underline;
  }
  .bare {
    background: var(--lamp2);
    outline: 1px solid var(--lamp-ink);
  }
</style>
