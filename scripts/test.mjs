// npm test: installs what is missing, then lint, types, import rules, unit tests, build, browser tests.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { checkNode, ensureBuilt, ensureInstalled, giveUp, run } from './lib.mjs';

checkNode();
ensureInstalled();
ensureChromium();
const env = { FORCE_COLOR: '0' };
step('Lint', () => run('npx', ['biome', 'check', '.', '--error-on-warnings'], { env }));
step('Types', () => run('npm', ['run', '--silent', 'types'], { env }));
step('Import rules', () => run('npm', ['run', '--silent', 'imports'], { env }));
// Those of the server, the stand-in and the command line run the programs that the types step has written.
step('Unit tests', () => run('npm', ['run', '--silent', 'unit'], { env }));
step('Build', () => ensureBuilt());
step('Hostile files', () => run('npm', ['run', '--silent', 'fuzz', '--', '--seconds', '20', '--seed', '10'], { env }));
step('Browser tests', () => run('npm', ['run', '--silent', 'e2e'], { env }));

function step(name, work) {
  process.stdout.write(`\n== ${name}\n`);
  const started = Date.now();
  work();
  process.stdout.write(`   ${name}: ${Math.round((Date.now() - started) / 1000)} s\n`);
}

function ensureChromium() {
  if (process.env.LAMBENT_CHROMIUM || ['/usr/bin/chromium', '/usr/bin/chromium-browser'].some(existsSync)) return;
  const how =
    'The browser tests need Chromium. On Debian: apt-get install chromium; elsewhere set LAMBENT_CHROMIUM to its path.';
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) giveUp(how);
  process.stdout.write('Installing Chromium…\n');
  const apt = (...words) =>
    spawnSync('apt-get', words, { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  if (apt('update', '-qq').status !== 0 || apt('install', '-y', '-qq', 'chromium').status !== 0) giveUp(how);
}
