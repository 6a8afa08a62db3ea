import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../lib.mjs';

/** The sources of a folder, without their tests. */
const sourcesIn = (folder) =>
  readdirSync(join(root, folder))
    .filter((name) => /\.ts$/.test(name) && !/(^index|\.(test|migration))\.ts$/.test(name))
    .map((name) => `${folder}/${name}`);

/** What is mutated, and by which tests it is to be noticed. */
export const groups = [
  {
    name: 'plan',
    files: sourcesIn('packages/core/src/plan'),
    tests: ['packages/core/src/plan', 'packages/core/src/formats/gcode', 'packages/core/src/checks'],
  },
  {
    name: 'checks',
    files: [...sourcesIn('packages/core/src/checks'), ...sourcesIn('packages/core/src/mends')],
    tests: ['packages/core/src/checks', 'packages/core/src/mends'],
  },
  {
    name: 'machines',
    files: [
      'framing',
      'liveness',
      'word-answers',
      'program-pieces',
      'program-feed',
      'stand-in/status',
      'stand-in/stand-in-line',
      'stand-in/running-program',
      'stand-in/stopping',
      'stand-in/stand-in-driver',
    ].map((name) => `packages/machines/src/${name}.ts`),
    tests: ['packages/machines'],
  },
  {
    name: 'plain language',
    files: [
      ...sourcesIn('packages/machines/src/plain'),
      ...sourcesIn('apps/plain-stand-in/src').filter((file) => !file.endsWith('main.ts')),
    ],
    tests: ['packages/machines/src/plain', 'apps/plain-stand-in'],
  },
  {
    name: 'server: rules',
    files: ['common/door', 'common/body-depth', 'thinning/thinning-rule', 'machines/pace'].map(
      (name) => `apps/server/src/${name}.ts`,
    ),
    tests: ['apps/server/src'],
  },
  {
    name: 'server: thinning',
    files: ['thinning/thinning.writes'].map((name) => `apps/server/src/${name}.ts`),
    tests: ['apps/server/test/thinning'],
  },
  // Tried over HTTP, on the server as it is built.
  {
    name: 'server: jobs and keys',
    files: ['jobs/jobs.service', 'jobs/jobs.writes', 'colour-keys/colour-keys.writes'].map(
      (name) => `apps/server/src/${name}.ts`,
    ),
    tests: ['apps/server/test/jobs', 'apps/server/test/colour-keys'],
    isBuilt: true,
    longestS: 300,
  },
  {
    name: 'server: storage',
    files: ['write-queue', 'write-thread', 'writer', 'storage-trouble', 'data-folder'].map(
      (name) => `apps/server/src/data/${name}.ts`,
    ),
    tests: ['apps/server/test/write-thread', 'apps/server/test/saving'],
    isBuilt: true,
    longestS: 300,
  },
  {
    name: 'server: runs',
    files: [
      'runs/runs.service',
      'runs/run-follower',
      'runs/run-record',
      'runs/runs.writes',
      'machines/machine-links',
    ].map((name) => `apps/server/src/${name}.ts`),
    tests: [
      'apps/server/src/runs',
      'apps/server/src/machines',
      'apps/server/test/runs-writes',
      'apps/server/test/runs.test',
    ],
    isBuilt: true,
    longestS: 300,
  },
  {
    name: 'server: book',
    files: ['book/book.writes'].map((name) => `apps/server/src/${name}.ts`),
    tests: ['apps/server/test/book'],
    isBuilt: true,
    longestS: 300,
  },
  { name: 'work pool', files: ['apps/web/src/workers/work-pool.ts'], tests: ['apps/web/src/workers/work-pool'] },
];
