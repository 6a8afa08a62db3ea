import { createHash } from 'node:crypto';
import { type ColourKey, keyFromJson } from '@lambent/core/colours';
import { type JobJson, jobFromJson } from '@lambent/core/document';
import { FileRefused, sniffFormat } from '@lambent/core/formats';
import { type Machine, machineFromJson } from '@lambent/core/machine';
import { type Material, materialFromJson } from '@lambent/core/recipes';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { type PackedVersion, packJob } from '../jobs/pack.ts';

/*
 * One job as one file: a zip of a list and what it names. The list holds the document, the machine, the colour key, and the
 * materials with their recipes for that machine; beside it lie originals, pictures and fonts, each by its SHA-256.
 */

const listName = 'job.json';
const kind = 'lambent job';
const form = 1;

/** What is unpacked of a file, at most, in bytes: more would be a mistake, or ill will. */
const mostUnpacked = 1024 * 1024 * 1024;

/** A file beside the list, as the list has it. */
interface Listed {
  readonly path: string;
  readonly sha256: string;
}

export interface ListedOriginal extends Listed {
  readonly id: number;
  readonly name: string;
}

export interface ListedPicture extends Listed {
  readonly mediaType: string;
}

export interface ListedFont extends Listed {
  readonly id: string;
  readonly family: string;
  readonly bold: boolean;
  readonly italic: boolean;
}

/** What the list says; lengths in mm. */
export interface JobFileList {
  readonly kind: typeof kind;
  readonly form: number;
  readonly title: string;
  readonly project: string;
  readonly madeAt: string;
  readonly shopName: string;
  readonly document: JobJson;
  readonly machine: Machine;
  readonly key: ColourKey;
  readonly materials: readonly Material[];
  readonly originals: readonly ListedOriginal[];
  readonly pictures: readonly ListedPicture[];
  readonly fonts: readonly ListedFont[];
}

/** A file that lies beside the list. */
export interface Piece {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** What a job's file is made of: everything but what is worked out here. */
export type JobFileParts = Omit<JobFileList, 'kind' | 'form'>;

/** Puts a job into one file. */
export function packJobFile({ parts, pieces }: { parts: JobFileParts; pieces: readonly Piece[] }): Uint8Array {
  const list: JobFileList = { kind, form, ...parts };
  const stored = pieces.map(({ path, bytes }) => [path, [bytes, { level: path.startsWith('originals/') ? 6 : 0 }]]);
  return zipSync({
    [listName]: [strToU8(JSON.stringify(list, null, 1)), { level: 6 }],
    ...Object.fromEntries(stored),
  });
}

/** A job as its file has it: checked, and packed for the database. */
export interface ReadJobFile {
  readonly list: Omit<JobFileList, 'document'>;
  readonly version: PackedVersion;
  readonly originals: readonly (ListedOriginal & { readonly bytes: Uint8Array; readonly format: string })[];
  readonly pictures: readonly (ListedPicture & { readonly bytes: Uint8Array })[];
  readonly fonts: readonly (ListedFont & { readonly bytes: Uint8Array })[];
}

/**
 * Reads the file of a job, and checks all that is in it.
 * @throws FileRefused with a sentence where it is none, is damaged, or is of a later Lambent
 */
export function readJobFile(bytes: Uint8Array): ReadJobFile {
  const files = unpacked(bytes);
  const { document, ...list } = listIn(files);
  const piece = <T extends Listed>(entry: T): T & { bytes: Uint8Array } => {
    const found = files[entry.path];
    if (!found || createHash('sha256').update(found).digest('hex') !== entry.sha256)
      throw new FileRefused(`The job’s file is damaged: ${entry.path} is not what its list says. Take it out again.`);
    return { ...entry, bytes: found };
  };
  return {
    list,
    version: packJob(checked('the document', () => jobFromJson(document))),
    originals: list.originals.map((entry) => {
      const original = piece(entry);
      const format = sniffFormat(original.bytes);
      if (typeof format !== 'string') throw new FileRefused(`${entry.name}, in the job’s file: ${format.refusal}`);
      return { ...original, format };
    }),
    pictures: list.pictures.map(piece),
    fonts: list.fonts.map(piece),
  };
}

function unpacked(bytes: Uint8Array): Record<string, Uint8Array> {
  let all = 0;
  try {
    return unzipSync(bytes, {
      filter: ({ originalSize }) => {
        all += originalSize;
        if (all > mostUnpacked)
          throw new FileRefused('The job’s file unpacks to more than a gigabyte: it is not taken.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof FileRefused) throw error;
    throw new FileRefused('This is not the file of a job, or it was cut off on its way. Take it out again.');
  }
}

function listIn(files: Record<string, Uint8Array>): JobFileList {
  let said: Partial<JobFileList> = {};
  try {
    said = JSON.parse(strFromU8(files[listName] ?? new Uint8Array()));
  } catch {
    // It is said below.
  }
  if (said?.kind !== kind) throw new FileRefused('This zip is not the file of a job of Lambent.');
  if (said.form !== form)
    throw new FileRefused('The file of this job was made by a later Lambent than this one. Bring this one up to date.');
  const { title, project, madeAt, shopName, originals, pictures, fonts, materials } = said;
  const words = [title, project, madeAt, shopName];
  const lists = [originals, pictures, fonts, materials];
  if (!words.every((word) => typeof word === 'string') || !lists.every(Array.isArray)) throw damagedList();
  const entries = [originals, pictures, fonts].flat() as Partial<Listed>[];
  if (!entries.every((entry) => typeof entry?.path === 'string' && typeof entry.sha256 === 'string'))
    throw damagedList();
  return {
    ...(said as JobFileList),
    title: (title as string).trim().slice(0, 120) || 'Untitled job',
    project: (project as string).slice(0, 120),
    machine: checked('the machine', () => machineFromJson(said.machine)),
    key: checked('the colour key', () => keyFromJson(said.key)),
    materials: checked('a material', () => (materials as unknown[]).map(materialFromJson)),
  };
}

const damagedList = () =>
  new FileRefused('The job’s file is damaged: its list says not what it should. Take it out again.');

/** Reads a part of the list; what is wrong with it is told as of the file. */
function checked<T>(what: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    throw new FileRefused(`In the job’s file, ${what} cannot be used: ${error.message.replace(/\.$/, '')}.`);
  }
}
