import { open, readFile, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { buffer } from 'node:stream/consumers';
import type { Item } from '@lambent/core/document';
import {
  arrivalMap,
  arrivedItems,
  FileRefused,
  type Reading,
  readDrawingFile,
  shownBounds,
} from '@lambent/core/formats';
import { boxHeight, boxWidth } from '@lambent/core/geometry';
import { shippedTools } from '@lambent/fonts';
import { lengthWord } from './length-word.ts';
import { fileTrouble, Unusable } from './unusable.ts';

/** What the arrival card asks on the Bench, as words on the command line. */
export interface ReadingOptions {
  page?: string;
  unit?: string;
  width?: string;
  height?: string;
  dashes?: boolean;
}

/** A drawing as read, at the size that was asked for. */
export interface ReadDrawing {
  readonly reading: Reading;
  readonly items: readonly Item[];
}

/**
 * Reads a drawing of any format that is taken, at the size its file gives or the words ask for.
 * @throws Unusable when the file or the words cannot be used
 */
export async function readDrawing(path: string, options: ReadingOptions): Promise<ReadDrawing> {
  const bytes = await readBytes(path);
  const page = options.page === undefined ? undefined : Number(options.page);
  if (page !== undefined && !(Number.isInteger(page) && page > 0)) {
    throw new Unusable(`--page must be a page’s number, counted from 1, and not “${options.page}”.`);
  }
  const choices = { ...(page ? { page } : {}), ...(options.dashes ? { dashes: 'dashed' as const } : {}) };
  let reading: Reading;
  try {
    reading = await readDrawingFile(new Uint8Array(bytes), (place) => `i${place}`, shippedTools(), choices);
  } catch (error) {
    if (error instanceof FileRefused) throw new Unusable(`${spoken(path)}: ${error.message}`);
    throw error;
  }
  const map = arrivalMap(reading, factorFor(reading, options), { kind: 'as-in-file' });
  return { reading, items: arrivedItems(reading.drawing.items, map) };
}

/** A note on reading as a line of output, with how often it holds. */
export function noteLine({ message, count }: { message: string; count: number }): string {
  return count > 1 ? `${count} × ${message}` : message;
}

const unitsInMm: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 };

/** How much larger than read: by the unit the file was drawn in, or by a known width or height of the whole. */
function factorFor(reading: Reading, { unit, width, height }: ReadingOptions): number {
  if ([unit, width, height].filter((word) => word !== undefined).length > 1) {
    throw new Unusable('Give one of --unit, --width and --height: each of them sets the size by itself.');
  }
  if (unit !== undefined) {
    const mm = unitsInMm[unit] ?? (/^\d+$/.test(unit) ? 25.4 / Number(unit) : undefined);
    if (!mm) throw new Unusable(`--unit may be mm, cm, m, in, ft or units to the inch such as 96, and not “${unit}”.`);
    return mm / reading.size.mmPerUnit;
  }
  const [word, side] = width !== undefined ? [width, boxWidth] : [height, boxHeight];
  if (word === undefined) return 1;
  const name = width !== undefined ? '--width' : '--height';
  const wanted = lengthWord(name, word, 'a length such as 120mm or 4 3/4in');
  const found = side(shownBounds(reading));
  if (!(found > 0)) throw new Unusable(`The drawing has no extent that way, so ${name} cannot set its size.`);
  return wanted / found;
}

/** Names standard input where something is read, and standard output where it is written. */
export const standard = '-';

/** What a file is called where it is spoken of. */
export function nameOf(file: string): string {
  return file === standard ? spoken(file) : basename(file);
}

/** A file as it was named, or what stands for it in a sentence. */
export function spoken(file: string, stream: 'standard input' | 'standard output' = 'standard input'): string {
  return file === standard ? stream : file;
}

let input: Promise<Buffer> | null = null;

/** A file, or standard input, which can be asked for more than once. */
export async function readBytes(path: string): Promise<Buffer> {
  if (path === standard) {
    input ??= buffer(process.stdin);
    return input;
  }
  try {
    return await readFile(path);
  } catch (error) {
    throw new Unusable(`${path} cannot be read: ${fileTrouble(error)}.`);
  }
}

/** Says lines to the operator: on standard error where standard output holds a file. */
export function sayTo(isOutTaken: boolean): (line: string) => void {
  const out = isOutTaken ? process.stderr : process.stdout;
  return (line) => void out.write(`${line}\n`);
}

/** Writes a file, or standard output for `-`. @throws Unusable where that cannot be done */
export async function write(path: string, content: string | Uint8Array): Promise<void> {
  if (path === standard) return toStandardOutput(content);
  try {
    await writeFile(path, content);
  } catch (error) {
    throw new Unusable(`${path} cannot be written: ${fileTrouble(error)}.`);
  }
}

/** Waits until it is taken: a reader may be slower than we are. */
function toStandardOutput(content: string | Uint8Array): Promise<void> {
  return new Promise((resolve, reject) => {
    process.stdout.write(content, (error) => (error ? reject(error) : resolve()));
  });
}

/** Writes lines as they are made, some 64 KB at a time. */
export async function writeLines(path: string, lines: Iterable<string>): Promise<void> {
  if (path === standard) {
    for (const line of lines) await toStandardOutput(`${line}\n`);
    return;
  }
  try {
    const handle = await open(path, 'w');
    try {
      let chunk = '';
      for (const line of lines) {
        chunk += `${line}\n`;
        if (chunk.length > 65536) {
          await handle.write(chunk);
          chunk = '';
        }
      }
      await handle.write(chunk);
    } finally {
      await handle.close();
    }
  } catch (error) {
    throw new Unusable(`${path} cannot be written: ${fileTrouble(error)}.`);
  }
}
