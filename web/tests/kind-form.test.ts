import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { formOf, withField, withValue, type FormField } from '../src/site/kinds/form';

const KINDS = join(__dirname, '../../kinds');
const shipped = readdirSync(KINDS).filter((name) => name.endsWith('.yaml'));
const text = (name: string) => readFileSync(join(KINDS, name), 'utf8');
const all = (of: string): FormField[] => {
  const view = formOf(of)!;
  return [...view.fields, ...view.facts.flatMap((fact) => fact.fields), ...view.pages.flatMap((page) => page.fields)];
};

describe('a form is a view of the text', () => {
  it.each(shipped)('%s: a value that is written again changes its own place only', (name) => {
    const before = text(name);
    const fields = all(before);
    expect(fields.length).toBeGreaterThan(8);
    for (const [i, each] of fields.entries()) {
      const after = withValue(before, each, each.list ? '7, 8' : 'Changed: "it" #1');
      expect(after.slice(0, each.from)).toBe(before.slice(0, each.from));
      expect(after.endsWith(before.slice(each.to))).toBe(true);
      const again = all(after);
      expect(again.map((field) => field.path)).toEqual(fields.map((field) => field.path));
      expect(again[i]!.value).toBe(each.list ? '7, 8' : 'Changed: "it" #1');
      again.forEach((field, j) => j !== i && expect(field.value).toBe(fields[j]!.value));
    }
  });

  it('keeps comments, quotes and order', () => {
    const before = '# mine\ntitle: "One"   # why\nshort: one\nchecks: { port: 443, shut: [ 23 ] }\n';
    const [title, short, port, shut] = formOf(before)!.fields as [FormField, FormField, FormField, FormField];
    expect(withValue(before, title, 'Two "x"')).toContain('title: "Two \\"x\\""   # why\n');
    expect(withValue(before, short, 'yes')).toContain('short: "yes"\n');
    expect(withValue(before, port, '8443')).toContain('port: 8443,');
    expect(withValue(before, shut, '23, 80')).toContain('shut: [ 23, 80 ] }');
  });

  it.each([
    ['dialogue:\n  pages:\n    - { page: Net, fields: { IP: "{address}" } }\n'],
    ['dialogue:\n  pages:\n    - page: Net\n      fields:\n        IP: "{address}"\nchecks: { port: 1 }\n'],
  ])('adds a field to a page', (before) => {
    const page = formOf(before)!.pages[0]!;
    const after = withField(before, page, 'Mask', '{mask}');
    expect(formOf(after)!.pages[0]!.fields.map((each) => [each.name, each.value])).toEqual([
      ['IP', '{address}'],
      ['Mask', '{mask}'],
    ]);
  });

  it('shows nothing of what is no YAML', () => {
    expect(formOf('title: [')).toBeNull();
    expect(formOf('only words')).toBeNull();
  });
});
