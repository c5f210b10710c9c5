<script module lang="ts">
  /** What is wrong with a line; line 0 where it is about the whole. */
  export interface Wrong {
    line: number;
    column?: string;
    value: string;
    reason: string;
  }
</script>

<script lang="ts" generics="R extends { faults: Wrong[] }">
  import { Label, Textarea } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { untrack } from 'svelte';
  import { Problem } from '../lib/api';
  import { decoded } from '../lib/decode';
  import { lookAgain } from '../lib/query';
  import { m } from '../messages';
  import B from './B.svelte';
  import Dialog from './Dialog.svelte';

  /** A table, list or file that is handed in: looked over first, then taken. What was pasted outlives a reload. */
  type Source = (preview: boolean) => Promise<R>;
  interface Props {
    title: string;
    intro: string;
    placeholder: string;
    /** under which word the text is kept */
    draft: string;
    accept?: string;
    read: (text: string, preview: boolean) => Promise<R>;
    /** how much of a report there is to take, and what the button says */
    news: (report: R) => number;
    take: (count: number) => string;
    ontaken: (report: R) => void;
    onclose: () => void;
    /** the first line of a report, and what else it shows */
    found: Snippet<[R]>;
    rest?: Snippet<[R, () => void]>;
    /** whether the text may be kept for a reload; not where it holds a password */
    mayKeep?: (text: string) => boolean;
    /** other places to read from */
    others?: Snippet<[(source: Source) => void, boolean]>;
  }
  let {
    title,
    intro,
    placeholder,
    draft,
    accept = '.csv,.tsv,.txt,text/csv,text/plain',
    read,
    news,
    take,
    ontaken,
    onclose,
    found,
    rest,
    mayKeep = () => true,
    others,
  }: Props = $props();
  const LONGEST = 4_000_000;
  const KEPT = 200_000;
  const key = untrack(() => `lychnos-${draft}`);
  const id = $props.id();
  let text = $state(sessionStorage.getItem(key) ?? '');
  let report = $state<R | null>(null);
  let fault = $state('');
  let busy = $state(false);
  const fromText: Source = (preview) => read(text, preview);
  let source: Source = fromText;

  async function run(preview: boolean): Promise<void> {
    if (mayKeep(text)) sessionStorage.setItem(key, text.slice(0, KEPT));
    else sessionStorage.removeItem(key);
    busy = true;
    fault = '';
    try {
      const done = await source(preview);
      if (preview) {
        report = done;
        return;
      }
      sessionStorage.removeItem(key);
      ontaken(done);
      lookAgain();
      onclose();
    } catch (error) {
      fault = error instanceof Problem ? error.detail : String(error);
    } finally {
      busy = false;
    }
  }

  function look(from: Source): void {
    source = from;
    void run(true);
  }

  async function choose(event: Event): Promise<void> {
    const file = (event.currentTarget as HTMLInputElement).files?.[0];
    if (!file) return;
    if (file.size > LONGEST) {
      fault = `${file.name}: ${Math.round(file.size / 1e6)} MB. ${m.read.tooLarge}`;
      return;
    }
    text = decoded(await file.arrayBuffer());
    look(fromText);
  }
</script>

<Dialog {title} wide {onclose}>
  {#if report}
    <p>
      {@render found(report)}{#if report.faults.length > 0}, <b class="bad"
          >{new Set(report.faults.map((wrong) => wrong.line)).size}</b
        >
        {m.read.wrong}{/if}
    </p>
    {#if report.faults.length > 0}
      <div class="sheet scroll box">
        <table class="tbl">
          <thead
            ><tr><th>{m.read.line}</th><th>{m.read.column}</th><th>{m.read.value}</th><th>{m.read.reason}</th></tr
            ></thead
          >
          <tbody>
            {#each report.faults as wrong, i (i)}<tr
                ><td class="mono">{wrong.line || ''}</td><td>{wrong.column ?? ''}</td><td class="mono">{wrong.value}</td
                ><td class="bad">{wrong.reason}</td></tr
              >{/each}
          </tbody>
        </table>
      </div>
    {/if}
    {@render rest?.(report, () => void run(true))}
    {#if news(report) === 0 && report.faults.length === 0}<p class="sub">{m.read.nothingNew}</p>{/if}
    <div class="row">
      {#if news(report) > 0}<B look="go" disabled={busy} onclick={() => void run(false)}>{take(news(report))}</B>{/if}
      <B onclick={() => (report = null)}>{m.read.again}</B>
    </div>
  {:else}
    <p class="sub">{intro}</p>
    {@render others?.(look, busy)}
    <div class="file">
      <Label for="{id}-file">{m.read.file}</Label><input
        id="{id}-file"
        type="file"
        {accept}
        onchange={(event) => void choose(event)}
      />
    </div>
    <Label
      >{m.read.paste}<Textarea
        class="mono w-full"
        rows={10}
        bind:value={text}
        spellcheck="false"
        {placeholder}
      /></Label
    >
    <div class="row">
      <B look="go" disabled={busy || text.trim() === ''} onclick={() => look(fromText)}>{m.read.look}</B>
    </div>
  {/if}
  {#if fault}<p class="say" role="alert">{fault}</p>{/if}
</Dialog>

<style>
  p {
    margin: 0 0 10px;
  }
  .box {
    max-height: 260px;
    overflow: auto;
    margin-bottom: 12px;
  }
  .row {
    display: flex;
    gap: 8px;
    margin-top: 10px;
  }
  .file {
    display: flex;
    gap: 12px;
    align-items: center;
    margin-bottom: 12px;
  }
</style>
