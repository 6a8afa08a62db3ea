import type { Placed } from '../colours/derive.ts';
import type { Item, Paint } from '../document/item.ts';
import type { Box } from '../geometry/paths/box.ts';
import {
  burnsPictures,
  engravesAreas,
  fillsAreas,
  isBurnt,
  type Operation,
  operationOf,
  operations,
} from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { fillsAsBurnt } from './outgoing-fills.ts';
import type { PictureFile } from './reading.ts';

/** What goes out of a job, for any format: a page, and layers with what is on them. */
export interface Outgoing {
  /** The part of the bed that becomes the page, in bed mm. */
  readonly page: Box;
  readonly layers: readonly OutgoingLayer[];
  readonly pictures: ReadonlyMap<string, PictureFile>;
}

/** What a file’s lengths are in. */
export type FileUnit = 'mm' | 'in';

export const mmPerFileUnit: Readonly<Record<FileUnit, number>> = { mm: 1, in: 25.4 };

export interface OutgoingLayer {
  readonly name: string;
  /** The layer of the job that it is; null where what it holds is on none. */
  readonly meant: { readonly id: string; readonly operation: Operation } | null;
  /** The colour the layer is known by. */
  readonly colour: string;
  /** Back to front, each with the paint it is to be drawn with. */
  readonly items: readonly Item[];
}

export interface OutgoingChoices {
  /** Paints as they came in, or those of the operations. */
  readonly paints: 'as-came' | 'by-operation';
  /** Whether guides and notes go out too. */
  readonly guides: boolean;
  /** Only these items; null for all. */
  readonly only: ReadonlySet<string> | null;
  /** Only what burns in this run: layers that are on. */
  readonly onlyBurnt: boolean;
}

/** Lines that are cut or scored go out this wide in their operation's colour, in mm: a hairline. */
const hairline = 0.05;

/** Gathers what goes out: a layer a layer of the job, in the order they burn; then what has no meaning, then pictures. */
export function gatherOutgoing(
  prepared: PreparedJob,
  page: Box,
  choices: OutgoingChoices,
  pictures: ReadonlyMap<string, PictureFile> = new Map(),
): Outgoing {
  const { job, meaning, run, burntAt } = prepared;
  const wanted = (item: Item) => !item.hidden && (choices.only === null || choices.only.has(item.id));
  const out: OutgoingLayer[] = [];
  const burns = (item: Item) => !prepared.parked.has(item.id) && (run.only?.includes(item.id) ?? true);
  const inOrder = [...meaning.layers].sort((a, b) => burnPlace(a.operation) - burnPlace(b.operation));
  for (const layer of inOrder) {
    if (choices.onlyBurnt && !(isBurnt(layer.operation) && !run.off.includes(layer.id))) continue;
    if (!choices.guides && !isBurnt(layer.operation)) continue;
    const items = (meaning.placed.get(layer.id) ?? [])
      .filter(({ item }) => wanted(item) && (!choices.onlyBurnt || burns(item)))
      // What goes out as a run lies as that burns it.
      .map((placed) => ({
        ...(choices.onlyBurnt ? burntAt(placed.item) : placed.item),
        paint: paintFor(placed, layer.operation, choices.paints),
      }));
    if (items.length === 0) continue;
    const { id, name, operation } = layer;
    const whole = items.length === (meaning.placed.get(id)?.length ?? 0);
    const known = prepared.layers.find((entry) => entry.layer.id === id);
    const shown = known && engravesAreas(operation) ? fillsAsBurnt(prepared, known, items, whole) : items;
    out.push({ name, meant: { id, operation }, colour: operationOf(operation).colour, items: shown });
  }
  if (!choices.onlyBurnt) {
    const open = meaning.undecided.filter(wanted);
    if (open.length > 0) out.push({ name: 'Without meaning', meant: null, colour: '#000000', items: open });
    const shown = job.drawing.items.filter((item) => item.shape.kind === 'picture' && wanted(item));
    if (shown.length > 0) out.push({ name: 'Pictures', meant: null, colour: '#000000', items: shown });
  }
  return { page, layers: out, pictures };
}

/** The phase of what burns, in their order; then what does not, as lists show it. */
function burnPlace(operation: Operation): number {
  return operationOf(operation).burning?.phase ?? 1000 + operations.indexOf(operation);
}

/** The half or halves of the paint that put an item on the layer, or the layer's own. */
function paintFor({ item, parts }: Placed, operation: Operation, paints: OutgoingChoices['paints']): Paint {
  const { stroke, strokeWidthMm, fill, fade, ...ends } = item.paint;
  const fading = fade ? { fade } : {};
  const lined = parts.includes('stroke') && stroke !== null;
  const filled = parts.includes('fill') && fill !== null;
  // What burns by its greys goes out in them.
  if (burnsPictures(operation) && fill !== null) return { stroke: null, strokeWidthMm: 0, fill, ...fading };
  // What is on a layer by hand may have no paint for it; it must not go out unseen.
  if (paints === 'by-operation' || !(lined || filled)) {
    const colour = operationOf(operation).colour;
    return fillsAreas(operation)
      ? { stroke: null, strokeWidthMm: 0, fill: colour }
      : { stroke: colour, strokeWidthMm: hairline, fill: null };
  }
  return {
    stroke: lined ? stroke : null,
    strokeWidthMm: lined ? strokeWidthMm : 0,
    fill: filled ? fill : null,
    ...(filled ? fading : {}),
    ...(lined ? ends : {}),
  };
}

/** What a file name may be made of. */
export interface FileNameFields {
  readonly job: string;
  readonly member: string;
  readonly material: string;
  readonly thickness: string;
  readonly date: string;
  readonly run: string;
}

export const usualFileName = '{job} {material} {thickness}';

/** What the names of programs always say, so that no two are taken for each other. */
const saidOfPrograms = ['job', 'material', 'thickness', 'run'] as const;
const longestName = 120;

/**
 * A program's name by a pattern: what of job, material, thickness and run the pattern leaves out stands at its end. Where
 * it would be too long, the job's title is cut.
 */
export function programNameFor(pattern: string, fields: FileNameFields): string {
  const missing = saidOfPrograms.filter((name) => !pattern.includes(`{${name}}`));
  const whole = [pattern, ...missing.map((name) => (name === 'run' ? 'run {run}' : `{${name}}`))].join(' ');
  const named = (job: string) => nameFrom(whole, { ...fields, job });
  const over = named(fields.job).length - longestName;
  return over > 0 ? named(`${fields.job.slice(0, Math.max(1, fields.job.length - over - 1))}…`) : named(fields.job);
}

/**
 * A file's name by a pattern such as `{job} {material} {date}`. Empty fields leave no gap, and
 * characters that file systems refuse become hyphens.
 */
export function fileNameFor(pattern: string, fields: FileNameFields): string {
  return nameFrom(pattern, fields).slice(0, longestName) || 'job';
}

function nameFrom(pattern: string, fields: FileNameFields): string {
  const filled = pattern.replace(/\{(\w+)\}/g, (whole, name: string) =>
    name in fields ? fields[name as keyof FileNameFields] : whole,
  );
  // biome-ignore lint/suspicious/noControlCharactersInRegex: those are what file systems refuse
  const plain = filled.replace(/[\\/:*?"<>|\u0000-\u001f]+/g, '-').replace(/\s+/g, ' ');
  return plain.replace(/^[\s.-]+|[\s.-]+$/g, '');
}
