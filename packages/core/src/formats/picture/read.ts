import { type Item, unpainted } from '../../document/item.ts';
import { scaling } from '../../geometry/paths/matrix.ts';
import { Notes, type Reading } from '../reading.ts';
import { describePicture } from './describe.ts';
import { pictureFile } from './file.ts';
import { resolutionOf } from './resolution.ts';
import { pictureTroubles } from './troubles.ts';

/** Pixels to the inch that are taken where a picture does not say. */
const usual = 96;

/**
 * Reads a picture: PNG, JPEG, WebP, GIF (its first frame) or BMP, at the size its resolution gives.
 * @throws FileRefused when it is damaged or too large
 */
export async function readPicture(bytes: Uint8Array, idFor: (place: string) => string): Promise<Reading> {
  const { kind, width, height } = describePicture(bytes);
  const notes = new Notes();
  for (const { code, message } of pictureTroubles(bytes)) notes.add('changed', code, message);
  const found = await resolutionOf(bytes, kind);
  const [x, y] = found ? [25.4 / found.x, 25.4 / found.y] : [25.4 / usual, 25.4 / usual];
  if (!found)
    notes.add(
      'changed',
      'no-physical-size',
      `the picture does not say its size; ${usual} pixels are taken for an inch`,
    );
  const file = pictureFile(bytes);
  const item: Item = {
    id: idFor('picture'),
    name: 'Picture',
    shape: { kind: 'picture', pictureId: file.id, width, height },
    matrix: scaling(x, y),
    paint: unpainted,
    fillRule: 'nonzero',
    groupId: null,
    pinned: null,
    hidden: false,
  };
  notes.add('taken', 'picture', `a picture of ${width} × ${height} pixels is taken`, [item.id]);
  const resolution = (perInch: number) => ({ label: `${perInch} to the inch`, factor: 25.4 / perInch / x });
  return {
    format: 'picture',
    drawing: { items: [item], groups: [] },
    pictures: [file],
    size: {
      pageWidthMm: width * x,
      pageHeightMm: height * y,
      mmPerUnit: x,
      from: found
        ? `the picture’s resolution, ${Math.round(found.x)} pixels to the inch`
        : `no resolution in the file; ${usual} pixels taken for an inch`,
      sure: found !== null,
      others: [72, 96, 150, 300, 600].map(resolution),
    },
    notes: notes.list(),
    pageCount: 1,
  };
}
