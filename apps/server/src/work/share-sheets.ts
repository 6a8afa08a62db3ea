import { type JobDocument, tooMuchOf } from '@lambent/core/document';
import { boxHeight, boxWidth, pathBounds, pathData } from '@lambent/core/geometry';
import { bedBox, type Machine } from '@lambent/core/machine';
import {
  furtherSheets,
  type Laying,
  type Packing,
  type PackWish,
  packed,
  sheetUses,
  usualGap,
} from '@lambent/core/packing';
import { type PricePart, prepareJob } from '@lambent/core/plan';
import { type Pricing, type Shop, sheetMarginMm } from '@lambent/core/recipes';
import { layShared, mergeJobs, packShared, type SharedPart, sharedOutlines } from '@lambent/core/sharing';
import { PlainError } from '../common/plain-error.ts';
import { type PackedVersion, packJob } from '../jobs/pack.ts';
import { estimateJob } from './estimate-job.ts';
import { type PackedJob, type ReadPicture, unpack } from './packed-job.ts';

/** Better layouts are sought for so long, in ms, and so often. */
const seekMs = 3000;
const mostTries = 2000;

type Lists = Pick<Shop, 'machines' | 'keys' | 'materials'>;

/** Several jobs as one, on sheets that they share. */
export interface SharedSheets {
  readonly version: PackedVersion;
  /** Which of the jobs lie there, by their numbers; the others fit on no sheet. */
  readonly laid: readonly number[];
  /** Of each that lies there: what its pieces cover, in mm². */
  readonly areasMm2: readonly number[];
  /** Outlines are SVG path data in mm from the sheet's top left; a part is its number among those that lie there. */
  readonly sheets: readonly {
    readonly widthMm: number;
    readonly heightMm: number;
    readonly use: number;
    readonly outline: string;
    readonly pieces: readonly { readonly part: number; readonly outline: string }[];
  }[];
  readonly seconds: number;
  readonly price: number | null;
  readonly parts: readonly PricePart[];
  readonly blocks: number;
  readonly warns: number;
}

/**
 * Lays jobs onto whole sheets of the stock that the first of them lies on. Those that fit on none are left out.
 *
 * @throws PlainError 422 where less than two of them fit, no sheet is in stock, or they are too much for one job
 */
export async function shareSheets(
  task: {
    parts: readonly { readonly name: string; readonly copies: number; readonly job: PackedJob }[];
    shop: Lists;
    pricing: Pricing;
  },
  picture: ReadPicture,
): Promise<SharedSheets> {
  const { shop, pricing } = task;
  const all = task.parts.map((part): SharedPart => ({ ...part, job: unpack(part.job) }));
  let laid = all.map((_, i) => i);
  for (;;) {
    if (laid.length < 2) throw new PlainError(422, 'fits-no-sheet', 'These jobs do not fit on a sheet together.');
    const parts = laid.map((i) => all[i]);
    const merged = mergeJobs(parts, shop);
    const tooMuch = tooMuchOf(merged.drawing.items);
    if (tooMuch) throw new PlainError(422, 'too-large', `What these jobs come to together ${tooMuch}.`);
    const { machine, shared } = packInto(merged, parts, shop);
    const packing = bestOf(shared.pack.wish);
    const left = new Set(shared.owners.filter((_, piece) => (packing?.left[piece] ?? 1) > 0));
    if (!packing || left.size > 0) {
      laid = laid.filter((_, part) => !left.has(part));
      continue;
    }
    const job = layShared(merged, shared, packing, layingOn(machine));
    const { seconds, price, parts: priceParts, blocks, warns } = await estimateJob(job, shop, pricing, picture);
    const uses = sheetUses(shared.pack.wish, packing);
    const sheets = sharedOutlines(shared, packing).map(({ outline, pieces }, i) => {
      const bounds = pathBounds(outline);
      return {
        widthMm: boxWidth(bounds),
        heightMm: boxHeight(bounds),
        use: uses[i],
        outline: pathData(outline, 2),
        pieces: pieces.map((piece) => ({ part: piece.part, outline: pathData(piece.outline, 2) })),
      };
    });
    const { areasMm2 } = shared;
    return { version: packJob(job), laid, areasMm2, sheets, seconds, price, parts: priceParts, blocks, warns };
  }
}

/** Merged jobs as they are to be packed onto whole sheets of their stock. */
function packInto(merged: JobDocument, parts: readonly SharedPart[], shop: Lists) {
  const alone = parts.map(({ job }) => prepareJob(job, shop));
  const [{ material, machine }] = alone;
  if (!material) throw new PlainError(422, 'no-material', 'What these jobs lie on is gone from the book.');
  const sheets = furtherSheets({ sheets: [] }, material, machine).whole;
  if (sheets.length === 0) {
    const words = `No sheet of ${material.name} ${material.thicknessMm} mm is in stock. Count what is there in the Recipe book.`;
    throw new PlainError(422, 'out-of-stock', words);
  }
  const shared = packShared(
    prepareJob(merged, shop),
    parts.map(({ copies }) => copies),
    sheets,
    { gapMm: Math.max(...alone.map(usualGap)), marginMm: sheetMarginMm, turning: 'quarter' },
  );
  return { machine, shared };
}

/** The best of the layouts that are found in the time that there is. */
function bestOf(wish: PackWish): Packing | null {
  const until = performance.now() + seekMs;
  let [best, tries]: [Packing | null, number] = [null, 0];
  for (const better of packed(wish, 1)) {
    best = better ?? best;
    if (++tries >= mostTries || (best && performance.now() > until)) break;
  }
  return best;
}

function layingOn(machine: Machine): Laying {
  let next = 0;
  const newId = () => `laid-${++next}`;
  return { bed: bedBox(machine), newId, nameRun: (sheet) => `Sheet ${sheet}` };
}
