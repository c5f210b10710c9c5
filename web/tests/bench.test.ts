import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import Bench from '../src/stages/configure/bench/Bench.svelte';
import HoldBox from '../src/stages/configure/bench/HoldBox.svelte';
import PageSheet from '../src/stages/configure/bench/PageSheet.svelte';
import ServicePort from '../src/stages/configure/bench/ServicePort.svelte';
import type { BenchView } from '../src/stages/configure/bench/types';
import AtBench from './AtBench.svelte';
import { Server, signedIn } from './signed';
import { recorded } from './views';

// the terminal draws on a canvas, which a document of a test has not
vi.mock('../src/stages/configure/bench/Console.svelte', async () => ({
  default: (await import('./Nothing.svelte')).default,
}));

let server = new Server({});
beforeEach(() => vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init)));
afterEach(() => vi.unstubAllGlobals());

function shown(
  view: BenchView,
  role: 'viewer' | 'engineer' | 'lead' = 'engineer',
  refusals: Record<string, [number, unknown]> = {},
): void {
  signedIn(role);
  server = new Server({ '/bench': view }, refusals);
  render(AtBench, { of: Bench, unitId: view.unitId });
}
const member = (view: BenchView) => view.members[0]!;
const pressing = (name: RegExp) => screen.findByRole('button', { name }).then((button) => fireEvent.click(button));
const sent = (path: RegExp, body: unknown) =>
  waitFor(() => expect(server.sent[0]).toEqual({ method: 'POST', path: expect.stringMatching(path) as string, body }));

describe('the bench', () => {
  it('sends the answer that it shows, once a person says so', async () => {
    const view = recorded.bench();
    shown(view);
    expect(await screen.findByRole('tab', { name: /left/i })).toHaveAttribute('aria-selected', 'true');
    await pressing(/^Send this/);
    await sent(new RegExp(`/dialogues/${member(view).dialogueId}/decision$`), { typed: '' });
  });

  it('lets the person type, runs on, and stops', async () => {
    const view = recorded.bench();
    shown(view);
    await pressing(/^I type/);
    await sent(/\/mode$/, { mode: 'watch' });
    server.sent.length = 0;
    await pressing(/^Stop/);
    await sent(/\/stop$/, {});
  });

  it('starts a unit in the way that is chosen', async () => {
    const view = { ...recorded.bench(), runState: '' };
    shown(view);
    await pressing(/^Start, I type/);
    await sent(/\/console$/, { mode: 'WATCH' });
  });

  it('asks an engineer for a reason outside the change window', async () => {
    const refusal: [number, unknown] = [
      409,
      { detail: 'The change window of ard-fic-1 is later.', reasonWanted: true },
    ];
    const view = recorded.bench();
    shown(view, 'engineer', { '/decision': refusal });
    await pressing(/^Send this/);
    expect(await screen.findByText('The change window of ard-fic-1 is later.')).toBeInTheDocument();
    await fireEvent.input(screen.getByLabelText(/Reason/), { target: { value: 'agreed with the storage team' } });
    server = new Server({ '/bench': view });
    await fireEvent.click(screen.getByRole('button', { name: /^Override/, hidden: true }));
    await sent(/\/decision$/, { typed: '', reason: 'agreed with the storage team' });
  });

  it('asks a lead for a reason where a prerequisite is missing, and tells an engineer', async () => {
    const refusal: [number, unknown] = [409, { detail: 'The switches are not planned yet.', prerequisite: true }];
    const view = { ...recorded.bench(), runState: '' };
    shown(view, 'lead', { '/console': refusal });
    await pressing(/^Start, ask me/);
    expect(await screen.findByText('The switches are not planned yet.')).toBeInTheDocument();
    await fireEvent.input(screen.getByLabelText(/Reason/), { target: { value: 'agreed with the network team' } });
    server = new Server({ '/bench': view });
    await fireEvent.click(screen.getByRole('button', { name: /^Override/, hidden: true }));
    await sent(/\/console$/, { mode: 'ASK', reason: 'agreed with the network team' });
  });

  it('shows a viewer the steps, and nothing to press', async () => {
    shown(recorded.bench(), 'viewer');
    await screen.findByText("keeper's password");
    for (const name of [/^Send this/, /^I type/, /^Stop/, /^Run/])
      expect(screen.queryByRole('button', { name })).toBeNull();
  });

  it('shows the request of a page that is done, to be copied', () => {
    const left = member(recorded.bench());
    const page = { ...left.steps[0]!, sort: 'page', title: 'Licence request', progress: 'DONE', marks: ['DRIVEN'] };
    const steps = [{ ...page, told: { 'licence request': 'ask-lw-4410-1bc0' } }];
    render(PageSheet, {
      member: { ...left, steps, hold: null },
      unit: 'ard-lba-1',
      unitId: 7,
      servicePort: null,
      mayWork: true,
      onreveal: () => Promise.resolve(null),
    });
    expect(screen.getByText('licence request')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /ask-lw-4410-1bc0$/ })).toBeInTheDocument();
  });
});

describe('a machine whose network may be set wrong', () => {
  const hold = { why: 'OVERDUE', step: 1, sentence: 'It takes longer.', shown: '', typed: '', passable: true } as const;
  const props = { mayWork: true, busy: false, recover: 'Log in on its console.', ongo: () => {}, onlog: null };

  it('says how it gets its network back where the machine does not come back', () => {
    render(HoldBox, { ...props, hold });
    expect(screen.getByText('If its network is set wrong: Log in on its console.')).toBeInTheDocument();
  });

  it('says nothing of it where a value is missing', () => {
    render(HoldBox, { ...props, hold: { ...hold, why: 'PREREQUISITE' } });
    expect(screen.queryByText(/network is set wrong/)).toBeNull();
  });
});

describe('a service port', () => {
  const port = { address: '10.47.254.1', page: 'about:blank', laptop: '10.47.254.2/24' };

  async function tried(answers: unknown[]): Promise<void> {
    server = new Server({ '/units/7/console/service-port': answers });
    signedIn('engineer');
    render(ServicePort, { port, unitId: 7 });
    await fireEvent.click(screen.getByRole('button', { name: 'Try 10.47.254.1 from the laptop' }));
  }

  it('says from which laptop it was tried, and what to set there', async () => {
    const sentence = 'rack-laptop has no route to 10.47.254.1.';
    await tried([{ from: 'rack-laptop', state: 'OTHER_SUBNET', sentence }]);
    expect(await screen.findByText(sentence)).toBeInTheDocument();
    expect(screen.getByLabelText('other subnet')).toBeInTheDocument();
  });

  it('says what to do where no laptop is a vantage point', async () => {
    await tried([]);
    expect(await screen.findByText(/^No vantage point is connected/)).toBeInTheDocument();
  });
});

describe('a setup by hand', () => {
  function byHand(change: Partial<BenchView> = {}, of: Partial<BenchView['members'][number]> = {}): BenchView {
    const view = recorded.bench();
    const values = [
      { name: 'address', title: 'address', text: '10.40.8.41' },
      { name: 'steward-password', title: 'steward password', text: null },
    ];
    return { ...view, byHand: true, ...change, members: [{ ...member(view), steps: [], hold: null, values, ...of }] };
  }

  it('shows what can be typed, and begins', async () => {
    const view = byHand({ runState: '' }, { dialogueId: null, state: '', mode: '', openedAt: null });
    shown(view);
    expect(await screen.findByText('10.40.8.41')).toBeVisible();
    expect(screen.getByText('••••••••')).toBeVisible();
    expect(screen.queryByRole('button', { name: 'Type Address' })).toBeNull();
    await pressing(/^Set up by hand and learn/);
    await sent(/\/console$/, { mode: 'ASK' });
  });

  it('ends when the person says that the machine is set up', async () => {
    const view = byHand({}, { state: 'MANUAL' });
    shown(view);
    expect(await screen.findByRole('button', { name: 'Type Address' })).toBeVisible();
    expect(screen.getByRole('button', { name: 'Type steward password' })).toBeVisible();
    await pressing(/^The machine is set up/);
    await sent(new RegExp(`/dialogues/${member(view).dialogueId}/finish$`), {});
  });

  it('leads to what can be learnt from it', async () => {
    const view = byHand({ runState: 'DONE' }, { state: 'DONE', dialogueId: 12 });
    shown(view);
    expect(await screen.findByRole('link', { name: 'Learn from this setup' })).toHaveAttribute(
      'href',
      `/kinds/${view.kind}?tab=learn&setup=12`,
    );
    expect(screen.queryByRole('button', { name: /^Play recording/ })).toBeNull();
  });
});
