<script lang="ts">
  import { onDestroy } from 'svelte';
  import You from '../frame/You.svelte';
  import { queries } from '../lib/query';
  import { session } from '../lib/session.svelte';
  import { Live } from '../live/live.svelte';
  import Lamp from '../parts/Lamp.svelte';
  import { m } from '../messages';

  /** The band of the views that belong to no single bring-up; what they show follows the server's changes. */
  let { at }: { at: 'overview' | 'kinds' | 'people' | 'server' } = $props();
  const live = new Live(queries, () => void session.stillIn());
  live.open();
  onDestroy(() => live.close());
  const views = $derived([
    { name: 'overview', path: '/', title: m.site.overview },
    { name: 'kinds', path: '/kinds', title: m.site.kinds },
    ...(session.me?.role === 'lead'
      ? [
          { name: 'people', path: '/people', title: m.site.people },
          { name: 'server', path: '/server', title: m.server.title },
        ]
      : []),
  ]);
</script>

<header>
  <a class="name" href="/"><Lamp /> {m.name}</a>
  <nav aria-label={m.site.nav}>
    {#each views as view (view.name)}
      <a href={view.path} aria-current={view.name === at ? 'page' : undefined}>{view.title}</a>
    {/each}
  </nav>
  <span class="end"></span>
  <You />
</header>

<style>
  header {
    background: var(--night);
    color: #fff;
    padding: 0 18px;
    min-height: 52px;
    display: flex;
    gap: 18px;
    align-items: stretch;
    flex-wrap: wrap;
  }
  a {
    color: #fff;
    text-decoration: none;
    display: flex;
    gap: 9px;
    align-items: center;
  }
  .name {
    font-weight: 650;
    font-size: 17px;
  }
  nav {
    display: flex;
    gap: 18px;
  }
  nav a {
    color: var(--moon);
    font-weight: 550;
    border-bottom: 3px solid transparent;
    padding-top: 3px;
  }
  nav a[aria-current] {
    color: #fff;
    border-bottom-color: var(--lamp);
  }
  .end {
    flex: 1;
  }
  header :global(.you) {
    padding: 8px 0;
  }
</style>
