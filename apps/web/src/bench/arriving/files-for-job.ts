/** Files that were dropped before their job was open, by its id. */
const waiting = new Map<string, readonly File[]>();

/** Keeps files for a job that is about to be opened. */
export function keepFilesFor(jobId: string, files: readonly File[]): void {
  waiting.set(jobId, files);
}

/** Takes the files that were kept for a job; none the second time. */
export function takeFilesFor(jobId: string): readonly File[] {
  const files = waiting.get(jobId) ?? [];
  waiting.delete(jobId);
  return files;
}
