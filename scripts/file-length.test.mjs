import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { expect, test } from '@jest/globals';
import { root } from './lib.mjs';

/** Tables are as long as what they hold. */
const tables = new Set(['packages/core/src/settings/table.ts', 'packages/core/src/checks/catalogue.ts']);

function sourcesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory())
      return /^(node_modules|dist|dist-types|dist-program|test|fixtures)$/.test(entry.name) ? [] : sourcesIn(path);
    return /\.tsx?$/.test(entry.name) && !/\.(test|d)\.tsx?$/.test(entry.name) ? [path] : [];
  });
}

test('no source is longer than 300 lines, but for tables', () => {
  const sources = ['packages', 'apps'].flatMap((folder) => sourcesIn(join(root, folder)));
  expect(sources.length).toBeGreaterThan(400);
  const long = sources
    .map((path) => [relative(root, path), readFileSync(path, 'utf8').trimEnd().split('\n').length])
    .filter(([path, lines]) => lines > 300 && !tables.has(path));
  expect(long).toEqual([]);
});
