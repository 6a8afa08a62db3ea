import { randomUUID } from 'node:crypto';
import type { OffcutDto, RunStatus, TakenSheet } from '@lambent/contracts';
import { outlineArea, type Sheet } from '@lambent/core/document';
import { addOffcut, outlineFault, putSheetBack, type StockedSheet, stockOf, takeSheet } from '@lambent/core/recipes';
import { MaterialEntity } from '../book/book.entities.ts';
import { changeStock } from '../book/book.writes.ts';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Owned } from '../data/owned.ts';
import type { Writing } from '../data/writing.ts';
import { stepAfterRun, stepTo } from '../desk/job-steps.ts';
import { BurntPictureEntity, RunEntity } from './run.entities.ts';

/*
 * Every change of the record of runs. What a run takes from stock is written together with its end.
 */

/** How far a run has come, as the machine says. */
export interface RunProgress {
  readonly status: RunStatus;
  readonly reason: string | null;
  readonly doneLine: number;
  readonly machineS: number;
}

/** What the machine showed of the bed when a run had ended. */
export type RunPicture = Omit<BurntPictureEntity, 'run' | 'runId' | 'codes'> & { readonly codes: Uint8Array };

/** @returns its place in the record */
export async function addRun(
  writing: Writing,
  run: Omit<RunEntity, 'job' | 'sequence' | keyof Owned>,
): Promise<number> {
  const [{ last }] = (await writing.query('SELECT coalesce(max(sequence), 0) AS last FROM runs')) as [{ last: number }];
  const sequence = last + 1;
  await writing.insert(RunEntity, { ...run, sequence });
  await stepTo(writing, run.jobId, 'on a machine', run.by, run.startedAt);
  return sequence;
}

/** Notes how far a run has come. One that has ended stays as it ended. */
export async function noteRun(writing: Writing, id: string, progress: RunProgress): Promise<void> {
  await writing
    .createQueryBuilder()
    .update(RunEntity)
    .set({ ...progress })
    .where('id = :id AND endedAt IS NULL', { id })
    .execute();
}

/**
 * Puts the end of a run on record, takes the sheets that it used from stock, and keeps its picture. A sheet that an
 * earlier run of the job took still lies there, until this very run has been burnt on it.
 *
 * @returns the sheets it took; one of a size of which none is left counts as one, and one that is not counted is only said
 */
export async function endRun(
  writing: Writing,
  id: string,
  { status, reason, doneLine, machineS }: RunProgress,
  picture: RunPicture | null,
): Promise<TakenSheet[]> {
  const run = await writing.findOne(RunEntity, { where: { id }, relations: { job: true } });
  if (!run) throw notFound('run');
  if (run.endedAt) return run.taken;
  const burntOn = run.uses?.stock === 'fresh' && (status === 'done' || doneLine > 0) ? run.uses.sheets : [];
  const earlier = await writing.find(RunEntity, { where: { jobId: run.jobId }, order: { sequence: 'ASC' } });
  const taken: TakenSheet[] = [];
  for (const sheet of burntOn) {
    const material = await writing.findOneBy(MaterialEntity, { id: sheet.materialId });
    if (!material || stillLies(earlier, run, sheet)) continue;
    const from = stockOf(material.stock ?? undefined, sheet);
    if (from) {
      const author = `the run of “${run.job.title}”`;
      await changeStock(writing, author, sheet.materialId, (all) => takeSheet(all, from.id));
    }
    const what: Omit<StockedSheet, 'id' | 'count'> = from ?? { ...sheet, price: null };
    const { width, height, price, offcut = false, outline } = what;
    taken.push({
      sheetId: sheet.id,
      materialId: sheet.materialId,
      stockId: from?.id ?? null,
      width,
      height,
      price,
      offcut,
      ...(outline ? { outline: outline.map((ring) => [...ring]) } : {}),
    });
  }
  const endedAt = new Date();
  await writing.update(RunEntity, { id }, { status, reason, doneLine, machineS, taken, endedAt });
  await stepAfterRun(writing, run, status, endedAt);
  if (picture) await writing.insert(BurntPictureEntity, { ...picture, runId: id, codes: Buffer.from(picture.codes) });
  return taken;
}

/** A sheet was not used up after all. @throws PlainError 404 where the run took none, 409 where it is back already, or not counted */
export async function putBackSheet(writing: Writing, runId: string, sheetId: string, author: string): Promise<void> {
  await changeTaken(writing, runId, sheetId, async (sheet) => {
    if (sheet.putBack) throw new PlainError(409, 'put-back', 'That sheet was put back already.');
    const { stockId, width, height, price, offcut, outline } = sheet;
    if (stockId === null) throw new PlainError(409, 'not-counted', 'Such sheets are not counted in stock.');
    const kind = { ...(offcut ? { offcut } : {}), ...(outline ? { outline } : {}) };
    const entry = { id: stockId, width, height, price, count: 1, ...kind };
    await changeStock(writing, author, sheet.materialId, (all) => putSheetBack(all, entry));
    return { ...sheet, putBack: true };
  });
}

/**
 * Keeps what is left of a sheet, or another part of it.
 * @throws PlainError 400 where it is larger than that, with those that were kept before or by itself, or has no proper outline;
 * 404 where the run took none
 */
export async function keepOffcut(
  writing: Writing,
  runId: string,
  { sheetId, width, height, outline, by }: OffcutDto,
): Promise<void> {
  const fault = outline && outlineFault(outline, width, height);
  if (fault) throw new PlainError(400, 'offcut-outline', `The outline of an offcut ${fault}.`);
  await changeTaken(writing, runId, sheetId, async (sheet) => {
    const fits = (w: number, h: number) => w <= sheet.width && h <= sheet.height;
    if (!fits(width, height) && !fits(height, width)) {
      throw new PlainError(
        400,
        'offcut-too-large',
        `An offcut is no larger than the sheet, ${sheet.width} × ${sheet.height} mm.`,
      );
    }
    const kept = { width, height, ...(outline ? { outline } : {}) };
    const all = [...(sheet.keptOffcuts ?? []), kept];
    if (all.reduce((sum, each) => sum + outlineArea(each), 0) > outlineArea(sheet) + 1)
      throw new PlainError(400, 'offcut-too-large', 'The offcuts of a sheet are together no larger than it is.');
    await changeStock(writing, by, sheet.materialId, (stock) => addOffcut(stock, { id: randomUUID(), ...kept }));
    return { ...sheet, keptOffcuts: all };
  });
}

async function changeTaken(
  writing: Writing,
  runId: string,
  sheetId: string,
  change: (sheet: TakenSheet) => Promise<TakenSheet>,
): Promise<void> {
  const run = await writing.findOneBy(RunEntity, { id: runId });
  const sheet = run?.taken.find((taken) => taken.sheetId === sheetId);
  if (!run || !sheet) throw notFound('sheet of this run');
  const changed = await change(sheet);
  await writing.update(
    RunEntity,
    { id: runId },
    { taken: run.taken.map((taken) => (taken === sheet ? changed : taken)) },
  );
}

/** Whether a sheet that an earlier run took still lies on the bed for this one. */
function stillLies(earlier: readonly RunEntity[], run: RunEntity, { id, materialId }: Sheet): boolean {
  const last = earlier.findLastIndex(({ taken }) =>
    taken.some((taken) => taken.sheetId === id && taken.materialId === materialId && !taken.putBack),
  );
  if (last < 0) return false;
  return earlier.slice(last).every((entry) => entry.id === run.id || entry.jobRunId !== run.jobRunId);
}
