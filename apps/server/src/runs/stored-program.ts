import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type { Program } from '@lambent/machines';
import { readSeconds } from '../work/program-file.ts';

/** Where programs lie, each under its SHA-256. */
export function programsIn(dataFolder: string): string {
  return join(dataFolder, 'programs');
}

/** The file of the program that has a SHA-256. */
export function programFile(dataFolder: string, hash: string): string {
  return join(programsIn(dataFolder), `${hash}.gcode`);
}

/**
 * A program as it lies on the disk, with the seconds that each of its lines is planned to take.
 *
 * @param folder where programs lie, each under its SHA-256
 * @throws Error where the program is not there any more
 */
export async function storedProgram(
  folder: string,
  { id, programHash, lines }: { readonly id: string; readonly programHash: string; readonly lines: number },
): Promise<Program> {
  const file = join(folder, `${programHash}.gcode`);
  await stat(file);
  const seconds = await readSeconds(folder, programHash);
  return {
    runId: id,
    lines,
    async *open() {
      const input = createReadStream(file);
      try {
        let n = 0;
        for await (const text of createInterface({ input, crlfDelay: Number.POSITIVE_INFINITY }))
          yield { text, seconds: seconds[n++] ?? 0 };
      } finally {
        input.destroy();
      }
    },
  };
}
