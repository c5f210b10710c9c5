<script lang="ts">
  import { session } from '../../lib/session.svelte';
  import { atTime, inFull } from '../../lib/time';
  import type { ProveView } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { choose } from '../../routes';
  import ChangeCard from './ChangeCard.svelte';

  /** Below the endpoints: causes that several of them share, unknown devices, and what has changed. */
  let { view, onsend }: { view: ProveView; onsend: (units: number[]) => void } = $props();
  const MOST = 6;
</script>

{#if view.causes.length > 0 || view.changes.length > 0 || view.unknownDevices.length > 0}
  <div class="cards">
    {#each view.causes as cause (cause.title)}
      <section class="sheet card">
        <h3>{m.prove.cause(cause.endpoints.length)}</h3>
        <p><b>{cause.title}.</b> {cause.sentence}</p>
        <p class="sub">{cause.press}</p>
        {#if cause.records && session.mayWork}<B
            onclick={() =>
              onsend(
                view.endpoints
                  .filter((endpoint) => cause.endpoints.includes(endpoint.name))
                  .map((endpoint) => endpoint.unitId),
              )}>{m.prove.sendAgain}</B
          >{/if}
      </section>
    {/each}
    {#if view.unknownDevices.length > 0}
      <section class="sheet card">
        <h3>{m.prove.unknownDevices(view.unknownDevices.length)}</h3>
        <p>{m.prove.unknownDevicesSay(view.unknownDevices.length)}</p>
        <ul>
          {#each view.unknownDevices.slice(0, MOST) as device (device.address)}
            <li>
              <b class="mono">{device.address}</b>
              {device.sentence}{#if device.mac}, <span class="mono">{device.mac}</span>{/if}
              <span class="sub" title={inFull(device.firstHeard)}
                >{m.allocate.firstHeard} {atTime(device.firstHeard)}</span
              >
            </li>
          {/each}
          {#if view.unknownDevices.length > MOST}<li class="sub">
              {m.prove.more(view.unknownDevices.length - MOST)}
            </li>{/if}
        </ul>
        <p class="sub">{m.prove.unknownDevicesDo}</p>
      </section>
    {/if}
    {#each view.changes as change (`${change.claimId} ${change.what}`)}
      <section class="sheet card">
        <h3>{m.prove.changed}</h3>
        <ChangeCard {change} brief onlook={() => choose(change.unitId, change.claimId)} />
      </section>
    {/each}
  </div>
{/if}

<style>
  .cards {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
    gap: 12px;
    margin-top: 12px;
  }
  .card {
    padding: 12px 14px;
  }
  .card h3 {
    margin-top: 0;
  }
  .card p {
    margin: 4px 0;
    overflow-wrap: anywhere;
  }
  .card ul {
    margin: 4px 0;
    padding-left: 1.1em;
  }
  .card li {
    margin: 2px 0;
  }
</style>
