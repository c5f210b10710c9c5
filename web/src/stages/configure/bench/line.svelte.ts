import type { LineStanding } from './types';

const FIRST_WAIT = 300;
const LONGEST_WAIT = 5000;

/** A screen's end of one line: what it shows, how its dialogue stands, and what is typed. Reconnects automatically. */
export class LineLink {
  standing = $state.raw<LineStanding | null>(null);
  /** False while there is nothing to look at: the line is not open, or its server is not there. */
  open = $state(false);
  private socket: WebSocket | null = null;
  private wait = FIRST_WAIT;
  private ended = false;

  constructor(
    private readonly dialogue: number,
    private readonly shown: (text: string) => void,
    private readonly cleared: () => void,
    private readonly refused: (sentence: string) => void,
    private readonly stands: (standing: LineStanding) => void,
  ) {
    this.connect();
  }

  private connect(): void {
    const socket = new WebSocket(
      `${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/lines/${this.dialogue}`,
    );
    this.socket = socket;
    socket.onopen = () => this.cleared();
    socket.onmessage = (event: MessageEvent<string>) =>
      this.heard(JSON.parse(event.data) as { o?: string; s?: LineStanding; x?: string });
    socket.onclose = () => {
      this.open = false;
      if (this.ended) return;
      setTimeout(() => !this.ended && this.connect(), this.wait);
      this.wait = Math.min(this.wait * 2, LONGEST_WAIT);
    };
  }

  private heard(message: { o?: string; s?: LineStanding; x?: string }): void {
    if (message.o !== undefined) this.shown(message.o);
    if (message.s) {
      this.standing = message.s;
      this.open = true;
      this.stands(message.s);
      this.wait = FIRST_WAIT;
    }
    if (message.x === 'closed') this.socket?.close();
    else if (message.x) this.refused(message.x);
  }

  type(keys: string): void {
    this.send({ k: keys });
  }

  /** Types a value of the plan, which a page need not know. */
  value(name: string): void {
    this.send({ v: name });
  }

  sendBreak(): void {
    this.send({ b: 1 });
  }

  resize(columns: number, rows: number): void {
    this.send({ r: [columns, rows] });
  }

  private send(message: unknown): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(message));
  }

  close(): void {
    this.ended = true;
    this.socket?.close();
  }
}
