// npm run fuzz [-- --seed N --seconds N]: damaged and hostile files for every reader. Each must be read, or
// refused with a sentence, within a bound. Runs in a worker thread, so that a hang is seen as one.
import { parseArgs } from 'node:util';
import { Worker } from 'node:worker_threads';
import { hostileFile } from './fuzz-files.mjs';

const { values } = parseArgs({
  options: { seed: { type: 'string', default: '1' }, seconds: { type: 'string', default: '120' } },
});
// What takes longer hangs: a million entities take a fifth of it on a quiet machine.
const longest = 60_000;
const end = Date.now() + Number(values.seconds) * 1000;
let seed = Number(values.seed);
let failures = 0;
let done = 0;

/** What takes the worker's next answer. */
let waiting = null;
let worker = start();
while (Date.now() < end) {
  const answer = await round(seed);
  done++;
  if (answer.trouble) {
    failures++;
    console.log(`seed ${seed}, ${answer.what}: ${answer.trouble}`);
  }
  seed++;
}
await worker.terminate();
console.log(`Fuzz: ${done} files from seed ${values.seed} on, ${failures} failures.`);
process.exit(failures > 0 ? 1 : 0);

function start() {
  const fresh = new Worker(new URL('./fuzz-worker.mjs', import.meta.url), {
    resourceLimits: { maxOldGenerationSizeMb: 3000 },
  });
  fresh.on('message', (answer) => waiting?.(answer));
  fresh.on('error', (error) => {
    worker = start();
    waiting?.({ what: 'crash', trouble: String(error?.stack ?? error) });
  });
  return fresh;
}

function round(given) {
  return new Promise((resolve) => {
    const timer = setTimeout(async () => {
      waiting = null;
      await worker.terminate();
      worker = start();
      resolve({ what: (await hostileFile(given)).what, trouble: `not done after ${longest / 1000} s` });
    }, longest);
    waiting = (answer) => {
      waiting = null;
      clearTimeout(timer);
      resolve(answer);
    };
    worker.postMessage(given);
  });
}
