import { notFound } from '../common/plain-error.ts';
import type { Owned } from '../data/owned.ts';
import type { Writing } from '../data/writing.ts';
import { FontEntity, PictureEntity } from './file.entities.ts';

/*
 * Every change of what the shop keeps for all its jobs: pictures and fonts.
 */

/** Keeps a picture; one that is there already stays. */
export async function keepPicture(
  writing: Writing,
  { id, mediaType, bytes }: { readonly id: string; readonly mediaType: string; readonly bytes: Uint8Array },
): Promise<void> {
  if (await writing.existsBy(PictureEntity, { id })) return;
  await writing.insert(PictureEntity, { id, mediaType, bytes: Buffer.from(bytes), addedAt: new Date() });
}

/** Keeps a font; one that is there already stays. */
export async function keepFont(
  writing: Writing,
  { bytes, ...face }: Omit<FontEntity, 'addedAt' | 'bytes' | keyof Owned> & { readonly bytes: Uint8Array },
): Promise<void> {
  if (await writing.existsBy(FontEntity, { id: face.id })) return;
  await writing.insert(FontEntity, { ...face, bytes: Buffer.from(bytes), addedAt: new Date() });
}

/** @throws PlainError 404 where there is no such font */
export async function deleteFont(writing: Writing, id: string): Promise<void> {
  const { affected } = await writing.delete(FontEntity, { id });
  if (!affected) throw notFound('font');
}
