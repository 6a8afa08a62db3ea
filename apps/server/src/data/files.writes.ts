import { notFound } from '../common/plain-error.ts';
import { FontEntity, PictureEntity, SettingEntity } from './entities.ts';
import type { Writing } from './writing.ts';

/*
 * Every change of what the shop keeps for all its jobs: pictures, fonts, settings.
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
  { bytes, ...face }: Omit<FontEntity, 'addedAt' | 'bytes'> & { readonly bytes: Uint8Array },
): Promise<void> {
  if (await writing.existsBy(FontEntity, { id: face.id })) return;
  await writing.insert(FontEntity, { ...face, bytes: Buffer.from(bytes), addedAt: new Date() });
}

export async function deleteFont(writing: Writing, id: string): Promise<void> {
  const { affected } = await writing.delete(FontEntity, { id });
  if (!affected) throw notFound('font');
}

/** Puts settings of the shop in place of those it had. */
export async function settle(writing: Writing, settings: readonly SettingEntity[]): Promise<void> {
  for (const { name, value } of settings) {
    await writing.delete(SettingEntity, { name });
    await writing.insert(SettingEntity, { name, value });
  }
}

/** Writes as much as it takes to know that writing is possible. */
export async function probe(writing: Writing, now: Date): Promise<void> {
  await settle(writing, [{ name: 'last probe of the disk', value: now.toISOString() }]);
}
