import type { QueryClient } from '@tanstack/svelte-query';
import { Refresh } from './refresh';

const FIRST_WAIT = 500;
const LONGEST_WAIT = 8000;
/** How long a page waits for the channel before it does without. */
const PATIENCE = 1000;
/** Several changes that come together make one look. */
const GATHER = 120;

/**
 * The push channel. Each line names a bring-up and what changed in it; the queries that show it are asked again. A lost
 * connection is shown, tried again, and everything on the screen is asked again once it stands.
 */
export class Live {
  connected = $state(true);
  lostAt = $state<number | null>(null);
  /**
   * Whether the channel stands, or did not come. What is asked from then on misses no change and need not be asked
   * twice.
   */
  ready = $state(false);
  private socket: WebSocket | null = null;
  private wait = FIRST_WAIT;
  private gathered: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  private readonly refresh: Refresh;

  /** @param onlost called each time that the channel ends or does not come: the session may have ended */
  constructor(
    queries: QueryClient,
    private readonly onlost: () => void = () => undefined,
  ) {
    this.refresh = new Refresh(queries);
  }

  open(): void {
    const socket = new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/live`);
    this.socket = socket;
    socket.onopen = () => {
      this.connected = true;
      this.lostAt = null;
      this.wait = FIRST_WAIT;
    };
    socket.onmessage = () => {
      // the first line says only that the channel stands: nothing was asked before it
      if (this.ready) this.look();
      this.ready = true;
    };
    setTimeout(() => (this.ready = true), PATIENCE);
    socket.onclose = () => {
      if (this.closed) return;
      this.connected = false;
      this.ready = true;
      this.lostAt ??= Date.now();
      this.onlost();
      setTimeout(() => this.open(), this.wait);
      this.wait = Math.min(this.wait * 2, LONGEST_WAIT);
    };
  }

  close(): void {
    this.closed = true;
    this.refresh.close();
    this.socket?.close();
  }

  private look(): void {
    this.gathered ??= setTimeout(() => {
      this.gathered = null;
      this.refresh.all();
    }, GATHER);
  }
}
