/** A file or a word that cannot be used; its message is one sentence for stderr. */
export class Unusable extends Error {}

/** What the operating system says of a file, in words. */
export function fileTrouble(error: unknown): string {
  const code = (error as NodeJS.ErrnoException).code;
  if (code === 'ENOENT') return 'there is no such file or folder';
  if (code === 'EACCES' || code === 'EPERM') return 'permission is denied';
  if (code === 'EISDIR') return 'it is a folder';
  if (code === 'ENOSPC') return 'the disk is full';
  return String((error as Error).message);
}
