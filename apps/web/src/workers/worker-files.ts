import type { FontAnswer } from '@lambent/contracts';
import type { JobDocument, Pixels } from '@lambent/core/document';
import { decodePicture, type PictureFile } from '@lambent/core/formats';
import type { FontBook } from '@lambent/core/text';

/** A file of the server's. @throws Error with a sentence where it does not give it */
export async function bytesOf(path: string): Promise<Uint8Array> {
  const response = await fetch(path);
  if (!response.ok) throw new Error(`The server does not give ${path}. Is Lambent still running?`);
  return new Uint8Array(await response.arrayBuffer());
}

/** What reads fonts is large: it comes when there is text to set, or a file that may hold some. */
export const loadText = () => import('@lambent/core/text');

/** Every font there is; asked for anew with every file, so that one just loaded is there. */
export async function fontBook(): Promise<FontBook> {
  const { FontBook } = await loadText();
  const list = (await (await fetch('/api/fonts')).json()) as FontAnswer[];
  return new FontBook(await Promise.all(list.map(async (font) => ({ ...font, bytes: await fontBytes(font.id) }))));
}

export const fonts = new Map<string, Promise<Uint8Array>>();

function fontBytes(id: string): Promise<Uint8Array> {
  let bytes = fonts.get(id);
  if (!bytes) {
    bytes = bytesOf(`/api/fonts/${id}`);
    bytes.catch(() => fonts.delete(id));
    fonts.set(id, bytes);
  }
  return bytes;
}

/** Files that readers need besides, such as what unpacks WebP. */
export const assets = (name: string) => bytesOf(`/api/assets/${name}`);

/** The files of all pictures that a job shows, by their ids. @throws Error where the server does not give one */
export async function picturesOf({ drawing }: JobDocument): Promise<Map<string, PictureFile>> {
  const ids = new Set(drawing.items.flatMap(({ shape }) => (shape.kind === 'picture' ? [shape.pictureId] : [])));
  const files = await Promise.all([...ids].map(async (id) => ({ id, bytes: await bytesOf(`/api/pictures/${id}`) })));
  return new Map(files.map((file) => [file.id, file]));
}

/** So many pictures are kept unpacked: those of the job that one works at, and not of all that were open. */
const mostUnpacked = 4;
const unpackedPictures = new Map<string, Promise<Pixels>>();

/** The pixels of a picture that the server keeps. @throws Error where it does not give it; FileRefused where it is damaged */
export function unpacked(pictureId: string): Promise<Pixels> {
  const known = unpackedPictures.get(pictureId);
  const pixels = known ?? bytesOf(`/api/pictures/${pictureId}`).then((bytes) => decodePicture(bytes, assets));
  // The one used last stands last.
  unpackedPictures.delete(pictureId);
  unpackedPictures.set(pictureId, pixels);
  if (!known) pixels.catch(() => unpackedPictures.delete(pictureId));
  const [oldest] = unpackedPictures.keys();
  if (unpackedPictures.size > mostUnpacked) unpackedPictures.delete(oldest);
  return pixels;
}
