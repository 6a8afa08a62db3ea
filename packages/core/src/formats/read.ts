import type { ReadingChoices } from '../document/arrival.ts';
import { tooMuchOf } from '../document/drawing-size.ts';
import { type Drawing, type Item, type Paint, sharedPaint } from '../document/item.ts';
import { largestNumber } from '../schema/values.ts';
import type { FontBook } from '../text/fonts.ts';
import type { Assets } from './assets.ts';
import { plainPicture } from './picture/decode.ts';
import { pictureFile } from './picture/file.ts';
import { type FileFormat, Notes, type Reading } from './reading.ts';
import { FileRefused, refuseTooLarge } from './refusal.ts';
import { sniffFormat } from './sniff.ts';
import { decodeDxf, decodeText } from './text-encoding.ts';
import { isGzip, unpackGzip } from './unpack.ts';

/** What readers need beside the file. */
export interface ReadingTools {
  /** The faces that text is set in. */
  readonly fonts: FontBook;
  /** Gives files that ship with the packages readers use; null where there are none. */
  readonly assets: Assets;
}

/**
 * Reads a drawing from a file of any format that is taken, going by what is in it and not by its name.
 *
 * @param idFor gives an id for a part of the file by its place there, which is the same at every reading
 * @throws FileRefused when the file cannot be used at all
 */
export async function readDrawingFile(
  bytes: Uint8Array,
  idFor: (place: string) => string,
  tools: ReadingTools,
  choices: ReadingChoices = {},
): Promise<Reading> {
  if (bytes.length === 0) throw new FileRefused('The file is empty. Save or send it again.');
  refuseTooLarge(bytes.length);
  const format = sniffFormat(bytes);
  if (typeof format !== 'string') throw new FileRefused(format.refusal);
  const reading = await readers[format](bytes, idFor, tools, choices);
  refuseTooMuch(reading);
  refuseBoundless(reading);
  const { drawing, ...plain } = await withPlainPictures(reading, tools.assets);
  return { ...reading, ...plain, drawing: withSharedPaints(drawing) };
}

type Reader = (
  bytes: Uint8Array,
  idFor: (place: string) => string,
  tools: ReadingTools,
  choices: ReadingChoices,
) => Promise<Reading>;

/** How each format is read; a reader, and the packages it needs, is loaded when a file of its format comes. */
const readers: Readonly<Record<FileFormat, Reader>> = {
  svg: async (bytes, idFor, { fonts }, choices) => {
    const { readSvg } = await import('./svg/read.ts');
    return readSvg(decodeText(isGzip(bytes) ? await unpackedSvg(bytes) : bytes), idFor, fonts, choices);
  },
  dxf: async (bytes, idFor, { fonts }, choices) =>
    (await import('./dxf/read.ts')).readDxf(decodeDxf(bytes), idFor, fonts, choices),
  pdf: async (bytes, idFor, { assets }, choices) =>
    (await import('./pdf/read.ts')).readPdf(bytes, idFor, choices, assets),
  picture: async (bytes, idFor, { assets }, choices) =>
    (await import('./picture/read.ts')).readPicture(bytes, idFor, choices, assets),
  stl: async (bytes, idFor, _, choices) => (await import('./stl/read.ts')).readStl(bytes, idFor, choices),
};

/** @throws FileRefused when it is anything but SVG, or cannot be unpacked */
async function unpackedSvg(packed: Uint8Array): Promise<Uint8Array> {
  const bytes = await unpackGzip(packed);
  if (isGzip(bytes) || sniffFormat(bytes) !== 'svg') {
    throw new FileRefused('The file is compressed, and what is in it is no SVG. Unpack it, and bring that in.');
  }
  return bytes;
}

/**
 * Pictures as files that every reader takes; items know them by what they came to be. One in a drawing that is damaged is
 * left out, and noted.
 * @throws FileRefused when the file is a damaged picture
 */
async function withPlainPictures(
  { format, drawing, pictures, notes }: Reading,
  assets: Assets,
): Promise<Pick<Reading, 'drawing' | 'pictures' | 'notes'>> {
  if (pictures.length === 0) return { drawing, pictures, notes };
  const plain = await Promise.all(
    pictures.map(async (file) => {
      try {
        const bytes = await plainPicture(file.bytes, assets);
        return bytes === file.bytes ? file : pictureFile(bytes);
      } catch (error) {
        if (format === 'picture' || !(error instanceof FileRefused)) throw error;
        return null;
      }
    }),
  );
  const idsNow = new Map(pictures.map(({ id }, i) => [id, plain[i]?.id ?? null]));
  const damaged = new Notes();
  const items = drawing.items.flatMap((item): Item[] => {
    if (item.shape.kind !== 'picture') return [item];
    const pictureId = idsNow.get(item.shape.pictureId);
    if (pictureId) return [{ ...item, shape: { ...item.shape, pictureId } }];
    damaged.add('left-out', 'picture-damaged', 'an embedded picture is damaged and was left out');
    return [];
  });
  return {
    drawing: { ...drawing, items },
    pictures: plain.filter((file) => file !== null),
    notes: [...notes, ...damaged.list()],
  };
}

function withSharedPaints(drawing: Drawing): Drawing {
  const met = new Map<string, Paint>();
  return { ...drawing, items: drawing.items.map((item) => ({ ...item, paint: sharedPaint(item.paint, met) })) };
}

/** @throws FileRefused where a drawing holds more than a document can */
function refuseTooMuch({ drawing }: Reading): void {
  const tooMuch = tooMuchOf(drawing.items);
  if (tooMuch) throw new FileRefused(`The drawing ${tooMuch}. Simplify it, or split it into several files.`);
}

/** A drawing that no document can hold is in other units than it says, or damaged. @throws FileRefused */
function refuseBoundless({ drawing }: Reading): void {
  const far = drawing.items.find((item) => !isWithinReach(item));
  if (!far) return;
  throw new FileRefused(
    `The drawing reaches more than ${largestNumber / 1e6} km from its zero (${far.name ?? far.shape.kind}). Check its units, or delete what lies so far away, and save it again.`,
  );
}

function isWithinReach({ shape, matrix }: Item): boolean {
  if (!matrix.every((value) => Math.abs(value) <= largestNumber)) return false;
  return shape.kind !== 'path' || shape.path.coords.every((value) => Math.abs(value) <= largestNumber);
}
