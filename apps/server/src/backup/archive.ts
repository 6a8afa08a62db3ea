import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, open, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { extract, pack } from 'tar-stream';
import { BackupRefused } from './backup-refused.ts';

/*
 * A backup is one file: a gzipped tar whose first entry, `manifest.json`, says what the others must be.
 */

/** One file of a backup, by its place in the data folder. */
interface ArchivedFile {
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** What a backup holds, and when it was made. */
export interface Manifest {
  readonly kind: 'lambent backup';
  readonly form: 1;
  readonly madeAt: string;
  readonly files: readonly ArchivedFile[];
}

const manifestName = 'manifest.json';
/** What can be in a data folder that a backup takes along; nothing else is written where it is restored. */
const known = /^(lambent\.sqlite|programs\/[0-9a-f]{64}\.(gcode|times))$/;

/** Writes files of a folder into an archive, by their paths in it. */
export async function writeArchive(
  file: string,
  folder: string,
  paths: readonly string[],
  madeAt: Date,
): Promise<Manifest> {
  const files = [];
  for (const path of paths) {
    const { size: bytes } = await stat(join(folder, path));
    files.push({ path, bytes, sha256: await hashOf(join(folder, path)) });
  }
  const manifest: Manifest = { kind: 'lambent backup', form: 1, madeAt: madeAt.toISOString(), files };
  const tar = pack();
  const written = pipeline(tar, createGzip(), createWriteStream(file, { flags: 'wx' }));
  tar.entry({ name: manifestName }, JSON.stringify(manifest, null, 2));
  const filled = (async () => {
    for (const { path, bytes } of files)
      await pipeline(createReadStream(join(folder, path)), tar.entry({ name: path, size: bytes }));
    tar.finalize();
  })();
  await Promise.all([written, filled]);
  const handle = await open(file, 'r+');
  await handle.sync();
  await handle.close();
  return manifest;
}

async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/**
 * Reads an archive through, and holds every file in it against what the manifest says.
 *
 * @param folder where its files are written; null to look only.
 * @throws BackupRefused where it is no backup, or is damaged or cut off.
 */
export async function readArchive(file: string, folder: string | null): Promise<Manifest> {
  let manifest: Manifest | null = null;
  const found = new Set<string>();
  const tar = extract();
  try {
    const read = pipeline(createReadStream(file), createGunzip(), tar);
    const taken = (async () => {
      for await (const entry of tar) {
        const { name } = entry.header;
        const bytes = entry as AsyncIterable<Buffer>;
        if (!manifest) {
          manifest = manifestFrom(name, await textOf(bytes), file);
          continue;
        }
        const wanted = manifest.files.find(({ path }) => path === name);
        const same = await written(bytes, folder && wanted ? join(folder, name) : null);
        if (!wanted || same.bytes !== wanted.bytes || same.sha256 !== wanted.sha256) throw damaged(file);
        found.add(name);
      }
    })();
    await Promise.all([read, taken]);
  } catch (error) {
    if (error instanceof BackupRefused) throw error;
    const code = (error as NodeJS.ErrnoException).code ?? '';
    if (code === 'ENOENT') throw new BackupRefused(`There is no file ${file}.`);
    if (code === '' || code.startsWith('Z_') || code.startsWith('ERR_STREAM'))
      throw manifest ? damaged(file) : notOurs(file);
    throw error;
  }
  const whole: Manifest | null = manifest;
  if (!whole) throw notOurs(file);
  if ((whole as Manifest).files.some(({ path }) => !found.has(path))) throw damaged(file);
  return whole;
}

const damaged = (file: string) =>
  new BackupRefused(`${file} is damaged or cut off: take another backup. Nothing was changed.`);
const notOurs = (file: string) => new BackupRefused(`${file} is no backup of Lambent. Nothing was changed.`);

/** @throws BackupRefused where it is none that this version knows. */
function manifestFrom(name: string, text: string, file: string): Manifest {
  let said: Partial<Manifest> = {};
  try {
    if (name === manifestName) said = JSON.parse(text);
  } catch {
    throw damaged(file);
  }
  if (said.kind !== 'lambent backup' || !Array.isArray(said.files)) throw notOurs(file);
  if (said.form !== 1) {
    throw new BackupRefused(
      `${file} was made by a later Lambent than this one: restore it with that one. Nothing was changed.`,
    );
  }
  if (!said.files.every(({ path }) => typeof path === 'string' && known.test(path))) throw damaged(file);
  return said as Manifest;
}

async function textOf(entry: AsyncIterable<Buffer>): Promise<string> {
  const parts: Buffer[] = [];
  for await (const part of entry) parts.push(part);
  return Buffer.concat(parts).toString('utf8');
}

/** Takes an entry to its end, and writes it to a file where one is given. */
async function written(entry: AsyncIterable<Buffer>, path: string | null): Promise<{ bytes: number; sha256: string }> {
  const hash = createHash('sha256');
  let bytes = 0;
  const counted = async function* () {
    for await (const part of entry) {
      hash.update(part);
      bytes += part.length;
      yield part;
    }
  };
  if (path) await mkdir(dirname(path), { recursive: true });
  const nowhere = new Writable({ write: (_part, _encoding, done) => done() });
  await pipeline(counted, path ? createWriteStream(path, { flags: 'wx' }) : nowhere);
  return { bytes, sha256: hash.digest('hex') };
}
