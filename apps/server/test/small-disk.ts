import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Whether this user may make a disk in memory; tests of full disks are skipped (and say so) where not. */
export const canMakeDisks = process.getuid?.() === 0 && process.platform === 'linux';

/** A disk of its own, of so many MB, that can be filled to the last byte and emptied again. */
export class SmallDisk {
  readonly folder = mkdtempSync(join(tmpdir(), 'lambent-disk-'));
  private readonly ballast = join(this.folder, 'ballast');

  constructor(megabytes: number) {
    const { status, stderr } = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', this.folder]);
    if (status !== 0) throw new Error(`No disk in memory: ${stderr}`);
  }

  /** Fills what is free. */
  fill(): void {
    const { bavail, bsize } = statfsSync(this.folder);
    writeFileSync(this.ballast, Buffer.alloc(bavail * bsize));
  }

  makeRoom(): void {
    rmSync(this.ballast, { force: true });
  }

  close(): void {
    spawnSync('umount', ['-l', this.folder]);
    rmdirSync(this.folder);
  }
}
