import { fireEvent, render, screen, within } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { session } from '../src/lib/session.svelte';
import type { Endpoint, ProveView } from '../src/lib/types';
import Prove from '../src/stages/prove/Prove.svelte';
import Asking from './Asking.svelte';

const endpoint = (id: number, name: string, position: string, change: Partial<Endpoint> = {}): Endpoint =>
  ({
    unitId: id, claimId: 100 + id, role: 'management', name, fqdn: `${name}.ardal.example`, address: `10.40.8.${100 + id}`, position, serial: `BF-${id}`, standings: [], beside: {}, height: 0, proven: false,
    sentence: '', at: null, millis: null, checking: false, settingUp: false, ready: true, ...change,
  });

const view = (endpoints: Endpoint[]): ProveView => ({ endpoints, causes: [], changes: [], strangers: [], checking: 0, vantage: 'hall-2 jump host', lastAt: null, minutes: 0 }) as unknown as ProveView;

describe('Prove', () => {
  const sent: { path: string; body: unknown }[] = [];
  let endpoints: Endpoint[] = [];

  beforeEach(() => {
    sent.length = 0;
    session.state = { status: 'in', me: { login: 'rack-one', name: 'Engineer at rack one', role: 'engineer', vantage: 'hall-2 jump host' } as never };
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => {
      if (init?.method === 'POST') sent.push({ path, body: JSON.parse(init.body as string) });
      const known = path.endsWith('/prove') || init?.method === 'POST';
      return Promise.resolve(new Response(JSON.stringify(known ? view(endpoints) : { detail: 'not in this test' }), { status: known ? 200 : 404, headers: { 'Content-Type': 'application/json' } }));
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it('lists rack by rack, and what lives on a host as well', async () => {
    endpoints = [endpoint(1, 'ard-srv-001-oob', 'R1 u5'), endpoint(2, 'ard-srv-002-oob', 'R2 u5'), endpoint(3, 'ard-cmg-1', ''), endpoint(4, 'ard-srv-004-oob', 'R1 u7')];
    render(Asking, { of: Prove });
    await screen.findByText('ard-cmg-1');
    const rows = screen.getAllByRole('row').slice(1).map((row) => within(row).queryByRole('rowheader')?.textContent ?? within(row).getAllByRole('button')[0]!.textContent);
    expect(rows.map((text) => text.replace(/Check.*/, '').trim())).toEqual(['Rack R1', 'ard-srv-001-oob', 'ard-srv-004-oob', 'Rack R2', 'ard-srv-002-oob', 'In no rack', 'ard-cmg-1']);
  });

  it('checks a rack, each of its units once', async () => {
    endpoints = [endpoint(1, 'ard-fic-1-l', 'R1 u5'), endpoint(1, 'ard-fic-1', 'R1 u5', { claimId: 112 }), endpoint(2, 'ard-srv-002-oob', 'R2 u5')];
    render(Asking, { of: Prove });
    await screen.findByText('ard-fic-1-l');
    await fireEvent.click(screen.getAllByRole('button', { name: 'Check this rack' })[0]!);
    await vi.waitFor(() => expect(sent).toEqual([{ path: expect.stringMatching(/\/checks$/) as string, body: { units: [1] } }]));
  });

  it('leads to Allocate while nothing has an address', async () => {
    endpoints = [];
    render(Asking, { of: Prove });
    expect(await screen.findByText(/No unit has an address yet/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: '2 Allocate' })).toBeInTheDocument();
  });

  it('offers to check again exactly what does not hold', async () => {
    const at = '2026-11-23T09:20:00Z';
    endpoints = [endpoint(1, 'up', 'R1 u5', { at, proven: true }), endpoint(2, 'down', 'R1 u7', { at }), endpoint(3, 'never', 'R1 u9'), endpoint(4, 'busy', 'R1 u11', { at, settingUp: true })];
    render(Asking, { of: Prove });
    await fireEvent.click(await screen.findByRole('button', { name: 'Check the 1 again' }));
    await vi.waitFor(() => expect(sent.at(-1)?.body).toEqual({ units: [2] }));
  });

  it('lets a viewer look and press nothing', async () => {
    session.state = { status: 'in', me: { login: 'night-watch', name: 'Night watch', role: 'viewer', vantage: '' } as never };
    endpoints = [endpoint(1, 'ard-srv-001-oob', 'R1 u5')];
    render(Asking, { of: Prove });
    await screen.findByText('ard-srv-001-oob');
    expect(screen.queryByRole('button', { name: /Check/ })).toBeNull();
  });
});
