// Writes src/lib/api-types.ts from the OpenAPI document that the build of the server writes; with --check it only says
// whether the file is as it should be.
import { readFile, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import openapiTS, { astToString } from 'openapi-typescript';
import { format, resolveConfig } from 'prettier';

const DOCUMENT = new URL('../server/target/openapi/openapi.json', import.meta.url);
const TYPES = new URL('src/lib/api-types.ts', import.meta.url);
/** @type {(text: string) => import('openapi-typescript').OpenAPI3} */
const parse = JSON.parse;
const HEAD =
  '/** The shapes of the interface. Made by `./lychnos record` from the OpenAPI document of the server. */\n';

const document = parse(await readFile(DOCUMENT, 'utf8'));
const schemas = Object.fromEntries(
  Object.entries(document.components?.schemas ?? {}).sort(([a], [b]) => (a < b ? -1 : 1)),
);
const types = await openapiTS({ ...document, paths: {}, components: { schemas } }, { excludeDeprecated: true });
const path = fileURLToPath(TYPES);
const text = await format(HEAD + astToString(types), { ...(await resolveConfig(path)), filepath: path });

if (process.argv.includes('--check')) {
  if ((await readFile(TYPES, 'utf8')) !== text) {
    console.error('src/lib/api-types.ts is not what the server sends; ./lychnos record makes it again.');
    process.exit(1);
  }
} else {
  await writeFile(TYPES, text);
}
