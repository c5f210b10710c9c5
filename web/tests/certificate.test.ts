import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CertificateWay, Endpoint, Signing } from '../src/lib/types';
import CertificatePart from '../src/stages/prove/CertificatePart.svelte';
import { m } from '../src/messages';
import { signedIn } from './signed';

const endpoint = { claimId: 7, fqdn: 'ard-acc-001.ardal.example', address: '10.40.8.107' } as Endpoint;
const request = '-----BEGIN CERTIFICATE REQUEST-----';

describe('the certificate of an endpoint', () => {
  const posted: [string, unknown][] = [];
  let status = 204;
  const oncheck = vi.fn();

  function shown(way: CertificateWay, signing: Signing | null): void {
    render(CertificatePart, { endpoint, way, signing, oncheck });
  }

  beforeEach(() => {
    signedIn('engineer');
    posted.length = 0;
    status = 204;
    oncheck.mockReset();
    vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
      posted.push([path, JSON.parse(init.body as string)]);
      return Promise.resolve(
        status === 204
          ? new Response(null, { status })
          : new Response(JSON.stringify({ title: 'Bad Request', status, detail: 'no request' }), {
              status,
              headers: { 'Content-Type': 'application/problem+json' },
            }),
      );
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it('asks the machine for a request, or takes one that a person has made', async () => {
    shown('PAGES', null);
    await fireEvent.click(screen.getByRole('button', { name: m.prove.request }));
    await waitFor(() => expect(posted).toEqual([['/api/endpoints/7/certificate-request', {}]]));
    expect(screen.getByRole('button', { name: m.prove.byHand.begin })).toBeVisible();
  });

  it('says which names a request by hand is for, and keeps it where it is refused', async () => {
    shown('BY_HAND', null);
    expect(screen.queryByRole('button', { name: m.prove.request })).toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: m.prove.byHand.begin }));
    expect(screen.getByText(/ard-acc-001\.ardal\.example, 10\.40\.8\.107/)).toBeVisible();
    const field = screen.getByLabelText(m.prove.byHand.request);
    await fireEvent.input(field, { target: { value: request } });
    status = 400;
    await fireEvent.click(screen.getByRole('button', { name: m.prove.byHand.enter }));
    await waitFor(() => expect(posted).toEqual([['/api/endpoints/7/certificate-request', { request }]]));
    expect(field).toHaveValue(request);
  });

  it('checks a chain by hand, and looks at the machine only once it is installed', async () => {
    shown('BY_HAND', { request, way: 'BY_HAND', chain: null });
    await fireEvent.input(screen.getByLabelText(m.prove.chain), { target: { value: 'chain' } });
    await fireEvent.click(screen.getByRole('button', { name: m.prove.byHand.check }));
    await waitFor(() => expect(posted).toEqual([['/api/endpoints/7/certificate-chain', { chain: 'chain' }]]));
    expect(oncheck).not.toHaveBeenCalled();
  });

  it('has a person say that it is installed', async () => {
    shown('BY_HAND', { request, way: 'BY_HAND', chain: 'the chain' });
    expect(screen.getByText('the chain')).toBeVisible();
    await fireEvent.click(screen.getByRole('button', { name: m.prove.byHand.installed }));
    await waitFor(() => expect(oncheck).toHaveBeenCalled());
    expect(posted).toEqual([['/api/endpoints/7/certificate-installed', {}]]);
  });
});
