import { fireEvent, render, screen, waitFor, within } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { notices } from '../src/lib/notices.svelte';
import Allocate from '../src/stages/allocate/Allocate.svelte';
import Asking from './Asking.svelte';
import { Server, signedIn } from './signed';
import { recorded } from './views';

const chosen = vi.hoisted(() => ({ unit: null as number | null }));
vi.mock('../src/routes', async (original) => ({
  ...(await original<typeof import('../src/routes')>()),
  chosenUnit: () => chosen.unit,
}));

let server = new Server({});
beforeEach(() => {
  chosen.unit = null;
  notices.list = [];
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init));
});
afterEach(() => vi.unstubAllGlobals());

function shown(
  role: 'viewer' | 'engineer' = 'engineer',
  answers: Record<string, unknown> = {},
  refusals: Record<string, [number, unknown]> = {},
): void {
  signedIn(role);
  server = new Server(
    {
      '/ribbon': recorded.ribbon(),
      '/proposal': recorded.proposal(),
      '/fits': recorded.fits(),
      '/names': recorded.names(),
      ...answers,
    },
    refusals,
  );
  render(Asking, { of: Allocate });
}
const take = () => screen.findByRole('button', { name: /^Allocate \d+ address/ });

describe('Allocate', () => {
  it('allocates what it proposes for all units, and offers to undo it', async () => {
    shown('engineer', { '/allocations': { allocation: 'a1' } });
    await fireEvent.click(await take());
    const proposal = recorded.proposal();
    await waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]).toMatchObject({
      method: 'POST',
      path: expect.stringMatching(/\/allocations$/) as string,
      body: { pattern: proposal.pattern, growth: proposal.growth },
    });
    const lines = (server.sent[0]!.body as { lines: { address: string }[] }).lines;
    expect(lines.map((line) => line.address)).toEqual(proposal.lines.map((line) => line.address));
    await waitFor(() => expect(notices.list).toHaveLength(1));
    notices.list[0]!.undo!();
    await waitFor(() => expect(server.sent.at(-1)?.path).toMatch(/\/allocations\/a1\/undo$/));
  });

  it('proposes for a chosen unit alone, by role, and goes on to the next fit', async () => {
    chosen.unit = recorded.fits().unitId;
    shown();
    const side = await screen.findByRole('complementary');
    await within(side).findByText(/Allocate ard-obj-2/);
    const pressed = () =>
      within(side)
        .getAllByRole('button', { pressed: true })
        .map((each) => each.querySelector('b')?.textContent);
    expect(pressed()).toEqual(['.80 – .86']);
    await fireEvent.click(within(side).getByRole('button', { name: /^Next fit/ }));
    await waitFor(() => expect(pressed()).toEqual(['.120 – .126']));
    await fireEvent.click(await take());
    await waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]!.body).toMatchObject({
      pattern: null,
      lines: recorded.fits().fits[1]!.lines.map((l) => ({ address: l.address })),
    });
  });

  it('says that somebody else was faster, and keeps what is proposed', async () => {
    shown('engineer', {}, { '/allocations': [409, { detail: 'Somebody has just allocated 10.40.8.80.' }] });
    await fireEvent.click(await take());
    expect(await screen.findByRole('alert')).toHaveTextContent('Somebody has just allocated 10.40.8.80.');
    expect(await take()).toBeEnabled();
  });

  it('says what was heard when addresses were probed first', async () => {
    const first = recorded.proposal().lines[0]!.address;
    shown('engineer', {
      '/probes': { possible: true, asked: 2, answering: [{ address: first, sentence: 'answers to ping' }] },
    });
    await fireEvent.click(await screen.findByRole('button', { name: /^Probe first/ }));
    expect(await screen.findByText(`${first} answers to ping`)).toBeInTheDocument();
  });

  it('reserves the address of an unknown device in the network, beside its other ranges', async () => {
    shown('engineer', { '/prepare': recorded.prepare() });
    await fireEvent.click(await screen.findByRole('button', { name: 'Reserve this address' }));
    await waitFor(() => expect(server.sent).toHaveLength(1));
    const ranges = (server.sent[0]!.body as { ranges: { purpose: string; run: string }[] }).ranges;
    const before = recorded.prepare().site.networks.find((each) => each.id === recorded.ribbon().networkId)!.ranges;
    expect(ranges.slice(0, -1)).toEqual(before);
    expect(ranges.at(-1)).toMatchObject({ purpose: 'kept', run: '10.40.8.150-10.40.8.150' });
  });

  it('undoes the last allocation', async () => {
    shown();
    await fireEvent.click(await screen.findByRole('button', { name: /^Undo allocation of 39 addresses/ }));
    await waitFor(() =>
      expect(server.sent[0]!.path).toMatch(new RegExp(`/allocations/${recorded.ribbon().undo!.allocation}/undo$`)),
    );
  });

  it('offers a viewer nothing that changes something', async () => {
    shown('viewer');
    await screen.findByText(/Management, row A/, { selector: 'b' });
    await screen.findByRole('button', { name: /^Next fit/ });
    for (const name of [/^Allocate \d/, /^Undo/, /^Import/, /^Scan/, /^Probe/, /^Reserve/, /^Release/])
      expect(screen.queryByRole('button', { name })).toBeNull();
  });

  it('adds a controller that was found without a label, by its MAC address', async () => {
    const kinds = ['server-controller', 'wireless-controller'].map((id) => ({
      id,
      version: 1,
      title: id,
      about: '',
      counts: [1],
      bring: [],
      plug: '',
      facts: id === 'server-controller' ? [{ name: 'mac' }] : [],
    }));
    shown('engineer', { '/kinds': kinds, '/units': [41] });
    await fireEvent.click(await screen.findByRole('button', { name: 'Add as a unit' }));
    const dialog = await screen.findByRole('dialog');
    const select = within(dialog).getByRole('combobox');
    await waitFor(() => expect(within(select).queryByText('server-controller')).toBeTruthy());
    expect(within(select).queryByText('wireless-controller')).toBeNull();
    await fireEvent.change(select, { target: { value: 'server-controller' } });
    await fireEvent.click(within(dialog).getByRole('button', { name: 'Add units' }));
    await waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]?.body).toMatchObject({ kind: 'server-controller', count: 1, mac: '02:4c:59:ff:00:01' });
  });
});
