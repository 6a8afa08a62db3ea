// What the start-up and test scripts share. Plain Node, nothing installed: it runs before `npm ci`.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  accessSync,
  constants,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));
const stamps = join(root, '.lambent');

/**
 * The browser that tests and screenshots drive, or undefined. Debian's headless build of Chromium, where it is there, takes
 * a quarter less of the machine than the whole browser does.
 */
export function browserPath() {
  const usual = ['chromium-headless-shell', 'chromium', 'chromium-browser'].map((name) => `/usr/bin/${name}`);
  return process.env.LAMBENT_CHROMIUM || usual.find(existsSync);
}

/** Ends with one sentence that says what to do, and no stack. */
export function giveUp(sentence) {
  process.stderr.write(`\n${sentence}\n`);
  process.exit(1);
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    giveUp(
      `Lambent needs Node 20.19 or later; this is ${process.versions.node}. Install a later Node and start again.`,
    );
  }
}

export function checkWritable(folder) {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch {
    giveUp(
      `Lambent may not write to ${folder}. Give this user the right to, or set LAMBENT_DATA to a folder of its own.`,
    );
  }
}

/** Installs packages, but only when the lock file is not the one that was installed last. */
export function ensureInstalled() {
  checkWritable(root);
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.lambent-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock && bindingLoads()) return;
  process.stdout.write('Installing packages; the first time, SQLite is compiled, which takes some minutes…\n');
  // Not `npm ci`: it refuses a lock file that leaves out other platforms' optional binaries.
  const words = ['install', '--no-save', '--no-audit', '--no-fund'];
  const result = spawnSync('npm', words, { cwd: root, encoding: 'utf8' });
  const said = `${result.stdout}\n${result.stderr}`;
  if (result.error || result.status !== 0) {
    if (/gyp ERR!|not found: make|g\+\+|no acceptable C/i.test(said)) giveUp(noCompiler);
    if (/EACCES|EPERM/.test(said))
      giveUp(`npm may not write to ${root}. Give this user the right to, and start again.`);
    if (/ENOTFOUND|ETIMEDOUT|ECONNREFUSED|EAI_AGAIN/.test(said)) {
      giveUp('The packages could not be fetched: the npm registry does not answer. Check the network and start again.');
    }
    giveUp(`Installing the packages failed:\n${said.trim().split('\n').slice(-12).join('\n')}`);
  }
  if (!bindingLoads()) giveUp(noCompiler);
  writeFileSync(stamp, lock);
}

const noCompiler =
  'SQLite could not be compiled for this machine: it needs a C++ compiler, make and Python 3. On Debian: apt-get install build-essential python3. Then start again.';

function bindingLoads() {
  const test = "new (require('better-sqlite3'))(':memory:').close()";
  return spawnSync(process.execPath, ['-e', test], { cwd: root }).status === 0;
}

/** A finger-print of every source file, by path, time and size. */
function sourcesPrint() {
  const hash = createHash('sha256');
  const visit = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      if (['node_modules', 'dist', 'dist-types', 'dist-program'].includes(entry.name)) continue;
      const path = join(folder, entry.name);
      if (entry.isDirectory()) visit(path);
      else {
        const { mtimeMs, size } = statSync(path);
        hash.update(`${path} ${mtimeMs} ${size}\n`);
      }
    }
  };
  visit(join(root, 'packages'));
  visit(join(root, 'apps'));
  for (const file of ['package-lock.json', 'tsconfig.base.json', 'tsconfig.json'])
    hash.update(readFileSync(join(root, file)));
  return hash.digest('hex');
}

/** Builds what is stale: nothing when no source has changed since the last build. */
export function ensureBuilt({ loud = false } = {}) {
  const stamp = join(stamps, 'built');
  const print = sourcesPrint();
  const outputs = [
    'packages/cli/dist-program/main.js',
    'apps/server/dist-program/main.js',
    'apps/server/dist-program/openapi.json',
    'apps/stand-in/dist/main.js',
    'apps/plain-stand-in/dist/main.js',
    'apps/web/dist/index.html',
  ];
  const whole = outputs.every((file) => existsSync(join(root, file)));
  if (whole && existsSync(stamp) && readFileSync(stamp, 'utf8') === print) return;
  process.stdout.write('Building…\n');
  run('npm', ['run', '--silent', 'compile'], { loud });
  run('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(root, 'apps/web'), loud });
  mkdirSync(stamps, { recursive: true });
  writeFileSync(stamp, print);
}

/** Runs a command to its end; when it fails, says what it said and ends. */
export function run(command, args, { cwd = root, loud = true, env = {} } = {}) {
  const result = spawnSync(command, args, {
    cwd,
    stdio: loud ? 'inherit' : 'pipe',
    encoding: 'utf8',
    env: { ...process.env, npm_config_update_notifier: 'false', ...env },
  });
  if (result.status !== 0) {
    if (!loud) process.stderr.write(`${result.stdout ?? ''}${result.stderr ?? ''}`);
    giveUp(`\`${command} ${args.join(' ')}\` failed.`);
  }
}

function isFree(port, host = '127.0.0.1') {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });
}

/** The wanted port, or the next free one after it, said plainly. */
export async function freePort(wanted, what) {
  for (let port = wanted; port < wanted + 200; port++) {
    if (await isFree(port)) {
      if (port !== wanted && what) process.stdout.write(`Port ${wanted} is taken; ${what} uses ${port}.\n`);
      return port;
    }
  }
  return giveUp(`No port from ${wanted} to ${wanted + 199} is free.`);
}

/**
 * Starts the server and a stand-in for every machine of the demo shop.
 * @returns the address, a way to stop everything, and the stand-ins' processes by machine
 */
export async function startStack({ dataFolder, port = 7450, factor = 20, quiet = false, serverEnv = {} }) {
  checkWritable(dataFolder);
  // Not before it is built.
  const { standInWords } = await import('@lambent/machines');
  const { machines } = JSON.parse(readFileSync(join(root, 'demo/shop.json'), 'utf8'));
  const children = new Map();
  let stopping = false;
  const stop = () => {
    stopping = true;
    for (const child of children.values()) child.kill('SIGTERM');
  };
  const ports = [];
  for (const machine of machines) {
    const machinePort = await freePort(port + 1 + ports.length, quiet ? null : `the stand-in ${machine.name}`);
    ports.push(`${machine.id}=${machinePort}`);
    const start = () => {
      const child = spawn(
        process.execPath,
        [join(root, 'apps/stand-in/dist/main.js'), ...standInWords(machine, machinePort, factor)],
        {
          stdio: ['ignore', 'ignore', 'inherit'],
        },
      );
      children.set(machine.id, child);
      // A stand-in that dies is switched on again, as a machine would be.
      child.once('exit', () => !stopping && setTimeout(() => !stopping && start(), 1500));
    };
    start();
  }
  const serverPort = await freePort(port, quiet ? null : 'Lambent');
  const server = spawn(process.execPath, [join(root, 'apps/server/dist-program/main.js')], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      LAMBENT_DATA: dataFolder,
      LAMBENT_DEMO: join(root, 'demo'),
      LAMBENT_PORT: String(serverPort),
      LAMBENT_MACHINE_PORTS: ports.join(','),
      ...serverEnv,
    },
  });
  children.set('server', server);
  const address = await new Promise((resolve, reject) => {
    server.once('exit', (code) => reject(new Error(`The server ended with ${code} before it was up.`)));
    let said = '';
    server.stdout.on('data', (data) => {
      said += data;
      const match = /listening on (http:\S+)/.exec(said);
      if (match) resolve(match[1]);
    });
  }).catch((error) => {
    stop();
    return giveUp(error.message);
  });
  server.removeAllListeners('exit');
  return { address, stop, children };
}

/** Empties a data folder that is ours: one with our database in it, or nothing at all. */
export function emptyData(folder) {
  rmSync(join(folder, 'programs'), { recursive: true, force: true });
  for (const end of ['', '-wal', '-shm']) rmSync(join(folder, `lambent.sqlite${end}`), { force: true });
}

/** Every file below a folder but what is made or installed, by its path from the root. */
export function filesIn(folder) {
  return readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    if (['node_modules', 'dist', 'dist-types', 'dist-program', '.git'].includes(entry.name)) return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesIn(path) : [path];
  });
}
