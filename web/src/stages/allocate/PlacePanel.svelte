<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { span } from '../../lib/address';
  import { session } from '../../lib/session.svelte';
  import B from '../../parts/B.svelte';
  import { m } from '../../messages';
  import { bringUpId, path } from '../../routes';
  import NameByHand from './NameByHand.svelte';
  import type { Placing } from './placing.svelte';
  import Proposed from './Proposed.svelte';
  import { isV4 } from './ribbon';
  import { show } from './shown';

  /** What is proposed, for all units or for a chosen one, and what can be done with it. */
  let { placing, octets }: { placing: Placing; octets: number } = $props();
  const a = m.allocate;
  let typed = $state('');
  let typedStart = $state('');
  const proposal = $derived(placing.proposal.data);
  const fits = $derived(placing.fits.data);
  const lines = $derived(placing.lines);
  const alone = $derived(placing.single !== null);
  const unitCount = $derived(new Set(lines.map((line) => line.unitId)).size);
</script>

{#if placing.units.length === 0 && !proposal?.fault}
  <h2>{a.all}</h2>
  <p class="sub">{a.onward} <a href={path(bringUpId(), 'configure')}>{m.stages.configure}</a></p>
{:else}
  <h2>{alone ? a.placeOne(fits?.unit ?? '') : a.place(placing.units.length)}</h2>
  {#if alone}
    <p class="sub">{fits?.kind}. {fits?.about}</p>
    {#if session.mayWork && fits}{#key placing.single}<NameByHand unitId={placing.single!} now={fits.unit} />{/key}{/if}
  {:else if placing.named}
    <p class="sub units">
      {#each placing.units.slice(0, 14) as [id, unit] (id)}<button
          type="button"
          class="mono"
          onclick={() => {
            placing.choose(0);
            show({ unit: String(id), from: null });
          }}>{unit}</button
        >{' '}{/each}{#if placing.units.length > 14}…{/if}
    </p>
  {/if}
  {#if placing.raced}<p class="say" role="alert">{placing.raced}</p>{/if}
  {#if !alone}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        placing.pattern = typed;
      }}
    >
      <Label for="pattern">{a.pattern}</Label>
      <Input
        id="pattern"
        class="mono"
        value={placing.pattern ?? proposal?.pattern ?? ''}
        oninput={(event: Event) => (typed = (event.currentTarget as HTMLInputElement).value)}
        onchange={() => (placing.pattern = typed || placing.pattern)}
        spellcheck="false"
        aria-describedby="pattern-hint"
      />
      <span id="pattern-hint" class="sub mono">{a.patternHint}</span>
    </form>
    {#if proposal?.fault}<p class="say" role="alert">{proposal.fault}</p>{/if}
    {#each proposal?.unplaced ?? [] as each (each.unitId)}{#if !proposal?.fault}<p class="say">
          <b>{each.unit}</b>: {each.why}
        </p>{/if}{/each}
    {#if lines.length > 0}<div class="opt">
        <b class="mono"
          >{unitCount === lines.length && isV4(lines[0]!.address)
            ? span(lines.map((line) => line.address))
            : a.addresses(lines.length)}</b
        > <span class="sub">{proposal?.reason}</span>
      </div>{/if}
  {:else}
    {#if fits?.fault}<p class="say" role="alert">{fits.fault}</p>{/if}
    <h3>{a.runs}</h3>
    {#each placing.options as option, i (i)}
      <button
        type="button"
        class="opt"
        class:quiet={option !== placing.fit}
        aria-pressed={option === placing.fit}
        onclick={() => placing.choose(i)}
      >
        <b class="mono"
          >{span(
            option.lines
              .filter((line) => line.networkId === option.lines[0]!.networkId && isV4(line.address))
              .map((line) => line.address),
          )}</b
        >
        <span class="sub">{option.reasons.join(', ')}</span>
      </button>
    {/each}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        placing.start(typedStart.trim());
      }}
    >
      <Label for="begin">{a.begin}</Label>
      <Input
        id="begin"
        class="mono"
        bind:value={typedStart}
        placeholder={placing.options[0]?.lines[0]?.address ?? ''}
        spellcheck="false"
        autocomplete="off"
      />
    </form>
    {#if fits?.almost}<div class="opt quiet bad">{fits.almost}</div>{/if}
    <div class="row"><B onclick={() => show({ unit: null, from: null })}>{a.placeAll}</B></div>
  {/if}
  {#if lines.length > 0}
    {#if placing.probed}
      {@const probed = placing.probed}
      <p class="say" class:good={probed.answering.length === 0}>
        {!probed.possible
          ? a.notMeasured
          : probed.answering.length === 0
            ? a.silent(probed.asked)
            : probed.answering.map((each) => `${each.address} ${each.sentence}`).join('; ')}
      </p>
    {/if}
    {#if session.mayWork}
      <div class="row">
        <B look="go" key="t" disabled={placing.busy} onclick={() => void placing.take()}>{a.take(lines.length)}</B>
      </div>
    {/if}
    <div class="row">
      <B key="n" onclick={() => void placing.next()}>{a.next}</B>
      {#if session.mayWork}<B key="l" disabled={placing.busy} onclick={() => void placing.probeAndShow()}>{a.listen}</B
        >{/if}
      {#if placing.from}<B onclick={() => placing.start('')}>{a.lowest}</B>{/if}
    </div>
    <Proposed {lines} growth={placing.growth} {alone} named={placing.named} {octets} />
  {/if}
{/if}

<style>
  form {
    margin: 10px 0;
  }
  .opt {
    border: 2px solid var(--lamp-ink);
    background: var(--lamp2);
    border-radius: 5px;
    padding: 7px 10px;
    margin: 6px 0 8px;
    display: flex;
    gap: 10px;
    justify-content: space-between;
    align-items: baseline;
    width: 100%;
    text-align: left;
  }
  .opt.quiet {
    border: 1px solid var(--line);
    background: var(--sheet);
    padding: 8px 11px;
  }
  .opt b {
    white-space: nowrap;
  }
  .opt .sub {
    text-align: right;
  }
  .row {
    display: flex;
    gap: 8px;
    margin-bottom: 8px;
    flex-wrap: wrap;
  }
  .units button {
    text-decoration: underline;
    color: var(--lamp-ink);
  }
</style>
