import { expect, test } from '@jest/globals';
import type { Item } from '../../document/item.ts';
import { boundsOf } from '../../document/item.ts';
import type { Pixels } from '../../document/pixels.ts';
import { idFor, testTools } from '../../fixtures/files.ts';
import { box, item, jobWith, shop } from '../../fixtures/shop.ts';
import { prepareJob } from '../../plan/prepare.ts';
import { readDrawingFile } from '../read.ts';
import { writePicture } from '../svg/picture.ts';
import { decodePicture } from './decode.ts';
import { thumbnailsOf } from './thumbnails.ts';

const { assets } = testTools;

const pictureItem = (pictureId: string, width: number, height: number, more: Partial<Item> = {}): Item => ({
  ...item(box(0, 0, 1), null),
  id: pictureId,
  shape: { kind: 'picture', pictureId, width, height },
  matrix: [0.1, 0, 0, 0.05, 20, 30],
  ...more,
});

/** Dark on its left half, light on its right. */
function halves(width: number, height: number, alpha?: Uint8Array): Pixels {
  const rgb = Uint8Array.from({ length: 3 * width * height }, (_, i) =>
    Math.floor(i / 3) % width < width / 2 ? 40 : 220,
  );
  return { width, height, rgb, ...(alpha ? { alpha } : {}) };
}

test('thumbnails are small, look like their pictures, and keep what can be seen through', async () => {
  const known = new Map<string, Pixels>([
    ['large', halves(1000, 600)],
    ['small', halves(20, 10)],
    ['clear', halves(20, 10, new Uint8Array(200).fill(0))],
  ]);
  const asked: string[] = [];
  const items = [
    pictureItem('large', 1000, 600),
    pictureItem('large', 1000, 600, { id: 'again' }),
    pictureItem('small', 20, 10),
    pictureItem('clear', 20, 10),
    pictureItem('hidden', 20, 10, { hidden: true }),
    pictureItem('huge', 10_000, 10_000),
    pictureItem('gone', 20, 10),
  ];
  const thumbnails = await thumbnailsOf(
    { items, groups: [] },
    async (id) => {
      asked.push(id);
      const pixels = known.get(id);
      if (!pixels) throw new Error('it is gone');
      return pixels;
    },
    assets,
  );
  expect(asked).toEqual(['large', 'small', 'clear', 'gone']);
  expect([...thumbnails.keys()]).toEqual(['large', 'small', 'clear']);
  const made = await decodePicture(thumbnails.get('large')?.bytes ?? new Uint8Array(), assets);
  expect([made.width, made.height]).toEqual([333, 200]);
  const greyAt = (x: number, y: number) => made.rgb[3 * (y * made.width + x)];
  expect([greyAt(40, 100), greyAt(290, 100)]).toEqual([expect.closeTo(40, -1), expect.closeTo(220, -1)]);
  const small = await decodePicture(thumbnails.get('small')?.bytes ?? new Uint8Array(), assets);
  expect([small.width, small.height]).toEqual([20, 10]);
  const clear = await decodePicture(thumbnails.get('clear')?.bytes ?? new Uint8Array(), assets);
  expect([...(clear.alpha ?? [])].every((opacity) => opacity === 0)).toBe(true);
});

test('a card’s picture shows pictures where they lie, and the frame of one that is not to be had', async () => {
  const job = jobWith([pictureItem('known', 40, 40), pictureItem('gone', 40, 40)]);
  const thumbnails = await thumbnailsOf(
    job.drawing,
    async (id) => {
      if (id === 'gone') throw new Error('it is gone');
      return halves(40, 40);
    },
    assets,
  );
  const written = writePicture(prepareJob(job, shop), thumbnails, 1000);
  const { drawing } = await readDrawingFile(new TextEncoder().encode(written), idFor, testTools);
  expect(drawing.items.map(({ shape }) => shape.kind).sort()).toEqual(['path', 'picture']);
  // They lie at (20, 30), and 4 mm of the bed are shown around them.
  for (const shown of drawing.items) expect(boundsOf(shown)).toEqual({ minX: 4, minY: 4, maxX: 8, maxY: 6 });
});
