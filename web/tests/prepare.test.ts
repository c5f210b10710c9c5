import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { PrepareView } from '../src/lib/types';
import Prepare from '../src/stages/prepare/Prepare.svelte';
import Asking from './Asking.svelte';
import { Server, signedIn } from './signed';
import { recorded } from './views';

let server = new Server({});
beforeEach(() => vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init)));
afterEach(() => vi.unstubAllGlobals());

function shown(view: PrepareView, role: 'viewer' | 'engineer' = 'engineer'): void {
  signedIn(role);
  server = new Server({ '/prepare': view });
  render(Asking, { of: Prepare });
}

describe('Prepare', () => {
  it('lists every finding, and fixes one at a press', async () => {
    const view = recorded.prepare();
    shown(view);
    for (const finding of view.site.findings)
      expect((await screen.findAllByText(finding.what)).length).toBeGreaterThan(0);
    const fixable = view.site.findings.find((finding) => finding.fix)!;
    await fireEvent.click(screen.getByRole('button', { name: fixable.fix!.label }));
    await waitFor(() => expect(server.sent.find((each) => each.path.endsWith('/fixes'))?.body).toEqual(fixable.fix));
  });

  it('has a sheet for each kind, with every unit in it', async () => {
    const view = recorded.prepare();
    shown(view);
    for (const kind of view.kinds) expect(await screen.findByRole('link', { name: kind.title })).toBeInTheDocument();
    for (const unit of view.units) expect(screen.getAllByText(unit.name).length).toBeGreaterThan(0);
  });

  it('says what to do where there is no unit yet', async () => {
    shown({ ...recorded.prepare(), units: [], kinds: [], rows: [] });
    expect(await screen.findByText('No units yet. Add units of a kind, or import a label list.')).toBeInTheDocument();
  });

  it('offers a viewer nothing that changes something, and starts no traffic', async () => {
    shown(recorded.prepare(), 'viewer');
    await screen.findByText('Fact sheet');
    for (const name of [/^Add units/, /^Import/, /^Set 3900/, /^Make ard-iog-2/])
      expect(screen.queryByRole('button', { name })).toBeNull();
    expect(server.sent).toEqual([]);
  });
});
