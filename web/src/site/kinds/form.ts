import {
  isMap,
  isScalar,
  isSeq,
  parseDocument,
  type Document,
  type Node,
  type Pair,
  type Scalar,
  type YAMLMap,
} from 'yaml';

/** A value of a description that the form shows, with its place in the text. */
export interface FormField {
  /** The keys that lead to it, such as {@code checks.port}. */
  path: string;
  /** What people call it: a key of the messages, or a text of the description itself. */
  name: string;
  value: string;
  /** A list is shown with commas. */
  list: boolean;
  from: number;
  to: number;
}

/** A page of the value sheet. */
export interface FormPage {
  title: string;
  fields: FormField[];
  /** Where another field goes, and how it is written there. */
  more: { at: number; before: string; after: string };
}

/** What of a description the form can express. */
export interface FormView {
  fields: FormField[];
  facts: { title: string; fields: FormField[] }[];
  pages: FormPage[];
  /** Keys at the top that have parts which only the text shows. */
  textOnly: string[];
}

const HEAD = [
  'title',
  'short',
  'about',
  'members.labels',
  'members.each',
  'members.counts',
  'plug',
  'names.unit',
  'checks.port',
  'checks.open',
  'checks.shut',
  'waits.restart.about',
  'waits.restart.at-most',
];
const OF_FACT = ['title', 'find', 'asked', 'default'];

const ranged = (node: Node): [number, number] => [node.range![0], node.range![1]];
const plain = (node: Scalar): string => {
  const value: unknown = node.source ?? node.value;
  return typeof value === 'string' ? value : '';
};

function field(document: Document, path: (string | number)[], name: string): FormField | null {
  const node = document.getIn(path, true);
  const shown = { path: path.join('.'), name };
  if (isScalar(node) && node.range) {
    const [from, to] = ranged(node);
    return { ...shown, value: plain(node), list: false, from, to };
  }
  if (isSeq(node) && node.flow && node.range && node.items.every((item) => isScalar(item))) {
    const [from, to] = ranged(node);
    return { ...shown, value: node.items.map((item) => plain(item)).join(', '), list: true, from, to };
  }
  return null;
}

const here = (all: (FormField | null)[]): FormField[] => all.filter((each) => each !== null);

function rowOf(pair: Pair, path: string): FormField | null {
  const value = isMap(pair.value) ? pair.value.get('is', true) : pair.value;
  if (!isScalar(pair.key) || !isScalar(value) || !value.range) return null;
  const [from, to] = ranged(value);
  return { path: `${path}.${plain(pair.key)}`, name: plain(pair.key), value: plain(value), list: false, from, to };
}

function page(map: YAMLMap, text: string, place: number): FormPage | null {
  const fields = map.get('fields', true);
  const title = map.get('page', true);
  if (!isMap(fields) || !fields.range || !isScalar(title)) return null;
  const path = `dialogue.pages.${place + 1}.fields`;
  const last = fields.items.at(-1);
  const first = fields.items[0]?.key;
  let more: FormPage['more'];
  if (fields.flow) {
    const inside = text.slice(fields.range[0] + 1, fields.range[1] - 1).trimEnd();
    more = { at: fields.range[0] + 1 + inside.length, before: fields.items.length > 0 ? ', ' : ' ', after: '' };
  } else {
    const column = isScalar(first) ? first.range![0] - text.lastIndexOf('\n', first.range![0]) - 1 : 0;
    const end = (last?.value as Node | undefined)?.range?.[1] ?? fields.range[1];
    more = { at: end, before: `\n${' '.repeat(column)}`, after: '' };
  }
  return { title: plain(title), fields: here(fields.items.map((pair) => rowOf(pair, path))), more };
}

/** Reads what the form can show; nothing while the text is no YAML. */
export function formOf(text: string): FormView | null {
  const document = parseDocument(text, { keepSourceTokens: false, logLevel: 'silent' });
  if (document.errors.length > 0 || !isMap(document.contents)) return null;
  const root = document.contents;
  const facts = root.get('facts', true);
  const pages = document.getIn(['dialogue', 'pages'], true);
  const dialogue = root.get('dialogue', true);
  const logins = root.get('factory', true);
  const firstLogin = isSeq(logins) ? ['factory', 0] : ['factory'];
  return {
    fields: here([
      ...HEAD.map((path) => field(document, path.split('.'), path)),
      ...['way', 'user', 'phrase'].map((key) => field(document, [...firstLogin, key], `factory.${key}`)),
    ]),
    facts: isMap(facts)
      ? facts.items.flatMap((pair) => {
          const name = isScalar(pair.key) ? plain(pair.key) : '';
          const own = here(OF_FACT.map((key) => field(document, ['facts', name, key], key)));
          const title = own.find((each) => each.name === 'title')?.value ?? name.replaceAll('-', ' ');
          return own.length > 0 ? [{ title, fields: own }] : [];
        })
      : [],
    pages: isSeq(pages)
      ? pages.items.map((each, i) => (isMap(each) ? page(each, text, i) : null)).filter((each) => each !== null)
      : [],
    textOnly: [
      ...(isMap(dialogue) && dialogue.has('setup') ? ['dialogue.setup'] : []),
      ...(isSeq(logins) && logins.items.length > 1 ? ['factory'] : []),
      ...['addresses', 'flows', 'machine'].filter((key) => root.has(key)),
    ],
  };
}

const SAFE = /^[A-Za-z0-9][A-Za-z0-9 ._/()-]*$/;
const WORDS = /^(true|false|null|yes|no|on|off|~)$/i;
const NUMBER = /^\d+$/;

/** A scalar as it is written: as before where that is possible, else in double quotes, which take any text (JSON). */
function written(value: string, before: string): string {
  if (before.startsWith('"')) return JSON.stringify(value);
  if (before.startsWith("'") && !value.includes('\n')) return `'${value.replaceAll("'", "''")}'`;
  const bare = SAFE.test(value) && !value.endsWith(' ') && !value.includes(' #') && !WORDS.test(value);
  return bare || (NUMBER.test(before) && NUMBER.test(value)) ? value : JSON.stringify(value);
}

/** The text with another value; everything else stays as it was, letter by letter. */
export function withValue(text: string, at: FormField, value: string): string {
  const before = text.slice(at.from, at.to);
  const now = at.list
    ? `[ ${value
        .split(',')
        .map((each) => each.trim())
        .filter(Boolean)
        .map((each) => (NUMBER.test(each) ? each : written(each, '')))
        .join(', ')} ]`
    : written(value, before);
  return text.slice(0, at.from) + now + text.slice(at.to);
}

/** The text with another field on a page. */
export function withField(text: string, on: FormPage, name: string, value: string): string {
  const row = `${JSON.stringify(name)}: ${JSON.stringify(value)}`;
  return text.slice(0, on.more.at) + on.more.before + row + on.more.after + text.slice(on.more.at);
}
