import type { DrawingDifference, PaintAnswer, SendingLook, SendingWishDto, SentPaint } from '@lambent/contracts';
import { catalogue, checkJob, type Finding, type FindingLevel } from '@lambent/core/checks';
import type { ColourKey } from '@lambent/core/colours';
import { arrivalItemId, type JobDocument, newJob, type ReadingChoices, sheetSafeBox } from '@lambent/core/document';
import { assignPaint, setMember, setSheet } from '@lambent/core/edits';
import {
  acceptArrival,
  arrivalMap,
  decodePicture,
  FileRefused,
  prepareWithPictures,
  type Reading,
  readDrawingFile,
  shownBounds,
  thumbnailsOf,
  writePicture,
} from '@lambent/core/formats';
import { boxHeight, boxOf, boxWidth, isEmpty } from '@lambent/core/geometry';
import { atWork, type Machine } from '@lambent/core/machine';
import { type BurnPlan, type PreparedJob, planJob, prepareJob, priceOf } from '@lambent/core/plan';
import { type Material, type Pricing, type Shop, sheetAsStocked } from '@lambent/core/recipes';
import { compareLines, drawnLines, writeDifference } from '@lambent/core/revisions';
import { shippedAssets, shippedTools } from '@lambent/fonts';
import { type PackedVersion, packJob } from '../jobs/pack.ts';
import { describePicture, type PictureFacts } from '../work/picture-facts.ts';

type ShopLists = Pick<Shop, 'machines' | 'keys' | 'materials'>;

/** A file that is looked at: how it is to be made, in which shop, and whose it is. */
export interface LookTask {
  readonly bytes: Uint8Array;
  readonly file: string;
  readonly wish: SendingWishDto;
  readonly shop: ShopLists;
  readonly pricing: Pricing;
  readonly name: string;
  /** What it is to replace; left out where that is nothing. */
  readonly before?: Pick<LookTask, 'bytes' | 'file' | 'wish'>;
}

/** What a file comes to: what its sender is told, and the job that it makes. */
export interface LookedAt {
  readonly look: SendingLook;
  readonly picture: string;
  readonly version: PackedVersion;
  readonly pictures: readonly (PictureFacts & { readonly bytes: Uint8Array })[];
  /** What changes of what it is to replace, and that as SVG; null where it replaces nothing. */
  readonly difference: DrawingDifference | null;
  readonly differencePicture: string | null;
}

/**
 * Reads a file that was sent and lays it on a sheet of what it is to be made of. Then it is checked, timed and priced, as on
 * the Bench.
 * @throws FileRefused where it cannot be read, or has nothing in it
 */
export async function lookAtSending(task: LookTask): Promise<LookedAt> {
  const { wish, shop, pricing, name } = task;
  const { reading, job } = await readSending(task);
  const files = new Map(reading.pictures.map((picture) => [picture.id, picture.bytes]));
  const decode = (id: string) => {
    const found = files.get(id);
    if (!found) throw new RangeError(`lookAtSending: the file has no picture ${id}`);
    return decodePicture(found, shippedAssets);
  };
  const prepared = await prepareWithPictures(job, shop, {}, decode);
  const plan = planJob(prepared);
  const findings = checkJob(prepared, plan);
  const said = findings.filter(({ code }) => forSenders.has(code)).sort((a, b) => ranks[a.level] - ranks[b.level]);
  const drawn = shownBounds({ drawing: job.drawing });
  return {
    look: {
      machineId: job.machineId,
      format: reading.format,
      pages: reading.pageCount,
      widthMm: rounded(boxWidth(drawn)),
      heightMm: rounded(boxHeight(drawn)),
      saysSize: reading.size.pageWidthMm !== null,
      paints: paintsOf(prepared, wish),
      findings: said.map(({ code, level, message }) => ({ code, title: catalogue[code].title, level, message })),
      fine: forSenders.size - new Set(said.map(({ code }) => code)).size,
      ...costOf({ plan, prepared, findings, shop, pricing, copies: wish.copies }),
    },
    picture: writePicture(prepared, await thumbnailsOf(job.drawing, decode, shippedAssets), picturePx),
    version: packJob(setMember(job, name)),
    pictures: reading.pictures.map((picture) => ({ ...describePicture(picture.bytes), bytes: picture.bytes })),
    ...(await differenceFrom(task, prepared)),
  };
}

/** Reads a file and lays it on its sheet. @throws FileRefused where it cannot be read, or has nothing in it */
async function readSending(task: LookTask): Promise<{ reading: Reading; job: JobDocument }> {
  const { bytes, file, wish } = task;
  const choices = wish.page > 1 ? { page: wish.page } : {};
  const read = await readDrawingFile(bytes, (place) => arrivalItemId('sent', place), shippedTools(), choices);
  const reading = withoutGuides(read);
  if (isEmpty(shownBounds(reading))) throw new FileRefused(`${file}: nothing is drawn in it.`);
  return { reading, job: laidOut(reading, task, choices) };
}

/** What a new file changes of the one that it is to replace. */
async function differenceFrom(
  { before, ...task }: LookTask,
  prepared: PreparedJob,
): Promise<Pick<LookedAt, 'difference' | 'differencePicture'>> {
  if (!before) return { difference: null, differencePicture: null };
  const { job } = await readSending({ ...task, ...before });
  const found = compareLines(drawnLines(prepareJob(job, task.shop)), drawnLines(prepared));
  const { same, otherwise, gone, added } = found;
  const counts = { same: same.length, otherwise: otherwise.length, gone: gone.length, added: added.length };
  return { difference: counts, differencePicture: writeDifference(found, picturePx) };
}

/** What was read, without what its file says to be guides: our own template is among them, and counts for no size. */
function withoutGuides(reading: Reading): Reading {
  const guides = new Set(
    reading.layers?.flatMap(({ operation, itemIds }) => (operation === 'guide' ? itemIds : [])) ?? [],
  );
  if (guides.size === 0) return reading;
  const items = reading.drawing.items.filter(({ id }) => !guides.has(id));
  const kept = new Set(items.map(({ groupId }) => groupId));
  const parents = new Map(reading.drawing.groups.map(({ id, parentId }) => [id, parentId]));
  // A set takes in what is added while one goes through it: the groups around groups, too.
  for (const id of kept) kept.add((id && parents.get(id)) ?? null);
  const groups = reading.drawing.groups.filter(({ id }) => kept.has(id));
  const layers = reading.layers?.filter(({ operation }) => operation !== 'guide');
  return { ...reading, drawing: { ...reading.drawing, items, groups }, layers };
}

/** The job that a file makes, on a machine that can burn it: laid into the corner of a sheet of what it is to be made of. */
function laidOut(reading: Reading, { file, wish, shop }: LookTask, choices: ReadingChoices): JobDocument {
  const material = shop.materials.find(({ id, forbidden }) => id === wish.materialId && !forbidden) ?? null;
  const machine = machineFor(shop, material);
  const [key] = shop.keys;
  if (!machine || !key) throw new RangeError('lookAtSending: the shop needs a machine and a colour key');
  const bare = newJob(machine.id, key.id);
  const sheet = material && sheetAsStocked('sheet-1', material, machine);
  const room = sheet ? sheetSafeBox(sheet) : boxOf(0, 0, machine.bedWidth, machine.bedHeight);
  const scale = wish.widthMm ? wish.widthMm / boxWidth(shownBounds(reading)) : 1;
  const place = arrivalMap(reading, scale, { kind: 'within', box: room, anchor: { u: 0, v: 0 } });
  const arrival = { id: 'sent', file, originalId: null, choices, place };
  return answered(acceptArrival(sheet ? setSheet(bare, sheet) : bare, arrival, reading, key), wish, key);
}

/** A picture is shown as wide as a column of the page at most, in pixels. */
const picturePx = 900;

/** What a sender can mend, answer or know; the rest is the workshop's to settle. */
const forSenders: ReadonlySet<Finding['code']> = new Set([
  'nothing-to-burn',
  'off-bed',
  'off-sheet',
  'colour-without-meaning',
  'near-miss',
  'open-cut',
  'cut-in-two',
  'open-engrave',
  'line-drawn-twice',
  'tiny-gap',
  'left-over',
  'cuts-cross',
  'missed-by-beam',
  'kerf-swallows',
  'thin-wall',
  'fine-detail',
  'small-letters',
  'field-unfilled',
]);

const ranks: Readonly<Record<FindingLevel, number>> = { blocks: 0, warns: 1, notes: 2 };

/** The first machine at work that has a recipe for a material; the first one at work where none has. */
function machineFor({ machines }: ShopLists, material: Material | null): Machine | undefined {
  const working = atWork(machines);
  const known = new Set(material?.recipes.map(({ machineId }) => machineId));
  return working.find(({ id }) => known.has(id)) ?? working[0];
}

/** A job with what its sender says that paints mean. */
function answered(job: JobDocument, { answers }: SendingWishDto, { layers }: ColourKey): JobDocument {
  return answers.reduce((all, { answer, ...paint }) => {
    const layer = layers.find(({ operation }) => operation === answer);
    return layer ? assignPaint(all, paint, layer.id) : all;
  }, job);
}

/** What is drawn with what, and what that means here. */
function paintsOf({ meaning }: PreparedJob, { answers }: SendingWishDto): SentPaint[] {
  const operations = new Map(meaning.layers.map(({ id, operation }) => [id, operation]));
  return meaning.paints.map(({ part, colour, widthMm, itemIds, layerId, byJob }) => {
    const said = answers.find(
      (answer) => answer.part === part && answer.colour === colour && answer.widthMm === widthMm,
    )?.answer;
    const isAsked = layerId === null || byJob;
    const answer: PaintAnswer | null = isAsked ? (said ?? 'workshop') : null;
    return {
      part,
      colour,
      widthMm,
      items: itemIds.length,
      operation: layerId === null ? null : (operations.get(layerId) ?? null),
      answer,
    };
  });
}

interface Costing {
  readonly plan: BurnPlan;
  readonly prepared: PreparedJob;
  readonly findings: readonly Finding[];
  readonly shop: ShopLists;
  readonly pricing: Pricing;
  readonly copies: number;
}

/** What all copies take and cost; nothing where it is not known what they are made of, or how that is burnt. */
function costOf({ plan, prepared, findings, shop, pricing, copies }: Costing): Pick<SendingLook, 'seconds' | 'price'> {
  const unknown = findings.some(
    ({ code }) => code === 'no-sheet' || code === 'no-recipe' || code === 'nothing-to-burn',
  );
  if (unknown || plan.steps.length === 0) return { seconds: null, price: null };
  const seconds = plan.timeS * copies;
  if (pricing.currency === '') return { seconds, price: null };
  const { total, parts } = priceOf(plan, prepared, shop, pricing, copies);
  return { seconds, price: { total, parts: parts.map(({ what, amount }) => ({ what, amount })) } };
}

function rounded(mm: number): number {
  return Math.round(mm * 100) / 100;
}
