// npm run ratio: lines of code, lines of tests, and the tests' share; blank lines do not count.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

const files = execFileSync('git', ['ls-files'], { encoding: 'utf8' })
  .split('\n')
  .filter((file) => /\.(ts|tsx|mts|cts|js|mjs|cjs|css)$/.test(file));
const isTest = (file) => /(\.test\.|\.spec\.|^e2e\/|\/test\/|fixtures\/)/.test(file);
const lines = (file) =>
  readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line.trim()).length;
const sum = (all) => all.reduce((total, file) => total + lines(file), 0);
const tests = sum(files.filter(isTest));
const code = sum(files.filter((file) => !isTest(file)));
process.stdout.write(
  `${code} lines of code, ${tests} lines of tests: tests are ${Math.round((100 * tests) / (code + tests))} %\n`,
);
