import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Cable, type Port, type PortSettings } from '../src/stages/configure/bench/cables.svelte';

/** The server's end of a cable. */
class Link {
  static readonly OPEN = 1;
  static all: Link[] = [];
  readyState = Link.OPEN;
  readonly sent: Record<string, unknown>[] = [];
  onmessage: (event: { data: string }) => void = () => undefined;
  onclose: () => void = () => undefined;

  constructor(readonly url: string) {
    Link.all.push(this);
  }
  send(text: string): void {
    this.sent.push(JSON.parse(text) as Record<string, unknown>);
  }
  close(): void {
    if (this.readyState !== Link.OPEN) return;
    this.readyState = 3;
    this.onclose();
  }
  says(message: unknown): void {
    this.onmessage({ data: JSON.stringify(message) });
  }
}
const link = () => Link.all[Link.all.length - 1]!;
const SETTINGS: PortSettings = { baudRate: 57600, dataBits: 8, parity: 'none', stopBits: 1 };

/** A serial adapter, and the machine behind it. */
class Adapter extends EventTarget implements Port {
  readable: ReadableStream<Uint8Array> | null = null;
  writable: WritableStream<Uint8Array> | null = null;
  readonly did: string[] = [];
  private out: ReadableStreamDefaultController<Uint8Array> | null = null;
  inUse = false;
  /** Resolves the writing that stands, where the machine takes nothing for a while. */
  takes: Promise<void> = Promise.resolve();

  private stream(): void {
    this.readable = new ReadableStream({ start: (controller) => void (this.out = controller) });
  }
  open(settings: PortSettings): Promise<void> {
    if (this.inUse) return Promise.reject(new DOMException('The port is already open.', 'InvalidStateError'));
    this.did.push(`open ${settings.baudRate}`);
    this.stream();
    this.writable = new WritableStream({
      write: async (bytes) => {
        await this.takes;
        this.did.push(`write ${String.fromCharCode(...bytes)}`);
      },
    });
    return Promise.resolve();
  }
  close(): Promise<void> {
    if (this.readable?.locked) return Promise.reject(new DOMException('Streams are locked.', 'InvalidStateError'));
    this.did.push('close');
    return Promise.resolve();
  }
  setSignals(signals: { break: boolean }): Promise<void> {
    this.did.push(`break ${signals.break}`);
    return Promise.resolve();
  }
  shows(text: string): void {
    this.out!.enqueue(Uint8Array.from(text, (each) => each.charCodeAt(0)));
  }
  /** A fault of the line, after which the port has another stream (Web Serial, section 4.4). */
  fails(name: string): void {
    const broken = this.out!;
    this.stream();
    broken.error(new DOMException(name, name));
  }
  pulled(): void {
    const broken = this.out!;
    this.readable = null;
    broken.error(new DOMException('The device has been lost.', 'NetworkError'));
    this.dispatchEvent(new Event('disconnect'));
  }
}

let adapter: Adapter;
let cable: Cable;
const up = async () => {
  link().says({ open: SETTINGS });
  await vi.waitFor(() => expect(link().sent).toContainEqual({ up: 1 }));
};

beforeEach(() => {
  Link.all = [];
  vi.stubGlobal('WebSocket', Link);
  adapter = new Adapter();
  cable = new Cable(7, adapter);
});
afterEach(() => {
  cable.unplug();
  vi.unstubAllGlobals();
});

describe('the cable at this browser', () => {
  it('opens its port with the settings of the kind and passes bytes both ways', async () => {
    expect(link().url).toContain('/api/cables/7');
    expect(cable.state).toBe('waiting');
    await up();
    expect(cable.state).toBe('up');
    adapter.shows('name: \u00fe');
    adapter.shows('x');
    await vi.waitFor(() => expect(link().sent).toContainEqual({ n: 2, d: 'x' }));
    expect(link().sent).toContainEqual({ n: 1, d: 'name: \u00fe' });
    link().says({ n: 1, d: 'tarn\r' });
    link().says({ b: 1 });
    link().says({ n: 2, d: '\u00ff' });
    await vi.waitFor(() => expect(link().sent).toContainEqual({ a: 2 }));
    expect(adapter.did).toEqual(['open 57600', 'write tarn\r', 'break true', 'break false', 'write \u00ff']);
  });

  it('confirms nothing before the port has taken it, and writes nothing of a connection that is gone', async () => {
    await up();
    let takes: () => void = () => undefined;
    adapter.takes = new Promise((taken) => (takes = taken));
    const first = link();
    first.says({ n: 1, d: 'a\r' });
    first.says({ n: 2, d: 'b\r' });
    await Promise.resolve();
    expect(first.sent.filter((each) => 'a' in each)).toEqual([]);
    first.close();
    takes();
    await vi.waitFor(() => expect(adapter.did).toContain('close'));
    expect(adapter.did).toContain('write a\r');
    expect(adapter.did).not.toContain('write b\r');
    expect(cable.state).toBe('waiting');
    await vi.waitFor(() => expect(Link.all).toHaveLength(2));
    await up();
    expect(link().sent).toEqual([{ up: 1 }]);
  });

  it('goes on after a fault of the line, and says which', async () => {
    await up();
    adapter.fails('FramingError');
    await vi.waitFor(() => expect(link().sent).toContainEqual({ e: 'framing' }));
    adapter.fails('BreakError');
    await vi.waitFor(() => expect(adapter.readable!.locked).toBe(true));
    adapter.shows('still here');
    await vi.waitFor(() => expect(link().sent).toContainEqual({ n: 1, d: 'still here' }));
    expect(cable.state).toBe('up');
  });

  it('ends the line when the adapter is pulled out, and begins again when it is plugged in', async () => {
    await up();
    adapter.pulled();
    await vi.waitFor(() => expect(cable.state).toBe('lost'));
    expect(link().readyState).not.toBe(Link.OPEN);
    expect(Link.all).toHaveLength(1);
    await vi.waitFor(() => expect(adapter.did).toContain('close'));
    cable.again();
    await up();
    expect(cable.state).toBe('up');
  });

  it('says why a port cannot be opened, and opens it once it is free', async () => {
    adapter.inUse = true;
    link().says({ open: SETTINGS });
    await vi.waitFor(() => expect(cable.state).toBe('lost'));
    expect(cable.fault).toBe('The port is already open.');
    adapter.inUse = false;
    await vi.waitFor(() => expect(Link.all).toHaveLength(2), { timeout: 4000 });
    await up();
    expect(cable.fault).toBe('');
  });

  it('leaves a line to the window that has its cable', () => {
    link().says({ x: 'taken' });
    expect(cable.state).toBe('taken');
    expect(adapter.did).toEqual([]);
  });

  it('answers when it is asked whether it is there', () => {
    link().says({ h: 1 });
    expect(link().sent).toEqual([{ h: 1 }]);
  });
});
