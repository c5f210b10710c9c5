import { render, screen } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import Server from '../src/site/server/Server.svelte';
import Asking from './Asking.svelte';
import { Server as FakeServer, signedIn } from './signed';

const LINES = [
  { code: 'REACH_IS_EMPTY', state: 'BAD', text: 'The server may not reach any network.', advice: 'Set your networks.' },
  { code: 'ICMP_IS_ALLOWED', state: 'GOOD', text: 'The server may send ICMP echo requests.', advice: null },
];
beforeEach(() => {
  const server = new FakeServer({ '/doctor': LINES });
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init));
});
afterEach(() => vi.unstubAllGlobals());

describe('what the server needs', () => {
  it('is told to leads, with what to do', async () => {
    signedIn('lead');
    render(Asking, { of: Server });
    expect(await screen.findByText(/may not reach any network/)).toBeInTheDocument();
    expect(screen.getByText('Set your networks.')).toBeInTheDocument();
    expect(screen.getByRole('img', { name: 'missing' })).toBeInTheDocument();
    expect(screen.getByText(/^1 thing needs a look/)).toBeInTheDocument();
  });

  it('is not asked for by anybody else', () => {
    signedIn('engineer');
    render(Asking, { of: Server });
    expect(screen.getByText('Leads see here what the server needs.')).toBeInTheDocument();
    expect(screen.queryByRole('list')).toBeNull();
  });
});
