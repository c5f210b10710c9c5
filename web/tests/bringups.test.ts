import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Brief } from '../src/lib/types';
import BringUps from '../src/stages/board/BringUps.svelte';
import Asking from './Asking.svelte';
import { signedIn } from './signed';

const brief = (change: Partial<Brief>): Brief => ({
  id: 1,
  name: 'Row A',
  due: null,
  site: 'Ardal',
  siteCode: 'ard',
  units: 12,
  signed: 2,
  ...change,
});
const answer = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });

function shown(): void {
  render(Asking, { of: BringUps });
}

describe('the list of bring-ups', () => {
  const fetched = vi.fn<(path: string, init?: RequestInit) => Promise<Response>>();

  beforeEach(() => {
    signedIn('engineer');
    vi.stubGlobal('fetch', fetched);
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    fetched.mockReset();
  });

  it('says how far each is', async () => {
    fetched.mockImplementation(() =>
      Promise.resolve(answer([brief({}), brief({ id: 2, name: 'Empty', units: 0, signed: 0 })])),
    );
    shown();
    expect(await screen.findByText(/2 of 12 signed/)).toBeInTheDocument();
    expect(screen.getByText(/no unit yet/)).toBeInTheDocument();
  });

  it('does not say that there is none before it knows', async () => {
    let tell: (response: Response) => void = () => undefined;
    fetched.mockImplementation(() => new Promise((resolve) => (tell = resolve)));
    shown();
    await waitFor(() => expect(fetched).toHaveBeenCalled());
    expect(screen.queryByText(/No bring-up yet/)).toBeNull();
    tell(answer([]));
    expect(await screen.findByText(/No bring-up yet/)).toBeInTheDocument();
  });

  it('shows the button below the list only with the list, which would push it away under the pointer', async () => {
    let tell: (response: Response) => void = () => undefined;
    fetched.mockImplementation(() => new Promise((resolve) => (tell = resolve)));
    shown();
    await waitFor(() => expect(fetched).toHaveBeenCalled());
    expect(screen.queryByRole('button', { name: 'New bring-up' })).toBeNull();
    tell(answer([brief({})]));
    expect(await screen.findByRole('button', { name: 'New bring-up' })).toBeInTheDocument();
  });

  it('can begin a bring-up although the list does not come', async () => {
    fetched.mockImplementation(() => Promise.resolve(answer({ detail: 'Not now.' }, 503)));
    shown();
    expect(await screen.findByRole('button', { name: 'New bring-up' })).toBeInTheDocument();
  });

  it('proposes the site where the last one was begun', async () => {
    fetched.mockImplementation(() =>
      Promise.resolve(answer([brief({ id: 7, site: 'Ardal north', siteCode: 'arn' }), brief({ id: 3 })])),
    );
    shown();
    await screen.findAllByText(/of 12 signed/);
    await fireEvent.click(screen.getByRole('button', { name: 'New bring-up' }));
    expect(screen.getByLabelText('Site')).toHaveValue('Ardal north');
    expect(screen.getByLabelText(/prefix in host names/)).toHaveValue('arn');
  });

  it('says at the field what is wrong with it, and keeps what was typed', async () => {
    fetched.mockImplementation((_, init) =>
      Promise.resolve(
        init?.method === 'POST'
          ? answer(
              {
                detail: 'Something is wrong.',
                faults: [{ field: 'siteCode', reason: 'A site’s word has 2 to 12 lowercase letters and digits.' }],
              },
              400,
            )
          : answer([]),
      ),
    );
    shown();
    await screen.findByText(/No bring-up yet/);
    await fireEvent.click(screen.getByRole('button', { name: 'New bring-up' }));
    await fireEvent.input(screen.getByLabelText('Name'), { target: { value: 'Store room' } });
    await fireEvent.input(screen.getByLabelText('Site'), { target: { value: 'Ardal' } });
    const word = screen.getByLabelText(/prefix in host names/);
    await fireEvent.input(word, { target: { value: 'ARD 1' } });
    await fireEvent.submit(word.closest('form')!);
    expect(await screen.findByText(/2 to 12 lowercase letters and digits\./)).toHaveClass('bad');
    await waitFor(() => expect(word).toHaveFocus());
    expect(screen.getByLabelText('Name')).toHaveValue('Store room');
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
