import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { TimedLine } from '@lambent/core/plan';

/** A program as it lies on the disk: under its SHA-256, the seconds of its lines beside it. */
export interface ProgramFile {
  readonly hash: string;
  readonly lines: number;
  /** Of all its lines together. */
  readonly seconds: number;
}

/** So much of a program is written at a time, in characters. */
const chunkLength = 65_536;

/**
 * Writes a program into a folder, as its lines come.
 * @param draftName what its file is called until all of it is there
 */
export async function writeProgram(
  folder: string,
  draftName: string,
  lines: Iterable<TimedLine>,
): Promise<ProgramFile> {
  const draft = join(folder, `${draftName}.part`);
  const file = createWriteStream(draft);
  const hash = createHash('sha256');
  const seconds: number[] = [];
  let chunk = '';
  const flush = async () => {
    hash.update(chunk);
    if (!file.write(chunk)) await once(file, 'drain');
    chunk = '';
  };
  for (const line of lines) {
    chunk += `${line.text}\n`;
    seconds.push(line.seconds);
    if (chunk.length > chunkLength) await flush();
  }
  await flush();
  file.end();
  await once(file, 'close');
  const name = hash.digest('hex');
  await writeFile(join(folder, `${name}.times`), Float32Array.from(seconds));
  await rename(draft, join(folder, `${name}.gcode`));
  return { hash: name, lines: seconds.length, seconds: seconds.reduce((sum, s) => sum + s, 0) };
}

/** The seconds of the lines of a program. @throws Error where they are not there any more */
export async function readSeconds(folder: string, hash: string): Promise<Float32Array> {
  const bytes = await readFile(join(folder, `${hash}.times`));
  return new Float32Array(bytes.buffer, bytes.byteOffset, Math.floor(bytes.length / 4));
}

/** Reads a program that `writeProgram` wrote. @throws Error where it is not there any more */
export async function readProgram(folder: string, hash: string): Promise<TimedLine[]> {
  const text = await readFile(join(folder, `${hash}.gcode`), 'utf8');
  const seconds = await readSeconds(folder, hash);
  return text
    .trimEnd()
    .split('\n')
    .map((line, i) => ({ text: line, seconds: seconds[i] ?? 0 }));
}
