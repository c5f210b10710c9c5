<script lang="ts">
  import { FitAddon } from '@xterm/addon-fit';
  import { Terminal } from '@xterm/xterm';
  import '@xterm/xterm/css/xterm.css';
  import { untrack } from 'svelte';
  import { withAdoptedStyles } from '../../../lib/adopted';
  import { api } from '../../../lib/api';
  import { notices } from '../../../lib/notices.svelte';
  import { session } from '../../../lib/session.svelte';
  import B from '../../../parts/B.svelte';
  import Dialog from '../../../parts/Dialog.svelte';
  import { m } from '../../../messages';
  import CableBar from './CableBar.svelte';
  import { LineLink } from './line.svelte';
  import type { LineStanding, Member } from './types';

  /**
   * The live line of a member: a real terminal. Every plain key goes to the machine; the tool's own are Ctrl+Shift
   * chords.
   */
  let {
    member,
    unit,
    onstanding,
  }: { member: Member; unit: string; onstanding: (standing: LineStanding | null) => void } = $props();

  /** The machines' screens have this size; a window that is smaller scrolls. */
  const COLUMNS = 80;
  const ROWS = 24;
  const FONT = 13;
  const SMALLEST_FONT = 9;
  /** More than one line, or more than that in one go, is asked about before it goes to a machine. */
  const LONG = 200;
  let terminal: Terminal;
  let link = $state.raw<LineLink | null>(null);
  let pasting = $state<string | null>(null);
  const up = $derived(link?.open === true && link.standing?.lineUp === true);
  const standing = $derived(link?.standing ?? null);
  const hand = $derived(link?.standing?.hand ?? '');
  const mine = $derived(hand === '' || hand === session.me?.login);

  /**
   * Once: what is read here is not followed, or each news of the unit would take the terminal, and the keyboard, away.
   */
  function attach(box: HTMLElement): () => void {
    return untrack(() => begin(box));
  }

  function begin(box: HTMLElement): () => void {
    const fit = new FitAddon();
    terminal = new Terminal({
      fontFamily: "'Atkinson Hyperlegible Mono Variable', monospace",
      fontSize: FONT,
      lineHeight: 1.12,
      scrollback: 3000,
      screenReaderMode: true,
      theme: {
        background: '#1a1613',
        foreground: '#e4dfd6',
        cursor: '#f3b43a',
        cursorAccent: '#1a1613',
        selectionBackground: '#5b4a2a',
      },
      cols: COLUMNS,
      rows: ROWS,
    });
    terminal.loadAddon(fit);
    const away = withAdoptedStyles(() => terminal.open(box));
    // nobody comes here by Tab on the way to somewhere else: the next Tab would be the machine's
    terminal.textarea!.tabIndex = -1;
    // who may not type here is not held here either
    terminal.attachCustomKeyEventHandler((event) => session.mayWork && !(event.ctrlKey && event.shiftKey));
    const own = new LineLink(
      member.dialogueId!,
      (text) => terminal.write(text),
      () => terminal.reset(),
      (sentence) => notices.say(sentence),
      onstanding,
    );
    link = own;
    const typing = terminal.onData((keys) => own.type(keys));
    const sized = () => {
      terminal.options.fontSize = FONT;
      const wide = fit.proposeDimensions();
      if (!wide) return;
      // letters shrink until a machine's whole page is in sight
      terminal.options.fontSize = Math.max(
        SMALLEST_FONT,
        Math.floor(FONT * 4 * Math.min(1, wide.cols / COLUMNS, wide.rows / ROWS)) / 4,
      );
      const size = fit.proposeDimensions();
      terminal.resize(Math.max(COLUMNS, size?.cols ?? 0), Math.max(ROWS, size?.rows ?? 0));
      own.resize(terminal.cols, terminal.rows);
    };
    const watcher = new ResizeObserver(sized);
    watcher.observe(box);
    return () => {
      watcher.disconnect();
      typing.dispose();
      own.close();
      terminal.dispose();
      away();
      onstanding(null);
    };
  }

  function pasted(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text') ?? '';
    event.preventDefault();
    event.stopPropagation();
    if (!session.mayWork || text === '') return;
    if (text.length > LONG || /[\r\n]/.test(text.replace(/[\r\n]+$/, ''))) pasting = text;
    else link?.type(text.replace(/[\r\n]+$/, ''));
  }

  function send(text: string): void {
    link?.type(text.replace(/\r?\n/g, '\r'));
    pasting = null;
    terminal.focus();
  }

  /** Types a value of the plan, in order with the keys before and after it. */
  export function typeValue(name: string): void {
    link?.value(name);
    terminal.focus();
  }

  function into(event: KeyboardEvent): void {
    if (event.key === 'Enter' && event.target === event.currentTarget) {
      event.preventDefault();
      terminal.focus();
    }
  }

  async function take(): Promise<void> {
    try {
      await api.post(`/dialogues/${member.dialogueId}/take`);
    } catch (error) {
      notices.fault(error);
    }
  }
</script>

<section class="con" aria-label={m.bench.console(unit, member.label)}>
  <header>
    <b>{unit} {member.label}</b> <span>{member.line} · {member.settings}</span>
    <span class="end">
      {#if up}<span class="rec"><i aria-hidden="true"></i>{m.bench.recording}</span>{:else}<span class="down"
          >{link?.open ? (member.cable === 'CHOSEN' ? m.bench.cable.none : m.bench.lineDown) : m.bench.lineShut}</span
        >{/if}
      {#if session.mayWork}<button
          type="button"
          disabled={!up}
          onclick={() => link?.sendBreak()}
          title={m.bench.breakTitle}>{m.bench.sendBreak}</button
        >{/if}
    </span>
  </header>
  {#if member.cable === 'CHOSEN' && session.mayWork}<CableBar
      dialogue={member.dialogueId!}
      settings={member.settings}
      lineUp={up}
    />{/if}
  <!-- Tab comes here and goes on; only Enter, or a press, leads into the terminal -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    class="body"
    role="group"
    aria-label={m.bench.console(unit, member.label)}
    tabindex="0"
    {@attach attach}
    onpastecapture={pasted}
    onkeydown={into}
  ></div>
  <footer>
    {#if !mine}
      <span>{m.bench.hand(hand)}</span>
      {#if session.mayWork}<button type="button" onclick={() => void take()}>{m.bench.take}</button>{/if}
    {:else if standing?.note}
      <span>{standing.note}</span>
    {:else}
      <span>{m.bench.says[standing?.state ?? ''] ?? ''}</span>
    {/if}
    {#if session.mayWork}<span class="out"
        ><kbd>^⇧↓</kbd> {m.bench.intoTerminal} · <kbd>^⇧↑</kbd> {m.bench.outOfTerminal}</span
      >{/if}
  </footer>
</section>
{#if pasting !== null}
  <Dialog title={m.bench.paste(pasting.split(/\r?\n/).length)} onclose={() => (pasting = null)}>
    <p>{m.bench.pasteText}</p>
    <pre class="mono">{pasting.slice(0, 2000)}</pre>
    <div class="row">
      <B look="go" onclick={() => send(pasting!)}>{m.bench.pasteYes}</B><B onclick={() => (pasting = null)}
        >{m.bench.pasteNo}</B
      >
    </div>
  </Dialog>
{/if}

<style>
  .con {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
    background: #1a1613;
    color: #d9d2c7;
    border-radius: 6px;
    overflow: hidden;
  }
  header,
  footer {
    background: #2a221c;
    color: #c3baad;
    padding: 7px 12px;
    display: flex;
    gap: 12px;
    align-items: center;
    font-size: 12.5px;
    min-height: 34px;
  }
  header b {
    color: #fff;
    font-family: var(--font-mono);
  }
  .end {
    margin-left: auto;
    display: flex;
    gap: 12px;
    align-items: center;
  }
  .rec {
    color: #f3b43a;
  }
  .rec i {
    display: inline-block;
    width: 9px;
    height: 9px;
    border-radius: 50%;
    background: #f3b43a;
    margin-right: 5px;
  }
  .down {
    color: #f0a08c;
  }
  footer {
    color: #8fd3c7;
  }
  .out {
    margin-left: auto;
    color: #c3baad;
    white-space: nowrap;
  }
  header button,
  footer button {
    color: #f4efe6;
    border: 1px solid #8d7f6e;
    border-radius: 4px;
    padding: 1px 8px;
    font-size: 12px;
  }
  .body {
    flex: 1;
    min-height: 300px;
    padding: 8px 4px 4px 10px;
    overflow: auto;
  }
  pre {
    max-height: 300px;
    overflow: auto;
    background: var(--line2);
    padding: 8px;
    border-radius: 4px;
    white-space: pre-wrap;
  }
  .row {
    display: flex;
    gap: 8px;
    margin-top: 12px;
  }
</style>
