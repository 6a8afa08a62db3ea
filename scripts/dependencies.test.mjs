import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { root } from './lib.mjs';

const jsonAt = (path) => JSON.parse(readFileSync(join(root, path), 'utf8'));

/** By package, the workspaces that name it among what they need at run time. */
function usersOfPackages(packages) {
  const users = new Map();
  for (const [folder, { dependencies = {} }] of Object.entries(packages)) {
    if (!/^(packages|apps)\/[^/]+$/.test(folder)) continue;
    for (const name of Object.keys(dependencies)) {
      if (!name.startsWith('@lambent/')) users.set(name, [...(users.get(name) ?? []), folder.split('/')[1]].sort());
    }
  }
  return users;
}

test('docs/dependencies.md has every package that ships, as the lock file has it, and no other', () => {
  const { packages } = jsonAt('package-lock.json');
  const written = readFileSync(join(root, 'docs/dependencies.md'), 'utf8')
    .split('\n')
    .filter((line) => line.startsWith('| `'))
    .map((line) => line.split('|').map((cell) => cell.trim()))
    .map(([, name, users, why, licence, version, size, instead]) => {
      // What it is for and what would take its place are said, and how large it is.
      expect([name, why === '' || instead === '', Number(size) > 0]).toEqual([name, false, true]);
      return [name.replaceAll('`', ''), users.split(', ').sort(), licence, version];
    });
  const locked = [...usersOfPackages(packages)].map(([name, users]) => {
    // A workspace has its own where others need another version.
    const own = ['apps', 'packages'].map((kind) => packages[`${kind}/${users[0]}/node_modules/${name}`]);
    const { version, license } = own.find((entry) => entry) ?? packages[`node_modules/${name}`];
    return [name, users, license, version];
  });
  expect(locked.length).toBeGreaterThan(50);
  expect(written.sort()).toEqual(locked.sort());
});
