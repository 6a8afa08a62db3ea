import { spawnSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, rmdirSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Whether this user may make a disk in memory; tests of full disks are skipped (and say so) where not. */
export const canMakeDisks = triesToMount();

function triesToMount(): boolean {
  const folder = mkdtempSync(join(tmpdir(), 'lambent-mount-'));
  const isMounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=1m', 'tmpfs', folder]).status === 0;
  if (isMounted) spawnSync('umount', ['-l', folder]);
  rmdirSync(folder);
  return isMounted;
}

/** @returns false when there is no room for it */
function writes(file: number, bytes: Uint8Array): boolean {
  try {
    return writeSync(file, bytes) === bytes.length;
  } catch (error) {
    if ((error as { code?: string }).code === 'ENOSPC') return false;
    throw error;
  }
}

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
    const chunk = Buffer.alloc(64 * 1024);
    const file = openSync(this.ballast, 'w');
    try {
      // Others write at the same time: what is free is found by trying.
      for (let size = chunk.length; size >= 1; size = size === 1 ? 0 : Math.ceil(size / 16)) {
        while (writes(file, chunk.subarray(0, size)));
      }
    } finally {
      closeSync(file);
    }
  }

  makeRoom(): void {
    rmSync(this.ballast, { force: true });
  }

  close(): void {
    spawnSync('umount', ['-l', this.folder]);
    rmdirSync(this.folder);
  }
}
