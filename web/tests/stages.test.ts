import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { BoardView, Cell, ConfigureView, Lane, Row } from '../src/lib/types';
import Board from '../src/stages/board/Board.svelte';
import Configure from '../src/stages/configure/Configure.svelte';
import Asking from './Asking.svelte';
import { Server, signedIn } from './signed';

const cell = (mark: Cell['mark'], text: string): Cell => ({ mark, text, since: null });
const row = (id: number, rack: string | null, change: Partial<Row> = {}): Row => ({
  unitId: id,
  name: `ard-srv-${id}`,
  position: rack ? `${rack} u${id}` : '',
  rack,
  kind: 'Server management controller',
  serial: `BF-${id}`,
  mac: null,
  address: null,
  prepare: cell('done', 'known'),
  allocate: cell('dark', '—'),
  configure: cell('dark', '—'),
  prove: cell('dark', '—'),
  handover: cell('dark', '—'),
  standings: [],
  sentence: '',
  ...change,
});
const stage = { fault: '', text: '', percent: 0 };
const board = (rows: Row[]): BoardView => ({
  id: 0,
  name: 'Row A',
  due: null,
  network: '10.40.8.0/24',
  units: rows.length,
  rows,
  course: { prepare: stage, allocate: stage, configure: stage, prove: stage, handover: stage },
  todos:
    rows.length === 0
      ? [
          {
            mark: 'work',
            title: 'Add the expected units',
            text: 'Import a label list or a table, or type into the fact sheet.',
            stage: 'prepare',
            unitId: null,
          },
        ]
      : [],
  waiting: [],
});
const lane = (id: number, state: string): Lane =>
  ({
    runId: id,
    unitId: id,
    name: `ard-srv-${id}`,
    position: `R1 u${id}`,
    address: '',
    state,
    step: '',
    stepNumber: 3,
    steps: 10,
    note: state === 'STOPPED' ? 'It has not come back.' : '',
    advice: '',
    startedAt: null,
    stepAt: null,
    endedAt: null,
    cancelling: false,
  }) as Lane;
const configure = (lanes: Lane[], ready = 0): ConfigureView => ({
  lanes,
  ready,
  readyNames: ready ? 'ard-srv-1 … ard-srv-9' : '',
  hold: 'NONE',
  counts: {},
});

let server = new Server({});
beforeEach(() => {
  signedIn('engineer');
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init));
});
afterEach(() => vi.unstubAllGlobals());

describe('the Board', () => {
  function shown(rows: Row[]): void {
    server = new Server({ '/board': board(rows) });
    render(Asking, { of: Board });
  }

  it('has a head for each rack, and one for what is in none', async () => {
    shown([row(1, 'R1', { prove: cell('lit', '') }), row(2, 'R2'), row(3, null), row(4, 'R1')]);
    await screen.findByText('ard-srv-3');
    expect(screen.getAllByRole('rowheader').map((head) => head.textContent)).toEqual([
      'Rack R1 · 2 units, 1 proven',
      'Rack R2 · 1 unit, 0 proven',
      'In no rack · 1 unit, 0 proven',
    ]);
  });

  it('leads a new hall to Prepare', async () => {
    shown([]);
    expect(await screen.findByRole('link', { name: '1 Prepare' })).toBeInTheDocument();
    expect(screen.getByText('Add the expected units')).toBeInTheDocument();
  });

  it('draws of thousands what is in sight', async () => {
    shown(Array.from({ length: 3000 }, (_, i) => row(i + 1, `R${Math.floor(i / 20)}`)));
    await screen.findByText('ard-srv-1');
    expect(document.querySelectorAll('tr[id^=unit-]').length).toBeLessThan(80);
    expect(screen.getByRole('table')).toHaveAttribute('aria-rowcount', String(3000 + 150 + 1));
  });

  it('has its services asked when somebody looks', async () => {
    shown([]);
    await waitFor(() => expect(server.sent.map((each) => each.path)).toEqual([expect.stringMatching(/\/measure$/)]));
  });
});

describe('Configure', () => {
  function shown(view: ConfigureView, refusals: Record<string, [number, unknown]> = {}): void {
    server = new Server({ '/configure': view, '/lanes': { lanes: [], startable: [] } }, refusals);
    render(Asking, { of: Configure });
  }

  it('says what has to come first where nothing can be started', async () => {
    shown(configure([]));
    expect(await screen.findByText(/No setup started yet/)).toHaveTextContent(
      'No setup started yet. A unit is ready once 1 Prepare has all its facts and 2 Allocate has allocated ' +
        'its addresses.',
    );
  });

  it('names what is ready, and starts as many at once as one says', async () => {
    shown(configure([], 9));
    await fireEvent.click(await screen.findByRole('button', { name: /Set up 9 units/ }));
    await fireEvent.input(screen.getByRole('spinbutton', { hidden: true }), { target: { value: '5' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Start setup', hidden: true }));
    await waitFor(() =>
      expect(server.sent).toEqual([
        { method: 'POST', path: expect.stringMatching(/\/setups$/) as string, body: { width: 5 } },
      ]),
    );
  });

  it('opens what has stopped, and lets it be tried again or set aside', async () => {
    shown(configure([lane(1, 'DONE'), lane(2, 'STOPPED'), lane(3, 'WAITING')]));
    await fireEvent.click(await screen.findByRole('button', { name: 'Try again' }));
    await waitFor(() =>
      expect(server.sent.map((each) => each.path.replace(/^.*\/api/, ''))).toEqual(['/setups/2/retry']),
    );
    expect(screen.getByRole('button', { name: 'Continue without this unit' })).toBeInTheDocument();
  });

  it('asks for a reason where every unit is outside its change window', async () => {
    const refusal: [number, unknown] = [409, { detail: 'Each unit is outside its change window.', reasonWanted: true }];
    shown(configure([], 9), { '/setups': refusal });
    await fireEvent.click(await screen.findByRole('button', { name: /Set up 9 units/ }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Start setup', hidden: true }));
    expect(await screen.findByText('Each unit is outside its change window.')).toBeInTheDocument();
    await fireEvent.input(screen.getByLabelText(/Reason/), { target: { value: 'agreed with the hall' } });
    server = new Server({ '/configure': configure([], 9) });
    await fireEvent.click(screen.getByRole('button', { name: /^Override/, hidden: true }));
    await waitFor(() => expect(server.sent[0]?.body).toEqual({ width: 3, reason: 'agreed with the hall' }));
  });

  it('lets a viewer stop and start nothing', async () => {
    signedIn('viewer');
    shown(configure([lane(1, 'RUNNING')], 9));
    await screen.findAllByText('ard-srv-1');
    expect(screen.queryByRole('button', { name: /Start|Stop/ })).toBeNull();
  });
});
