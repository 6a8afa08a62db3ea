import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { catalogue, type FindingCode } from './catalogue.ts';

const sources = readdirSync(new URL('.', import.meta.url))
  .filter((name) => /^[\w-]+\.ts$/.test(name) && name !== 'catalogue.ts')
  .map((name) => readFileSync(new URL(name, import.meta.url), 'utf8'))
  .join('\n');
const codes = Object.keys(catalogue) as FindingCode[];

describe('the catalogue of findings', () => {
  test.each(codes)('%s is made by a check, as grave as it is said to be', (code) => {
    expect(sources).toContain(`'${code}'`);
    const written = [...sources.matchAll(/finding\(\s*'([\w-]+)',\s*'(blocks|warns|notes)'/g)];
    const levels: readonly string[] = catalogue[code].levels;
    for (const [, found, level] of written) if (found === code) expect(levels).toContain(level);
  });
  test('what its buttons say is what checks offer', () => {
    const offered = [...sources.matchAll(/['`]([A-Z][^'`]*)['`]/g)].map(([, words]) => words);
    for (const code of codes) {
      for (const mend of catalogue[code].mends) {
        const isOffered = offered.some((words) => words.startsWith(mend));
        expect([code, mend, isOffered]).toEqual([code, mend, true]);
      }
    }
  });
  test('each is called otherwise, and says why it matters in a sentence', () => {
    const titles = codes.map((code) => catalogue[code].title);
    expect(new Set(titles).size).toBe(codes.length);
    for (const code of codes) expect(catalogue[code].why).toMatch(/^[A-Z].{20,130}\.$/);
  });
});
