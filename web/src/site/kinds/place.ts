/** Where in a description something is: keys and numbers of list entries from the outside in. */
export type Path = (string | number)[];

/** What is at a place in the text. */
export interface Place {
  /** The mapping that a key is typed into, or the value that is typed. */
  path: Path;
  /** Whether a key is typed there, or a value. */
  key: boolean;
  /** What is typed already of the word. */
  word: string;
}

interface Frame {
  list: boolean;
  /** Of a block: the column where its entries begin; -1 of one in braces or brackets. */
  indent: number;
  key: string | null;
  index: number;
}

const BLOCK_KEY = /^("(?:[^"\\]|\\.)*"|'[^']*'|[^\s:#{}[\],"'-][^:#{}[\],]*?|-?[^\s:#{}[\],"'-][^:#]*?)\s*:(?=\s|$)/;
const bare = (key: string): string => key.replace(/^["']|["']$/g, '');

/**
 * Finds where a position lies, in a text that need not be whole: somebody is typing in it. Knows what descriptions
 * use of YAML: blocks by indentation, maps in braces, lists in brackets, quoted texts, comments.
 */
export function placeAt(text: string, position: number): Place {
  const lines = text.slice(0, position).split('\n');
  const frames: Frame[] = [];
  const flow = (): boolean => (frames.at(-1)?.indent ?? 0) < 0;
  let word = '';
  let valueBegun = false;

  function inFlow(rest: string): void {
    let token = '';
    for (let i = 0; i < rest.length; i++) {
      const c = rest[i]!;
      if ((c === '"' || c === "'") && token.trim() === '') {
        const end = rest.indexOf(c, i + 1);
        token += rest.slice(i, end < 0 ? undefined : end + 1);
        if (end < 0) break;
        i = end;
      } else if (c === '#' && (i === 0 || rest[i - 1] === ' ')) {
        token = '';
        break;
      } else if (c === '{' || c === '[') {
        frames.push({ list: c === '[', indent: -1, key: null, index: 0 });
        token = '';
      } else if (flow() && (c === '}' || c === ']')) {
        frames.pop();
        token = '';
      } else if (flow() && c === ',') {
        const top = frames.at(-1)!;
        top.key = null;
        top.index += 1;
        token = '';
      } else if (flow() && !frames.at(-1)!.list && c === ':' && (rest[i + 1] ?? ' ') === ' ') {
        frames.at(-1)!.key = bare(token.trim());
        token = '';
      } else token += c;
    }
    word = token.trimStart();
  }

  function inBlock(line: string, last: boolean): void {
    let column = line.length - line.trimStart().length;
    let rest = line.slice(column);
    if (rest.startsWith('#') || (rest === '' && !last)) return;
    valueBegun = false;
    while (frames.length > 0 && frames.at(-1)!.indent > column) frames.pop();
    while (/^-(\s|$)/.test(rest)) {
      const top = frames.at(-1);
      if (top?.list && top.indent === column) top.index += 1;
      else {
        // a list may stand below its key without being moved in
        frames.push({ list: true, indent: column, key: null, index: 0 });
      }
      const gap = rest.length - rest.slice(1).trimStart().length;
      column += gap;
      rest = rest.slice(gap);
    }
    const top = frames.at(-1);
    if (top && top.list && top.indent === column && !/^-/.test(line.trimStart())) frames.pop();
    const key = BLOCK_KEY.exec(rest);
    const own = frames.at(-1);
    if (!(own && !own.list && own.indent === column)) {
      if (key || !rest.startsWith('{')) frames.push({ list: false, indent: column, key: null, index: 0 });
    }
    if (!key) {
      if (!rest.startsWith('{') && !rest.startsWith('[')) {
        const map = frames.at(-1)!;
        map.key = null;
        word = rest;
        return;
      }
      inFlow(rest);
      return;
    }
    frames.at(-1)!.key = bare(key[1]!);
    valueBegun = true;
    inFlow(rest.slice(key[0].length));
  }

  lines.forEach((line, i) => {
    word = '';
    if (flow()) inFlow(line);
    else inBlock(line, i === lines.length - 1);
  });

  const path: Path = [];
  for (const frame of frames) {
    if (frame.list) path.push(frame.index);
    else if (frame.key !== null) path.push(frame.key);
  }
  const top = frames.at(-1);
  const key = top !== undefined ? !top.list && top.key === null : true;
  return { path, key: flow() ? key : key && !valueBegun, word };
}
