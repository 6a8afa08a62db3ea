import { create } from 'zustand';

/** How many pictures are ready; what draws them is drawn again when one more is. */
export const usePictures = create<{ ready: number }>(() => ({ ready: 0 }));

const bitmaps = new Map<string, ImageBitmap | 'coming' | 'missing'>();

/** A picture to draw; null while it is still coming. */
export function pictureOf(id: string): ImageBitmap | null {
  const known = bitmaps.get(id);
  if (known === undefined) void fetchPicture(id);
  return known instanceof ImageBitmap ? known : null;
}

/** Makes a picture ready from its bytes, before the server has it. */
export async function showPicture(id: string, bytes: Uint8Array): Promise<void> {
  if (bitmaps.get(id) instanceof ImageBitmap) return;
  try {
    bitmaps.set(id, await createImageBitmap(new Blob([bytes.slice()])));
  } catch {
    bitmaps.set(id, 'missing');
  }
  usePictures.setState(({ ready }) => ({ ready: ready + 1 }));
}

async function fetchPicture(id: string): Promise<void> {
  bitmaps.set(id, 'coming');
  const response = await fetch(`/api/pictures/${id}`).catch(() => null);
  if (response?.ok) await showPicture(id, new Uint8Array(await response.arrayBuffer()));
  else bitmaps.set(id, 'missing');
}
