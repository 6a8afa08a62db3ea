import { type JobDocument, jobMediaType, jobToJson } from '@lambent/core/document';

/** A job as the body of a save. */
export function documentBlob(job: JobDocument): Blob {
  return new Blob([JSON.stringify(jobToJson(job))], { type: jobMediaType });
}
