import type { BurntPictureAnswer } from '@lambent/contracts';
import type { SourceOutline, Stock } from '@lambent/core/builders';
import { checkJob, type Finding } from '@lambent/core/checks';
import {
  type ColourKey,
  changeOfKey,
  deriveMeaning,
  type Extent,
  extentOf,
  itemsOfPaint,
  type KeyChange,
  type Mark,
} from '@lambent/core/colours';
import {
  arrivalItemId,
  type BuiltThing,
  type FollowingShape,
  type Item,
  type JobDocument,
  NotADrawing,
  outlineOf,
  type ReadingChoices,
  type Shape,
} from '@lambent/core/document';
import { followedPath, offsetOf, outlinesOfItems } from '@lambent/core/fit';
import {
  type PictureFile,
  prepareWithPictures,
  type Reading,
  readDrawingFile,
  thumbnailsOf,
  writePicture,
} from '@lambent/core/formats';
import {
  type Border,
  type BorderSettings,
  borderAround,
  type OffsetSettings,
  type Path,
  type Progress,
  partOf,
} from '@lambent/core/geometry';
import {
  type BurnPlan,
  type PiecesOfSize,
  type PreparedJob,
  piecesBySize,
  planJob,
  prepareJob,
  type RunChoice,
} from '@lambent/core/plan';
import type { Shop } from '@lambent/core/recipes';
import {
  type ArrivalWish,
  type ArtworkWish,
  bitmapsOf,
  type PaintedPictures,
  paintArrival,
  paintArtwork,
} from '../bench/bed/painting.ts';
import { keepPictures, pictureIdsIn, showPicture } from '../bench/bed/pictures.ts';
import type { UnsavedWork } from '../stores/browser-database.ts';
import { keepUnsaved } from '../unsaved/unsaved-store.ts';
import type { BuiltAnswer } from './build-work.ts';
import { burntLevels, type ShownPicture } from './burnt-levels.ts';
import { documentBlob } from './document-blob.ts';
import { filesWork } from './files-work.ts';
import { applyDiff, type JobDiff } from './job-diff.ts';
import { type OpenedJob, openedFrom } from './opened-job.ts';
import { picturesWork } from './pictures-work.ts';
import { portionsOf } from './portions.ts';
import { textWork } from './text-work.ts';
import type { Answered, Asked } from './work-pool.ts';
import { buffersOf, itemsAhead, Moved, moved, nowAndThen, WithItems } from './worker-answer.ts';
import { assets, fontBook, unpacked } from './worker-files.ts';

export type ShopLists = Pick<Shop, 'machines' | 'keys' | 'materials'>;

export interface Planned {
  readonly plan: BurnPlan;
  readonly findings: readonly Finding[];
  /** What falls out: found here, where the plan knows already what lies in what. */
  readonly pieces: readonly PiecesOfSize[];
}

/** After how many parts progress is said. */
const progressEvery = 500;
/** How much of a plan's work is the plan; the rest is the checks. */
const plannedShare = 0.9;

/** A job as it is opened, or why it cannot be. */
export type Opening = OpenedJob | { readonly notADrawing: string };

/** The job on the Bench, as this worker was last told of it. */
let followed: JobDocument | null = null;
/** Items of the job to come. */
let ahead: Item[] = [];

/** The job as it is now, by what has changed since this worker was last told. */
function follow(diff: JobDiff): JobDocument {
  followed = applyDiff(followed, diff, ahead);
  ahead = [];
  return followed;
}

/** The shop that plans go by, as this worker was last told of it. */
let plannedBy: ShopLists | null = null;

/** What pictures of the artwork are made of. */
let paintedBy: ShopLists | null = null;
let prepared: PreparedJob | null = null;

/** How wide a picture of a job under a key is shown at most, in pixels. */
const keyPicturePx = 700;

const work = {
  /**
   * Reads a drawing; its items' ids start with `arrivalId`, and go ahead of the rest. Says now and then how many parts
   * it has found.
   */
  async read(progress: Progress, bytes: Uint8Array, arrivalId: string, choices: ReadingChoices): Promise<Reading> {
    const tools = { fonts: await fontBook(), assets };
    let parts = 0;
    const idFor = (place: string) => {
      if (++parts % progressEvery === 0) progress(parts);
      return arrivalItemId(arrivalId, place);
    };
    const reading = await readDrawingFile(bytes, idFor, tools, choices);
    const { drawing } = reading;
    return itemsAhead({ ...reading, drawing: { ...drawing, items: [] } }, drawing.items);
  },

  /** A job as the server sent it, in JSON; its items go ahead of the rest. */
  async open(_: Progress, json: ArrayBuffer): Promise<Opening> {
    try {
      const { document, ...head } = openedFrom(json);
      const { drawing } = document;
      return itemsAhead({ ...head, document: { ...document, drawing: { ...drawing, items: [] } } }, drawing.items);
    } catch (error) {
      if (error instanceof NotADrawing) return { notADrawing: error.message };
      throw error;
    }
  },

  /** How a run came out, unpacked and painted. */
  async burntPicture(_: Progress, answer: BurntPictureAnswer): Promise<ShownPicture> {
    const shown = await burntLevels(answer);
    return moved(shown, [shown.picture.codes.buffer as ArrayBuffer, ...shown.levels]);
  },

  /** The outline of a shape that takes work. */
  outline(_: Progress, shape: Shape): Path {
    return outlineOf(shape);
  },

  /** Takes items of the job that is told next. */
  ahead(_: Progress, items: readonly Item[]): void {
    ahead.push(...items);
  },

  /** What lies at a distance from items, in bed mm. Says now and then how much is done. */
  offset(progress: Progress, items: readonly Item[], settings: OffsetSettings): Path {
    return offsetOf(items, settings, nowAndThen(progress));
  },

  /** What an outline that follows items comes to. */
  follow(_: Progress, shape: FollowingShape, sources: readonly Item[]): Path {
    return followedPath(shape, sources);
  },

  /** Parts from numbers and what they come to, or what is wrong with the numbers. */
  async build(
    _: Progress,
    builderId: string,
    numbers: BuiltThing['numbers'],
    stock: Stock,
    outlines: readonly SourceOutline[],
  ): Promise<BuiltAnswer> {
    return (await import('./build-work.ts')).builtBy(builderId, numbers, stock, outlines);
  },

  /** One outer edge around items, in bed mm. Says now and then how much is done. */
  border(progress: Progress, items: readonly Item[], settings: BorderSettings): Border {
    return borderAround(outlinesOfItems(items), settings, nowAndThen(progress));
  },

  /** A job as the body of a save, which is kept in the browser until the server has it. */
  async written(_: Progress, diff: JobDiff, as: Omit<UnsavedWork, 'document'>): Promise<Blob> {
    const document = documentBlob(follow(diff));
    // A browser without room keeps nothing; the save goes on all the same.
    await keepUnsaved({ ...as, document }).catch(() => {});
    return document;
  },

  /** @param shop null where it is the one that this worker was last told of */
  async plan(progress: Progress, diff: JobDiff, shop: ShopLists | null, choice: RunChoice): Promise<Planned> {
    plannedBy = shop ?? plannedBy;
    if (!plannedBy) throw new Error('The planning worker was asked for a plan before it was told of the shop');
    const prepared = await prepareWithPictures(follow(diff), plannedBy, choice, unpacked);
    const plan = planJob(prepared, partOf(nowAndThen(progress), 0, plannedShare));
    const findings = checkJob(prepared, plan);
    return moved({ plan, findings, pieces: piecesBySize(prepared, plan.cuts) }, buffersOf(plan));
  },

  /** What the items of a paint come to. */
  measure(_: Progress, diff: JobDiff, paint: Mark): Extent {
    return extentOf(itemsOfPaint(follow(diff), paint));
  },

  /** The artwork of a run, as it is shown. @param shop null where it is the one that this worker was last told of */
  async paintArtwork(
    _: Progress,
    diff: JobDiff,
    shop: ShopLists | null,
    runId: string,
    wish: ArtworkWish,
  ): Promise<PaintedPictures> {
    paintedBy = shop ?? paintedBy;
    if (!paintedBy) throw new Error('The painting worker was asked for a picture before it was told of the shop');
    const job = follow(diff);
    if (shop || prepared?.job !== job || prepared.run.id !== runId) prepared = prepareJob(job, paintedBy, { runId });
    const pictures = await paintArtwork(prepared, wish);
    return moved(pictures, bitmapsOf(pictures));
  },

  /** What arrives, in the paints it came with. @param files pictures that the server may not have yet */
  async paintArrival(
    _: Progress,
    diff: JobDiff,
    files: readonly PictureFile[],
    wish: ArrivalWish,
  ): Promise<PaintedPictures> {
    const { drawing } = follow(diff);
    keepPictures(pictureIdsIn(drawing.items));
    for (const { id, bytes } of files) await showPicture(id, bytes);
    const pictures = paintArrival(drawing.items, wish);
    return moved(pictures, bitmapsOf(pictures));
  },

  /**
   * A picture of a job under a key, as SVG, with what of it has no meaning there.
   * @param json the job as the server answers it
   */
  async underKey(
    _: Progress,
    json: ArrayBuffer,
    shop: ShopLists,
    key: ColourKey,
  ): Promise<{ svg: string; undecided: number; change: KeyChange }> {
    const { document: job } = openedFrom(json);
    const prepared = prepareJob(job, shop);
    const under = deriveMeaning(job, key);
    const thumbnails = await thumbnailsOf(job.drawing, unpacked, assets);
    return {
      svg: writePicture(prepared, thumbnails, keyPicturePx, under),
      undecided: under.undecided.length,
      change: changeOfKey(job, prepared.key, key),
    };
  },

  ...filesWork,
  ...picturesWork,
  ...textWork,
};

export type BenchWork = typeof work;

self.addEventListener('message', async ({ data: { id, name, args } }: MessageEvent<Asked>) => {
  const say = (answer: Answered, buffers: Transferable[] = []) => postMessage(answer, { transfer: buffers });
  try {
    const progress: Progress = (share) => say({ id, progress: share });
    const answer = await (work as Record<string, (...given: unknown[]) => unknown>)[name](progress, ...args);
    if (answer instanceof Moved) say({ id, done: answer.value }, answer.buffers);
    else if (answer instanceof WithItems) {
      for (const part of portionsOf(answer.items)) say({ id, part });
      say({ id, done: answer.value });
    } else say({ id, done: answer });
  } catch (error) {
    say({ id, failed: error instanceof Error ? error.message : String(error) });
  }
});
