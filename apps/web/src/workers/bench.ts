import { type Remote, wrap } from 'comlink';
import type { BenchWorker } from './bench.worker.ts';

function start(): { worker: Worker; remote: Remote<BenchWorker> } {
  const worker = new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<BenchWorker>(worker) };
}

let planner: ReturnType<typeof start> | null = null;
let reader: ReturnType<typeof start> | null = null;

/** The worker that plans; one call at a time. */
export function planningWorker(): Remote<BenchWorker> {
  planner ??= start();
  return planner.remote;
}

/** The worker that reads files and writes them. */
export function fileWorker(): Remote<BenchWorker> {
  reader ??= start();
  return reader.remote;
}

/** Ends what the file worker is at; its next call gets a fresh one. */
export function cancelFileWork(): void {
  reader?.worker.terminate();
  reader = null;
}
