import type { JobAnswer } from '@lambent/contracts';
import { type JobDocument, jobFromJson } from '@lambent/core/document';

/** A job as it is opened. */
export type OpenedJob = Omit<JobAnswer, 'document'> & { readonly document: JobDocument };

/** @param json a `JobAnswer` in UTF-8 @throws NotADrawing naming the first thing that is wrong */
export function openedFrom(json: ArrayBuffer): OpenedJob {
  const { document, ...head } = JSON.parse(new TextDecoder().decode(json)) as JobAnswer;
  return { ...head, document: jobFromJson(document) };
}
