import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import Console from '../src/stages/configure/bench/Console.svelte';
import type { LineStanding } from '../src/stages/configure/bench/types';
import { Server, signedIn } from './signed';
import { recorded } from './views';

/** What would draw the terminal: a document of a test has no canvas. */
const terminal = vi.hoisted(() => ({
  written: [] as string[],
  focused: 0,
  keys: (_keys: string): void => undefined,
  handles: (_event: KeyboardEvent): boolean => false,
}));
vi.mock('@xterm/xterm', () => ({
  Terminal: class {
    textarea = { tabIndex: 0 };
    options = { fontSize: 13 };
    cols = 80;
    rows = 24;
    loadAddon(): void {}
    open(): void {}
    resize(): void {}
    dispose(): void {}
    reset(): void {}
    focus(): void {
      terminal.focused++;
    }
    write(text: string): void {
      terminal.written.push(text);
    }
    onData(typed: (keys: string) => void): { dispose: () => void } {
      terminal.keys = typed;
      return { dispose: () => undefined };
    }
    attachCustomKeyEventHandler(handles: (event: KeyboardEvent) => boolean): void {
      terminal.handles = handles;
    }
  },
}));
vi.mock('@xterm/addon-fit', () => ({
  FitAddon: class {
    proposeDimensions(): undefined {
      return undefined;
    }
  },
}));

/** The server's end of the line. */
class Line {
  static readonly OPEN = 1;
  static last: Line;
  readonly readyState = Line.OPEN;
  readonly sent: unknown[] = [];
  onopen: () => void = () => undefined;
  onmessage: (event: { data: string }) => void = () => undefined;
  onclose: () => void = () => undefined;

  constructor(readonly url: string) {
    Line.last = this;
  }
  send(text: string): void {
    this.sent.push(JSON.parse(text));
  }
  close(): void {
    this.onclose();
  }
  says(message: { o?: string; s?: Partial<LineStanding>; x?: string }): void {
    this.onmessage({ data: JSON.stringify(message) });
  }
}

let server = new Server({});
beforeEach(() => {
  terminal.written.length = 0;
  terminal.focused = 0;
  document.adoptedStyleSheets = []; // a document of a test has none
  vi.stubGlobal('WebSocket', Line);
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe(): void {}
      disconnect(): void {}
    },
  );
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init));
});
afterEach(() => vi.unstubAllGlobals());

const member = recorded.bench().members[0]!;
function shown(standing: Partial<LineStanding>, role: 'viewer' | 'engineer' = 'engineer'): HTMLElement {
  signedIn(role);
  server = new Server({});
  render(Console, { member, unit: 'ard-fic-1', onstanding: () => undefined });
  Line.last.onopen();
  Line.last.says({ s: { lineUp: true, state: 'FOLLOWING', hand: '', note: '', ...standing } });
  return screen.getByRole('group');
}
const paste = (into: HTMLElement, text: string) => fireEvent.paste(into, { clipboardData: { getData: () => text } });
const keys = () => Line.last.sent.filter((each) => 'k' in (each as object));

describe('the console of a member', () => {
  it('shows what the machine writes, and sends each key', async () => {
    shown({});
    Line.last.says({ o: 'tarn login: ' });
    expect(terminal.written).toEqual(['tarn login: ']);
    terminal.keys('k');
    expect(keys()).toEqual([{ k: 'k' }]);
    expect(await screen.findByText('recording')).toBeInTheDocument();
  });

  it('sends one pasted line without its end, so that a person presses Enter', async () => {
    const body = shown({});
    await paste(body, '10.40.8.34\n');
    expect(keys()).toEqual([{ k: '10.40.8.34' }]);
  });

  it('asks before it sends several lines, and sends them with the key of a terminal', async () => {
    const body = shown({});
    await paste(body, 'set name ard-fic-1\nset mask 24');
    expect(keys()).toEqual([]);
    expect(await screen.findByText('Paste 2 lines into the machine?')).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Paste', hidden: true }));
    expect(keys()).toEqual([{ k: 'set name ard-fic-1\rset mask 24' }]);
    expect(terminal.focused).toBe(1);
  });

  it('sends nothing of several lines that a person does not want', async () => {
    const body = shown({});
    await paste(body, 'a'.repeat(201));
    await fireEvent.click(await screen.findByRole('button', { name: /Don’t paste/, hidden: true }));
    expect(keys()).toEqual([]);
  });

  it('keeps its own chords from the machine', () => {
    shown({});
    expect(terminal.handles(new KeyboardEvent('keydown', { key: 'Y', ctrlKey: true, shiftKey: true }))).toBe(false);
    expect(terminal.handles(new KeyboardEvent('keydown', { key: 'c', ctrlKey: true }))).toBe(true);
  });

  it('tells who has the keyboard, and takes it over', async () => {
    shown({ hand: 'hall-lead' });
    expect(await screen.findByText('hall-lead has the keyboard of this line.')).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Take over the keyboard' }));
    await waitFor(() =>
      expect(server.sent).toEqual([{ method: 'POST', path: `/api/dialogues/${member.dialogueId}/take`, body: {} }]),
    );
  });

  it('lets a viewer look and type nothing', async () => {
    const body = shown({}, 'viewer');
    await paste(body, '10.40.8.34');
    expect(keys()).toEqual([]);
    expect(terminal.handles(new KeyboardEvent('keydown', { key: 'a' }))).toBe(false);
    expect(screen.queryByRole('button')).not.toBeInTheDocument();
  });

  it('says that the line is down, and sends no break then', async () => {
    shown({ lineUp: false });
    expect(await screen.findByText('line down, reconnecting')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /break/i })).toBeDisabled();
  });

  it('sends a break', async () => {
    shown({});
    await fireEvent.click(await screen.findByRole('button', { name: /break/i }));
    expect(Line.last.sent).toContainEqual({ b: 1 });
  });
});
