import type { Item } from '@lambent/core/document';
import { createStore } from 'zustand/vanilla';

/** How many pictures are ready; what draws them is drawn again when one more is. */
export const picturesReady = createStore(() => ({ ready: 0 }));

/** By id: the picture, null where there is none, or what will say when it is known. */
const bitmaps = new Map<string, ImageBitmap | null | Promise<void>>();

/** The pictures that items show. */
export function pictureIdsIn(items: readonly Item[]): ReadonlySet<string> {
  return new Set(items.flatMap(({ shape }) => (shape.kind === 'picture' ? [shape.pictureId] : [])));
}

/** Lets go of every picture but some: each takes four bytes a pixel. What is wanted again is fetched again. */
export function keepPictures(ids: ReadonlySet<string>): void {
  for (const [id, bitmap] of bitmaps) {
    if (ids.has(id) || bitmap instanceof Promise) continue;
    bitmap?.close();
    bitmaps.delete(id);
  }
}

/** A picture to draw; null while it is still coming. */
export function pictureOf(id: string): ImageBitmap | null {
  const known = bitmaps.get(id);
  if (known === undefined) void fetchPicture(id);
  return known instanceof ImageBitmap ? known : null;
}

/** Makes a picture ready from its bytes, before the server has it. */
export async function showPicture(id: string, bytes: Uint8Array): Promise<void> {
  if (bitmaps.get(id) instanceof ImageBitmap) return;
  bitmaps.set(id, await createImageBitmap(new Blob([bytes.slice()])).catch(() => null));
  picturesReady.setState(({ ready }) => ({ ready: ready + 1 }));
}

/** Resolves when a picture can be drawn, or is known not to be there. */
export async function fetchPicture(id: string): Promise<void> {
  let known = bitmaps.get(id);
  if (known === undefined) {
    known = fetchAndShow(id);
    bitmaps.set(id, known);
  }
  if (known instanceof Promise) await known;
}

async function fetchAndShow(id: string): Promise<void> {
  const response = await fetch(`/api/pictures/${id}`).catch(() => null);
  if (response?.ok) await showPicture(id, new Uint8Array(await response.arrayBuffer()));
  // One that the server does not have yet is asked for again when it is wanted; what was shown meanwhile stays.
  else if (bitmaps.get(id) instanceof Promise) bitmaps.delete(id);
}
