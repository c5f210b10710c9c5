<script lang="ts">
  import { session } from '../../lib/session.svelte';
  import { atTime } from '../../lib/time';
  import type { UnknownDevice } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';

  /** What answers in the network and is not ours. */
  let {
    devices,
    onkeep,
    onprobe,
    onadd,
  }: {
    devices: UnknownDevice[];
    onkeep: (address: string) => void;
    onprobe: (address: string) => void;
    /** Adds a unit for a controller that was found by its MAC address. */
    onadd: (mac: string) => void;
  } = $props();
  const a = m.allocate;
</script>

{#each devices as device (device.address)}
  <div class="sheet unknown">
    <div>
      <b>{device.address} {a.answersNotOurs}</b><br /><span class="sub"
        >{a.firstHeard}
        {atTime(device.firstHeard)}{device.mac ? ` · ${m.prepare.cols.mac} ` : ''}<span class="mono"
          >{device.mac ?? ''}</span
        >
        · {device.sentence}{device.controller ? ` · ${device.controller}` : ''}{device.unit
          ? ` · ${a.isUnit(device.unit)}`
          : ''}</span
      >
    </div>
    {#if session.mayWork}<span class="end"
        >{#if device.controller && device.mac && !device.unit}{@const mac = device.mac}<B onclick={() => onadd(mac)}
            >{a.addAsUnit}</B
          >{/if}<B onclick={() => onkeep(device.address)}>{a.keepIt}</B><B onclick={() => onprobe(device.address)}
          >{a.lookAgain}</B
        ></span
      >{/if}
  </div>
{/each}

<style>
  .unknown {
    display: flex;
    gap: 14px;
    justify-content: space-between;
    align-items: center;
    padding: 10px 14px;
    margin-top: 10px;
  }
  .unknown .end {
    display: flex;
    gap: 8px;
  }
  @media (max-width: 900px) {
    .unknown {
      flex-direction: column;
      align-items: flex-start;
    }
  }
</style>
