import type { Extent, Mark } from '@lambent/core/colours';
import {
  type Item,
  isOutlineUnknown,
  type JobDocument,
  knowOutline,
  NotADrawing,
  newJob,
  type ReadingChoices,
  verbsIn,
} from '@lambent/core/document';
import type { Reading } from '@lambent/core/formats';
import type { PreparedJob, RunChoice } from '@lambent/core/plan';
import { api } from '../api.ts';
import type { ArrivalWish, ArtworkWish, PaintedPictures } from '../bench/bed/painting.ts';
import type { UnsavedWork } from '../stores/browser-database.ts';
import type { BenchWork, Opening, Planned, ShopLists } from './bench.worker.ts';
import { breathe } from './breathe.ts';
import { diffJob, type JobDiff } from './job-diff.ts';
import { type OpenedJob, openedFrom } from './opened-job.ts';
import { GatheredItems, type Portion } from './portions.ts';
import { type Memory, type WorkerPort, type WorkOptions, WorkPool } from './work-pool.ts';

/** Saves never wait for plans, nor plans for files, nor what one is drawing for any of them. */
type Lane = 'save' | 'plan' | 'paint' | 'arriving' | 'files' | 'shapes' | 'rows' | 'pictures' | 'simulated';

type Job = 'ahead' | 'measure' | 'plan' | 'written' | 'paintArtwork' | 'paintArrival' | 'read' | 'open';

const laneOf: Record<Exclude<keyof BenchWork, Job>, Lane> = {
  gcode: 'files',
  programWays: 'files',
  artwork: 'files',
  jobSheet: 'files',
  runExtent: 'files',
  setText: 'shapes',
  families: 'shapes',
  makeCode: 'shapes',
  filledRows: 'rows',
  outline: 'shapes',
  offset: 'shapes',
  border: 'shapes',
  build: 'shapes',
  follow: 'shapes',
  visiblePart: 'pictures',
  histogram: 'pictures',
  outlines: 'pictures',
  straightened: 'pictures',
  grainSamples: 'pictures',
  burntLook: 'simulated',
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

/** Has something worked out whose items come ahead of the rest. */
async function withItems<T>(
  lane: Lane,
  name: string,
  args: readonly unknown[],
  options: WorkOptions,
): Promise<{ answer: T; items: readonly Item[] }> {
  const gathered = new GatheredItems();
  const answer = await pool.run<T>(lane, name, args, {
    ...options,
    part: (part) => gathered.take(part as Portion),
  });
  return { answer, items: gathered.items };
}

/** Reads a drawing. @param arrivalId begins its items' ids @throws as `WorkPool.run` does */
export async function readDrawing(
  bytes: Uint8Array,
  arrivalId: string,
  choices: ReadingChoices,
  options: WorkOptions,
): Promise<Reading> {
  const { answer, items } = await withItems<Reading>('files', 'read', [bytes, arrivalId, choices], options);
  return { ...answer, drawing: { ...answer.drawing, items } };
}

/** Jobs of more bytes than this are opened by a worker; of fewer, that would take longer. */
const openedByWorkerFrom = 400_000;

/**
 * A job as the server has it.
 * @param version one of its versions; the last where none is given
 * @throws Refusal where the server does not give it; NotADrawing naming the first thing that is wrong with it
 */
export async function openJob(id: string, version?: number): Promise<OpenedJob> {
  const json = await api.jobJson(id, version);
  if (json.byteLength < openedByWorkerFrom) return withOutlines(openedFrom(json));
  const { answer, items } = await withItems<Opening>('files', 'open', [json], {});
  if ('notADrawing' in answer) throw new NotADrawing(answer.notADrawing);
  const { document } = answer;
  return { ...answer, document: { ...document, drawing: { ...document.drawing, items } } };
}

/** Combinations of more lines and curves than this are worked out by a worker. */
const combinedByWorkerFrom = 200;

/** A job whose outlines that take much work are worked out. */
async function withOutlines(opened: OpenedJob): Promise<OpenedJob> {
  for (const { shape } of opened.document.drawing.items) {
    if (isOutlineUnknown(shape) && verbsIn(shape) > combinedByWorkerFrom) {
      knowOutline(shape, await work('outline', [shape]));
    }
  }
  return opened;
}

/** As many items go to a worker within a frame. */
const itemsAtOnce = 2000;

/** What has changed of a job since a worker was last told of it; it is told with the call that this goes with. */
function changedSince(memory: Memory, job: JobDocument): JobDiff {
  const ahead = sentAhead(memory);
  const last = knownTo(memory);
  const diff = ahead.size > 0 ? diffJob(last, job, ahead) : difference(last, job);
  memory.set('job', job);
  memory.delete('ahead');
  return diff;
}

/** The difference that was found last: several lanes are told of the same one. */
let found: { readonly last: JobDocument | null; readonly job: JobDocument; readonly diff: JobDiff } | null = null;

function difference(last: JobDocument | null, job: JobDocument): JobDiff {
  if (found?.last !== last || found.job !== job) found = { last, job, diff: diffJob(last, job) };
  return found.diff;
}

function knownTo(memory: Memory): JobDocument | null {
  return (memory.get('job') as JobDocument | undefined) ?? null;
}

/** The items that a worker was sent ahead of the next job, by their order. */
function sentAhead(memory: Memory): Map<Item, number> {
  const known = memory.get('ahead') as Map<Item, number> | undefined;
  const ahead = known ?? new Map<Item, number>();
  if (!known) memory.set('ahead', ahead);
  return ahead;
}

/** Sends a lane's worker the new items of a job, but for the last of them; the page gets to its frames in between. */
async function sendAhead(lane: Lane, job: JobDocument, options: WorkOptions): Promise<void> {
  if (job.drawing.items.length <= itemsAtOnce) return;
  // What has led here, an edit or a frame, has taken its own time.
  await breathe();
  let fresh: readonly Item[] = [];
  const look = (memory: Memory) => {
    fresh = difference(knownTo(memory), job).fresh;
    return [[]];
  };
  await pool.run(lane, 'ahead', look, options);
  for (let first = 0; fresh.length - first > itemsAtOnce; first += itemsAtOnce) {
    const next = (memory: Memory) => {
      const ahead = sentAhead(memory);
      const items = fresh.slice(first, first + itemsAtOnce).filter((item) => !ahead.has(item));
      for (const item of items) ahead.set(item, ahead.size);
      return [items];
    };
    await pool.run(lane, 'ahead', next, options);
  }
}

/** What a worker is told of the shop, whose book may be large, and seldom changes; null where it knows. */
function shopIfNew(memory: Memory, shop: ShopLists): ShopLists | null {
  if (memory.get('shop') === shop) return null;
  memory.set('shop', shop);
  return shop;
}

/** Works a run's plan and findings out. @throws as `WorkPool.run` does */
export async function planned(
  job: JobDocument,
  shop: ShopLists,
  choice: RunChoice,
  options: WorkOptions,
): Promise<Planned> {
  await sendAhead('plan', job, options);
  return pool.run('plan', 'plan', (memory) => [changedSince(memory, job), shopIfNew(memory, shop), choice], options);
}

/** A job as the body of a save, kept in the browser as `as` says. @throws as `WorkPool.run` does */
export async function written(job: JobDocument, as: Omit<UnsavedWork, 'document'>): Promise<Blob> {
  await sendAhead('save', job, {});
  return pool.run('save', 'written', (memory) => [changedSince(memory, job), as]);
}

/** Has a job painted. @throws as `WorkPool.run` does */
export async function paintedArtwork(
  { job, run }: PreparedJob,
  shop: ShopLists,
  wish: ArtworkWish,
): Promise<PaintedPictures> {
  await sendAhead('paint', job, {});
  return pool.run('paint', 'paintArtwork', (memory) => [
    changedSince(memory, job),
    shopIfNew(memory, shop),
    run.id,
    wish,
  ]);
}

/** Has it measured what the items of a paint come to. @throws as `WorkPool.run` does */
export async function measured(job: JobDocument, { part, colour, widthMm }: Mark): Promise<Extent> {
  await sendAhead('paint', job, {});
  return pool.run('paint', 'measure', (memory) => [changedSince(memory, job), { part, colour, widthMm }]);
}

/** A drawing that is no job yet, as a worker is told of it. */
const arrived = new WeakMap<Reading, JobDocument>();

/** Has what arrives painted. @throws as `WorkPool.run` does */
export async function paintedArrival(reading: Reading, wish: ArrivalWish): Promise<PaintedPictures> {
  const job = arrived.get(reading) ?? { ...newJob('', ''), drawing: reading.drawing };
  arrived.set(reading, job);
  await sendAhead('arriving', job, {});
  return pool.run('arriving', 'paintArrival', (memory) => {
    const isKnown = memory.get('pictures') === reading.pictures;
    memory.set('pictures', reading.pictures);
    return [changedSince(memory, job), isKnown ? [] : reading.pictures, wish];
  });
}
