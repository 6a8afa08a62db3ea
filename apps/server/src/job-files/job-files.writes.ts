import { type ColourKey, keyToJson } from '@lambent/core/colours';
import type { Machine } from '@lambent/core/machine';
import { type Material, type Recipe, thicknessOf } from '@lambent/core/recipes';
import { MaterialEntity } from '../book/book.entities.ts';
import { addMaterial, addRecipe } from '../book/book.writes.ts';
import { ColourKeyEntity } from '../colour-keys/colour-key.entity.ts';
import { PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { keepFont, keepPicture } from '../files/files.writes.ts';
import { VersionEntity } from '../jobs/job.entities.ts';
import { addJob, keepOriginal } from '../jobs/jobs.writes.ts';
import { MachineEntity } from '../machines/machine.entity.ts';
import type { ReadJobFile } from './job-file.ts';

/** Whom a job's file comes in for. */
export interface TakingIn {
  readonly id: string;
  readonly by: string;
  /** A machine of the shop; null for the one that the job was made for. */
  readonly machineId: string | null;
}

/**
 * Puts a job on the Desk as its file has it, with what of it the shop has not: all of it, or nothing.
 * What the shop has stays as it is. Recipes come as copied, and only for the machine that they were made for.
 * @returns in sentences what came along, and what did not
 */
export async function takeJobFile(writing: Writing, file: ReadJobFile, taking: TakingIn): Promise<string[]> {
  const notes: string[] = [];
  const { list, version } = file;
  const machine = await machineFor(writing, list.machine, taking.machineId, notes);
  const keyId = await keyFor(writing, list.key, list.title, notes);
  for (const material of list.materials) await takeMaterial(writing, material, machine, list.machine, taking.by, notes);
  for (const picture of file.pictures) await keepPicture(writing, { ...picture, id: picture.sha256 });
  for (const { path: _, sha256: __, ...font } of file.fonts) await keepFont(writing, font);
  await addJob(writing, { id: taking.id, title: list.title, project: list.project }, version, 'From a file', []);
  const ids = new Map<number, number>();
  for (const { id, name, format, sha256, bytes } of file.originals)
    ids.set(id, await keepOriginal(writing, taking.id, { name, format, sha256, bytes }));
  // What was brought in names its file by the number that it has here.
  const arrivals = version.settings.arrivals.map((arrival) => ({
    ...arrival,
    originalId: arrival.originalId === null ? null : (ids.get(arrival.originalId) ?? null),
  }));
  const isElsewhere = machine.id !== list.machine.id;
  if (isElsewhere && Object.keys(version.settings.settings).length > 0)
    notes.push(`What was typed by hand for ${list.machine.name} was left out.`);
  const byHand = isElsewhere ? { settings: {} } : {};
  const settings = { ...version.settings, ...byHand, machineId: machine.id, keyId, arrivals };
  await writing.update(VersionEntity, { jobId: taking.id }, { settings });
  return notes;
}

async function machineFor(
  writing: Writing,
  made: Machine,
  chosen: string | null,
  notes: string[],
): Promise<{ id: string; name: string }> {
  const rows = await writing.find(MachineEntity);
  const known = rows.find(({ id }) => id === (chosen ?? made.id));
  if (known) {
    const { name } = known.definition;
    if (known.id !== made.id)
      notes.push(`It was made for ${made.name}, and is for ${name} now: see what no longer fits.`);
    return { id: known.id, name };
  }
  if (chosen !== null)
    throw new PlainError(
      400,
      'no-such-machine',
      'The machine that was chosen is not the shop’s any more. Choose another.',
    );
  const taken = rows.some(({ definition }) => definition.name.toLowerCase() === made.name.toLowerCase());
  const name = taken ? `${made.name}, from elsewhere`.slice(0, 60) : made.name;
  const definition: Machine = { ...made, name, connection: null };
  await writing.insert(MachineEntity, { id: made.id, position: rows.length, definition });
  notes.push(`${name} was added to the machines, and is not connected.`);
  return { id: made.id, name };
}

async function keyFor(writing: Writing, key: ColourKey, title: string, notes: string[]): Promise<string> {
  const rows = await writing.find(ColourKeyEntity);
  const meaning = ({ id: _, name: __, ...rest }: ColourKey) => JSON.stringify(keyToJson({ ...rest, id: '', name: '' }));
  const same = rows.filter(({ definition }) => meaning(definition) === meaning(key));
  const known = same.find(({ id }) => id === key.id) ?? same[0];
  if (known) return known.id;
  const isFree = rows.every(({ id }) => id !== key.id);
  const id = isFree ? key.id : `${key.id}-${crypto.randomUUID().slice(0, 8)}`;
  const name = (isFree ? key.name : `${key.name}, from ${title}`).slice(0, 120);
  await writing.insert(ColourKeyEntity, { id, position: rows.length, definition: { ...key, id, name } });
  notes.push(`“${name}” was added to the colour keys.`);
  return id;
}

async function takeMaterial(
  writing: Writing,
  material: Material,
  machine: { id: string; name: string },
  made: Machine,
  author: string,
  notes: string[],
): Promise<void> {
  const name = `${material.name} ${thicknessOf(material)} mm`;
  if (await writing.existsBy(MaterialEntity, { id: material.id })) return;
  const { recipes, stock: _, version: __, ...rest } = material;
  await addMaterial(writing, author, { ...rest });
  const usable = machine.id === made.id ? recipes.filter(({ archived }) => !archived) : [];
  for (const { id: _id, version: _version, ...recipe } of usable as (Recipe & { id?: number; version?: number })[])
    await addRecipe(writing, author, material.id, { ...recipe, evidence: 'copied', proof: undefined });
  const left = recipes.length - usable.length;
  const came = usable.length > 0 ? `, with ${usable.length} recipes as copied` : '';
  const stayed = left > 0 ? `, without ${left} recipes that are for ${made.name}` : '';
  notes.push(`${name} was added to the recipe book${came}${stayed}.`);
}
