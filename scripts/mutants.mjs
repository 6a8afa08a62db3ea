// npm run mutants [-- --group NAME --sample N --seed N]: changes one thing at a time in chosen files, in a copy of the
// tree, and runs their tests. A change that no test notices is a survivor, and is listed. (Mutation testing.)
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import ts from 'typescript';
import { root } from './lib.mjs';
import { groups } from './mutants/groups.mjs';
import { mutantsOf } from './mutants/mutations.mjs';
import { randomFrom } from './random.mjs';

const { values } = parseArgs({
  options: {
    group: { type: 'string', multiple: true },
    /** As many mutants of each file, chosen by the seed. */
    sample: { type: 'string', default: '25' },
    seed: { type: 'string', default: '1' },
  },
});
const chosen = values.group ? groups.filter(({ name }) => values.group.includes(name)) : groups;
const random = randomFrom(Number(values.seed));
/** Tests that take longer than this have lost their way: the mutant made them wait for ever, which is noticed. */
const usualLongestS = 90;

const copy = mkdtempSync(join(tmpdir(), 'lambent-mutants-'));
for (const name of ['packages', 'apps', 'demo', 'scripts', 'package.json', 'jest.config.mjs', 'tsconfig.base.json']) {
  cpSync(join(root, name), join(copy, name), {
    recursive: true,
    filter: (path) => !/\/(node_modules|dist-types)(\/|$)/.test(path.slice(root.length)),
  });
}
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));

const { config } = ts.readConfigFile(join(root, 'tsconfig.base.json'), ts.sys.readFile);
const { options } = ts.convertCompilerOptionsFromJson(
  { ...config.compilerOptions, experimentalDecorators: true, emitDecoratorMetadata: true },
  root,
);

const rows = [];
const survivors = [];
for (const { name, files, tests, isBuilt = false, longestS = usualLongestS } of chosen) {
  if ((await runTests(tests, longestS)) !== 'pass')
    throw new Error(`The tests of ${name} fail before anything is changed.`);
  let made = 0;
  let killed = 0;
  let late = 0;
  for (const file of files) {
    const path = join(copy, file);
    const source = readFileSync(path, 'utf8');
    const all = mutantsOf(file, source);
    const picked = all
      .map((mutant) => ({ mutant, at: random() }))
      .toSorted((a, b) => a.at - b.at)
      .slice(0, Number(values.sample));
    const put = (text) => {
      writeFileSync(path, text);
      if (!isBuilt) return;
      writeFileSync(path.replace('/src/', '/dist/').replace(/\.ts$/, '.js'), builtOf(text));
      spawnSync(process.execPath, [join(copy, 'scripts/programs.mjs')], { stdio: 'inherit' });
    };
    const nearest = testsBeside(file);
    for (const { mutant } of picked) {
      put(mutant.text);
      made++;
      const first = nearest ? await runTests([nearest], longestS) : 'pass';
      const end = first === 'pass' ? await runTests(tests, longestS) : first;
      if (end === 'late') late++;
      if (end !== 'pass') killed++;
      else {
        survivors.push(`${file}:${mutant.line}  ${mutant.what}`);
        console.log(`   survived: ${survivors.at(-1)}`);
      }
    }
    put(source);
    console.log(`   ${file}: ${picked.length} of ${all.length} tried`);
  }
  rows.push({ name, made, killed, late });
  console.log(`   ${name}: ${killed} of ${made} killed, ${late} of them by the time limit`);
}
rmSync(copy, { recursive: true, force: true });
console.log(`\n| what | mutants | killed | by the time limit | share |\n| --- | ---: | ---: | ---: | ---: |`);
for (const { name, made, killed, late } of rows)
  console.log(`| ${name} | ${made} | ${killed} | ${late} | ${Math.round((100 * killed) / Math.max(1, made))} % |`);
console.log(`\nSurvivors:\n${survivors.join('\n')}`);

/** @returns the tests of a source's own name, which are run before the rest; null where there are none */
function testsBeside(file) {
  const test = file.replace(/\.ts$/, '.test.ts');
  return existsSync(join(copy, test)) ? test : null;
}

/** A source as the built server runs it. */
function builtOf(text) {
  return ts.transpileModule(text, { compilerOptions: { ...options, sourceMap: false, module: ts.ModuleKind.ES2022 } })
    .outputText;
}

/** @returns how they end: `late` where they had to be ended */
function runTests(tests, longestS) {
  const jest = join(root, 'node_modules/jest/bin/jest.js');
  const words = [
    '--experimental-vm-modules',
    '--disable-warning=ExperimentalWarning',
    jest,
    '--bail',
    `--testTimeout=${(longestS * 1000) / 4}`,
    '--silent',
    ...tests,
  ];
  const env = { ...process.env, LAMBENT_RUNS: '30' };
  const child = spawn(process.execPath, words, { cwd: copy, stdio: 'ignore', detached: true, env });
  return new Promise((resolve) => {
    let isLate = false;
    const limit = setTimeout(() => {
      isLate = true;
      process.kill(-child.pid, 'SIGKILL');
    }, longestS * 1000);
    child.once('exit', (code) => {
      clearTimeout(limit);
      resolve(isLate ? 'late' : code === 0 ? 'pass' : 'fail');
    });
  });
}
