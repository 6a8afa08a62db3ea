// Adds up what Jest and Playwright say they ran, from a log of `npm test`: `N passed, N failed, N skipped`.
import { readFileSync } from 'node:fs';
import { stripVTControlCharacters } from 'node:util';

const log = stripVTControlCharacters(readFileSync(process.argv[2], 'utf8'));
const jest = /^Tests:\s+(.*)$/m.exec(log)?.[1] ?? '';
const browser = log.split('\n== ').filter((step) => step.startsWith('Browser tests'));
const runs = [jest, ...browser];
const count = (text, word) => Number(new RegExp(`(\\d+) ${word}`).exec(text)?.[1] ?? 0);
const sum = (word) => runs.reduce((all, text) => all + count(text, word), 0);
if (browser.length === 0 || runs.some((text) => count(text, 'passed') === 0)) {
  process.stderr.write('Not every runner reported its tests.\n');
  process.exit(1);
}
process.stdout.write(`${sum('passed')} passed, ${sum('failed')} failed, ${sum('skipped')} skipped\n`);
