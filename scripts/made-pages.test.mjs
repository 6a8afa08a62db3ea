import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { root } from './lib.mjs';
import { madePages } from './made-pages.mjs';

/** A page without what formatting adds: the widths of its tables. */
const plain = (text) => text.replace(/ +\|/g, ' |').replace(/-{3,}/g, '---').trim();

test.each(Object.entries(madePages()))('docs/%s is as the code has it: npm run docs writes it', (name, text) => {
  expect(plain(readFileSync(join(root, 'docs', name), 'utf8'))).toBe(plain(text));
});
