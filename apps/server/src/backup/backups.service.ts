import { existsSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { BackupFile } from '@lambent/contracts';
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { SettingsService } from '../settings/settings.service.ts';
import type { BackupAnswer } from './backup-thread.ts';
import { backupsIn, isBackupName, keptBackups, nightName, outOfDate } from './kept-backups.ts';

/** How often it is looked whether a night's copy is due. */
const lookEveryMs = 10 * 60_000;
/** A night's copy is made from this hour on. */
const nightHour = 2;

/** Makes the backups of the shop, in its data folder: one each night, and more when asked. */
@Injectable()
export class BackupsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger('Backups');
  private timer: NodeJS.Timeout | null = null;
  private making: Promise<unknown> = Promise.resolve();

  constructor(private readonly settings: SettingsService) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => {
      this.makeIfDue(new Date()).catch((error) =>
        this.log.error(`The copy of the night was not made. ${error.message}`),
      );
    }, lookEveryMs).unref();
  }

  onApplicationShutdown(): void {
    if (this.timer) clearInterval(this.timer);
  }

  /** The backups that there are, the last one first. */
  list(): BackupFile[] {
    return keptBackups(config.dataFolder).map(({ name, madeAt, bytes }) => ({
      name,
      madeAt: madeAt.toISOString(),
      bytes,
    }));
  }

  /** @returns the path of a backup @throws PlainError 404 */
  fileOf(name: string): string {
    const file = join(backupsIn(config.dataFolder), name);
    if (!isBackupName(name) || !existsSync(file)) throw notFound('backup');
    return file;
  }

  /** Makes a backup now. @throws PlainError 507 with why there is none */
  async make(now: Date, what = 'shop'): Promise<BackupFile> {
    const name = `${what}-${now.toISOString().replaceAll(/[:.]/g, '-').slice(0, 23)}.tar.gz`;
    await this.makeFile(name);
    return this.list().find((backup) => backup.name === name) as BackupFile;
  }

  /** Makes the copy of the night where it is due, and lets those go that are older than they are kept. */
  async makeIfDue(now: Date): Promise<void> {
    const { backupDays, isDemo } = await this.settings.get();
    const name = nightName(now);
    const folder = backupsIn(config.dataFolder);
    if (backupDays === 0 || isDemo || now.getHours() < nightHour || existsSync(join(folder, name))) return;
    await this.makeFile(name);
    // Only after there is a newer one.
    const names = keptBackups(config.dataFolder).map((kept) => kept.name);
    for (const old of outOfDate(names, backupDays, now)) await rm(join(folder, old), { force: true });
  }

  private async makeFile(name: string): Promise<void> {
    const next = this.making.then(() => inThread(join(backupsIn(config.dataFolder), name)));
    this.making = next.catch(() => {});
    const answer = await next;
    if ('refused' in answer) throw new PlainError(507, 'no-backup', answer.refused);
  }
}

function inThread(file: string): Promise<BackupAnswer> {
  const workerData = { dataFolder: config.dataFolder, file };
  return new Promise((resolve, reject) => {
    const thread = new Worker(new URL('./backup-thread.js', import.meta.url), { workerData });
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', () => reject(new Error('The backup ended without an answer.')));
  });
}
