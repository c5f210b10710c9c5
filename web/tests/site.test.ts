import { cleanup, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Measured, PrepareView, Statement } from '../src/lib/types';
import SiteSummary from '../src/stages/prepare/SiteSummary.svelte';
import { m } from '../src/messages';
import { signedIn } from './signed';

const network = (change: Partial<Statement>): Statement =>
  ({
    id: 1,
    name: 'Management, row B',
    prefix: '10.40.9.0/24',
    gateway: '10.40.9.1',
    vlan: 409,
    ...change,
  }) as unknown as Statement;
const measured = (
  kind: Measured['kind'],
  address: string,
  state: Measured['state'],
  sentence = '',
  replies: Measured['replies'] = [],
): Measured => ({ kind, address, state, sentence, detail: {}, replies, at: '2026-11-23T09:20:00Z' });
const view = (services: Measured[], networks: Statement[] = [network({})]): PrepareView => ({
  site: { network: networks[0] ?? null, networks, findings: [], toPlace: 3, free: 80, undoableImport: null },
  choices: [],
  units: [],
  kinds: [],
  rows: [],
  services,
  siteResources: [],
  knownUnits: 0,
});

function shown(services: Measured[], networks?: Statement[]) {
  return render(SiteSummary, {
    view: view(services, networks),
    onstate: () => undefined,
    onopen: () => undefined,
    onmeasure: () => undefined,
  });
}

const marks = () => screen.getAllByRole('img').map((mark) => mark.getAttribute('aria-label'));

describe('networks and services', () => {
  beforeEach(() => {
    signedIn('engineer');
  });

  it('is not marked for a gateway that another bring-up leans on', () => {
    shown([measured('GATEWAY', '10.40.9.1', 'FINE'), measured('GATEWAY', '10.44.0.1', 'SILENT')]);
    expect(screen.queryByText('10.44.0.1')).toBeNull();
    expect(marks()).toEqual(['done']);
  });

  it('is marked for its own', () => {
    shown([measured('GATEWAY', '10.40.9.1', 'SILENT')]);
    expect(screen.getByText('10.40.9.1')).toHaveClass('bad');
    expect(marks()).not.toEqual(['done']);
  });

  it('counts what is well of each service, and says what is not', () => {
    shown([
      measured('TIME', '10.40.8.6', 'FINE', '-1.2 ms, stratum 3'),
      measured('TIME', '10.40.8.9', 'LIES', 'is off by +120.0 s from 3 that agree'),
    ]);
    expect(screen.getByText('1 of 2 OK')).toBeInTheDocument();
    expect(screen.getByText(/is off by/)).toHaveClass('wrong');
  });

  it('offers to state a network first, and nothing to ask again', () => {
    shown([], []);
    expect(screen.getByRole('button', { name: /Define network/ })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Ask again/ })).toBeNull();
  });

  it('says whether a name server accepts updates', () => {
    const reply = { request: 'UPDATE' as const, about: 'ardal.example', text: '' };
    shown([measured('NAME', '10.40.8.3', 'FINE', '', [{ ...reply, accepted: true }])]);
    expect(screen.getByText(m.prepare.ground.updates)).toBeInTheDocument();
    cleanup();
    shown([measured('NAME', '10.40.8.3', 'FINE', '', [{ ...reply, accepted: false }])]);
    expect(screen.getByText(m.prepare.ground.noUpdates)).toBeInTheDocument();
  });

  it('offers a viewer nothing to change', () => {
    signedIn('viewer');
    shown([
      measured('NAME', '10.40.8.3', 'FINE', 'serial 2026112301', [
        { request: 'UPDATE', about: 'ardal.example', accepted: true, text: '' },
      ]),
    ]);
    expect(screen.queryByRole('button', { name: /Networks and services/ })).toBeNull();
  });
});
