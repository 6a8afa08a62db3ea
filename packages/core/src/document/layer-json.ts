import type { Operation } from '../operations/operation.ts';
import { type LayerSettings, settingsSchema } from '../settings/settings.ts';
import { keeps } from './item.ts';
import type { FillFlip, StartPoint } from './job.ts';
import { asList, asNumber, asRecord, asText, NotADrawing, oneOf, readBy } from './json-parts.ts';
import type { Layer, LayerBurning, LineOrder } from './layer.ts';
import { firstRun, type Landing, type Run } from './run.ts';

/*
 * Layers, how they burn, and runs, from checked JSON. What earlier versions did not know is as usual.
 */

const operations: readonly Operation[] = ['cut', 'score', 'engrave', 'guide', 'note'];
const orders: readonly LineOrder[] = ['inside-first', 'nearest', 'parts', 'rows', 'as-drawn', 'by-hand'];

/** @throws NotADrawing naming what is wrong */
export function layerFromJson(json: unknown, where: string): Layer {
  const layer = asRecord(json, where);
  const number = (name: 'rank' | 'powerShare') =>
    layer[name] === undefined || layer[name] === null ? {} : { [name]: asNumber(layer[name], `${where}: ${name}`) };
  return {
    id: asText(layer.id, `${where}: id`),
    name: asText(layer.name, `${where}: name`),
    operation: oneOf(layer.operation, operations, `${where}: operation`),
    ...number('rank'),
    ...number('powerShare'),
    ...(layer.settings ? { settings: settingsFromJson(layer.settings, `${where}: settings`) } : {}),
    ...(layer.burning ? { burning: burningFromJson(layer.burning, `${where}: burning`) } : {}),
  };
}

export function settingsFromJson(json: unknown, where: string): Partial<LayerSettings> {
  return readBy(settingsSchema, json, where);
}

export function burningFromJson(json: unknown, where: string): Partial<LayerBurning> {
  const record = asRecord(json, where);
  const known = <T extends string>(name: string, values: readonly T[]) =>
    record[name] === undefined ? {} : { [name]: oneOf(record[name], values, `${where}: ${name}`) };
  return {
    ...known('order', orders),
    ...known('direction', ['either', 'clockwise', 'anticlockwise']),
    ...known('start', ['nearest', 'corner']),
    ...known('fillRule', ['even-odd', 'as-drawn']),
    ...known('overlaps', ['cancel', 'unite']),
    ...known('keep', ['nesting', ...keeps]),
    ...(record.depth === undefined ? {} : { depth: depthFromJson(record.depth, `${where}: depth`) }),
  };
}

function depthFromJson(json: unknown, where: string): LayerBurning['depth'] {
  if (json === null) return null;
  const { steps, lightest } = asRecord(json, where);
  return {
    steps: steps === null || steps === undefined ? null : asNumber(steps, `${where}: steps`, 0, 1000),
    lightest: asNumber(lightest, `${where}: lightest`),
  };
}

/** @param off the layers switched off, as jobs of earlier versions keep them beside their one run */
export function runsFromJson(json: unknown, off: unknown): Run[] {
  if (json === undefined) {
    const layers = asList(off ?? [], 'job: off').map((id) => asText(id, 'job: off'));
    return [{ ...firstRun, off: layers }];
  }
  const runs = asList(json, 'job: runs', mostRuns).map((run, i) => runFromJson(run, `run ${i + 1}`));
  if (runs.length === 0) throw new NotADrawing('job: runs must be one at least');
  if (new Set(runs.map(({ id }) => id)).size !== runs.length) throw new NotADrawing('job: two runs have one id');
  return runs;
}

/** No job has more runs. */
const mostRuns = 500;

function texts(json: unknown, where: string): string[] {
  return asList(json, where).map((one) => asText(one, where));
}

function runFromJson(json: unknown, where: string): Run {
  const run = asRecord(json, where);
  return {
    id: asText(run.id, `${where}: id`),
    name: asText(run.name, `${where}: name`),
    off: texts(run.off, `${where}: off`),
    only: run.only === null ? null : texts(run.only, `${where}: only`),
    mirrored: run.mirrored === true,
    landing: landingFromJson(run.landing, `${where}: landing`),
    stock: oneOf(run.stock, ['fresh', 'in place', 'turned over'], `${where}: stock`),
  };
}

function landingFromJson(json: unknown, where: string): Landing {
  const { kind, u, v } = asRecord(json, where);
  const known = oneOf(kind, ['as-drawn', 'mark', 'head'], `${where}: kind`);
  if (known === 'as-drawn') return { kind: known };
  return { kind: known, u: asNumber(u, `${where}: u`), v: asNumber(v, `${where}: v`) };
}

export function flipFromJson(json: unknown, where: string): FillFlip {
  const flip = asRecord(json, where);
  return {
    id: asText(flip.id, `${where}: id`),
    itemIds: texts(flip.itemIds, `${where}: itemIds`),
    borderId: asText(flip.borderId, `${where}: borderId`),
    insetMm: asNumber(flip.insetMm, `${where}: insetMm`),
  };
}

export function startFromJson(json: unknown, where: string): StartPoint {
  const start = asRecord(json, where);
  return {
    itemId: asText(start.itemId, `${where}: itemId`),
    subpath: asNumber(start.subpath, `${where}: subpath`),
    at: asNumber(start.at, `${where}: at`),
  };
}
