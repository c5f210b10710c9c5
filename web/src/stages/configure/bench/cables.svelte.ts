/** The parts of Web Serial (WICG) that a console needs; the types of the DOM do not have it. */
export interface PortSettings {
  baudRate: number;
  dataBits: number;
  parity: string;
  stopBits: number;
}
export interface Port extends EventTarget {
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
  open(settings: PortSettings): Promise<void>;
  close(): Promise<void>;
  setSignals(signals: { break: boolean }): Promise<void>;
}
export interface Serial extends EventTarget {
  requestPort(): Promise<Port>;
  getPorts(): Promise<Port[]>;
}

export type CableState =
  /** The server has no line for it now, or is not there; it is asked again. */
  | 'waiting'
  | 'opening'
  | 'up'
  /** Another window has the cable of this line. */
  | 'taken'
  /** The port cannot be opened, or the adapter was pulled out. */
  | 'lost';

interface FromServer {
  open?: PortSettings;
  n?: number;
  d?: string;
  b?: number;
  h?: number;
  x?: string;
}

const FIRST_WAIT = 300;
const LONGEST_WAIT = 5000;
const BREAK_MS = 250;
const FAILED_MS = 1500;
const MOST_FAILED = 20;
/** What a browser calls a fault of the line that does not close the port. */
const FAULTS: Record<string, string> = {
  FramingError: 'framing',
  ParityError: 'parity',
  BufferOverrunError: 'overrun',
};

export const serial = (): Serial | undefined => (navigator as Navigator & { serial?: Serial }).serial;

const bytesOf = (text: string): Uint8Array => Uint8Array.from(text, (each) => each.charCodeAt(0));

function textOf(bytes: Uint8Array): string {
  let text = '';
  for (const each of bytes) text += String.fromCharCode(each);
  return text;
}

/** What a browser says of a failure: a DOMException (Web IDL), by its name. */
const said = (error: unknown): { name: string; message: string } => ({
  name: '',
  message: '',
  ...(typeof error === 'object' && error !== null && 'name' in error && 'message' in error
    ? { name: String(error.name), message: String(error.message) }
    : {}),
});

/** One serial port of this computer as the line of one dialogue. It connects again until it is unplugged. */
export class Cable {
  state = $state<CableState>('waiting');
  /** Why the port cannot be used, as the browser says it. */
  fault = $state('');
  private socket: WebSocket | null = null;
  private wait = FIRST_WAIT;
  private ended = false;
  /** How often in a row the port could not be opened. */
  private failed = 0;
  private isOpen = false;
  private reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  private reading: Promise<void> = Promise.resolve();
  private heard = 0;
  /** Counts openings, for what is still heard of an earlier one. */
  private opening = 0;
  /** What is done with the port is done one after the other, in the order in which it was told. */
  private turn: Promise<void> = Promise.resolve();

  constructor(
    readonly dialogue: number,
    readonly port: Port,
  ) {
    port.addEventListener('disconnect', () => this.lose(''));
    this.connect();
  }

  private connect(): void {
    const socket = new WebSocket(
      `${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/cables/${this.dialogue}`,
    );
    this.socket = socket;
    socket.onmessage = (event: MessageEvent<string>) => this.told(socket, JSON.parse(event.data) as FromServer);
    socket.onclose = () => {
      if (socket !== this.socket) return;
      this.socket = null;
      this.inTurn(() => this.shut());
      if (this.ended || this.state === 'lost') return;
      if (this.state !== 'taken') this.state = 'waiting';
      setTimeout(() => !this.ended && this.state !== 'lost' && this.connect(), this.wait);
      this.wait = Math.min(this.wait * 2, LONGEST_WAIT);
    };
  }

  private inTurn(act: () => Promise<void>): void {
    this.turn = this.turn.then(act).catch((error: unknown) => this.lose(said(error).message));
  }

  private send(message: unknown): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(message));
  }

  private told(socket: WebSocket, message: FromServer): void {
    if (message.h) this.send({ h: 1 });
    else if (message.open) this.inTurn(() => this.begin(socket, message.open!));
    else if (message.d !== undefined) this.inTurn(() => this.write(socket, message.n!, message.d!));
    else if (message.b) this.inTurn(() => this.sendBreak());
    else if (message.x) {
      this.state = message.x === 'taken' ? 'taken' : 'waiting';
      if (this.state === 'taken') this.wait = LONGEST_WAIT;
      socket.close();
    }
  }

  private async begin(socket: WebSocket, settings: PortSettings): Promise<void> {
    this.state = 'opening';
    await this.shut();
    try {
      await this.port.open(settings);
    } catch (error) {
      this.lose(said(error).message);
      // the page before a reload, or another program, may still have it for a moment
      if (this.failed++ < MOST_FAILED) setTimeout(() => this.again(), FAILED_MS);
      return;
    }
    this.failed = 0;
    this.isOpen = true;
    this.heard = 0;
    this.fault = '';
    this.wait = FIRST_WAIT;
    if (socket !== this.socket || this.ended) {
      await this.shut();
      return;
    }
    this.state = 'up';
    this.send({ up: 1 });
    this.reading = this.read();
  }

  private async read(): Promise<void> {
    const opening = ++this.opening;
    while (this.port.readable && this.isOpen && opening === this.opening) {
      this.reader = this.port.readable.getReader();
      try {
        for (;;) {
          const { value, done } = await this.reader.read();
          if (done) return;
          this.send({ n: ++this.heard, d: textOf(value) });
        }
      } catch (error) {
        const { name, message } = said(error);
        if (FAULTS[name]) this.send({ e: FAULTS[name] });
        else if (name !== 'BreakError') {
          if (opening === this.opening) this.lose(message);
          return;
        }
      } finally {
        this.reader.releaseLock();
        this.reader = null;
      }
    }
  }

  /** What was told over a connection that is gone is not written: the line was down since. */
  private async write(socket: WebSocket, number: number, text: string): Promise<void> {
    if (socket !== this.socket || !this.isOpen || !this.port.writable) return;
    const writer = this.port.writable.getWriter();
    try {
      await writer.write(bytesOf(text));
      this.send({ a: number });
    } finally {
      writer.releaseLock();
    }
  }

  private async sendBreak(): Promise<void> {
    if (!this.isOpen) return;
    await this.port.setSignals({ break: true });
    await new Promise((over) => setTimeout(over, BREAK_MS));
    await this.port.setSignals({ break: false });
  }

  private async shut(): Promise<void> {
    if (!this.isOpen) return;
    this.isOpen = false;
    await this.reader?.cancel().catch(() => {});
    await this.reading; // a port whose stream is still locked cannot be closed
    await this.port.close().catch(() => {});
  }

  private lose(why: string): void {
    if (this.ended || this.state === 'lost') return;
    this.state = 'lost';
    this.opening++;
    this.fault = why;
    this.socket?.close();
    this.inTurn(() => this.shut());
  }

  /** The adapter is in again, or a person wants to try once more. */
  again(): void {
    if (this.ended || this.state !== 'lost') return;
    this.state = 'waiting';
    this.fault = '';
    this.connect();
  }

  unplug(): void {
    this.ended = true;
    this.socket?.close();
    this.inTurn(() => this.shut());
  }
}

const REMEMBERED = 'lychnos.cable';

/** The cables of this window, by dialogue. They stay plugged while a person looks at something else. */
class Cables {
  private held = $state.raw<Record<number, Cable>>({});

  constructor() {
    serial()?.addEventListener('connect', () => Object.values(this.held).forEach((cable) => cable.again()));
  }

  of(dialogue: number): Cable | undefined {
    return this.held[dialogue];
  }

  plug(dialogue: number, port: Port): void {
    for (const cable of Object.values(this.held))
      if (cable.port === port || cable.dialogue === dialogue) this.unplug(cable.dialogue);
    this.held = { ...this.held, [dialogue]: new Cable(dialogue, port) };
    sessionStorage.setItem(REMEMBERED, String(dialogue));
  }

  unplug(dialogue: number): void {
    this.held[dialogue]?.unplug();
    this.held = Object.fromEntries(Object.entries(this.held).filter(([each]) => each !== String(dialogue)));
    if (sessionStorage.getItem(REMEMBERED) === String(dialogue)) sessionStorage.removeItem(REMEMBERED);
  }

  /** After a reload: the one port that this page may use is taken again for the line that it was used for. */
  async resume(dialogue: number): Promise<void> {
    if (this.held[dialogue] || sessionStorage.getItem(REMEMBERED) !== String(dialogue)) return;
    const ports = (await serial()?.getPorts()) ?? [];
    if (ports.length === 1 && !this.held[dialogue]) this.plug(dialogue, ports[0]!);
  }
}

export const cables = new Cables();
