import { fireEvent, render, screen, waitFor, within } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Endpoint, ProveView } from '../src/lib/types';
import Prove from '../src/stages/prove/Prove.svelte';
import Asking from './Asking.svelte';
import { Server, signedIn } from './signed';

const endpoint = (id: number, name: string, position: string, change: Partial<Endpoint> = {}): Endpoint => ({
  unitId: id,
  claimId: 100 + id,
  role: 'management',
  name,
  fqdn: `${name}.ardal.example`,
  address: `10.40.8.${100 + id}`,
  position,
  serial: `BF-${id}`,
  standings: [],
  beside: {},
  height: 0,
  proven: false,
  sentence: '',
  at: null,
  millis: null,
  checking: false,
  settingUp: false,
  ready: true,
  ...change,
});

const view = (endpoints: Endpoint[]): ProveView =>
  ({
    endpoints,
    causes: [],
    changes: [],
    unknownDevices: [],
    checking: 0,
    vantage: 'hall-2 jump host',
    lastAt: null,
    minutes: 0,
  }) as unknown as ProveView;

describe('Prove', () => {
  let server = new Server({});
  let endpoints: Endpoint[] = [];

  function shown(): void {
    server = new Server({ '/prove': view(endpoints) });
    render(Asking, { of: Prove });
  }

  beforeEach(() => {
    signedIn('engineer');
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init));
  });
  afterEach(() => vi.unstubAllGlobals());

  it('lists rack by rack, and what lives on a host as well', async () => {
    endpoints = [
      endpoint(1, 'ard-srv-001-oob', 'R1 u5'),
      endpoint(2, 'ard-srv-002-oob', 'R2 u5'),
      endpoint(3, 'ard-cmg-1', ''),
      endpoint(4, 'ard-srv-004-oob', 'R1 u7'),
    ];
    shown();
    await screen.findByText('ard-cmg-1');
    const rows = screen
      .getAllByRole('row')
      .slice(1)
      .map(
        (row) =>
          within(row).queryByRole('rowheader')?.textContent ?? within(row).getAllByRole('button')[0]!.textContent,
      );
    expect(rows.map((text) => text.replace(/Check.*/, '').trim())).toEqual([
      'Rack R1',
      'ard-srv-001-oob',
      'ard-srv-004-oob',
      'Rack R2',
      'ard-srv-002-oob',
      'In no rack',
      'ard-cmg-1',
    ]);
  });

  it('checks a rack, each of its units once', async () => {
    endpoints = [
      endpoint(1, 'ard-fic-1-l', 'R1 u5'),
      endpoint(1, 'ard-fic-1', 'R1 u5', { claimId: 112 }),
      endpoint(2, 'ard-srv-002-oob', 'R2 u5'),
    ];
    shown();
    await screen.findByText('ard-fic-1-l');
    await fireEvent.click(screen.getAllByRole('button', { name: 'Check this rack' })[0]!);
    await waitFor(() =>
      expect(server.sent).toEqual([
        { method: 'POST', path: expect.stringMatching(/\/checks$/) as string, body: { units: [1] } },
      ]),
    );
  });

  it('leads to Allocate while nothing has an address', async () => {
    endpoints = [];
    shown();
    expect(await screen.findByText(/No unit has an address yet/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: '2 Allocate' })).toBeInTheDocument();
  });

  it('offers to check again exactly what does not hold', async () => {
    const at = '2026-11-23T09:20:00Z';
    endpoints = [
      endpoint(1, 'up', 'R1 u5', { at, proven: true }),
      endpoint(2, 'down', 'R1 u7', { at }),
      endpoint(3, 'never', 'R1 u9'),
      endpoint(4, 'busy', 'R1 u11', { at, settingUp: true }),
    ];
    shown();
    await fireEvent.click(await screen.findByRole('button', { name: 'Check 1 failed again' }));
    await waitFor(() => expect(server.sent.at(-1)?.body).toEqual({ units: [2] }));
  });

  it('lets a viewer look and press nothing', async () => {
    signedIn('viewer');
    endpoints = [endpoint(1, 'ard-srv-001-oob', 'R1 u5')];
    shown();
    await screen.findByText('ard-srv-001-oob');
    expect(screen.queryByRole('button', { name: /Check/ })).toBeNull();
  });
});
