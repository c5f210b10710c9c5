import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Cell, Lane, Row } from '../src/lib/types';
import SignIn from '../src/account/SignIn.svelte';
import Dialog from '../src/parts/Dialog.svelte';
import BoardRow from '../src/stages/board/BoardRow.svelte';
import LaneRow from '../src/stages/configure/LaneRow.svelte';
import { createRawSnippet } from 'svelte';

const cell = (mark: Cell['mark'], text: string): Cell => ({ mark, text, since: null });
const row = (change: Partial<Row>): Row => ({
  unitId: 7,
  name: 'ard-srv-007-oob',
  position: 'R2 u5',
  rack: 'R2',
  kind: 'Server management controller',
  serial: 'BF-00953',
  mac: '02:4c:59:a1:07:08',
  address: '10.40.8.107',
  prepare: cell('done', 'known'),
  allocate: cell('done', '10.40.8.107'),
  configure: cell('fault', 'set up, not proven'),
  prove: cell('fault', 'Port 23 is open but must be closed.'),
  handover: cell('dark', '—'),
  standings: ['HOLDS', 'HOLDS', 'HOLDS', 'HOLDS', 'HOLDS', 'HOLDS', 'BROKEN'],
  sentence: '',
  ...change,
});
const lane = (change: Partial<Lane>): Lane => ({
  runId: 1,
  unitId: 7,
  name: 'ard-srv-007-oob',
  position: 'R2 u5',
  address: '10.40.8.107',
  state: 'RUNNING',
  step: 'setting time servers',
  stepNumber: 6,
  steps: 10,
  note: '',
  advice: '',
  startedAt: null,
  stepAt: null,
  endedAt: null,
  cancelling: false,
  ...change,
});

describe('a row of the Board', () => {
  it('says in words what its marks say in shapes', () => {
    render(BoardRow, { row: row({}), on: false, onchoose: () => undefined, onopen: () => undefined });
    expect(screen.getByText('R2 u5 · BF-00953')).toBeInTheDocument();
    expect(screen.getByText('.107')).toHaveAttribute('title', '10.40.8.107');
    expect(screen.getByRole('img', { name: '6 of 7 rungs pass, safe fails' })).toBeInTheDocument();
    expect(screen.getByText('Port 23 is open but must be closed.')).toBeInTheDocument();
  });
  it('does not say the position twice where there is no name yet', () => {
    render(BoardRow, {
      row: row({ name: 'R2 u5', serial: null, address: null, prove: cell('dark', '—') }),
      on: false,
      onchoose: () => undefined,
      onopen: () => undefined,
    });
    expect(screen.getAllByText(/R2 u5/)).toHaveLength(1);
    expect(screen.getByText('server management controller')).toBeInTheDocument();
  });
  it('opens from its name', async () => {
    const onopen = vi.fn();
    render(BoardRow, { row: row({}), on: false, onchoose: () => undefined, onopen });
    await fireEvent.click(screen.getByRole('button'));
    expect(onopen).toHaveBeenCalledOnce();
  });
});

describe('a lane', () => {
  const bars = (container: HTMLElement) =>
    [...container.querySelectorAll('.bar i')].map((bar) => bar.className.split(' ')[0]);
  it('shows what is past, what is under way and what is to come', () => {
    const { container } = render(LaneRow, { lane: lane({}), on: false, onchoose: () => undefined });
    expect(bars(container)).toEqual(['past', 'past', 'past', 'past', 'past', 'now', 'to', 'to', 'to', 'to']);
    expect(screen.getByText('setting time servers')).toBeInTheDocument();
  });
  it('waits on the machine, not on a person, while it restarts', () => {
    const { container } = render(LaneRow, {
      lane: lane({ step: 'waiting for it at its new address', stepNumber: 8 }),
      on: false,
      onchoose: () => undefined,
    });
    expect(bars(container)[7]).toBe('waits');
    expect(screen.getByRole('img', { name: 'waiting for a machine' })).toBeInTheDocument();
  });
  it('says why it stopped', () => {
    const { container } = render(LaneRow, {
      lane: lane({ state: 'STOPPED', note: 'It has not come back.' }),
      on: false,
      onchoose: () => undefined,
    });
    expect(bars(container)[5]).toBe('broke');
    expect(screen.getByText('It has not come back.')).toBeInTheDocument();
  });
  it('is wholly past when it is done', () => {
    const { container } = render(LaneRow, {
      lane: lane({ state: 'DONE', stepNumber: 10 }),
      on: false,
      onchoose: () => undefined,
    });
    expect(new Set(bars(container))).toEqual(new Set(['past']));
  });
});

describe('the door', () => {
  it('asks for the one-time code only while there is no account', () => {
    const { unmount } = render(SignIn, { door: { firstLeadWanted: true, lab: false } });
    expect(screen.getByLabelText('One-time code')).toBeRequired();
    unmount();
    render(SignIn, { door: { firstLeadWanted: false, lab: true } });
    expect(screen.queryByLabelText('One-time code')).toBeNull();
    expect(screen.getByText(/This is a lab/)).toBeInTheDocument();
  });
  it('shows the server’s sentence and keeps what was typed', async () => {
    vi.stubGlobal(
      'fetch',
      vi.fn(() => Promise.resolve(new Response('{"detail":"Login or password is wrong."}', { status: 401 }))),
    );
    render(SignIn, { door: { firstLeadWanted: false, lab: false } });
    await fireEvent.input(screen.getByLabelText('Login'), { target: { value: 'rack-one' } });
    await fireEvent.input(screen.getByLabelText('Password'), { target: { value: 'wrong' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Login or password is wrong.');
    expect(screen.getByLabelText('Login')).toHaveValue('rack-one');
    vi.unstubAllGlobals();
  });
});

describe('a dialog', () => {
  it('has a name and can be closed', async () => {
    const onclose = vi.fn();
    render(Dialog, {
      title: 'Import labels',
      onclose,
      children: createRawSnippet(() => ({ render: () => '<p>text</p>' })),
    });
    expect(screen.getByRole('dialog', { hidden: true })).toHaveAccessibleName('Import labels');
    await fireEvent.click(screen.getByRole('button', { name: 'Close', hidden: true }));
    expect(onclose).toHaveBeenCalledOnce();
  });
});
