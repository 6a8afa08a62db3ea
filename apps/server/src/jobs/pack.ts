import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { type JobDocument, type JobJson, jobFromJson, jobToJson, NotADrawing } from '@lambent/core/document';
import { depthOfJson } from '../common/body-depth.ts';
import { pictureIdsIn } from './picture-ids.ts';

/** A document without its drawing, as JSON. */
export type StoredSettings = Omit<JobJson, 'drawing'>;

/** A version as it is stored: its settings, and its drawing as gzipped JSON under the hash of that JSON. */
export interface PackedVersion {
  readonly settings: StoredSettings;
  readonly drawing: { readonly hash: string; readonly itemCount: number; readonly json: Uint8Array };
  /** The pictures that it shows. */
  readonly pictureIds: readonly string[];
}

/** A job as a version of it is stored: its drawing gzipped and apart, under the SHA-256 of its JSON. */
export function packJob(job: JobDocument): PackedVersion {
  const { drawing, ...settings } = jobToJson(job);
  const text = JSON.stringify(drawing);
  return {
    settings,
    drawing: {
      hash: createHash('sha256').update(text).digest('hex'),
      itemCount: drawing.items.length,
      json: gzipSync(text, { level: 4 }),
    },
    pictureIds: [...pictureIdsIn(text)],
  };
}

/** A stored job without its drawing; settings of an earlier version are brought up to date as a whole job is. */
export function jobWithoutDrawing(settings: PackedVersion['settings']): JobDocument {
  return jobFromJson({ ...settings, drawing: { items: [], groups: [] } });
}

/** Combinations within combinations, each with its parts and what they hold. */
const deepestDocument = 300;

/** Checks and packs a document as it was sent; says what is wrong where it is no job. */
export function packDocument(bytes: Uint8Array): { packed: PackedVersion } | { trouble: string } {
  try {
    if (depthOfJson(bytes) > deepestDocument) return { trouble: 'it is nested too deep' };
    return { packed: packJob(jobFromJson(JSON.parse(Buffer.from(bytes).toString('utf8')))) };
  } catch (error) {
    if (error instanceof NotADrawing) return { trouble: error.message };
    if (error instanceof SyntaxError) return { trouble: 'it is not JSON' };
    throw error;
  }
}
