<script lang="ts">
  import { m } from '../../messages';
  import KindSays from './KindSays.svelte';
  import type { Draft, KindPage } from './types';

  /** What a kind says, to be read at the desk before anybody goes to the rack. */
  let { page, draft }: { page: KindPage; draft: Draft | null } = $props();
  const t = m.kinds.read;
  const summary = $derived(page.summary ?? draft?.summary ?? null);
</script>

{#if !summary}
  <p>{m.kinds.noVersion}</p>
{:else}
  {#if !page.summary}<p class="say wait">{m.kinds.draftOnly}</p>{/if}
  {#if page.about}<p class="about">{page.about}</p>{/if}
  <p class="about">{summary.before.join(' ')}</p>
  {#if page.adjustments.length > 0}
    <p class="say wait">
      {t.adjusted(page.adjustments.length)} <a href="/kinds/{page.line.id}?tab=adjust">{m.kinds.tabs.adjust}</a>
    </p>
  {/if}
  <KindSays {summary} way={page.line.way} />
{/if}

<style>
  .about {
    margin: 0;
    max-width: 80ch;
  }
  .say {
    margin: 0;
  }
</style>
