import {
  asList,
  asNumber,
  asRecord,
  asText,
  asTextOrNull,
  NotADrawing,
  oneOf,
  readBy,
} from '../document/json-parts.ts';
import { fitNames } from '../document/ties.ts';
import type { Operation } from '../operations/operation.ts';
import type { Schema } from '../schema/schema.ts';
import { allSettings, type LayerSettings, readSettings } from '../settings/settings.ts';
import { type Figure, type FigureSource, figureSources } from './figures.ts';
import type { Evidence, Material, Proof, Recipe } from './shop.ts';
import type { StockedSheet } from './stock.ts';

/*
 * The book as JSON, complete: what an export writes and an import takes, and how one material or recipe is sent.
 */

/** Says what in sent or read JSON is no book, material or recipe. */
export class NotABook extends Error {
  override readonly name = 'NotABook';
}

/** What burns; guides and notes have no recipes. */
export const burntOperations: readonly Operation[] = ['cut', 'score', 'engrave'];
export const evidences: readonly Evidence[] = ['proven', 'copied', 'worked out'];

const format = 'lambent-book';

/** A whole book as text. */
export function bookToText(materials: readonly Material[]): string {
  return `${JSON.stringify({ format, version: 1, materials }, null, 2)}\n`;
}

/**
 * A book from text.
 * @throws NotABook with one sentence that names the place
 */
export function bookFromText(text: string): Material[] {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new NotABook(`It is not JSON: ${(error as Error).message}.`);
  }
  return checked(() => {
    const book = asRecord(json, 'the book');
    if (book.format !== format) throw new NotADrawing(`format must be “${format}”`);
    if (book.version !== 1) throw new NotADrawing('version must be 1: it was written by a later Lambent');
    const materials = asList(book.materials, 'materials').map((material, i) =>
      materialAt(material, `material ${i + 1}`),
    );
    const ids = new Set<string>();
    for (const { id } of materials) {
      if (ids.has(id)) throw new NotADrawing(`two materials have the id “${id}”`);
      ids.add(id);
    }
    return materials;
  });
}

/** @throws NotABook with one sentence that names the place */
export function materialFromJson(json: unknown): Material {
  return checked(() => materialAt(json, 'the material'));
}

/** @throws NotABook with one sentence that names the place */
export function recipeFromJson(json: unknown): Recipe {
  return checked(() => recipeAt(json, 'the recipe'));
}

function checked<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof NotADrawing) throw new NotABook(`${error.message[0].toUpperCase()}${error.message.slice(1)}.`);
    throw error;
  }
}

function materialAt(json: unknown, where: string): Material {
  const record = asRecord(json, where);
  const id = asText(record.id, `${where}: id`);
  const named = `“${id}”`;
  const length = (name: string) => within(record[name], `${named}: ${name}`, Number.MIN_VALUE, 10_000);
  const text = (name: string) =>
    record[name] === undefined ? {} : { [name]: asText(record[name], `${named}: ${name}`) };
  if (!/^[a-z0-9][a-z0-9-]{0,79}$/.test(id)) {
    throw new NotADrawing(`${where}: id must be small letters, figures and hyphens, and not “${id}”`);
  }
  if (!/^#[0-9A-Fa-f]{6}$/.test(String(record.tone))) throw new NotADrawing(`${named}: tone must be like #D0481E`);
  const name = asText(record.name, `${named}: name`).trim();
  if (name === '' || name.length > 80) throw new NotADrawing(`${named}: name must be 1 to 80 characters`);
  const { measuredMm } = record;
  return {
    id,
    ...text('family'),
    name,
    thicknessMm: length('thicknessMm'),
    ...(measuredMm === undefined || measuredMm === null ? {} : { measuredMm: length('measuredMm') }),
    ...text('colour'),
    ...text('finish'),
    ...(record.masked === undefined ? {} : { masked: record.masked === true }),
    ...text('notes'),
    ...(record.archived === true ? { archived: true } : {}),
    tone: String(record.tone),
    sheetWidth: length('sheetWidth'),
    sheetHeight: length('sheetHeight'),
    forbidden: asTextOrNull(record.forbidden, `${named}: forbidden`) || null,
    recipes: asList(record.recipes ?? [], `${named}: recipes`).map((recipe, i) =>
      recipeAt(recipe, `${named}: recipe ${i + 1}`),
    ),
    ...stockAt(record.stock, named),
    ...fitsAt(record.fits, `${named}: fits`),
  };
}

function stockAt(json: unknown, named: string): Pick<Material, 'stock'> {
  if (json === undefined || json === null) return {};
  const stock = asList(json, `${named}: stock`).map((entry, i): StockedSheet => {
    const where = `${named}: sheet ${i + 1} in stock`;
    const sheet = asRecord(entry, where);
    const count = within(sheet.count, `${where}: count`, 0, 100_000);
    if (!Number.isInteger(count)) throw new NotADrawing(`${where}: count must be a whole number`);
    return {
      id: asText(sheet.id, `${where}: id`),
      width: within(sheet.width, `${where}: width`, 1, 10_000),
      height: within(sheet.height, `${where}: height`, 1, 10_000),
      count,
      price: sheet.price === null || sheet.price === undefined ? null : within(sheet.price, `${where}: price`, 0, 1e6),
      ...(sheet.offcut === true ? { offcut: true } : {}),
    };
  });
  if (new Set(stock.map(({ id }) => id)).size < stock.length) {
    throw new NotADrawing(`${named}: two sheets in stock have one id`);
  }
  return { stock };
}

function fitsAt(json: unknown, where: string): Pick<Material, 'fits'> {
  if (json === undefined || json === null) return {};
  const record = asRecord(json, where);
  const fits = fitNames.flatMap((name): [string, Figure][] => {
    if (record[name] === undefined) return [];
    const { mm, source } = asRecord(record[name], `${where}: ${name}`);
    return [
      [name, { mm: asNumber(mm, `${where}: ${name}: mm`), source: sourceAt(source, `${where}: ${name}: source`) }],
    ];
  });
  return fits.length > 0 ? { fits: Object.fromEntries(fits) } : {};
}

function sourceAt(json: unknown, where: string): FigureSource | null {
  if (json === undefined || json === null) return null;
  const { from, by, on } = asRecord(json, where);
  return {
    from: oneOf(from, figureSources, `${where}: from`),
    by: asText(by, `${where}: by`),
    on: asText(on, `${where}: on`),
  };
}

function recipeAt(json: unknown, where: string): Recipe {
  const record = asRecord(json, where);
  const settings = recipeSettings(record, where);
  const variant = (asTextOrNull(record.variant, `${where}: variant`) ?? '').trim();
  if (variant.length > 40) throw new NotADrawing(`${where}: variant must be at most 40 characters`);
  return {
    machineId: asText(record.machineId, `${where}: machineId`),
    ...(record.lensId ? { lensId: asText(record.lensId, `${where}: lensId`) } : {}),
    operation: oneOf(record.operation, burntOperations, `${where}: operation`),
    ...(variant === '' ? {} : { variant }),
    ...settings,
    ...(record.kerfFrom ? { kerfFrom: sourceAt(record.kerfFrom, `${where}: kerfFrom`) } : {}),
    evidence: oneOf(record.evidence, evidences, `${where}: evidence`),
    ...(record.proof ? { proof: proofAt(record.proof, `${where}: proof`) } : {}),
    note: asTextOrNull(record.note, `${where}: note`) ?? '',
    ...(record.pictureId ? { pictureId: asText(record.pictureId, `${where}: pictureId`) } : {}),
    ...(record.archived === true ? { archived: true } : {}),
  };
}

/** The settings of a recipe; those that every recipe has are as usual where it does not say them. A kerf of null is none. */
function recipeSettings(record: Record<string, unknown>, where: string): SettingsOfRecipe {
  const said: Record<string, unknown> = { ...record, kerfMm: record.kerfMm ?? undefined };
  for (const [name, { isInEveryRecipe, usual }] of allSettings()) if (isInEveryRecipe) said[name] ??= usual ?? null;
  const schema: Schema<Partial<LayerSettings>> = {
    read: (json) => readSettings(json, ({ schema, inRecipes = schema }) => inRecipes),
  };
  return readBy(schema, said, where) as SettingsOfRecipe;
}

type SettingsOfRecipe = Pick<Recipe, 'powerPercent' | 'speedMmPerS' | 'passes' | 'lineSpacingMm'> &
  Partial<LayerSettings>;

function proofAt(json: unknown, where: string): Proof {
  const { by, on, what, jobId } = asRecord(json, where);
  const date = asText(on, `${where}: on`);
  if (!/^\d{4}-\d\d-\d\d$/.test(date)) throw new NotADrawing(`${where}: on must be a date such as 2026-11-26`);
  return {
    by: asText(by, `${where}: by`),
    on: date,
    what: asText(what, `${where}: what`),
    ...(jobId ? { jobId: asText(jobId, `${where}: jobId`) } : {}),
  };
}

function within(value: unknown, where: string, least: number, most: number): number {
  const number = asNumber(value, where);
  if (number >= least && number <= most) return number;
  throw new NotADrawing(
    `${where} must be ${least === Number.MIN_VALUE ? 'more than 0' : `from ${least}`} and up to ${most}`,
  );
}

/** By what a recipe is told from the others of its material: no two that are used may share it. */
export function recipeKey({ machineId, lensId, operation, variant }: Recipe): string {
  return JSON.stringify([machineId, lensId ?? null, operation, variant ?? '']);
}
