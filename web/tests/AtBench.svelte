<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import type { Component } from 'svelte';

  /** The bench of a unit, with what it asks the server by. */
  let {
    of: Shown,
    unitId,
  }: { of: Component<{ unitId: number; member: number; onmember: (i: number) => void }>; unitId: number } = $props();
  let member = $state(0);
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
</script>

<QueryClientProvider {client}><Shown {unitId} {member} onmember={(index) => (member = index)} /></QueryClientProvider>
