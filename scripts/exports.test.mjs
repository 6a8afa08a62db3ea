import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { filesIn, root } from './lib.mjs';

const core = join(root, 'packages/core/src');
const outside = ['apps', 'packages', 'bench', 'scripts', 'e2e', 'demo']
  .flatMap(filesIn)
  .filter((path) => /\.(ts|tsx|mjs)$/.test(path) && !path.startsWith('packages/core/'))
  .map((path) => readFileSync(join(root, path), 'utf8'));
const rooms = filesIn('packages/core/src')
  .filter((path) => path.endsWith('/index.ts'))
  .map((path) => path.slice('packages/core/src/'.length, -'/index.ts'.length));

/** What is imported from a room of core, by all that is outside core. */
function namedOf(room) {
  const imports = new RegExp(`\\{([^}]*)\\}\\s+from '@lambent/core/${room}'`, 'g');
  const lists = outside.flatMap((text) => [...text.matchAll(imports)].map(([, list]) => list));
  return new Set(lists.flatMap((list) => list.split(',').map((name) => name.trim().replace(/^type |\s+as .*$/g, ''))));
}

test.each(rooms)('@lambent/core/%s gives what others name, and nothing else', (room) => {
  const index = readFileSync(join(core, room, 'index.ts'), 'utf8');
  const given = [...index.matchAll(/export (?:type )?\{([^}]*)\}/g)]
    .flatMap(([, list]) => list.split(','))
    .map((name) => name.trim().replace(/^type /, ''))
    .filter((name) => name !== '');
  const named = namedOf(room);
  expect(given.length).toBeGreaterThan(0);
  expect(given.filter((name) => !named.has(name))).toEqual([]);
});

test('every room that has an index can be reached', () => {
  const { exports } = JSON.parse(readFileSync(join(root, 'packages/core/package.json'), 'utf8'));
  expect(Object.keys(exports).sort()).toEqual(rooms.map((room) => `./${room}`).sort());
});
