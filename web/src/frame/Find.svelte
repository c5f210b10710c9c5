<script lang="ts">
  import { api } from '../lib/api';
  import { notices } from '../lib/notices.svelte';
  import type { Found } from '../lib/types';
  import { m } from '../messages';
  import { go, path, stageOfPath } from '../routes';

  let input: HTMLInputElement;
  let text = $state('');
  let found = $state<Found[] | null>(null);
  let on = $state(0);
  let asked = 0;

  export function focus(): void {
    input.focus();
    input.select();
  }

  async function look(): Promise<void> {
    const turn = ++asked;
    if (text.trim().length < 2) {
      found = null;
      return;
    }
    try {
      const answer = await api.get<Found[]>('/find?q=' + encodeURIComponent(text.trim()));
      if (turn === asked) {
        found = answer;
        on = 0;
      }
    } catch (error) {
      notices.fault(error);
    }
  }

  function open(choice: Found | undefined): void {
    if (!choice) return;
    go(path(choice.bringUpId, stageOfPath(), choice.unitId));
    close();
  }

  function close(): void {
    found = null;
    text = '';
    input.blur();
  }

  function keys(event: KeyboardEvent): void {
    if (event.key === 'Escape') close();
    else if (event.key === 'Enter') open(found?.[on]);
    else if (event.key === 'ArrowDown') on = Math.min(on + 1, (found?.length ?? 1) - 1);
    else if (event.key === 'ArrowUp') on = Math.max(on - 1, 0);
    else return;
    event.preventDefault();
  }
</script>

<div class="find">
  <input
    bind:this={input}
    bind:value={text}
    oninput={() => void look()}
    onkeydown={keys}
    onblur={() => setTimeout(() => (found = null), 150)}
    type="text"
    role="combobox"
    aria-expanded={found !== null}
    aria-controls="found"
    aria-activedescendant={found?.length ? `found-${on}` : undefined}
    aria-label={m.frame.find}
    placeholder={m.frame.find}
    autocomplete="off"
    spellcheck="false"
  />
  <kbd aria-hidden="true">/</kbd>
  {#if found}
    <div id="found" role="listbox" aria-label={m.frame.find} class="sheet">
      {#each found as choice, i (choice.unitId)}
        <div
          id="found-{i}"
          role="option"
          tabindex="-1"
          aria-selected={i === on}
          class:on={i === on}
          onmousedown={() => open(choice)}
        >
          <b class="mono">{choice.name}</b> <span class="sub">{choice.text} · {choice.bringUp}</span>
        </div>
      {:else}
        <div class="none sub">{m.frame.findNothing}</div>
      {/each}
    </div>
  {/if}
</div>

<style>
  .find {
    margin-left: auto;
    position: relative;
    width: 330px;
    max-width: 100%;
  }
  input {
    width: 100%;
    background: var(--night2);
    border: 1px solid var(--night-line);
    color: #fff;
    border-radius: 5px;
    padding: 5px 34px 5px 12px;
    font: inherit;
  }
  input::placeholder {
    color: var(--moon);
    opacity: 1;
  }
  kbd {
    position: absolute;
    right: 10px;
    top: 8px;
    color: var(--moon);
  }
  #found {
    position: absolute;
    z-index: 15;
    top: calc(100% + 4px);
    left: 0;
    right: 0;
    color: var(--ink);
    padding: 4px;
  }
  #found > div {
    padding: 5px 8px;
    border-radius: 4px;
    cursor: pointer;
  }
  #found > .on {
    background: var(--lamp2);
  }
  #found > .none {
    cursor: default;
  }
  @media (max-width: 600px) {
    .find {
      order: 5;
      width: 100%;
    }
  }
</style>
