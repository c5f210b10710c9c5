import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { propose } from '../src/site/kinds/editor';
import { placeAt } from '../src/site/kinds/place';
import { at, documentation, keys, words, type Schema } from '../src/site/kinds/schema';

const KINDS = join(import.meta.dirname, '../../kinds');
const schema = JSON.parse(readFileSync(join(KINDS, 'kind.schema.json'), 'utf8')) as Schema;
const TEXTS = { label: '', required: 'required' };

/** The text with the cursor at the bar. */
const place = (text: string) => placeAt(text.replace('|', ''), text.indexOf('|'));
const names = (text: string) =>
  propose(schema, text.replace('|', ''), text.indexOf('|'), TEXTS)?.options.map((option) => option.label) ?? [];

describe('the place of the cursor', () => {
  it.each([
    ['ki|', [], true, 'ki'],
    ['kind: |', ['kind'], false, ''],
    ['facts:\n  serial: { of: unit, is: se|', ['facts', 'serial', 'is'], false, 'se'],
    ['facts:\n  serial: { of: unit, |', ['facts', 'serial'], true, ''],
    ['facts:\n  serial:\n    of: unit\n    |', ['facts', 'serial'], true, ''],
    ['dialogue:\n  line: 9600 8N1\n  setup:\n    - { asked: "a: b, {c}", |', ['dialogue', 'setup', 0], true, ''],
    ['dialogue:\n  setup:\n    - { asked: x, answer: y }\n    - { |', ['dialogue', 'setup', 1], true, ''],
    ['dialogue:\n  setup:\n    - asked: x\n      ans|', ['dialogue', 'setup', 0], true, 'ans'],
    ['dialogue:\n  setup:\n  - asked: x\n    ans|', ['dialogue', 'setup', 0], true, 'ans'],
    ['dialogue:\n  setup:\n    - { asked: x,\n        at|', ['dialogue', 'setup', 0], true, 'at'],
    ['addresses:\n  - { run: [ a, [ b, "c d" ] ], in: |', ['addresses', 0, 'in'], false, ''],
    ['addresses:\n  - { run: [ a, | ', ['addresses', 0, 'run', 1], false, ''],
    ['# kind: x\nch|', [], true, 'ch'],
    ['kind: x # not: here\nch|', [], true, 'ch'],
    ['checks: { port: 443 }\n\nwa|', [], true, 'wa'],
  ])('in %j', (text, path, key, word) => {
    const found = place(text);
    expect([found.path, found.key, found.word]).toEqual([path, key, word]);
  });

  it('is found for every key of every kind that is shipped', () => {
    const wrong: string[] = [];
    let seen = 0;
    for (const file of readdirSync(KINDS).filter((name) => name.endsWith('.yaml'))) {
      const text = readFileSync(join(KINDS, file), 'utf8');
      for (const found of text.matchAll(/(?<=^ *|[{,] |- )([a-z][a-z0-9-]*)(?=: )/gm)) {
        const before = text.slice(text.lastIndexOf('\n', found.index) + 1, found.index);
        if (before.includes('#') || (before.split('"').length + before.split("'").length) % 2 === 1) continue;
        seen++;
        const here = placeAt(text, found.index);
        const known = keys(schema, here.path).map((key) => key.name);
        // names of facts, fields of pages and the like are free
        const free = at(schema, here.path).some((form) => typeof form.additionalProperties === 'object');
        if (!here.key || (!free && !known.includes(found[1]!)))
          wrong.push(`${file}: ${found[1]} at ${here.path.join('.')}`);
      }
    }
    expect(wrong).toEqual([]);
    expect(seen).toBeGreaterThan(400);
  });
});

describe('proposals', () => {
  it('are the keys that the form of descriptions has there', () => {
    expect(names('facts:\n  serial: { |')).toContain('permanent');
    expect(names('dialogue:\n  |')).toEqual(expect.arrayContaining(['identify', 'setup', 'paging']));
    expect(names('dialogue:\n  setup:\n    - { |')).toEqual(
      expect.arrayContaining(['asked', 'at', 'waits', 'summary']),
    );
    expect(names('dialogue:\n  setup:\n    - { waits: { |')).toEqual(
      expect.arrayContaining(['about', 'at-most', 'until']),
    );
  });

  it('are the words that a value may be', () => {
    expect(names('facts:\n  serial: { of: |')).toEqual(['unit', 'member']);
    expect(names('facts:\n  serial: { is: mac|')).toContain('mac-address');
    expect(words(schema, ['addresses', 0, 'paths']).map((word) => word.name)).toEqual(['halves', 'alternating']);
  });

  it('say what a key means', () => {
    expect(documentation(schema, ['facts', 'serial', 'find'])).toBe('where an engineer finds the value');
    expect(documentation(schema, ['nothing'])).toBe('');
  });
});
