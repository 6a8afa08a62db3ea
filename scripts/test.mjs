// npm test: installs what is missing, then lint, types, import rules, licences, build, unit and browser tests, hostile
// files, a siege. Every step runs, whatever failed before; what failed is listed at the end.
// npm run quick (--quick): lint, types, import rules, and the tests of what changed since the last commit.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { browserPath, checkNode, ensureInstalled, giveUp, root } from './lib.mjs';

const quick = process.argv.includes('--quick');
checkNode();
ensureInstalled();
const failed = [];
const script = (name, ...words) => ['npm', 'run', '--silent', name, ...(words.length > 0 ? ['--', ...words] : [])];
const lint = step('Lint', 'npx', 'biome', 'check', '.', '--error-on-warnings');
if (quick) {
  await lint();
  await step('Types', ...script('types'))();
  await step('Import rules', ...script('imports'))();
  await step('Unit tests of what changed', ...script('unit', '--onlyChanged'))();
} else {
  ensureSystemTools();
  await lint();
  await step('Types', ...script('compile'))();
  await twoAtATime('The build, types of the tests, import rules and licences', [
    step('Build', 'node', 'scripts/build.mjs'),
    step('Types of the tests', 'npx', 'tsc', '-p', 'tsconfig.tests.json'),
    step('Import rules', ...script('imports')),
    step('Licences', ...script('licences')),
  ]);
  await step('Size', ...script('size'))();
  // Two at a time: each keeps a core busy.
  const siege = ['--kills', '8', '--burns', '8', '--savers', '20', '--plans', '0', '--times', '0'];
  await twoAtATime('Unit tests, hostile files, a siege and browser tests', [
    step('Unit tests', ...script('unit', '--maxWorkers=2')),
    browserTests(1),
    browserTests(2),
    browserTests(3),
    step('Hostile files', ...script('fuzz', '--seconds', '20', '--seed', '10')),
    step('Siege', ...script('siege', ...siege)),
  ]);
}
if (failed.length > 0) giveUp(`Failed: ${failed.join(', ')}. What each said is above.`);

/** One of three parts of the browser tests, on a server and machines of its own. */
function browserTests(part) {
  return step(`Browser tests, part ${part}`, ...script('e2e', `--shard=${part}/3`, '--output', `test-results/${part}`));
}

/** A step that can be run. @returns a function that runs it; what it says is shown at once, or at its end */
function step(name, command, ...args) {
  return async ({ atOnce = true } = {}) => {
    if (atOnce) process.stdout.write(`\n== ${name}\n`);
    const started = Date.now();
    const { status, said } = await run(command, args, atOnce);
    if (!atOnce) process.stdout.write(`\n== ${name}\n${said}`);
    process.stdout.write(
      `   ${name}: ${status === 0 ? '' : 'FAILED, '}${Math.round((Date.now() - started) / 1000)} s\n`,
    );
    if (status !== 0) failed.push(name);
  };
}

/** Runs steps in their order, two of them beside each other; each says what it has to say when it is done. */
async function twoAtATime(what, steps) {
  process.stdout.write(`\n${what}, two beside each other…\n`);
  const left = [...steps];
  const takeTurns = async () => {
    for (let one = left.shift(); one; one = left.shift()) await one({ atOnce: false });
  };
  await Promise.all([takeTurns(), takeTurns()]);
}

function run(command, args, atOnce) {
  const child = spawn(command, args, {
    cwd: root,
    env: { ...process.env, npm_config_update_notifier: 'false', FORCE_COLOR: '0' },
    stdio: ['ignore', atOnce ? 'inherit' : 'pipe', atOnce ? 'inherit' : 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) {
    stream?.on('data', (data) => {
      said += data;
    });
  }
  return new Promise((resolve) => {
    child.once('error', (error) => resolve({ status: 1, said: `${error.message}\n` }));
    child.once('close', (status) => resolve({ status, said }));
  });
}

/** What the tests run of the system's: a browser, curl for the walk in docs/api.md, socat for serial lines. */
function ensureSystemTools() {
  const found = (command, ...words) => spawnSync(command, words).status === 0;
  const noBrowser = browserPath() === undefined;
  const others = [
    ['curl', '--version'],
    ['socat', '-V'],
  ].flatMap(([command, word]) => (found(command, word) ? [] : [command]));
  if (!noBrowser && others.length === 0) return;
  const isRoot = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get');
  const apt = (...words) =>
    spawnSync('apt-get', words, { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  if (isRoot) apt('update', '-qq');
  const browser = found('apt-cache', 'show', 'chromium-headless-shell') ? 'chromium-headless-shell' : 'chromium';
  const missing = [...(noBrowser ? [browser] : []), ...others];
  const how = `The tests need ${missing.join(' and ')}. On Debian: apt-get install ${missing.join(' ')}; another Chromium is named by LAMBENT_CHROMIUM.`;
  if (!isRoot) giveUp(how);
  process.stdout.write(`Installing ${missing.join(' and ')}…\n`);
  if (apt('install', '-y', '-qq', ...missing).status !== 0) giveUp(how);
}
