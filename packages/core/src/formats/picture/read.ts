import type { ReadingChoices } from '../../document/arrival.ts';
import { type Item, unpainted } from '../../document/item.ts';
import { scaling } from '../../geometry/paths/matrix.ts';
import { reduced } from '../../pictures/reduced.ts';
import type { Assets } from '../assets.ts';
import { Notes, type Reading } from '../reading.ts';
import { decodePicture } from './decode.ts';
import { describePicture, pictureKind } from './describe.ts';
import { encodeJpeg, encodePixels } from './encode.ts';
import { pictureFile } from './file.ts';
import { resolutionOf } from './resolution.ts';
import { pictureTroubles } from './troubles.ts';

/** Of pixels. */
interface Size {
  readonly width: number;
  readonly height: number;
}

/** Pixels to the inch that are taken where a picture does not say. */
const usual = 96;

/** A picture of more pixels is made smaller, unless all are wanted: it would be slow at everything, and burn no better. */
const mostUsualPixels = 40_000_000;
/** Of 100: as fine as photos are kept. */
const jpegQuality = 92;

/**
 * Reads a picture: PNG, JPEG, WebP, GIF (its first frame) or BMP, at the size its resolution gives. One of very many
 * pixels is made smaller, unless that is not wanted.
 *
 * @param most how many pixels are not very many
 * @throws FileRefused when it is damaged or too large
 */
export async function readPicture(
  bytes: Uint8Array,
  idFor: (place: string) => string,
  choices: ReadingChoices,
  assets: Assets,
  most: number = mostUsualPixels,
): Promise<Reading> {
  const facts = describePicture(bytes);
  const { kind } = facts;
  const notes = new Notes();
  const isLarge = facts.width * facts.height > most;
  const step = isLarge && choices.pixels !== 'all' ? Math.ceil(Math.sqrt((facts.width * facts.height) / most)) : 1;
  const { width, height, file } =
    step > 1 ? await smaller(bytes, step, assets) : { ...facts, file: pictureFile(bytes) };
  if (isLarge) notes.add('changed', 'very-many-pixels', pixelsSaid(facts, step > 1 ? { width, height } : null));
  for (const { code, message } of pictureTroubles(bytes)) notes.add('changed', code, message);
  const found = await resolutionOf(bytes, kind);
  const [x, y] = (found ? [25.4 / found.x, 25.4 / found.y] : [25.4 / usual, 25.4 / usual]).map((mm) => mm * step);
  if (!found)
    notes.add(
      'changed',
      'no-physical-size',
      `the picture does not say its size; ${usual} pixels are taken for an inch`,
    );
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
  const resolution = (perInch: number) => ({ label: `${perInch} to the inch`, factor: (25.4 / perInch / x) * step });
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

async function smaller(bytes: Uint8Array, step: number, assets: Assets) {
  const pixels = reduced(await decodePicture(bytes, assets), step);
  const isPhoto = pictureKind(bytes) === 'jpg';
  const file = pictureFile(isPhoto ? await encodeJpeg(pixels, jpegQuality, assets) : await encodePixels(pixels));
  return { width: pixels.width, height: pixels.height, file };
}

function pixelsSaid(from: Size, to: Size | null): string {
  const said = ({ width, height }: Size) => `${width} × ${height}`;
  if (to)
    return `the picture has ${said(from)} pixels; it is made smaller, to ${said(to)}, of the same size on the bed`;
  return `the picture has ${said(from)} pixels, and keeps them all: what is done with it takes long`;
}
