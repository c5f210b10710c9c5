import type { Path } from './place';

/** What of JSON Schema (draft 2020-12) the schema of kinds uses. */
export interface Schema {
  $ref?: string;
  $defs?: Record<string, Schema>;
  description?: string;
  properties?: Record<string, Schema>;
  additionalProperties?: boolean | Schema;
  items?: Schema;
  oneOf?: Schema[];
  anyOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  required?: string[];
}

/** Something that may be typed at a place. */
export interface Proposal {
  name: string;
  about: string;
  required: boolean;
}

/** Every form that a value may have, without references and choices. */
function forms(root: Schema, schema: Schema, depth = 0): Schema[] {
  if (depth > 20) return [];
  if (schema.$ref) {
    const target = root.$defs?.[schema.$ref.replace('#/$defs/', '')];
    return target ? forms(root, target, depth + 1).map((form) => ({ description: schema.description, ...form })) : [];
  }
  const choices = [...(schema.oneOf ?? []), ...(schema.anyOf ?? []).filter((each) => each.properties ?? each.$ref)];
  const own = choices.length === 0 || schema.properties ? [schema] : [];
  return [...own, ...choices.flatMap((each) => forms(root, each, depth + 1))];
}

/** The forms of what is at a path. */
export function at(root: Schema, path: Path): Schema[] {
  let here = forms(root, root);
  for (const step of path) {
    here = here.flatMap((form) => {
      const next =
        typeof step === 'number'
          ? form.items
          : (form.properties?.[step] ??
            (typeof form.additionalProperties === 'object' ? form.additionalProperties : undefined));
      return next ? forms(root, next) : [];
    });
  }
  return here;
}

const about = (root: Schema, schema: Schema): string =>
  schema.description ??
  forms(root, schema)
    .map((form) => form.description)
    .find((text) => text !== undefined) ??
  '';

/** The keys that a mapping may have, in the order of the schema. */
export function keys(root: Schema, path: Path): Proposal[] {
  const found = new Map<string, Proposal>();
  for (const form of at(root, path)) {
    for (const [name, schema] of Object.entries(form.properties ?? {})) {
      if (!found.has(name))
        found.set(name, { name, about: about(root, schema), required: form.required?.includes(name) ?? false });
    }
  }
  return [...found.values()];
}

/** The words that a value may be, where the schema knows them. */
export function words(root: Schema, path: Path): Proposal[] {
  const found = new Set<string>();
  for (const form of at(root, path)) {
    for (const value of [...(form.enum ?? []), ...(form.const === undefined ? [] : [form.const])])
      found.add(value === true ? 'yes' : value === false ? 'no' : String(value));
  }
  return [...found].map((name) => ({ name, about: '', required: false }));
}

/** What the schema says of what is at a path. */
export function documentation(root: Schema, path: Path): string {
  const parent = path.slice(0, -1);
  const name = path.at(-1);
  return typeof name === 'string' ? (keys(root, parent).find((key) => key.name === name)?.about ?? '') : '';
}
