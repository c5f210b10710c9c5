import type { Member } from './types';

/** What one member is told for a question, or for a field of a page. */
export interface Cell {
  value: string;
  done: boolean;
  leftOut: boolean;
  differs: boolean;
  secret: boolean;
}
export interface Row {
  title: string;
  differs: boolean;
  cells: (Cell | undefined)[];
  wrong: boolean;
}

const HIDDEN = /^•+$/;

/** By what is asked: questions of the line, then fields of pages. */
function told(member: Member): Map<string, Cell> {
  const cells = new Map<string, Cell>();
  for (const step of member.steps) {
    const done = step.progress === 'DONE';
    const leftOut = step.progress === 'LEFT_OUT';
    if (step.sort === 'asked' && !cells.has(step.title)) {
      cells.set(step.title, {
        value: step.sent || step.answer,
        done,
        leftOut,
        differs: step.marks.includes('DIFFERS'),
        secret: step.marks.includes('SECRET'),
      });
    } else if (step.sort === 'page') {
      for (const [label, value] of Object.entries(step.fields)) {
        cells.set(`${step.title}: ${label}`, {
          value,
          done,
          leftOut,
          differs: step.differ.includes(label),
          secret: HIDDEN.test(value),
        });
      }
    }
  }
  return cells;
}

/** Members side by side; a row is wrong where what must be equal is not, or what must differ does not. */
export function compare(members: Member[]): Row[] {
  const columns = members.map(told);
  const titles = [...new Set(columns.flatMap((column) => [...column.keys()]))];
  return titles.map((title) => {
    const cells = columns.map((column) => column.get(title));
    const there = cells.filter((cell): cell is Cell => cell !== undefined && !cell.leftOut);
    const values = new Set(there.map((cell) => cell.value));
    const differs = there.some((cell) => cell.differs);
    const secret = there.some((cell) => cell.secret);
    return {
      title,
      differs,
      cells,
      wrong: !secret && there.length > 1 && (differs ? values.size < there.length : values.size > 1),
    };
  });
}
