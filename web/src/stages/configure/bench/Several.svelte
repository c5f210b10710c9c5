<script lang="ts">
  import { untrack } from 'svelte';
  import B from '../../../parts/B.svelte';
  import Dialog from '../../../parts/Dialog.svelte';
  import { m } from '../../../messages';
  import type { Startable } from './types';

  /** Begins several units in one go: all of them, or none where one may not. */
  let {
    startable,
    busy,
    onbegin,
    onclose,
  }: {
    startable: Startable[];
    busy: boolean;
    onbegin: (units: number[], mode: 'ASK' | 'RUN') => void;
    onclose: () => void;
  } = $props();
  let chosen = $state(untrack(() => startable.filter((unit) => !unit.alone).map((unit) => unit.unitId)));
</script>

<Dialog title={m.bench.several.title} {onclose}>
  <p class="sub">{m.bench.several.text}</p>
  <ul>
    {#each startable as unit (unit.unitId)}
      <li>
        <label
          ><input type="checkbox" bind:group={chosen} value={unit.unitId} disabled={unit.alone} />
          <span class="mono">{unit.name}</span>
          <span class="sub">{unit.kindTitle} {unit.position}{unit.alone ? ` · ${m.bench.several.alone}` : ''}</span
          ></label
        >
      </li>
    {/each}
  </ul>
  <div class="row">
    <B look="go" disabled={busy || chosen.length === 0} onclick={() => onbegin(chosen, 'ASK')}
      >{m.bench.several.begin(chosen.length)}, {m.bench.modes.ASK}</B
    >
    <B disabled={busy || chosen.length === 0} onclick={() => onbegin(chosen, 'RUN')}
      >{m.bench.several.begin(chosen.length)}, {m.bench.modes.RUN}</B
    >
  </div>
</Dialog>

<style>
  p {
    margin: 0 0 8px;
  }
  ul {
    list-style: none;
    margin: 0 0 12px;
    padding: 0;
    max-height: 360px;
    overflow-y: auto;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--line2);
  }
  .row {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
  }
</style>
