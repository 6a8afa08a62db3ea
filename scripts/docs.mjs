// npm run docs: writes the pages of docs/ that are made from what the code defines, and the catalogue of what it says.
// Tests hold them to it.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { catalogueText } from './catalogue.mjs';
import { root, run } from './lib.mjs';
import { madePages } from './made-pages.mjs';

for (const [name, text] of Object.entries(madePages())) writeFileSync(join(root, 'docs', name), text);
run('npx', ['biome', 'format', '--write', 'docs'], { loud: false });
writeFileSync(join(root, 'apps/web/src/words/en.json'), catalogueText());
