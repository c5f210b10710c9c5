import { fireEvent, render, screen, waitFor, within } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { HandoverView, SignStanding } from '../src/lib/types';
import HandOver from '../src/stages/handover/HandOver.svelte';
import Asking from './Asking.svelte';
import { Server, signedIn } from './signed';

const unit = (id: number, state: SignStanding['state'], change: Partial<SignStanding> = {}): SignStanding => ({
  unitId: id,
  unit: `ard-srv-00${id}-oob`,
  kind: 'server-controller',
  state,
  why: '',
  fault: false,
  face: state === 'READY' ? `face-${id}` : '',
  digest: null,
  signedBy: '',
  signedAt: null,
  provenAt: null,
  ...change,
});
const view = (units: SignStanding[]): HandoverView => ({
  name: 'Ardal Hall 2, row A',
  names: 24,
  proven: 0,
  exports: ['endpoints.csv', 'zones/ardal.example.zone'],
  units,
  proposed: [],
  retired: [],
  items: [],
  lines: units.map((each) => ({
    unitId: each.unitId,
    claimId: 100 + each.unitId,
    name: `${each.unit}.ardal.example`,
    role: 'management',
    address: `10.40.8.10${each.unitId}`,
    serial: `BF-${each.unitId}`,
    certificate: '',
    provenAt: null,
  })),
});

describe('Hand over', () => {
  let server = new Server({});

  function shown(units: SignStanding[], refusals: Record<string, [number, unknown]> = {}): void {
    server = new Server({ '/handover': view(units), '/signatures': [] }, refusals);
    render(Asking, { of: HandOver });
  }

  beforeEach(() => {
    signedIn('lead');
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init));
  });
  afterEach(() => vi.unstubAllGlobals());

  it('groups one reason of several units, what needs a person first', async () => {
    shown([
      unit(1, 'BLOCKED', { why: 'Not every endpoint has been checked yet.' }),
      unit(2, 'BLOCKED', { why: 'Not every endpoint has been checked yet.' }),
      unit(3, 'BLOCKED', { why: 'Port 23 is open but must be closed.', fault: true }),
    ]);
    await screen.findByText('Port 23 is open but must be closed.');
    const notes = [...document.querySelectorAll('aside a.note')].map((note) =>
      note.textContent.replace(/\s+/g, ' ').trim(),
    );
    expect(notes[0]).toContain('Port 23 is open');
    expect(notes[1]).toContain('2 units');
    expect(notes).toHaveLength(2);
    expect(screen.getByRole('button', { name: /Nothing to sign yet/ })).toBeDisabled();
  });

  it('signs what was seen of those that are left chosen', async () => {
    shown([unit(1, 'READY'), unit(2, 'READY'), unit(3, 'BLOCKED', { why: 'The setup is in progress.' })]);
    await fireEvent.click(await screen.findByRole('button', { name: /Sign 2 units/ }));
    const dialog = screen.getByRole('dialog', { hidden: true });
    await fireEvent.click(within(dialog).getByLabelText('ard-srv-001-oob'));
    await fireEvent.click(within(dialog).getByRole('button', { name: 'Sign 1 unit', hidden: true }));
    await waitFor(() =>
      expect(server.sent.find((each) => each.path.endsWith('/signatures'))?.body).toEqual({
        units: [{ unit: 2, face: 'face-2' }],
      }),
    );
  });

  it('says in the dialog why nothing was signed, and leaves it open', async () => {
    shown([unit(1, 'READY')], {
      '/signatures': [409, { detail: 'ard-srv-001-oob is not as you saw it: something of it has changed meanwhile.' }],
    });
    await fireEvent.click(await screen.findByRole('button', { name: /Sign 1 unit/ }));
    await fireEvent.click(
      within(screen.getByRole('dialog', { hidden: true })).getByRole('button', { name: 'Sign 1 unit', hidden: true }),
    );
    expect(await screen.findByRole('alert', { hidden: true })).toHaveTextContent('not as you saw it');
  });

  it('is signed by leads alone', async () => {
    signedIn('engineer');
    shown([unit(1, 'READY')]);
    expect(await screen.findByText('Signing needs a lead.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /^Sign/ })).toBeNull();
    expect(screen.queryByRole('button', { name: /Add open item/ })).toBeNull();
  });

  it('says whether the record holds, and at which link it does not', async () => {
    server = new Server({
      '/handover': view([
        unit(1, 'SIGNED', { digest: 'ab'.repeat(32), signedBy: 'Hall lead', signedAt: '2026-11-23T09:20:00Z' }),
      ]),
      '/verifications': {
        links: 12,
        records: 1,
        last: 'cd'.repeat(32),
        breaks: [{ number: 7, why: 'its digest is another one' }],
      },
    });
    render(Asking, { of: HandOver });
    expect(await screen.findByText(/signed by Hall lead/)).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: /Verify record/ }));
    expect(await screen.findByText(/7: its digest is another one/)).toBeInTheDocument();
  });
});
