// npm run licences: the licence of every package that ships, read from what is installed. All must be permissive.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib.mjs';

const permissive = new Set([
  '0BSD',
  'Apache-2.0',
  'BlueOak-1.0.0',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'BSL-1.0',
  'CC0-1.0',
  'ISC',
  'MIT',
  'MIT-0',
  'OFL-1.1',
  'Python-2.0',
  'Unlicense',
  'Zlib',
]);
/** Packages that name their licence in no way that a program reads: looked at by hand, and why they may ship. */
const lookedAt = {
  'css-select': 'BSD-2-Clause, by its LICENSE file',
  domutils: 'BSD-2-Clause, by its LICENSE file',
};

const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
const troubles = [];
let count = 0;
for (const [place, { dev, link, optional }] of Object.entries(packages)) {
  if (!place.startsWith('node_modules/') && !place.includes('/node_modules/')) continue;
  // What is for developing alone does not ship, and what is for other platforms is not here.
  if (dev || link || (optional && !existsSync(join(root, place)))) continue;
  const { name, license, licenses } = JSON.parse(readFileSync(join(root, place, 'package.json'), 'utf8'));
  const said = license?.type ?? license ?? licenses?.map(({ type }) => type).join(' OR ') ?? 'none';
  count++;
  if (!isPermissive(said) && !lookedAt[name]) troubles.push(`${name}: ${said}`);
  if (/\b(postinstall|telemetry|analytics)\b/.test(name)) troubles.push(`${name}: may phone home`);
}
console.log(
  `Licences of ${count} packages that ship: ${troubles.length === 0 ? 'all permissive' : 'not all permissive'}.`,
);
for (const trouble of troubles) console.log(`  ${trouble}`);
process.exit(troubles.length === 0 && count > 100 ? 0 : 1);

/** Of an expression in SPDX: one of those between OR, all of those between AND. */
function isPermissive(expression) {
  return expression
    .replace(/[()]/g, '')
    .split(/ OR /)
    .some((either) => either.split(/ AND /).every((name) => permissive.has(name.trim())));
}
