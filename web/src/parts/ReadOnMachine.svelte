<script lang="ts">
  import { api, Problem } from '../lib/api';
  import { notices } from '../lib/notices.svelte';
  import B from './B.svelte';
  import { m } from '../messages';

  /** Which machine it is, where the machine does not say: a person enters what is written on it. */
  let { dialogueId, onrecorded }: { dialogueId: number; onrecorded: () => void } = $props();
  const id = $props.id();
  let read = $state('');
  let fault = $state('');
  let busy = $state(false);
  let input: HTMLInputElement;

  async function record(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    fault = '';
    try {
      await api.put(`/dialogues/${dialogueId}/comparison`, { read });
      onrecorded();
    } catch (error) {
      fault = (error instanceof Problem && error.faults['read']) || '';
      if (!fault) notices.fault(error);
      input.focus();
    } finally {
      busy = false;
    }
  }
</script>

<form onsubmit={(event) => void record(event)}>
  <label for={id}>{m.compare.field}</label>
  <input
    {id}
    bind:this={input}
    bind:value={read}
    class="mono"
    maxlength={120}
    autocomplete="off"
    spellcheck="false"
    aria-invalid={fault ? 'true' : undefined}
    aria-describedby="{id}-say"
  />
  <B type="submit" disabled={busy || !read.trim()}>{m.compare.button}</B>
  <p id="{id}-say" class={fault ? 'fault' : 'sub'} role={fault ? 'alert' : undefined}>{fault || m.compare.say}</p>
</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 8px;
    align-items: center;
    padding: 6px 0;
  }
  label {
    font-size: 13px;
    font-weight: 600;
    flex-basis: 100%;
  }
  input {
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--sheet);
    color: var(--ink);
    padding: 5px 8px;
    min-width: 0;
    width: 15em;
  }
  p {
    margin: 0;
    font-size: 12.5px;
    flex-basis: 100%;
  }
  .fault {
    color: var(--fault);
  }
</style>
