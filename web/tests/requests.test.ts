import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { RequestsView, TeamRequest } from '../src/lib/types';
import Asking from './Asking.svelte';
import RequestsOpen from './RequestsOpen.svelte';
import { Server, signedIn } from './signed';

const request = (key: string, change: Partial<TeamRequest> = {}): TeamRequest => ({
  key,
  sort: 'FLOW_OUT',
  title: `udp 53 to ${key}`,
  machines: 2,
  examples: ['10.40.8.40', '10.40.8.41'],
  fallback: '',
  why: 'names',
  planned: true,
  state: 'TO_ASK',
  person: '',
  due: null,
  late: false,
  note: '',
  tested: 'NOT_MEASURED',
  seen: '',
  changedBy: null,
  changedAt: null,
  version: 0,
  ...change,
});

let server = new Server({});
beforeEach(() => vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init)));
afterEach(() => vi.unstubAllGlobals());

function shown(
  requests: TeamRequest[],
  role: 'viewer' | 'engineer' = 'engineer',
  refusals: Record<string, [number, unknown]> = {},
): void {
  signedIn(role);
  const open = requests.filter((each) => each.state === 'TO_ASK' || each.state === 'ASKED').length;
  const view: RequestsView = { requests, open, late: requests.filter((each) => each.late).length };
  server = new Server({ '/requests': view }, refusals);
  render(Asking, { of: RequestsOpen });
}

describe('Requests to other teams', () => {
  it('groups them by team and says what was measured', async () => {
    shown([
      request('ns1'),
      request('relay', { sort: 'RELAY', title: 'accept mail from our machines: relay', seen: 'answers this server' }),
      request('own', { sort: null, title: 'a loading bay', machines: 0, examples: [], why: '' }),
    ]);
    for (const team of ['Network and firewall', 'Mail', 'Added by hand'])
      expect(await screen.findByRole('region', { name: team })).toBeInTheDocument();
    expect(screen.getByText('answers this server', { exact: false })).toBeInTheDocument();
    expect(screen.getByRole('status')).toHaveTextContent('3 of 3 open');
  });

  it('sends one field with the version that was seen', async () => {
    shown([request('ns1', { version: 3 })]);
    const person = await screen.findByLabelText('Person or team for udp 53 to ns1');
    await fireEvent.change(person, { target: { value: 'Runa' } });
    await waitFor(() =>
      expect(server.sent).toEqual([
        {
          method: 'PUT',
          path: '/api/bring-ups/0/requests',
          body: { requests: [{ key: 'ns1', version: 3 }], person: 'Runa' },
        },
      ]),
    );
  });

  it('keeps what was entered when the server refuses it', async () => {
    shown([request('ns1')], 'engineer', { '/requests': [412, { detail: 'somebody was faster' }] });
    const note = await screen.findByLabelText('Note on udp 53 to ns1');
    await fireEvent.change(note, { target: { value: 'ticket 4711' } });
    await waitFor(() => expect(server.sent.length).toBe(1));
    expect(screen.getByLabelText('Note on udp 53 to ns1')).toHaveValue('ticket 4711');
  });

  it('sets person and day of a whole team at once', async () => {
    shown([request('ns1'), request('ns2', { version: 1 })]);
    await fireEvent.input(await screen.findByLabelText('Day for all of these'), { target: { value: '2027-02-01' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Set for all 2' }));
    await waitFor(() =>
      expect(server.sent[0]?.body).toEqual({
        requests: [
          { key: 'ns1', version: 0 },
          { key: 'ns2', version: 1 },
        ],
        due: '2027-02-01',
      }),
    );
  });

  it('marks one that is called done but is not so, and one that is overdue', async () => {
    shown([
      request('ns1', { state: 'DONE', tested: 'NO', seen: 'does not answer this server' }),
      request('ns2', { late: true, due: '2026-11-01' }),
    ]);
    expect(await screen.findByRole('img', { name: 'marked as done, but not so' })).toBeInTheDocument();
    expect(screen.getByRole('img', { name: 'overdue' })).toBeInTheDocument();
    await fireEvent.click(screen.getByLabelText('open requests only'));
    expect(screen.queryByText('udp 53 to ns1')).toBeNull();
    expect(screen.getByText('udp 53 to ns2')).toBeInTheDocument();
  });

  it('closes at once what was measured to be so', async () => {
    shown([
      request('key', { sort: 'KEY', tested: 'YES', seen: '1 of 1 entered' }),
      request('other', { sort: 'KEY', tested: 'NO', seen: '0 of 1 entered' }),
    ]);
    await fireEvent.click(await screen.findByRole('button', { name: 'Mark 1 as done, as measured' }));
    await waitFor(() =>
      expect(server.sent[0]?.body).toEqual({ requests: [{ key: 'key', version: 0 }], state: 'DONE' }),
    );
  });

  it('adds what the plan does not tell', async () => {
    shown([]);
    await fireEvent.input(await screen.findByLabelText('Add a request'), { target: { value: 'a loading bay' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Add a request' }));
    await waitFor(() => expect(server.sent[0]?.body).toEqual({ title: 'a loading bay' }));
  });

  it('lets a viewer read only', async () => {
    shown([request('ns1'), request('ns2')], 'viewer');
    expect(await screen.findByLabelText('State of udp 53 to ns1')).toBeDisabled();
    expect(screen.queryByRole('button', { name: 'Set for all 2' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Add a request' })).toBeNull();
  });
});
