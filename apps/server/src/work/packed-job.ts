import { gunzipSync } from 'node:zlib';
import { type JobDocument, jobFromJson, type Pixels } from '@lambent/core/document';
import { decodePicture } from '@lambent/core/formats';
import { shippedAssets } from '@lambent/fonts';
import type { StoredSettings } from '../jobs/pack.ts';

/** A stored version as the worker gets it: its drawing still packed. */
export interface PackedJob {
  readonly settings: StoredSettings;
  readonly drawingJson: Uint8Array;
}

/** Gives the file of a picture that the shop keeps, by its id. */
export type ReadPicture = (id: string) => Promise<Uint8Array>;

/** Gives the pixels of pictures by their ids. */
export function unpacking(picture: ReadPicture): (id: string) => Promise<Pixels> {
  return async (id) => decodePicture(await picture(id), shippedAssets);
}

/** A version as a document. */
export function unpack({ settings, drawingJson }: PackedJob): JobDocument {
  return jobFromJson({ ...settings, drawing: JSON.parse(gunzipSync(drawingJson).toString('utf8')) });
}
