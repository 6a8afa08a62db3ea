// Preloaded into the server by the siege: notes the longest stretch of work that its main thread did without letting
// anything else have its turn. Only time on a processor counts: what the load beside it took away is no work of its own.
// It begins to measure on SIGUSR2: coming up is no turn of a server that is up.
import { readFileSync, writeFileSync } from 'node:fs';
import { isMainThread } from 'node:worker_threads';

const tickMs = 5;
const nsPerMs = 1e6;
const file = process.env.LONGEST_TURN_FILE;

/** Time that the main thread has had on a processor, in ms. */
const onProcessorMs = () =>
  Number(readFileSync(`/proc/${process.pid}/task/${process.pid}/schedstat`, 'utf8').split(' ')[0]) / nsPerMs;

function measure() {
  let longest = 0;
  let before = onProcessorMs();
  setInterval(() => {
    const now = onProcessorMs();
    const turn = now - before;
    before = now;
    if (turn <= longest) return;
    longest = turn;
    writeFileSync(file, String(turn));
  }, tickMs).unref();
}

if (isMainThread && file) process.once('SIGUSR2', measure);
