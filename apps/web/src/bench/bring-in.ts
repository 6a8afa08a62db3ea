import { addItems, largestFile, type ReadingWarning, type SvgReading } from '@lambent/core';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { fileWorker } from '../workers/bench.ts';
import type { BenchActions } from './store.ts';

/** What came of a file that was brought in. */
export interface Arrival {
  readonly file: string;
  readonly itemCount: number;
  readonly size: string;
  readonly warnings: readonly ReadingWarning[];
  /** Why nothing came in; null when something did. */
  readonly trouble: string | null;
}

/** Reads a drawing in a worker, adds it to the job as one edit, and keeps the file with the job. */
export async function bringIn(actions: BenchActions, file: File): Promise<Arrival> {
  const failed = (trouble: string): Arrival => ({ file: file.name, itemCount: 0, size: '', warnings: [], trouble });
  if (file.size > largestFile) {
    return failed(
      `It is ${Math.round(file.size / 1024 / 1024)} MB; Lambent takes drawings up to ${largestFile / 1024 / 1024} MB. Leave pictures out, or split it.`,
    );
  }
  let reading: SvgReading;
  try {
    reading = await fileWorker().read(await file.text());
  } catch (error) {
    return failed(sentenceOf(error));
  }
  const { items, groups } = reading.drawing;
  if (items.length > 0) {
    actions.edit(`bring in ${file.name}`, (job) => addItems(job, items, groups));
    actions.select(items.map((item) => item.id));
    api.keepOriginal(actions.get().jobId, file).catch((error) => {
      toast.error(`${file.name} is drawn, but the file itself was not kept: ${sentenceOf(error)}`);
    });
  }
  const { declaredWidthMm, declaredHeightMm, warnings } = reading;
  const side = (mm: number | null) => (mm === null ? '?' : String(Number(mm.toFixed(2))));
  const size =
    declaredWidthMm === null && declaredHeightMm === null
      ? 'no size in the file'
      : `page ${side(declaredWidthMm)} × ${side(declaredHeightMm)} mm`;
  return { file: file.name, itemCount: items.length, size, warnings, trouble: null };
}
