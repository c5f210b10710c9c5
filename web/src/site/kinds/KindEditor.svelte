<script lang="ts">
  import { untrack } from 'svelte';
  import { api } from '../../lib/api';
  import { m } from '../../messages';
  import { KindEditorView } from './editor';
  import type { Schema } from './schema';
  import type { KindFault } from './types';

  /** The text of a kind, with its faults at their places and proposals while typing. */
  let {
    text,
    faults,
    readonly,
    ontyped,
  }: { text: string; faults: KindFault[]; readonly: boolean; ontyped: (text: string) => void } = $props();
  let editor: KindEditorView | undefined;
  let schema: Schema | null = null;

  function open(box: HTMLElement) {
    const root = box.shadowRoot ?? box.attachShadow({ mode: 'open', delegatesFocus: true });
    void api.get<Schema>('/kinds/kind.schema.json').then((found) => (schema = found));
    const made = untrack(
      () =>
        new KindEditorView(
          root,
          text,
          () => schema,
          { label: m.kinds.text.label, required: m.kinds.text.required },
          (now) => ontyped(now),
        ),
    );
    editor = made;
    $effect(() => made.show(text));
    $effect(() => made.mark(faults));
    $effect(() => made.lock(readonly));
    return () => made.close();
  }

  export function goTo(line: number, column: number): void {
    editor?.goTo(line, column);
  }
</script>

<div class="editor" {@attach open}></div>

<style>
  .editor {
    height: min(70vh, 640px);
    border: 1px solid var(--line);
    border-radius: 5px;
    overflow: hidden;
    background: var(--sheet);
  }
</style>
