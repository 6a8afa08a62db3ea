import type { DrawingTaken } from '@lambent/contracts';
import { blocks, checkJob, type Finding, jobSource, type Report, reportOf } from '@lambent/core/checks';
import { type ColourKey, keyInShop } from '@lambent/core/colours';
import { arrivalItemId, type ReadingChoices } from '@lambent/core/document';
import {
  acceptArrival,
  arrivalMap,
  continueProgram,
  prepareWithPictures,
  programLines,
  type Reading,
  readDrawingFile,
  thumbnailsOf,
  warningsOf,
  writePicture,
} from '@lambent/core/formats';
import type { Point } from '@lambent/core/geometry';
import type { Machine, WalkShape } from '@lambent/core/machine';
import {
  approachS,
  basisOf,
  type LandingNeed,
  planJob,
  prepareJob,
  type RunBasis,
  type RunChoice,
  sheetsUsed,
  walkAround,
} from '@lambent/core/plan';
import type { Pricing, Shop } from '@lambent/core/recipes';
import { describeFont } from '@lambent/core/text';
import { fitMotion, type TimingFit, timingCard } from '@lambent/core/timing';
import { shippedAssets, shippedTools } from '@lambent/fonts';
import { PlainError } from '../common/plain-error.ts';
import { type PackedVersion, packJob } from '../jobs/pack.ts';
import { type Estimate, estimateJob } from './estimate-job.ts';
import { type PackedJob, type ReadPicture, unpack, unpacking } from './packed-job.ts';
import { describePicture, type PictureFacts } from './picture-facts.ts';
import { type ProgramFile, readProgram, writeProgram } from './program-file.ts';

type ShopLists = Pick<Shop, 'machines' | 'keys' | 'materials'>;

export interface PlannedProgram {
  /** Null when a finding blocks and no program was written. */
  readonly program: {
    readonly hash: string;
    readonly lines: number;
    readonly plannedS: number;
    /** The sheets that it burns on. */
    readonly sheetIds: readonly string[];
    readonly basis: RunBasis;
  } | null;
  readonly findings: readonly Finding[];
}

/** Plans a version and writes its program to `folder`, named by its SHA-256. */
export async function planToFile(
  task: {
    job: PackedJob;
    shop: ShopLists;
    title: string;
    folder: string;
    runId: string;
    choice: RunChoice;
  },
  picture: ReadPicture,
): Promise<PlannedProgram> {
  const prepared = await prepareWithPictures(unpack(task.job), task.shop, task.choice, unpacking(picture));
  const plan = planJob(prepared);
  const findings = checkJob(prepared, plan);
  if (blocks(findings)) return { program: null, findings };
  // What the checks pass may still come to no move at all.
  if (plan.steps.length === 0) {
    throw new PlainError(422, 'nothing-to-burn', 'This run burns nothing: what is drawn comes to no move of the head.');
  }

  const { folder, runId, title, choice } = task;
  const { hash, lines } = await writeProgram(folder, runId, programLines(plan, title));
  const sheetIds = sheetsUsed(prepared).map(({ id }) => id);
  const head = choice.head ?? null;
  // It begins where the head stands.
  const plannedS = plan.timeS + (head ? approachS(plan, head) : 0);
  const basis = basisOf(prepared, plan, title, head);
  return { program: { hash, lines, plannedS, sheetIds, basis }, findings };
}

/** Writes the rest of a program, from one of its lines on. @throws PlainError 400 where it has no such line, 410 where it is lost */
export async function continueToFile(task: {
  folder: string;
  hash: string;
  runId: string;
  fromLine: number;
  machine: Machine;
}): Promise<ProgramFile> {
  const { folder, hash, runId, fromLine, machine } = task;
  const lines = await readProgram(folder, hash).catch(() => {
    throw new PlainError(410, 'program-lost', 'The program of this run is not kept any more. Send the job again.');
  });
  if (fromLine > lines.length) {
    const words = `The program of this run has ${lines.length} lines: it cannot go on from line ${fromLine}.`;
    throw new PlainError(400, 'no-such-line', words);
  }
  return writeProgram(folder, runId, continueProgram(lines, fromLine, machine));
}

/** What a run of a version would do: its layers, times and findings. */
export async function report(
  task: { job: PackedJob; shop: ShopLists; title: string; choice: RunChoice },
  picture: ReadPicture,
): Promise<Report> {
  const prepared = await prepareWithPictures(unpack(task.job), task.shop, task.choice, unpacking(picture));
  const plan = planJob(prepared);
  return reportOf(jobSource(task.title, prepared.job), prepared, plan, checkJob(prepared, plan));
}

/** What all runs of a version take and cost together, and how many findings they have. */
export function estimate(
  task: { job: PackedJob; shop: ShopLists; pricing: Pricing },
  picture: ReadPicture,
): Promise<Estimate> {
  return estimateJob(unpack(task.job), task.shop, task.pricing, picture);
}

/** The ways of a head around a run, in bed mm; none where what its landing needs is missing. */
export async function walk(task: {
  job: PackedJob;
  shop: ShopLists;
  choice: RunChoice;
  shape: WalkShape;
}): Promise<{ ways: Point[][]; needs: LandingNeed | null }> {
  const prepared = prepareJob(unpack(task.job), task.shop, task.choice);
  const { needs } = prepared.landed;
  return { ways: needs ? [] : walkAround(prepared, task.shape), needs };
}

/** What the seconds of a timing card tell of its machine. */
export function fitTiming({ machine, seconds }: { machine: Machine; seconds: readonly number[] }): TimingFit {
  return fitMotion(machine, timingCard(machine), seconds);
}

/** Reads a file of any format, with the fonts that ship; its items' ids start with `arrivalId`. */
export function readDrawing({ bytes, arrivalId }: { bytes: Uint8Array; arrivalId: string }): Promise<Reading> {
  return readDrawingFile(bytes, (place) => arrivalItemId(arrivalId, place), shippedTools());
}

/** A drawing that is read into a stored job. */
export interface BroughtIn {
  readonly version: PackedVersion;
  readonly pictures: readonly (PictureFacts & { readonly bytes: Uint8Array })[];
  readonly taken: Omit<DrawingTaken, 'version'>;
}

/**
 * Reads a file into a job as the Bench does: where the file has it, with how it was read kept beside it. Its original is
 * not kept yet.
 */
export async function bringIn(task: {
  job: PackedJob;
  bytes: Uint8Array;
  file: string;
  arrivalId: string;
  choices: ReadingChoices;
  scale: number;
  keys: readonly ColourKey[];
}): Promise<BroughtIn> {
  const { bytes, file, arrivalId: id, choices, scale, keys } = task;
  const reading = await readDrawingFile(bytes, (place) => arrivalItemId(id, place), shippedTools(), choices);
  const place = arrivalMap(reading, scale, { kind: 'as-in-file' });
  const before = unpack(task.job);
  const key = keyInShop(keys, before.keyId);
  if (!key) throw new RangeError('bringIn: the shop needs at least one colour key');
  const job = acceptArrival(before, { id, file, originalId: null, choices, place }, reading, key);
  return {
    version: packJob(job),
    pictures: reading.pictures.map(({ bytes }) => ({ ...describePicture(bytes), bytes })),
    taken: {
      format: reading.format,
      items: reading.drawing.items.filter(({ hidden }) => !hidden).length,
      pageWidthMm: reading.size.pageWidthMm,
      pageHeightMm: reading.size.pageHeightMm,
      warnings: warningsOf(reading),
    },
  };
}

export { lookAtSending } from '../drop-off/look.ts';
export { drawingTemplate } from '../drop-off/template.ts';
export { packJobFile, readJobFile } from '../job-files/job-file.ts';
export { packDocument } from '../jobs/pack.ts';
export { quotePdf } from '../quotes/quote-paper.ts';
export type { PackedJob, ReadPicture } from './packed-job.ts';
export { describePicture } from './picture-facts.ts';
export { shareSheets } from './share-sheets.ts';
export { describeFont };

/** How wide a card is on a large screen at most, in pixels. */
const cardPx = 900;

/** A card's picture: what is drawn and the bed around it, as SVG. */
export async function picture(task: { job: PackedJob; shop: ShopLists }, file: ReadPicture): Promise<string> {
  const job = unpack(task.job);
  const thumbnails = await thumbnailsOf(job.drawing, unpacking(file), shippedAssets);
  return writePicture(prepareJob(job, task.shop), thumbnails, cardPx);
}
