import { describe, expect, it } from 'vitest';
import { fireEvent, render, screen } from '@testing-library/svelte';
import type { Asks, CellText, FactsReport, KindBrief, SheetRow } from '../src/lib/types';
import FactGrid from '../src/stages/prepare/FactGrid.svelte';
import { area, byKind, columns, copied, filled, filledDown, look, pasted, shown } from '../src/stages/prepare/sheet';

const fact = (name: string, change: Partial<Asks> = {}): Asks => ({
  name,
  title: name,
  scope: 'MEMBER',
  type: 'text',
  example: 'X',
  find: '',
  asked: '',
  choices: [],
  wanted: true,
  permanent: false,
  secret: false,
  ...change,
});
const kinds: KindBrief[] = [
  {
    id: 'pair',
    version: 1,
    title: 'Pair',
    about: '',
    counts: [2],
    bring: [],
    plug: '',
    facts: [fact('serial'), fact('console'), fact('terms', { scope: 'UNIT' }), fact('note', { wanted: false })],
  },
  {
    id: 'array',
    version: 1,
    title: 'Array',
    about: '',
    counts: [1],
    bring: [],
    plug: '',
    facts: [fact('serial'), fact('sender')],
  },
];
const rows: SheetRow[] = [
  {
    unitId: 1,
    unit: 'fic-1',
    kind: 'pair',
    kindVersion: 1,
    member: 'left',
    first: true,
    cells: { serial: { value: 'A', source: 'label' }, terms: { value: 'no', source: 'site' } },
  },
  { unitId: 1, unit: 'fic-1', kind: 'pair', kindVersion: 1, member: 'right', first: false, cells: {} },
  {
    unitId: 2,
    unit: 'blk-1',
    kind: 'array',
    kindVersion: 1,
    member: '',
    first: true,
    cells: { sender: { value: 'a@b.c', source: 'typed' } },
  },
];
const asked = byKind(kinds);
const cols = columns(rows, asked, true);

describe('the sheet', () => {
  it('knows what each cell is', () => {
    expect(look(asked, rows[0]!, 'serial')).toBe('own');
    expect(look(asked, rows[0]!, 'terms')).toBe('given');
    expect(look(asked, rows[1]!, 'terms')).toBe('never');
    expect(look(asked, rows[1]!, 'serial')).toBe('missing');
    expect(look(asked, rows[1]!, 'note')).toBe('optional');
    expect(look(asked, rows[2]!, 'console')).toBe('never');
    expect(shown(rows[0]!.cells.terms)).toBe('site: no');
  });
  it('leaves out columns without anything to find out', () => {
    expect(cols.map((col) => col.name)).toEqual(['serial', 'console', 'terms', 'note', 'sender']);
    expect(columns(rows, asked, false).map((col) => col.name)).toEqual(['serial', 'console', 'sender']);
  });
  it('reads what spreadsheets put on the clipboard', () => {
    expect(pasted('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
    expect(pasted('"two\nlines"\t"say ""so"""')).toEqual([['two\nlines', 'say "so"']]);
    expect(pasted('')).toEqual([['']]);
  });
  it('pastes a block from a corner and passes over what nobody asks for', () => {
    const at = area({ row: 0, col: 0 }, { row: 0, col: 0 });
    expect(
      filled(rows, cols, asked, at, [
        ['S1', 'C1'],
        ['S2', 'C2'],
        ['S3', 'C3'],
        ['S4', 'C4'],
      ]).map((cell) => cell.value),
    ).toEqual(['S1', 'C1', 'S2', 'C2', 'S3']);
  });
  it('fills an area with one value, and a column downwards', () => {
    expect(filled(rows, cols, asked, area({ row: 2, col: 0 }, { row: 0, col: 0 }), [['Z']])).toHaveLength(3);
    expect(
      filledDown(rows, cols, asked, { top: 0, left: 0, bottom: 2, right: 0 }).map((cell) => [
        cell.unitId,
        cell.member,
        cell.value,
      ]),
    ).toEqual([
      [1, 'right', 'A'],
      [2, '', 'A'],
    ]);
    expect(filledDown(rows, cols, asked, { top: 0, left: 0, bottom: 0, right: 0 })).toEqual([]);
  });
  it('writes the value of a unit to the unit, not to a member', () => {
    expect(filled(rows, cols, asked, { top: 0, left: 2, bottom: 0, right: 2 }, [['yes']])).toEqual([
      { unitId: 1, member: '', name: 'terms', value: 'yes' },
    ]);
  });
  it('copies what a spreadsheet can read', () => {
    expect(copied(rows, cols, { top: 0, left: 0, bottom: 1, right: 1 })).toBe('A\t\n\t');
  });
});

describe('the grid', () => {
  let beyond: number[] = [];
  function grid(answer: FactsReport = { changeId: 1, changed: 1, faults: [] }): CellText[][] {
    const sent: CellText[][] = [];
    beyond = [];
    render(FactGrid, {
      name: 'fic',
      rows,
      kinds,
      all: true,
      chosen: null,
      editable: true,
      onset: (cells: CellText[]) => (sent.push(cells), Promise.resolve(answer)),
      onundo: () => {},
      onchoose: () => {},
      onbeyond: (by: number) => beyond.push(by),
    });
    return sent;
  }
  it('is walked with the arrow keys and typed into', async () => {
    const sent = grid();
    const table = screen.getByRole('grid');
    await fireEvent.keyDown(table, { key: 'ArrowDown' });
    await fireEvent.keyDown(table, { key: 'ArrowRight' });
    expect(table).toHaveAttribute('aria-activedescendant', 'fact-fic-1-1');
    await fireEvent.keyDown(table, { key: '2' });
    const input = await screen.findByLabelText('fic-1 console');
    await fireEvent.input(input, { target: { value: '6101' } });
    await fireEvent.keyDown(input, { key: 'Enter' });
    expect(sent).toEqual([[{ unitId: 1, member: 'right', name: 'console', value: '6101' }]]);
  });
  it('is left with an arrow key at its last row', async () => {
    grid();
    const table = screen.getByRole('grid');
    await fireEvent.keyDown(table, { key: 'ArrowUp' });
    await fireEvent.keyDown(table, { key: 'ArrowDown' });
    await fireEvent.keyDown(table, { key: 'ArrowDown' });
    expect(beyond).toEqual([-1]);
    await fireEvent.keyDown(table, { key: 'ArrowDown' });
    expect(beyond).toEqual([-1, 1]);
  });
  it('keeps a wrong value in its cell and says what is wrong', async () => {
    grid({
      changeId: null,
      changed: 0,
      faults: [{ unitId: 1, member: 'left', name: 'serial', value: '??', reason: 'No serial.' }],
    });
    const table = screen.getByRole('grid');
    await fireEvent.keyDown(table, { key: 'F2' });
    const input = await screen.findByLabelText('fic-1 serial');
    await fireEvent.input(input, { target: { value: '??' } });
    await fireEvent.keyDown(input, { key: 'Tab' });
    expect(await screen.findByText('??')).toHaveAttribute('aria-invalid', 'true');
    await fireEvent.keyDown(table, { key: 'ArrowLeft' });
    expect(await screen.findByText('No serial.')).toBeInTheDocument();
  });
});
