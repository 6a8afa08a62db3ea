// npm run programs: puts the server, its threads and the command line into a few files each (`dist-program/`), with the
// packages that they need. Node otherwise looks up and compiles thousands of modules, which is most of a start.
import { copyFileSync, existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { isBuiltin } from 'node:module';
import { join } from 'node:path';
import { rolldown } from 'rolldown';
import { root } from './lib.mjs';

const programs = [
  {
    folder: 'apps/server',
    input: {
      main: 'main.js',
      worker: 'work/worker.js',
      'write-thread': 'data/write-thread.js',
      'backup-thread': 'backup/backup-thread.js',
    },
    beside: ['openapi.json'],
  },
  { folder: 'packages/cli', input: { main: 'main.js' }, beside: [] },
];

/** Native, started as a file of its own, or looked for by NestJS and TypeORM only in case it is there. */
const stays = [
  /^(@node-rs\/argon2|better-sqlite3|piscina|serialport)$/,
  /^@nestjs\/(microservices|websockets)/,
  /^(@fastify\/static|class-transformer\/storage)$/,
  /^(@google-cloud\/spanner|@sap\/hana-client|mongodb|mssql|mysql2?|oracledb|pg|pg-native|pg-query-stream)$/,
  /^(redis|ioredis|sql\.js|sqlite3|typeorm-aurora-data-api-driver|react-native-sqlite-storage)/,
];

for (const { folder, input, beside } of programs) {
  const from = join(root, folder, 'dist');
  const to = join(root, folder, 'dist-program');
  if (isFresh(to)) continue;
  rmSync(to, { recursive: true, force: true });
  const bundle = await rolldown({
    cwd: from,
    input: Object.fromEntries(Object.entries(input).map(([name, file]) => [name, join(from, file)])),
    platform: 'node',
    external: (id) => isBuiltin(id) || stays.some((name) => name.test(id)),
    // What is looked for in vain is said, and ends the build: it would be missing when the program runs.
    onLog: (level, log) => {
      if (level === 'warn') throw new Error(`${folder}: ${log.message}`);
    },
    // The form of css-tree that has its tables in it, instead of files beside it.
    resolve: { alias: { 'css-tree': 'css-tree/dist/csstree.esm' } },
  });
  // NestJS and TypeORM go by the names of classes.
  await bundle.write({ dir: to, entryFileNames: '[name].js', keepNames: true });
  for (const file of beside) copyFileSync(join(from, file), join(to, file));
}

/** @returns whether nothing has been compiled, or installed, since a program was put together */
function isFresh(folder) {
  const main = join(folder, 'main.js');
  if (!existsSync(main)) return false;
  const made = statSync(main).mtimeMs;
  const sources = [
    'packages/core',
    'packages/fonts',
    'packages/contracts',
    'packages/machines',
    'packages/cli',
    'apps/server',
  ];
  return [...sources.map((source) => newestIn(join(root, source, 'dist'))), timeOf('package-lock.json')].every(
    (time) => time < made,
  );
}

function timeOf(file) {
  return statSync(join(root, file)).mtimeMs;
}

function newestIn(folder) {
  return Math.max(
    ...readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => statSync(join(entry.parentPath ?? entry.path, entry.name)).mtimeMs),
  );
}
