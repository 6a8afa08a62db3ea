import { fileURLToPath } from 'node:url';
import { jobSource, type ReportSource } from '@lambent/core/checks';
import { type ColourKey, keyFromText, NotAKey } from '@lambent/core/colours';
import { findRun, type JobDocument, jobFromJson, NotADrawing, newJob, type Run } from '@lambent/core/document';
import { addItems, setSheet } from '@lambent/core/edits';
import { type PictureFile, warningsOf } from '@lambent/core/formats';
import { NotAShop, type Shop, sheetAsStocked, shopFromJson } from '@lambent/core/recipes';
import { nameOf, type ReadingOptions, readBytes, readDrawing, spoken, standard } from './files.ts';
import { lengthWord } from './length-word.ts';
import { Unusable } from './unusable.ts';

/** The shop that is taken where none is named. */
export const demoShop = fileURLToPath(new URL('../../../demo/shop.json', import.meta.url));

/** What a drawing is laid on, and burnt with. */
export interface OpeningOptions extends ReadingOptions {
  machine?: string;
  key?: string;
  material?: string;
  thickness?: string;
}

/** What is to be planned: a job, and where it came from. */
export interface Opened {
  readonly job: JobDocument;
  readonly source: ReportSource;
  readonly pictures: ReadonlyMap<string, PictureFile>;
}

/** A drawing on a sheet of the material that was asked for, or a stored job as it is. */
export async function openFile(file: string, options: OpeningOptions, shop: Shop): Promise<Opened> {
  if (await isJob(file)) return openJob(file, options);
  const machine = choose(shop.machines, options.machine, 'machine');
  const material = choose(shop.materials, options.material, 'material');
  const { reading, items } = await readDrawing(file, options);
  const sheet = { ...sheetAsStocked('sheet-1', material, machine), ...measuredThickness(options.thickness) };
  return {
    job: setSheet(addItems(newJob(machine.id, shop.keys[0].id), items, reading.drawing.groups), sheet),
    source: {
      file: nameOf(file),
      format: reading.format,
      declaredWidthMm: reading.size.pageWidthMm,
      declaredHeightMm: reading.size.pageHeightMm,
      itemCount: items.filter((item) => !item.hidden).length,
      warnings: warningsOf(reading),
    },
    pictures: new Map(reading.pictures.map((picture): [string, PictureFile] => [picture.id, picture])),
  };
}

function measuredThickness(word: string | undefined): { thicknessMm?: number } {
  if (word === undefined) return {};
  return { thicknessMm: lengthWord('--thickness', word, 'a length such as 3.8mm') };
}

/** Whether it is a stored job: by its name, or what comes from standard input by how it begins. */
async function isJob(file: string): Promise<boolean> {
  if (file !== standard) return file.endsWith('.json');
  return /^\s*\{/.test((await readBytes(file)).subarray(0, 100).toString('utf8'));
}

/** A job as the server gives it at `/api/jobs/:id`. */
async function openJob(file: string, { machine }: OpeningOptions): Promise<Opened> {
  try {
    const json: unknown = JSON.parse((await readBytes(file)).toString('utf8'));
    const document = typeof json === 'object' && json !== null && 'document' in json ? json.document : json;
    const job = jobFromJson(document);
    const source = jobSource(nameOf(file), job);
    return { job: machine ? { ...job, machineId: machine } : job, source, pictures: new Map() };
  } catch (error) {
    if (error instanceof SyntaxError) throw new Unusable(`${spoken(file)} is not JSON: ${error.message}.`);
    if (error instanceof NotADrawing) throw new Unusable(`${spoken(file)} is not a job: ${error.message}.`);
    throw error;
  }
}

/** A key of the shop by its id, or one from a file. */
export async function chooseKey(shop: Shop, wanted: string | undefined): Promise<ColourKey> {
  const known = shop.keys.find(({ id }) => id === wanted);
  if (wanted === undefined || known) return known ?? shop.keys[0];
  if (!/[./\\]/.test(wanted)) return choose(shop.keys, wanted, 'colour key');
  try {
    return keyFromText((await readBytes(wanted)).toString('utf8'));
  } catch (error) {
    if (error instanceof NotAKey) throw new Unusable(`${wanted}: ${error.message}`);
    throw error;
  }
}

/** A run by its name or id; a drawing has one run, `Run 1`. */
export function runNamed(runs: readonly Run[], wanted: string | undefined): Run {
  const found = findRun(runs, wanted);
  if (!found) {
    throw new Unusable(`There is no run “${wanted}”; there is ${runs.map(({ name }) => `“${name}”`).join(', ')}.`);
  }
  return found;
}

/** The one of an id, or the first where none is named. @throws Unusable where there is none */
export function choose<T extends { id: string }>(all: readonly T[], id: string | undefined, what: string): T {
  const chosen = id === undefined ? all[0] : all.find((entry) => entry.id === id);
  if (!chosen) {
    throw new Unusable(`The shop has no ${what} “${id}”; it has ${all.map((entry) => entry.id).join(', ')}.`);
  }
  return chosen;
}

/** A shop file. @throws Unusable where it cannot be read, or is none */
export async function readShop(path: string): Promise<Shop> {
  const text = await readBytes(path);
  try {
    return shopFromJson(JSON.parse(text.toString('utf8')));
  } catch (error) {
    if (error instanceof NotAShop) throw new Unusable(`${path}: ${error.message}`);
    if (error instanceof SyntaxError) throw new Unusable(`${path} is not JSON: ${error.message}.`);
    throw error;
  }
}

/** Says which machine, key and material a drawing got because none was named; null where all were, and for a stored job. */
export function defaultsInWords(
  { machine, key, material }: OpeningOptions,
  job: Pick<JobDocument, 'machineId' | 'keyId' | 'sheets'>,
  { format }: Pick<ReportSource, 'format'>,
): string | null {
  if (format === 'job') return null;
  const taken = [
    machine === undefined && `--machine ${job.machineId}`,
    key === undefined && `--key ${job.keyId}`,
    material === undefined && job.sheets[0] && `--material ${job.sheets[0].materialId}`,
  ].filter((word) => typeof word === 'string');
  return taken.length === 0 ? null : `not named, so the shop’s first: ${taken.join(' ')}`;
}
