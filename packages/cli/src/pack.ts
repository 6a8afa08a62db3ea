import { extname } from 'node:path';
import type { Item } from '@lambent/core/document';
import type { Outgoing } from '@lambent/core/formats';
import { boxOf, multiply, PathBuilder } from '@lambent/core/geometry';
import {
  type DrawnPiece,
  drawnPieces,
  leastSheets,
  type Packing,
  type PackSheet,
  type PackWish,
  packed,
  packedMatrix,
  sheetUses,
  type Turning,
} from '@lambent/core/packing';
import { parseLength } from '@lambent/core/units';
import { drawingKind, outgoingOf, writeOutgoing } from './drawing-out.ts';
import { nameOf, type ReadDrawing, type ReadingOptions, readDrawing, standard, write } from './files.ts';
import { Unusable } from './unusable.ts';

export interface PackOptions extends ReadingOptions {
  sheet: string;
  gap: string;
  margin: string;
  turn: string;
  mirror?: boolean;
  holes?: boolean;
  count: string;
  seconds: string;
  seed: string;
  out: string;
  report?: string;
}

const turnings: Readonly<Record<string, Turning>> = { free: 'free', 90: 'quarter', 180: 'half', none: 'none' };

/** A piece of one of the drawings. */
interface Source extends DrawnPiece {
  readonly drawing: ReadDrawing;
  readonly name: string;
}

/**
 * Lays the pieces of drawings on as few sheets as it can, and writes each sheet.
 *
 * @returns the exit status: 1 when something did not fit
 * @throws Unusable when a file or a word cannot be used
 */
export async function pack(files: readonly string[], options: PackOptions): Promise<number> {
  const kind = drawingKind(options.out);
  if (options.out === standard) throw new Unusable('--out must be a file: several sheets go to several of them.');
  const { wide, high } = sheetWord(options.sheet);
  const count = countWord(options.count);
  const [seconds, seed] = [numberWord('--seconds', options.seconds), numberWord('--seed', options.seed)];
  const turning = turnings[options.turn];
  if (!turning) throw new Unusable(`--turn must be free, 90, 180 or none, and not “${options.turn}”.`);
  const sources = await sourcesOf(files, options);
  const sheet: PackSheet = {
    id: 'sheet',
    outline: rectangle(wide, high),
    obstacles: [],
    count: count === null ? 1 : null,
  };
  const wish: PackWish = {
    pieces: sources.map(({ name, outline }) => ({ id: name, outline, count })),
    sheets: [sheet],
    gapMm: distanceWord('--gap', options.gap),
    marginMm: distanceWord('--margin', options.margin),
    turning,
    mirror: options.mirror === true,
    fillsHoles: options.holes === true,
  };
  const { packing, tries, took } = best(wish, seconds, seed);
  const pages = packing.sheets.map(({ pieces }) => pieces);
  const names = pages.map((_, i) => (pages.length === 1 ? options.out : numbered(options.out, i + 1)));
  for (const [i, pieces] of pages.entries()) {
    const moved = sources.map(({ items, drawing }, source) => ({
      drawing,
      items: pieces
        .filter(({ piece }) => piece === source)
        .flatMap((place, copy) => items.map((item) => movedTo(item, packedMatrix(place), `${source}-${copy}-`))),
    }));
    await writeOutgoing(names[i], sheetOut(moved, wide, high), kind);
  }
  const report = reportOf(sources, wish, packing, names, { tries, took, seed });
  if (options.report) await write(options.report, `${JSON.stringify(report, null, 2)}\n`);
  for (const page of report.sheets)
    process.stdout.write(`${page.file}: ${page.pieces.length} pieces, ${page.usePercent} % used\n`);
  for (const { name, count } of report.left) process.stdout.write(`${name}: ${count} did not fit\n`);
  return report.left.length > 0 ? 1 : 0;
}

async function sourcesOf(files: readonly string[], options: PackOptions): Promise<Source[]> {
  const sources: Source[] = [];
  for (const file of files) {
    const drawing = await readDrawing(file, options);
    const { pieces, loose } = drawnPieces(drawing.items.filter(({ hidden }) => !hidden));
    if (pieces.length === 0) throw new Unusable(`${file} has no closed outline: there is no piece to lay.`);
    if (loose.length > 0) {
      const lie = loose.length === 1 ? '1 item lies' : `${loose.length} items lie`;
      process.stderr.write(`${nameOf(file)}: ${lie} in no outline, and goes with no piece.\n`);
    }
    pieces.forEach((piece, i) => sources.push({ ...piece, drawing, name: `${nameOf(file)} ${i + 1}` }));
  }
  return sources;
}

/** Where pieces lie, and how many of each found no place. */
type Found = Pick<Packing, 'sheets' | 'left'>;

/** The best packing that is found within the time; it ends before where nothing can be gained any more. */
function best(wish: PackWish, seconds: number, seed: number): { packing: Found; tries: number; took: number } {
  const begun = performance.now();
  let [packing, tries]: [Found | null, number] = [null, 0];
  for (const better of packed(wish, seed)) {
    packing = better ?? packing;
    tries++;
    if (packing && performance.now() - begun >= seconds * 1000) break;
  }
  return {
    packing: packing ?? { sheets: [], left: wish.pieces.map(({ count }) => count ?? 0) },
    tries,
    took: (performance.now() - begun) / 1000,
  };
}

function movedTo(item: Item, matrix: ReturnType<typeof packedMatrix>, prefix: string): Item {
  return { ...item, id: `${prefix}${item.id}`, matrix: multiply(matrix, item.matrix) };
}

/** One sheet, with the layers of all drawings that have something on it. */
function sheetOut(moved: readonly MovedDrawing[], wide: number, high: number): Outgoing {
  const parts = moved.filter(({ items }) => items.length > 0);
  const outs = parts.map(({ drawing, items }) => outgoingOf({ ...drawing, items }));
  return {
    page: boxOf(0, 0, wide, high),
    layers: outs.flatMap(({ layers }) => layers),
    pictures: new Map(outs.flatMap(({ pictures }) => [...pictures])),
  };
}

interface MovedDrawing {
  readonly drawing: ReadDrawing;
  readonly items: readonly Item[];
}

function reportOf(
  sources: readonly Source[],
  wish: PackWish,
  packing: Found,
  files: readonly string[],
  { tries, took, seed }: { tries: number; took: number; seed: number },
) {
  const uses = sheetUses(wish, packing);
  return {
    sheets: packing.sheets.map(({ pieces }, i) => ({
      file: files[i],
      usePercent: rounded(100 * uses[i], 1),
      pieces: pieces.map(({ piece, x, y, angle, isMirrored }) => ({
        name: sources[piece].name,
        xMm: rounded(x, 4),
        yMm: rounded(y, 4),
        angleDegrees: rounded(angle, 6),
        mirrored: isMirrored,
      })),
    })),
    left: packing.left.flatMap((count, piece) => (count > 0 ? [{ name: sources[piece].name, count }] : [])),
    /** By their areas alone, no fewer sheets could hold what was asked for. */
    leastSheets: leastSheets(wish),
    tries,
    seconds: rounded(took, 1),
    seed,
  };
}

function rectangle(wide: number, high: number) {
  return new PathBuilder().moveTo(0, 0).lineTo(wide, 0).lineTo(wide, high).lineTo(0, high).close().build();
}

function rounded(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}

function numbered(file: string, number: number): string {
  const ending = extname(file);
  return `${file.slice(0, file.length - ending.length)}-${number}${ending}`;
}

function sheetWord(word: string): { wide: number; high: number } {
  const [wide, high, ...more] = word.split(/[x×]/).map((part) => parseLength(part.trim(), 'mm'));
  if (more.length === 0 && wide?.ok && high?.ok && wide.value > 0 && high.value > 0)
    return { wide: wide.value, high: high.value };
  throw new Unusable(`--sheet must be a width and a height, such as 600x400, and not “${word}”.`);
}

function distanceWord(option: string, word: string): number {
  const length = parseLength(word, 'mm');
  if (length.ok && length.value >= 0) return length.value;
  throw new Unusable(`${option} must be 0 or a length such as 2mm, and not “${word}”.`);
}

function countWord(word: string): number | null {
  if (word === 'fit') return null;
  const count = Number(word);
  if (Number.isInteger(count) && count > 0 && count <= 1000) return count;
  throw new Unusable(`--count must be a whole number from 1 to 1000, or fit, and not “${word}”.`);
}

function numberWord(option: string, word: string): number {
  const value = Number(word);
  if (word.trim() !== '' && Number.isFinite(value) && value >= 0) return value;
  throw new Unusable(`${option} must be a number from 0 on, and not “${word}”.`);
}
