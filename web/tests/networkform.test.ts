import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { PrepareView } from '../src/lib/types';
import NetworkForm from '../src/stages/prepare/NetworkForm.svelte';
import { Server, signedIn } from './signed';

const like: PrepareView['choices'][number] = {
  id: 3,
  name: 'Management, row A',
  prefix: '10.40.8.0/24',
  vlan: 408,
  purpose: 'management',
  domain: 'ardal.example',
  nameServers: ['10.40.8.3', '10.40.8.4'],
  timeServers: ['10.40.8.6'],
};

describe('stating a network', () => {
  let server = new Server({});
  const onclose = vi.fn();

  beforeEach(() => {
    signedIn('engineer');
    sessionStorage.clear();
    onclose.mockReset();
    server = new Server({});
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init));
  });
  afterEach(() => vi.unstubAllGlobals());

  const type = (label: string, value: string) => fireEvent.input(screen.getByLabelText(label), { target: { value } });
  const save = () => fireEvent.submit(screen.getByLabelText('Prefix').closest('form')!);

  it('proposes what another network of the site leans on, and no address of it', () => {
    render(NetworkForm, { start: null, like, further: false, onclose });
    expect(screen.getByLabelText('Domain')).toHaveValue('ardal.example');
    expect(screen.getByLabelText('Name servers')).toHaveValue('10.40.8.3 10.40.8.4');
    expect(screen.getByLabelText('Time servers')).toHaveValue('10.40.8.6');
    expect(screen.getByLabelText('Prefix')).toHaveValue('');
    expect(screen.getByLabelText('VLAN')).toHaveValue('');
  });

  it('is empty where the site has none yet', () => {
    render(NetworkForm, { start: null, further: false, onclose });
    expect(screen.getByLabelText('Domain')).toHaveValue('');
  });

  it('sends lists by their words, leaves empty ranges out, and closes', async () => {
    render(NetworkForm, { start: null, further: false, onclose });
    await type('Name', 'Management, row B');
    await type('Prefix', '10.40.9.0/24');
    await type('Name servers', '10.40.8.3,10.40.8.4;  10.40.8.5');
    await type('Pools and reserved ranges 1', '101-180');
    await save();
    await waitFor(() => expect(onclose).toHaveBeenCalledOnce());
    expect(server.sent[0]).toMatchObject({
      method: 'PUT',
      path: expect.stringMatching(/\/network$/) as string,
      body: {
        prefix: '10.40.9.0/24',
        vlan: null,
        mtu: null,
        nameServers: ['10.40.8.3', '10.40.8.4', '10.40.8.5'],
        ranges: [{ purpose: 'pool', run: '101-180', note: '' }],
      },
    });
  });

  it('says at each field what is wrong with it, goes to the first, and loses nothing', async () => {
    server = new Server(
      {},
      {
        '/network': [
          400,
          {
            detail: 'Two fields are wrong.',
            faults: [
              { field: 'prefix', reason: 'Host bits are set; the network is 10.40.9.0/24.' },
              { field: 'ranges.0', reason: '300 is more than 255.' },
            ],
          },
        ],
      },
    );
    render(NetworkForm, { start: null, further: false, onclose });
    await type('Prefix', '10.40.9.7/24');
    await type('Domain', 'ardal.example');
    await type('Pools and reserved ranges 1', '.101-.300');
    await save();
    expect(await screen.findByText(/the network is 10\.40\.9\.0\/24/)).toBeInTheDocument();
    expect(screen.getByText('300 is more than 255.')).toBeInTheDocument();
    await waitFor(() => expect(screen.getByLabelText('Prefix')).toHaveFocus());
    expect(screen.getByLabelText('Domain')).toHaveValue('ardal.example');
    expect(onclose).not.toHaveBeenCalled();
  });

  it('keeps what was typed when the page is loaded again, and forgets it on cancel', async () => {
    const { unmount } = render(NetworkForm, { start: null, further: false, onclose });
    await type('Prefix', '10.40.9.0/24');
    unmount();
    const second = render(NetworkForm, { start: null, further: false, onclose });
    expect(screen.getByLabelText('Prefix')).toHaveValue('10.40.9.0/24');
    await fireEvent.click(screen.getByRole('button', { name: 'Cancel', hidden: true }));
    second.unmount();
    render(NetworkForm, { start: null, further: false, onclose });
    expect(screen.getByLabelText('Prefix')).toHaveValue('');
  });

  it('can be saved again after the message that somebody else has changed it', async () => {
    server = new Server(
      {},
      { '/network': [412, { detail: 'It was changed by somebody else since you loaded it at it.', version: 'new' }] },
    );
    render(NetworkForm, { start: null, further: false, onclose });
    await type('Prefix', '10.40.9.0/24');
    await save();
    expect(await screen.findByRole('alert', { hidden: true })).toHaveTextContent('somebody else');
    await save();
    await waitFor(() => expect(server.sent).toHaveLength(2));
    expect(server.sent[1]!.body).toMatchObject({ version: 'new' });
  });
});
