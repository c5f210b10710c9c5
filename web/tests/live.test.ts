import { QueryClient, QueryObserver } from '@tanstack/svelte-query';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Live } from '../src/live/live.svelte';

class Socket {
  static all: Socket[] = [];
  onopen: () => void = () => undefined;
  onmessage: () => void = () => undefined;
  onclose: () => void = () => undefined;
  constructor(readonly url: string) {
    Socket.all.push(this);
  }
  close() {
    this.onclose();
  }
}

describe('the push channel', () => {
  const queries = new QueryClient();
  const asked = vi.spyOn(queries, 'invalidateQueries');

  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('WebSocket', Socket);
    Socket.all = [];
    asked.mockClear();
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('asks once for several changes that come together', () => {
    const live = new Live(queries);
    live.open();
    Socket.all[0]!.onopen();
    for (let i = 0; i < 5; i++) Socket.all[0]!.onmessage();
    vi.advanceTimersByTime(200);
    expect(asked).toHaveBeenCalledTimes(1);
    live.close();
  });

  it('asks nothing twice when it begins to stand, and everything when it stands again', () => {
    const live = new Live(queries);
    live.open();
    expect(live.ready).toBe(false);
    Socket.all[0]!.onmessage();
    expect(live.ready).toBe(true);
    vi.advanceTimersByTime(200);
    expect(asked).not.toHaveBeenCalled();
    Socket.all[0]!.onclose();
    vi.advanceTimersByTime(500);
    Socket.all[1]!.onmessage();
    vi.advanceTimersByTime(200);
    expect(asked).toHaveBeenCalledTimes(1);
    live.close();
  });

  it('shows an answer although changes come faster than answers, and then the newest one', async () => {
    let version = 0;
    const asking: ((answer: string) => void)[] = [];
    const watched = new QueryObserver(queries, {
      queryKey: ['live', '/units/6/bench'],
      queryFn: () => new Promise<string>((answer) => asking.push(answer)),
    });
    const shown: (string | undefined)[] = [];
    const leave = watched.subscribe((result) => void shown.push(result.data));
    const live = new Live(queries);
    live.open();
    Socket.all[0]!.onmessage();
    asking.shift()!('first');
    await vi.advanceTimersByTimeAsync(1);
    for (let i = 0; i < 20; i++) {
      Socket.all[0]!.onmessage(); // a change every 150 ms, an answer every 600
      await vi.advanceTimersByTimeAsync(150);
      if (i % 4 === 3) asking.shift()!(`answer ${++version}`);
    }
    expect(asking.length).toBeLessThanOrEqual(1);
    await vi.advanceTimersByTimeAsync(1);
    expect(watched.getCurrentResult().data).toBe('answer 5');
    expect(asking).toHaveLength(1); // the last change may be newer than the last answer
    asking.shift()!('newest');
    await vi.advanceTimersByTimeAsync(1);
    expect(watched.getCurrentResult().data).toBe('newest');
    await vi.advanceTimersByTimeAsync(5000);
    expect(asking).toHaveLength(0);
    leave();
    live.close();
  });

  it('does not keep the page waiting for a channel that never comes', () => {
    const live = new Live(queries);
    live.open();
    vi.advanceTimersByTime(999);
    expect(live.ready).toBe(false);
    vi.advanceTimersByTime(1);
    expect(live.ready).toBe(true);
    live.close();
  });

  it('says when it is lost, tries again more and more slowly, and says when it stands', () => {
    const live = new Live(queries);
    live.open();
    Socket.all[0]!.onopen();
    Socket.all[0]!.onclose();
    expect(live.connected).toBe(false);
    const since = live.lostAt;
    expect(since).not.toBeNull();
    vi.advanceTimersByTime(500);
    expect(Socket.all).toHaveLength(2);
    Socket.all[1]!.onclose();
    vi.advanceTimersByTime(500);
    expect(Socket.all).toHaveLength(2);
    vi.advanceTimersByTime(500);
    expect(Socket.all).toHaveLength(3);
    expect(live.lostAt).toBe(since);
    Socket.all[2]!.onopen();
    expect(live.connected).toBe(true);
    expect(live.lostAt).toBeNull();
    live.close();
  });

  it('stays closed once the page has gone', () => {
    const live = new Live(queries);
    live.open();
    live.close();
    vi.advanceTimersByTime(60_000);
    expect(Socket.all).toHaveLength(1);
  });
});
