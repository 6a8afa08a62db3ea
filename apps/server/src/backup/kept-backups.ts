import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { readArchive } from './archive.ts';

/** A backup that lies in the data folder. */
export interface KeptBackup {
  readonly name: string;
  readonly madeAt: Date;
  readonly bytes: number;
}

const night = /^night-(\d{4})-(\d\d)-(\d\d)\.tar\.gz$/;

/** Where the backups lie that Lambent makes by itself. */
export function backupsIn(dataFolder: string): string {
  return join(dataFolder, 'backups');
}

/** The backups in a data folder, the last one first. */
export function keptBackups(dataFolder: string): KeptBackup[] {
  const folder = backupsIn(dataFolder);
  let names: string[];
  try {
    names = readdirSync(folder).filter((name) => isBackupName(name));
  } catch {
    return [];
  }
  const kept = names.flatMap((name) => {
    const stats = statSync(join(folder, name), { throwIfNoEntry: false });
    return stats ? [{ name, madeAt: stats.mtime, bytes: stats.size }] : [];
  });
  return kept.sort((a, b) => b.madeAt.getTime() - a.madeAt.getTime());
}

/** Whether that can be the name of a backup, and of nothing outside its folder. */
export function isBackupName(name: string): boolean {
  return /^[A-Za-z0-9-]+\.tar\.gz$/.test(name);
}

/** The name of a night's backup, by the day as clocks here show it. */
export function nightName(day: Date): string {
  const two = (value: number) => String(value).padStart(2, '0');
  return `night-${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}.tar.gz`;
}

/** The backups of nights that are older than they are kept. @param days for so many days */
export function outOfDate(names: readonly string[], days: number, today: Date): string[] {
  const first = new Date(today.getFullYear(), today.getMonth(), today.getDate() - days);
  return names.filter((name) => {
    const [, year, month, day] = night.exec(name) ?? [];
    return year !== undefined && new Date(Number(year), Number(month) - 1, Number(day)) <= first;
  });
}

/** The last backup in a data folder that can be read whole; null where there is none. */
export async function lastGoodBackup(dataFolder: string): Promise<string | null> {
  for (const { name } of keptBackups(dataFolder)) {
    const file = join(backupsIn(dataFolder), name);
    const isGood = await readArchive(file, null).then(
      () => true,
      () => false,
    );
    if (isGood) return file;
  }
  return null;
}
