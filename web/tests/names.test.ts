import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { NamesView } from '../src/lib/types';
import NamesPanel from '../src/stages/allocate/NamesPanel.svelte';
import Asking from './Asking.svelte';
import { Server, signedIn } from './signed';
import { recorded } from './views';

let server = new Server({});
beforeEach(() => vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init)));
afterEach(() => vi.unstubAllGlobals());

function shown(change: Partial<NamesView>, role: 'viewer' | 'engineer' = 'engineer'): void {
  signedIn(role);
  server = new Server({ '/names': { ...recorded.names(), ...change } });
  render(Asking, { of: NamesPanel });
}
const pushed = () =>
  waitFor(() =>
    expect(server.sent).toEqual([
      { method: 'POST', path: expect.stringMatching(/\/record-pushes$/) as string, body: {} },
    ]),
  );

describe('the records of a bring-up', () => {
  it('has nothing to push where every record is on the name server', async () => {
    shown({});
    expect(await screen.findByText('79 of 79 records on the name server')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /push/i })).not.toBeInTheDocument();
    await fireEvent.keyDown(window, { key: 'x' });
    expect(server.sent).toEqual([]);
  });

  it('pushes what is planned, by its button and by its key', async () => {
    shown({ planned: 3 });
    await fireEvent.click(await screen.findByRole('button', { name: /Push records/ }));
    await pushed();
    server.sent.length = 0;
    await fireEvent.keyDown(window, { key: 'p' });
    await pushed();
  });

  it('shows what the name server has answered, and pushes again', async () => {
    const open = [{ id: 7, line: 'ard-fic-1.ardal.example. IN A 10.40.8.34', answer: 'answers REFUSED' }];
    shown({ made: 78, refused: 1, open: open as unknown as NamesView['open'] });
    expect(await screen.findByText('answers REFUSED')).toBeInTheDocument();
    expect(screen.getByText('1 refused')).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: /Push again/ }));
    await pushed();
  });

  it('names the domains that have no zone', async () => {
    shown({ withoutZone: ['lab.ardal.example', '12.40.10.in-addr.arpa', 'third.ardal.example'] });
    expect(await screen.findByText('lab.ardal.example, 12.40.10.in-addr.arpa')).toBeInTheDocument();
  });

  it('lets a viewer look, and push nothing', async () => {
    shown({ planned: 3 }, 'viewer');
    expect(await screen.findByText('79 of 82 records on the name server · 3 planned')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /push/i })).not.toBeInTheDocument();
    await fireEvent.keyDown(window, { key: 'p' });
    expect(server.sent).toEqual([]);
  });

  it('is not there before a record is planned', async () => {
    shown({ planned: 0, made: 0 });
    await waitFor(() => expect(screen.queryByText('Names and records')).not.toBeInTheDocument());
  });
});
