<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { Input, Label } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import { api, Problem } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import type { Item, PrepareView, Sort, Statement } from '../../lib/types';
  import B from '../../parts/B.svelte';
  import Images from './Images.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import { bringUpId } from '../../routes';

  /** Everything that a site states once: networks here, racks, hosts, domains, services and policies by their sorts. */
  let {
    view,
    onclose,
    onnetwork,
  }: { view: PrepareView; onclose: () => void; onnetwork: (start: Statement | null) => void } = $props();
  const g = m.prepare.ground;
  const sorts = createQuery(() => ({ queryKey: ['sorts'], queryFn: () => api.get<Sort[]>('/site-resources/sorts') }));
  let open = $state('network');
  let draft = $state<{
    id: number | null;
    name: string;
    values: Record<string, string>;
    version: string | null;
  } | null>(null);
  let faults = $state<Record<string, string>>({});
  const sort = $derived(sorts.data?.find((each) => each.sort === open));
  const items = $derived(view.siteResources.filter((resource) => resource.sort === open));
  const id = $props.id();

  function begin(item: Item | null): void {
    faults = {};
    draft = item
      ? { id: item.id, name: item.name, values: { ...item.values }, version: item.version }
      : { id: null, name: '', values: {}, version: null };
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!draft) return;
    try {
      await api.put(`/bring-ups/${bringUpId()}/site-resources`, {
        id: draft.id,
        sort: open,
        name: draft.name,
        values: draft.values,
        version: draft.version,
      });
      draft = null;
      faults = {};
      lookAgain();
      void api.post(`/bring-ups/${bringUpId()}/measure`);
    } catch (error) {
      faults = error instanceof Problem ? error.faults : {};
      if (draft && error instanceof Problem && error.status === 412) {
        // after the message, the person can save again
        draft.version = String(error.members.version);
        lookAgain();
      }
      if (Object.keys(faults).length === 0) notices.fault(error);
      await tick();
      document.querySelector<HTMLElement>('form [aria-invalid="true"]')?.focus();
    }
  }

  async function remove(item: Item): Promise<void> {
    try {
      await api.delete(`/bring-ups/${bringUpId()}/site-resources/${item.id}`);
      lookAgain();
      const { sort: of, name, values } = item;
      notices.say(
        g.removed(name),
        () =>
          void api
            .put(`/bring-ups/${bringUpId()}/site-resources`, { id: null, sort: of, name, values })
            .then(lookAgain, (error: unknown) => notices.fault(error)),
      );
    } catch (error) {
      notices.fault(error);
    }
  }

  function pick(word: string): void {
    open = word;
    draft = null;
  }
</script>

<Dialog title={m.prepare.siteResources} wide {onclose}>
  <!-- all of it at once: what comes later would move a button that somebody is pressing -->
  {#if sorts.data}<div class="two">
      <nav aria-label={m.prepare.siteResources}>
        <button
          type="button"
          class:on={open === 'network'}
          aria-current={open === 'network'}
          onclick={() => pick('network')}>{g.networkSort} <span class="sub">{view.site.networks.length}</span></button
        >
        <button type="button" class:on={open === 'image'} aria-current={open === 'image'} onclick={() => pick('image')}
          >{m.prepare.images.sort}</button
        >
        {#each sorts.data ?? [] as each (each.sort)}
          <button
            type="button"
            class:on={open === each.sort}
            aria-current={open === each.sort}
            onclick={() => pick(each.sort)}
            >{each.title}
            <span class="sub">{view.siteResources.filter((resource) => resource.sort === each.sort).length || ''}</span
            ></button
          >
        {/each}
      </nav>
      <div class="what">
        {#if open === 'network'}
          {#each view.site.networks as network (network.id)}
            <div class="item">
              <div>
                <b>{network.name}</b> <span class="mono">{network.prefix}</span><br /><span class="sub"
                  >{network.purpose.replace('-', ' ')}{network.vlan ? ` · VLAN ${network.vlan}` : ''}{network.mtu
                    ? ` · MTU ${network.mtu}`
                    : ''}{network.permanent ? ` · ${m.prepare.permanentShort}` : ''}</span
                >
              </div>
              <B onclick={() => onnetwork(network)}>{m.prepare.change}</B>
            </div>
          {/each}
          <B look="go" onclick={() => onnetwork(null)}>{g.addNetwork}</B>
        {:else if open === 'image'}
          <Images />
        {:else if sort}
          {#each items as item (item.id)}
            <div class="item">
              <div>
                <b>{item.name}</b><br /><span class="sub"
                  >{sort.fields
                    .filter((field) => item.values[field.name])
                    .map((field) => `${field.title} ${item.values[field.name]}`)
                    .join(' · ')}</span
                >
              </div>
              <span class="acts"
                ><B onclick={() => begin(item)}>{m.prepare.change}</B><B onclick={() => void remove(item)}
                  >{m.prepare.removeRange}</B
                ></span
              >
            </div>
          {:else}
            {#if !draft}<p class="sub">{g.none}</p>{/if}
          {/each}
          {#if draft}
            <form onsubmit={(event) => void save(event)}>
              <div>
                <Label for="{id}-name">{g.name}</Label><Input
                  id="{id}-name"
                  bind:value={draft.name}
                  placeholder={sort.example}
                  aria-invalid={'name' in faults}
                /><span class={faults.name ? 'bad' : 'sub'}>{faults.name ?? ''}</span>
              </div>
              {#each sort.fields as field (field.name)}
                <div>
                  <Label for="{id}-{field.name}">{field.title}{field.wanted ? '' : ` (${g.optional})`}</Label>
                  <Input
                    id="{id}-{field.name}"
                    class="mono"
                    type={field.secret ? 'password' : 'text'}
                    bind:value={draft.values[field.name]}
                    placeholder={field.example}
                    aria-invalid={field.name in faults}
                    autocomplete="off"
                    spellcheck="false"
                  />
                  <span class={faults[field.name] ? 'bad' : 'sub'}>{faults[field.name] ?? ''}</span>
                </div>
              {/each}
              <div class="row">
                <B look="go" type="submit">{m.prepare.saveEntry}</B><B onclick={() => (draft = null)}
                  >{m.prepare.cancel}</B
                >
              </div>
            </form>
          {:else}
            <B look="go" onclick={() => begin(null)}>{g.add(sort.title.toLowerCase())}</B>
          {/if}
        {/if}
      </div>
    </div>{/if}
</Dialog>

<style>
  .two {
    display: grid;
    grid-template-columns: 210px minmax(0, 1fr);
    gap: 20px;
    min-height: 320px;
  }
  nav {
    display: flex;
    flex-direction: column;
    gap: 2px;
  }
  nav button {
    text-align: left;
    padding: 6px 10px;
    border-radius: 5px;
    display: flex;
    justify-content: space-between;
  }
  nav button.on {
    background: var(--lamp2);
    font-weight: 600;
  }
  .item {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    align-items: center;
    padding: 7px 0;
    border-bottom: 1px solid var(--line2);
    margin-bottom: 6px;
  }
  .acts,
  .row {
    display: flex;
    gap: 8px;
  }
  form {
    display: grid;
    gap: 9px;
    margin-top: 10px;
  }
  @media (max-width: 700px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
