import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { filesIn, root } from './lib.mjs';

const files = filesIn('.').map((path) => `/${path}`);
const pages = readdirSync(join(root, 'docs')).filter((name) => name.endsWith('.md'));

test.each(pages)('files that docs/%s names are there', (page) => {
  const text = readFileSync(join(root, 'docs', page), 'utf8');
  const named = [...text.matchAll(/`([\w./-]+\.(?:ts|tsx|mjs|json|css))`/g)].map(([, path]) => path);
  expect(named.filter((path) => !files.some((file) => file.endsWith(`/${path}`)))).toEqual([]);
});
