import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { PasswordChangesView } from '../src/lib/types';
import Asking from './Asking.svelte';
import PasswordChangesOpen from './PasswordChangesOpen.svelte';
import { Server, signedIn } from './signed';

const lane = (runId: number, state: 'DONE' | 'STOPPED' | 'WAITING'): PasswordChangesView['lanes'][number] => ({
  runId,
  unitId: runId,
  name: `ard-srv-00${runId}-oob`,
  position: 'A01 u1',
  address: '10.40.8.101',
  state,
  step: '',
  stepNumber: 5,
  steps: 6,
  note: state === 'STOPPED' ? 'The controller accepts the old password as well as the new one.' : '',
  advice: '',
  startedAt: null,
  stepAt: null,
  endedAt: '2026-12-01T08:00:00Z',
  cancelling: false,
});
const units = [
  { unitId: 1, name: 'ard-srv-001-oob', position: 'A01 u1' },
  { unitId: 2, name: 'ard-srv-002-oob', position: 'A01 u3' },
  { unitId: 3, name: 'ard-srv-003-oob', position: 'A02 u1' },
];

let server = new Server({});
beforeEach(() => vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init)));
afterEach(() => vi.unstubAllGlobals());

function shown(view: PasswordChangesView, role: 'engineer' | 'lead' = 'lead'): void {
  signedIn(role);
  server = new Server({ '/password-changes': view });
  render(Asking, { of: PasswordChangesOpen });
}

describe('Password changes', () => {
  it('starts those of one rack', async () => {
    shown({ units, lanes: [], hold: 'NONE' });
    await screen.findByRole('button', { name: 'Change the passwords of 3 units' });
    await fireEvent.change(screen.getByLabelText('Rack'), { target: { value: 'A01' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'Change the passwords of 2 units' }));
    await waitFor(() => expect(server.sent[0]?.body).toEqual({ units: [1, 2], width: 5 }));
  });

  it('starts one alone', async () => {
    shown({ units, lanes: [], hold: 'NONE' });
    await fireEvent.change(await screen.findByLabelText('Unit'), { target: { value: '3' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'Change the password of 1 unit' }));
    await waitFor(() => expect(server.sent[0]?.body).toEqual({ units: [3], width: 5 }));
  });

  it('asks for a decision where one has stopped', async () => {
    shown({ units: [], lanes: [lane(1, 'STOPPED'), lane(2, 'WAITING')], hold: 'SURPRISE' });
    expect(await screen.findByRole('status')).toHaveTextContent('The other units wait for your decision.');
    await fireEvent.click(screen.getByRole('button', { name: 'Continue without this unit' }));
    await waitFor(() => expect(server.sent[0]?.path).toBe('/api/password-changes/1/set-aside'));
  });

  it('shows an engineer how far it is, and lets nobody but a lead start one', async () => {
    shown({ units, lanes: [lane(1, 'DONE')], hold: 'NONE' }, 'engineer');
    expect(await screen.findByText(/^changed/)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /^Change the password/ })).toBeNull();
  });

  it('says when no password can be changed', async () => {
    shown({ units: [], lanes: [], hold: 'NONE' });
    expect(await screen.findByText(/^No unit has a password/)).toBeInTheDocument();
  });
});
