import type { JobDocument, RunChoice } from '@lambent/core';
import type { UnsavedWork } from '../unsaved/unsaved-store.ts';
import type { BenchWork, Planned, ShopLists } from './bench.worker.ts';
import { diffJob, type JobDiff, nextToTell } from './job-diff.ts';
import { type Memory, type WorkerPort, type WorkOptions, WorkPool } from './work-pool.ts';

/** Saves never wait for plans, nor plans for files, nor what one is drawing for any of them. */
type Lane = 'save' | 'plan' | 'files' | 'shapes' | 'pictures';

type Job = 'tell' | 'plan' | 'written';

const laneOf: Record<Exclude<keyof BenchWork, Job>, Lane> = {
  read: 'files',
  gcode: 'files',
  artwork: 'files',
  setText: 'shapes',
  families: 'shapes',
  outline: 'shapes',
  offset: 'shapes',
  border: 'shapes',
  follow: 'shapes',
  visiblePart: 'pictures',
  burntPicture: 'pictures',
  underKey: 'pictures',
};

const pool = new WorkPool<Lane>((lane) => {
  const worker = new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module', name: lane });
  return worker as unknown as WorkerPort;
});

type Arguments<Name extends keyof BenchWork> = Parameters<BenchWork[Name]> extends [unknown, ...infer A] ? A : never;
type Answer<Name extends keyof BenchWork> = Awaited<ReturnType<BenchWork[Name]>>;

/** Has something worked out off the page's thread. @throws as `WorkPool.run` does */
export function work<Name extends Exclude<keyof BenchWork, Job>>(
  name: Name,
  args: Arguments<Name>,
  options: WorkOptions = {},
): Promise<Answer<Name>> {
  return pool.run(laneOf[name], name, args, options);
}

/** As many items go to a worker within a frame. */
const itemsAtOnce = 1000;

/** What has changed of a job since a worker was last told of it; it is told with the call that this goes with. */
function changedSince(memory: Memory, job: JobDocument): JobDiff {
  const diff = diffJob(knownTo(memory), job);
  memory.set('job', job);
  return diff;
}

function knownTo(memory: Memory): JobDocument | null {
  return (memory.get('job') as JobDocument | undefined) ?? null;
}

/** Tells a lane's worker of a job, but for the last of it; the page gets to its frames in between. */
async function tellAhead(lane: Lane, job: JobDocument, options: WorkOptions): Promise<void> {
  for (let isTold = false; !isTold; ) {
    await pool.run(
      lane,
      'tell',
      (memory) => {
        const next = nextToTell(knownTo(memory), job, itemsAtOnce);
        isTold = next === job;
        return [isTold ? null : changedSince(memory, next)];
      },
      options,
    );
  }
}

/** Works a run's plan and findings out. @throws as `WorkPool.run` does */
export async function planned(
  job: JobDocument,
  shop: ShopLists,
  choice: RunChoice,
  options: WorkOptions,
): Promise<Planned> {
  await tellAhead('plan', job, options);
  return pool.run(
    'plan',
    'plan',
    (memory) => {
      // The shop's book may be large, and seldom changes.
      const isKnown = memory.get('shop') === shop;
      memory.set('shop', shop);
      return [changedSince(memory, job), isKnown ? null : shop, choice];
    },
    options,
  );
}

/** A job as the body of a save, kept in the browser as `as` says. @throws as `WorkPool.run` does */
export async function written(job: JobDocument, as: Omit<UnsavedWork, 'document'>): Promise<Blob> {
  await tellAhead('save', job, {});
  return pool.run('save', 'written', (memory) => [changedSince(memory, job), as]);
}
