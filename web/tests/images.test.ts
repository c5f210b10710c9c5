import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Image, ImagesView } from '../src/lib/types';
import Images from '../src/stages/prepare/Images.svelte';
import Asking from './Asking.svelte';
import { Server, signedIn } from './signed';

const MEBIBYTE = 1024 * 1024;
const image = (more: Partial<Image>): Image => ({
  id: 3,
  name: 'access-appliance.img',
  bytes: 10 * MEBIBYTE,
  inFolder: true,
  state: 'CHECKED',
  received: 10 * MEBIBYTE,
  bytesRead: 10 * MEBIBYTE,
  fault: null,
  sha256: 'ab'.repeat(32),
  format: 'ova',
  files: [],
  manifest: '',
  description: '',
  described: null,
  contradictions: [],
  stated: true,
  addedBy: 'rack-one',
  checkedAt: '2026-11-30T21:00:00Z',
  ...more,
});

let server = new Server({});
beforeEach(() => vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init)));
afterEach(() => vi.unstubAllGlobals());

function shown(images: Image[], waiting: string[] = [], role: 'viewer' | 'engineer' = 'engineer'): void {
  signedIn(role);
  const view: ImagesView = { images, folder: '/var/lib/lychnos/images', waiting };
  server = new Server({ '/images': view });
  render(Asking, { of: Images });
}

describe('Images', () => {
  it('tells what was read, and what contradicts it', async () => {
    shown([
      image({ described: { product: 'Rossett', version: '5.2', cores: 1, memory: '8 GiB', disk: '', networks: [] } }),
      image({
        id: 4,
        name: 'mungris-air.img',
        contradictions: [
          { file: 'disk.img', stated: 'aa', read: 'bb' },
          { file: 'gone.ovf', stated: '', read: '' },
        ],
      }),
    ]);
    expect((await screen.findAllByText(`SHA-256 ${'ab'.repeat(32)}`)).length).toBe(2);
    expect(screen.getByText('· Rossett 5.2 · 1 core · 8 GiB memory')).toBeInTheDocument();
    expect(screen.getByText('disk.img: stated aa, read bb')).toBeInTheDocument();
    expect(screen.getByText('gone.ovf is named in what came with it and is missing')).toBeInTheDocument();
  });

  it('says why a file could not be read', async () => {
    shown([image({ state: 'FAILED', fault: 'PACKAGE_BROKEN', sha256: null, format: null })]);
    expect(await screen.findByText(/begins like an OVA package/)).toBeInTheDocument();
  });

  it('lets the server check a file that lies in its folder', async () => {
    shown([], ['ullscarf.img']);
    await fireEvent.click(await screen.findByRole('button', { name: 'Check' }));
    await waitFor(() =>
      expect(server.sent.find((each) => each.method === 'POST')?.body).toEqual({
        name: 'ullscarf.img',
        bytes: 0,
        inFolder: true,
      }),
    );
  });

  it('asks before an uploaded file is deleted', async () => {
    shown([image({ inFolder: false })]);
    await fireEvent.click(await screen.findByRole('button', { name: 'Remove' }));
    expect(server.sent).toEqual([]);
    await fireEvent.click(screen.getByRole('button', { name: 'Delete the uploaded file' }));
    await waitFor(() => expect(server.sent.map((each) => each.method)).toContain('DELETE'));
  });

  it('offers a viewer nothing that changes something', async () => {
    shown([image({})], ['other.img'], 'viewer');
    await screen.findByText('access-appliance.img');
    expect(screen.queryAllByRole('button')).toEqual([]);
  });

  it('sends a file in pieces, from where the server says', async () => {
    shown([]);
    await screen.findByText(/No images yet/);
    const starts: number[] = [];
    let received = 0;
    vi.stubGlobal('fetch', async (path: string, init?: RequestInit) => {
      const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });
      if (init?.method === 'POST') return answer(200, { id: 9, received: 0, bytes: 3 * MEBIBYTE });
      if (init?.method !== 'PUT') return server.fetch(path, init);
      const at = Number(new URL(path, 'http://h').searchParams.get('at'));
      starts.push(at);
      // the second piece is answered by a server that has lost the first
      if (starts.length === 2) {
        received = 0;
        return answer(409, { status: 409, detail: 'again', received });
      }
      received = at + (init.body as Blob).size;
      return answer(200, { id: 9, received, bytes: 3 * MEBIBYTE });
    });
    const chooser = document.querySelector<HTMLInputElement>('input[type=file]')!;
    const file = new File([new Uint8Array(3 * MEBIBYTE)], 'large.img');
    const manifest = new File(['SHA256(large.img)= 00'], 'large.mf');
    await fireEvent.change(chooser, { target: { files: [file, manifest] } });
    await waitFor(() => expect(received).toBe(3 * MEBIBYTE));
    expect(starts.slice(0, 3)).toEqual([0, MEBIBYTE, 0]);
  });
});
