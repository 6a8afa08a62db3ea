import { parentPort, workerData } from 'node:worker_threads';
import { backUp } from './backup.ts';

/*
 * The thread that makes one backup: copying and checking a large database takes seconds, in which others are answered.
 */

/** What became of a backup: what it came to, or the sentence that says why there is none. */
export type BackupAnswer = { readonly made: Awaited<ReturnType<typeof backUp>> } | { readonly refused: string };

const { dataFolder, file } = workerData as { dataFolder: string; file: string };
try {
  parentPort?.postMessage({ made: await backUp(dataFolder, file) } satisfies BackupAnswer);
} catch (error) {
  if (!(error as Error).name.endsWith('Refused')) throw error;
  parentPort?.postMessage({ refused: (error as Error).message } satisfies BackupAnswer);
}
