<script lang="ts">
  import { untrack } from 'svelte';
  import { api } from '../../lib/api';
  import { notices } from '../../lib/notices.svelte';
  import { lookAgain } from '../../lib/query';
  import { session } from '../../lib/session.svelte';
  import B from '../../parts/B.svelte';
  import Dialog from '../../parts/Dialog.svelte';
  import { m } from '../../messages';
  import type { RecordingKept } from './types';

  /** Keeps what was played with its kind. One of a setup needs one press; a file is looked through first. */
  let { kind, name, dialogue, file }: { kind: string; name: string; dialogue: number | null; file: object | null } =
    $props();
  const t = m.kinds.kept;
  let asking = $state(false);
  let called = $state(untrack(() => name));
  let busy = $state(false);

  async function keep(): Promise<void> {
    busy = true;
    try {
      const body = { name: called, dialogue, file };
      const kept = await api.post<RecordingKept>(`/catalogue/${kind}/recordings/kept`, body);
      notices.say(t.done(kept.recording.name, kept.blanked));
    } catch (error) {
      notices.fault(error);
    } finally {
      busy = false;
      asking = false;
    }
    lookAgain();
  }
</script>

{#if session.mayWork}
  <B disabled={busy} onclick={() => (file ? (asking = true) : void keep())}>{t.keep}</B>
{/if}
{#if asking}
  <Dialog title={t.keep} onclose={() => (asking = false)}>
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <p>{t.warn}</p>
      <label>{t.name} <input bind:value={called} required maxlength={60} /></label>
      <div><B look="go" type="submit" disabled={busy}>{t.keep}</B></div>
    </form>
  </Dialog>
{/if}

<style>
  form {
    display: grid;
    gap: 10px;
  }
  p {
    margin: 0;
  }
  input {
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--paper);
    padding: 4px 8px;
  }
</style>
