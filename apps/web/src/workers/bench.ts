import type { JobDocument, RunChoice } from '@lambent/core';
import { type Remote, wrap } from 'comlink';
import type { BenchWorker, Planned, ShopLists } from './bench.worker.ts';
import { diffJob, type JobDiff, nextToTell } from './job-diff.ts';

function start(): { worker: Worker; remote: Remote<BenchWorker> } {
  const worker = new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<BenchWorker>(worker) };
}

let planner: ReturnType<typeof start> | null = null;
let reader: ReturnType<typeof start> | null = null;

/** The job that the planning worker was last told of. */
let told: JobDocument | null = null;

/** What has changed of a job since the planning worker was last told; it is told with the call that this goes with. */
function changedSince(job: JobDocument): JobDiff {
  const diff = diffJob(told, job);
  told = job;
  return diff;
}

/** The shop that the planning worker was last told of: its book may be large, and seldom changes. */
let toldShop: ShopLists | null = null;

/** The shop for the planning worker; null where it knows it. */
function shopIfNew(shop: ShopLists): ShopLists | null {
  if (shop === toldShop) return null;
  toldShop = shop;
  return shop;
}

/** As many items go to the worker within a frame. */
const itemsAtOnce = 1000;

/** Tells the planning worker of a job, but for the last of it; the page gets to its frames in between. */
async function tellAhead(job: JobDocument): Promise<void> {
  for (;;) {
    const next = nextToTell(told, job, itemsAtOnce);
    if (next === job) return;
    void planningWorker().tell(changedSince(next));
    await new Promise((resolve) => setTimeout(resolve));
  }
}

function planningWorker(): Remote<BenchWorker> {
  planner ??= start();
  return planner.remote;
}

/** Those who wait for the planning worker, to be told when it is stopped. */
const waiting = new Set<() => void>();

/** What the planning worker is asked; null when it was stopped before it answered. */
async function askPlanner<T>(ask: (worker: Remote<BenchWorker>) => Promise<T>): Promise<T | null> {
  let tell: (() => void) | null = null;
  const stopped = new Promise<null>((resolve) => {
    tell = () => resolve(null);
    waiting.add(tell);
  });
  try {
    return await Promise.race([ask(planningWorker()), stopped]);
  } finally {
    if (tell) waiting.delete(tell);
  }
}

/** Works a run's plan and findings out, off the page's thread; null when it was stopped meanwhile. */
export async function planInWorker(job: JobDocument, shop: ShopLists, choice: RunChoice): Promise<Planned | null> {
  const before = stops;
  await tellAhead(job);
  if (stops !== before) return null;
  return askPlanner((worker) => worker.plan(changedSince(job), shopIfNew(shop), choice));
}

let stops = 0;

/** Stops a plan that nobody waits for any more; the next one gets a fresh worker. */
export function stopPlanning(): void {
  stops++;
  planner?.worker.terminate();
  planner = null;
  told = null;
  toldShop = null;
  for (const tell of waiting) tell();
}

/** A job as the body of a save, written off the page's thread. */
export async function writeInWorker(job: JobDocument): Promise<Blob> {
  for (;;) {
    await tellAhead(job);
    const written = await askPlanner((worker) => worker.written(changedSince(job)));
    // Where the worker was stopped for the sake of another plan, it is asked again.
    if (written) return written;
  }
}

/** The worker that reads files and writes them. */
export function fileWorker(): Remote<BenchWorker> {
  reader ??= start();
  return reader.remote;
}

const onStop = new Set<() => void>();

/** Ends what the file worker is at; its next call gets a fresh one. */
export function cancelFileWork(): void {
  reader?.worker.terminate();
  reader = null;
  for (const told of onStop) told();
  onStop.clear();
}

/** Comes to null when the file worker is stopped; what it was asked before then never comes to anything. */
export function fileWorkStopped(): Promise<null> {
  return new Promise((resolve) => onStop.add(() => resolve(null)));
}
