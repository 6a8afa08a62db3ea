import { acceptedFiles } from '../bench/arriving/accepted.ts';
import { t } from '../words/words.ts';

export interface DroppedFiles {
  /** By their paths. */
  readonly files: readonly File[];
  /** The folder that was dropped; null where files were, or several folders. */
  readonly folder: string | null;
  /** How many files of folders are no drawings or pictures. */
  readonly leftOut: number;
}

const kinds = new Set(acceptedFiles.split(',').filter((kind) => kind.startsWith('.')));

/** Whether a file’s name says that it is a drawing or a picture. */
function isDrawing({ name }: File): boolean {
  return kinds.has(name.slice(name.lastIndexOf('.')).toLowerCase());
}

/**
 * The files that were dropped. Of folders, those in them that are drawings or pictures by their names; a file that was
 * dropped by itself is always among them, and is read or refused by what is in it.
 */
export async function filesOfDrop({ items, files }: Pick<DataTransfer, 'items' | 'files'>): Promise<DroppedFiles> {
  // What is dropped can be asked for only until the first wait.
  const dropped = Array.from(items)
    .filter(({ kind }) => kind === 'file')
    .map((item) => item.webkitGetAsEntry?.() ?? null);
  const folders = dropped.filter((entry): entry is FileSystemDirectoryEntry => entry?.isDirectory === true);
  if (folders.length === 0) return { files: Array.from(files), folder: null, leftOut: 0 };
  const alone: File[] = [];
  for (const entry of dropped) if (entry?.isFile) alone.push(await fileOf(entry as FileSystemFileEntry));
  const found: File[] = [];
  for (const folder of folders) for (const entry of await inFolder(folder)) found.push(await fileOf(entry));
  const drawings = found.filter(isDrawing);
  return {
    files: [...alone, ...drawings],
    folder: folders.length === 1 && alone.length === 0 ? folders[0].name : null,
    leftOut: found.length - drawings.length,
  };
}

function fileOf(entry: FileSystemFileEntry): Promise<File> {
  return new Promise((resolve, reject) => entry.file(resolve, reject));
}

/** The files in a folder and the folders in it, by their paths; hidden ones are no one’s work. */
async function inFolder(folder: FileSystemDirectoryEntry): Promise<FileSystemFileEntry[]> {
  const reader = folder.createReader();
  const entries: FileSystemEntry[] = [];
  for (;;) {
    const more = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (more.length === 0) break;
    entries.push(...more);
  }
  entries.sort((a, b) => a.fullPath.localeCompare(b.fullPath, 'en', { numeric: true }));
  const found: FileSystemFileEntry[] = [];
  for (const entry of entries) {
    if (entry.name.startsWith('.')) continue;
    if (entry.isDirectory) found.push(...(await inFolder(entry as FileSystemDirectoryEntry)));
    else found.push(entry as FileSystemFileEntry);
  }
  return found;
}

/** A file’s name without its ending, as the title of a job. */
export function titleFrom(name: string): string {
  return name.replace(/(?<=.)\.[^.]*$/, '').slice(0, 120) || t('Untitled job');
}
