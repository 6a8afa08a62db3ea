import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { demoFiles } from './make.mjs';

const files = await demoFiles();

test('the demo files are what the scripts make, byte for byte', () => {
  for (const [path, content] of files) {
    const kept = readFileSync(new URL(path, import.meta.url));
    expect(`${path} ${kept.equals(Buffer.from(content))}`).toBe(`${path} true`);
  }
});

test('the relief is the heavy one: six layers, at least 60,000 nodes', () => {
  const relief = files.get('drawings/estuary-relief.svg');
  expect(relief.match(/<g id="Layer \d"/g)).toHaveLength(6);
  expect(relief.match(/[ML]/g).length).toBeGreaterThan(60_000);
});
