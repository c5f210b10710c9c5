import type { Asks, CellText, KindBrief, SheetRow, Value } from '../../lib/types';

/** What a cell is to the engineer: never asked, to be found out, sealed, or a value with where it comes from. */
export type Look = 'never' | 'missing' | 'optional' | 'own' | 'given';

export interface Column {
  name: string;
  title: string;
}

export type Kinds = Map<string, Map<string, Asks>>;

/** What units of one version of a kind have in common. */
export const keyOf = (unit: { kind: string; kindVersion: number }) => `${unit.kind} ${unit.kindVersion}`;
export const keyOfKind = (kind: KindBrief) => `${kind.id} ${kind.version}`;

export function byKind(kinds: KindBrief[]): Kinds {
  return new Map(kinds.map((kind) => [keyOfKind(kind), new Map(kind.facts.map((fact) => [fact.name, fact]))]));
}

export function asks(kinds: Kinds, row: SheetRow, name: string): Asks | undefined {
  return kinds.get(keyOf(row))?.get(name);
}

/** A value of the unit's own is typed in the row of its first member alone. */
function elsewhere(fact: Asks, row: SheetRow): boolean {
  return fact.scope === 'UNIT' && !row.first;
}

export function look(kinds: Kinds, row: SheetRow, name: string): Look {
  const fact = asks(kinds, row, name);
  if (!fact || elsewhere(fact, row)) return 'never';
  const value = row.cells[name];
  if (!value) return fact.wanted ? 'missing' : 'optional';
  return value.source === 'site' || value.source === 'kind' ? 'given' : 'own';
}

export function shown(value: Value | undefined): string {
  if (!value) return '';
  return value.source === 'site' ? `site: ${value.value}` : value.value;
}

/**
 * The columns of the sheet, in the order of the kinds. Unless all are wanted, those without anything to find out
 * or to see are left out.
 */
export function columns(rows: SheetRow[], kinds: Kinds, all: boolean): Column[] {
  const found = new Map<string, Column & { worth: boolean }>();
  const present = new Set(rows.map(keyOf));
  for (const [kind, facts] of kinds) {
    if (present.has(kind))
      for (const fact of facts.values())
        if (!found.has(fact.name)) found.set(fact.name, { name: fact.name, title: fact.title, worth: false });
  }
  for (const row of rows) {
    for (const column of found.values()) {
      if (!column.worth && ['missing', 'own'].includes(look(kinds, row, column.name))) column.worth = true;
    }
  }
  return [...found.values()].filter((column) => all || column.worth).map(({ name, title }) => ({ name, title }));
}

/** Rows and columns as a spreadsheet puts them on the clipboard; quoted cells may hold tabs and line breaks. */
export function pasted(text: string): string[][] {
  const rows: string[][] = [[]];
  let cell = '';
  let quoted = false;
  const body = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
  for (let i = 0; i < body.length; i++) {
    const c = body[i]!;
    if (quoted) {
      if (c === '"' && body[i + 1] === '"') {
        cell += '"';
        i++;
      } else if (c === '"') quoted = false;
      else cell += c;
    } else if (c === '"' && cell === '') quoted = true;
    else if (c === '\t' || c === '\n') {
      rows[rows.length - 1]!.push(cell);
      cell = '';
      if (c === '\n') rows.push([]);
    } else cell += c;
  }
  rows[rows.length - 1]!.push(cell);
  return rows;
}

export interface Area {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

export function area(a: { row: number; col: number }, b: { row: number; col: number }): Area {
  return {
    top: Math.min(a.row, b.row),
    left: Math.min(a.col, b.col),
    bottom: Math.max(a.row, b.row),
    right: Math.max(a.col, b.col),
  };
}

function cell(row: SheetRow, fact: Asks, value: string): CellText {
  return { unitId: row.unitId, member: fact.scope === 'UNIT' ? '' : row.member, name: fact.name, value };
}

/**
 * What a block of values says from a corner on; one value fills the whole area. Cells that nobody asks for are passed
 * over.
 */
export function filled(rows: SheetRow[], cols: Column[], kinds: Kinds, at: Area, values: string[][]): CellText[] {
  const single = values.length === 1 && values[0]!.length === 1;
  const height = single ? at.bottom - at.top + 1 : values.length;
  const width = single ? at.right - at.left + 1 : Math.max(...values.map((line) => line.length));
  const cells: CellText[] = [];
  for (let i = 0; i < height; i++) {
    for (let j = 0; j < width; j++) {
      const row = rows[at.top + i];
      const col = cols[at.left + j];
      const value = single ? values[0]![0]! : values[i]?.[j];
      if (!row || !col || value === undefined || look(kinds, row, col.name) === 'never') continue;
      cells.push(cell(row, asks(kinds, row, col.name)!, value));
    }
  }
  return cells;
}

/** The top row of an area copied into the rows below it. */
export function filledDown(rows: SheetRow[], cols: Column[], kinds: Kinds, at: Area): CellText[] {
  const top = cols.slice(at.left, at.right + 1).map((col) => rows[at.top]?.cells[col.name]?.value ?? '');
  const below = Array.from({ length: at.bottom - at.top }, () => top);
  return below.length === 0
    ? []
    : filled(rows, cols, kinds, { ...at, top: at.top + 1 }, below).filter((each) => each.value !== '');
}

export function copied(rows: SheetRow[], cols: Column[], at: Area): string {
  return rows
    .slice(at.top, at.bottom + 1)
    .map((row) =>
      cols
        .slice(at.left, at.right + 1)
        .map((col) => row.cells[col.name]?.value ?? '')
        .join('\t'),
    )
    .join('\n');
}
