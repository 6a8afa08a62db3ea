import type { SheetWish } from '@lambent/core/checks';
import type { JobDocument } from '@lambent/core/document';
import { type ProgramWays, prepareWithPictures } from '@lambent/core/formats';
import type { Progress } from '@lambent/core/geometry';
import type { Machine } from '@lambent/core/machine';
import {
  countPieces,
  piecesBySize,
  planJob,
  prepareJob,
  priceOf,
  type RunChoice,
  travelTime,
} from '@lambent/core/plan';
import type { Shop } from '@lambent/core/recipes';
import type { ArtworkWish } from './outgoing-files.ts';
import { picturesOf, unpacked } from './worker-files.ts';

type ShopLists = Pick<Shop, 'machines' | 'keys' | 'materials'>;

/** What writes files is needed when one is asked for. */
const filesOut = () => import('./outgoing-files.ts');

/** What a run comes to: how long it takes, and how many pieces come out. */
export interface RunExtent {
  readonly timeS: number;
  /** How much of that the head moves unlit. */
  readonly travelS: number;
  readonly pieces: number;
}

/** The worker's part that makes files, and plans what is not on the Bench. */
export const filesWork = {
  /** What a run of a job comes to that is not the one on the Bench. */
  async runExtent(_: Progress, job: JobDocument, shop: ShopLists, choice: RunChoice): Promise<RunExtent> {
    const prepared = await prepareWithPictures(job, shop, choice, unpacked);
    const plan = planJob(prepared);
    return { timeS: plan.timeS, travelS: travelTime(plan), pieces: countPieces(piecesBySize(prepared)).pieces };
  },

  /** The program of a run, as a file. */
  async gcode(_: Progress, job: JobDocument, shop: ShopLists, title: string, choice: RunChoice): Promise<Blob> {
    const { programFile } = await filesOut();
    return programFile(planJob(await prepareWithPictures(job, shop, choice, unpacked)), title);
  },

  /** Where the head goes in a program that was sent. */
  async programWays(_: Progress, program: string, machine: Machine): Promise<ProgramWays> {
    return (await filesOut()).programWays(program, machine);
  },

  /** The job sheet of a run, as a file. */
  async jobSheet(
    _: Progress,
    job: JobDocument,
    shop: ShopLists,
    wish: Omit<SheetWish, 'price'>,
    choice: RunChoice,
  ): Promise<Blob> {
    const prepared = await prepareWithPictures(job, shop, choice, unpacked);
    const plan = planJob(prepared);
    const { jobSheetFile } = await filesOut();
    return jobSheetFile(prepared, plan, shop, { ...wish, price: priceOf(plan, prepared, shop, wish.pricing) });
  },

  /** The artwork of a run, as a file. */
  async artwork(
    _: Progress,
    job: JobDocument,
    shop: ShopLists,
    wish: Omit<ArtworkWish, 'pictures'>,
    choice: RunChoice,
  ): Promise<Blob> {
    const pictures = await picturesOf(job);
    const { artworkFile } = await filesOut();
    return artworkFile(prepareJob(job, shop, choice), { ...wish, pictures });
  },
};
