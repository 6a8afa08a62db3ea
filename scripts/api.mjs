// npm run api: writes down what the API is, from its controllers and types: `apps/server/dist/openapi.json`, which the
// server shows at /api/docs, and from that the types of the page's client. The build does this where they are stale.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import openapiTS, { astToString } from 'openapi-typescript';
import { typeSchemas } from './api/type-schemas.mjs';
import { filesIn, root } from './lib.mjs';

const document = join(root, 'apps/server/dist/openapi.json');
const client = join(root, 'packages/contracts/dist/openapi.d.ts');

export async function writeApi() {
  const print = printOf();
  if ([document, client].every(existsSync) && JSON.parse(readFileSync(document, 'utf8'))['x-print'] === print) return;
  const { apiDocument } = await import(join(root, 'apps/server/dist/api/document.js'));
  const api = { ...(await apiDocument(typeSchemas())), 'x-print': print };
  writeFileSync(document, JSON.stringify(api));
  writeFileSync(
    client,
    `/** Made by scripts/api.mjs. */\n${astToString(await openapiTS(api, { emptyObjectsUnknown: true }))}`,
  );
  // The compiler does not see that these types have changed.
  rmSync(join(root, 'apps/web/dist-types/.tsbuildinfo'), { force: true });
}

/** A finger-print of all that says what crosses the wire. */
function printOf() {
  const hash = createHash('sha256');
  for (const folder of ['packages/core/src', 'packages/contracts/src', 'apps/server/src', 'scripts/api'])
    for (const path of filesIn(folder)) hash.update(path).update(readFileSync(join(root, path)));
  return hash.digest('hex');
}

if (process.argv[1] === import.meta.filename) await writeApi();
