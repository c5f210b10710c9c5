<script lang="ts">
  import { Input, Label, Select } from 'flowbite-svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { live, lookAgain } from '../../lib/query';
  import type { KindBrief } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /** @param mac of the one machine that was found by it, before its label was read */
  let { onclose, mac = null }: { onclose: () => void; mac?: string | null } = $props();
  /** Those of now: one that was published a moment ago can be chosen. */
  const offered = live<KindBrief[]>(() => '/kinds');
  const kinds = $derived(
    (offered.data ?? []).filter((each) => mac === null || each.facts.some((fact) => fact.name === 'mac')),
  );
  const a = m.prepare.add;
  let kindId = $state('');
  let count = $state('1');
  let members = $state(0);
  let faults = $state<Record<string, string>>({});
  let busy = $state(false);
  const kind = $derived(kinds.find((each) => each.id === kindId));
  const id = $props.id();

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    try {
      const ids = await api.post<number[]>(`/bring-ups/${bringUpId()}/units`, {
        kind: kindId,
        count: Number(count) || 0,
        members,
        mac,
      });
      notices.say(a.added(ids.length), () => void undo(ids));
      lookAgain();
      onclose();
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (Object.keys(faults).length === 0) notices.fault(error);
    } finally {
      busy = false;
    }
  }

  async function undo(ids: number[]): Promise<void> {
    try {
      for (const unit of ids) await api.delete(`/units/${unit}`);
    } catch (error) {
      notices.fault(error);
    }
    lookAgain();
  }
</script>

<Dialog title={mac === null ? a.title : a.foundTitle(mac)} {onclose}>
  <form onsubmit={(event) => void add(event)}>
    <div class="wide">
      <Label for="{id}-kind">{a.kind}</Label><Select
        id="{id}-kind"
        items={kinds.map((each) => ({ value: each.id, name: each.title }))}
        bind:value={kindId}
        onchange={() => (members = 0)}
        placeholder={a.choose}
      />
    </div>
    {#if faults.mac}<p class="bad wide" role="alert">{faults.mac}</p>{/if}
    {#if kind}
      <p class="sub wide">{kind.about}</p>
      {#if mac === null}
        <div>
          <Label for="{id}-count">{a.count}</Label><Input
            id="{id}-count"
            class="mono"
            bind:value={count}
            aria-invalid={'count' in faults}
            inputmode="numeric"
          /><span class="bad">{faults.count ?? ''}</span>
        </div>
      {/if}
      {#if kind.counts.length > 1}
        <div>
          <Label for="{id}-members">{a.members}</Label><Select
            id="{id}-members"
            items={kind.counts.map((n) => ({ value: n, name: String(n) }))}
            bind:value={members}
            placeholder={String(kind.counts[0])}
          />
        </div>
      {/if}
      <p class="sub wide">
        {#if kind.bring.length}{a.bring} {kind.bring.join(', ')}.{' '}{/if}{#if kind.plug}{a.plug} {kind.plug}.{/if}
      </p>
    {/if}
    <div class="row wide">
      <B look="go" type="submit" disabled={!kind || busy}>{a.button}</B><B onclick={onclose}>{m.prepare.cancel}</B>
    </div>
  </form>
</Dialog>

<style>
  form {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px 14px;
  }
  .wide {
    grid-column: 1 / -1;
  }
  p {
    margin: 0;
  }
  .row {
    display: flex;
    gap: 8px;
  }
</style>
