import type { Matrix, Point } from '../geometry/paths/matrix.ts';
import { lengthUnits } from '../units/length.ts';
import { type Arrival, type ReadingChoices, solidSides } from './arrival.ts';
import { cardFromJson } from './card-json.ts';
import type { DimensionAxis, DimensionEnd, DimensionMark } from './dimension.ts';
import { mostItems, tooMuchOf } from './drawing-size.ts';
import { type Drawing, type Item, keeps, type Paint, sharedPaint } from './item.ts';
import type { GuideLine, JobDocument } from './job.ts';
import {
  asColour,
  asList,
  asNumber,
  asNumbers,
  asRecord,
  asText,
  asTextOrNull,
  NotADrawing,
  oneOf,
} from './json-parts.ts';
import {
  burningFromJson,
  flipFromJson,
  layerFromJson,
  runsFromJson,
  settingsFromJson,
  startFromJson,
} from './layer-json.ts';
import { type ShapeJson, shapeFromJson, shapeToJson } from './shape-json.ts';
import type { Sheet } from './sheet.ts';

export { NotADrawing } from './json-parts.ts';

/** The media type of a job's JSON, by which it is told from other JSON on the wire. */
export const jobMediaType = 'application/vnd.lambent.job+json';

/** A job as plain JSON: the same but for paths, whose verbs are a string such as `MLCZ`. */
export type JobJson = Omit<JobDocument, 'drawing'> & { readonly drawing: DrawingJson };

export interface DrawingJson {
  readonly items: readonly (Omit<Item, 'shape'> & { readonly shape: ShapeJson })[];
  readonly groups: Drawing['groups'];
}

export function drawingToJson({ items, groups }: Drawing): DrawingJson {
  return { items: items.map((item) => ({ ...item, shape: shapeToJson(item.shape) })), groups };
}

export function jobToJson(job: JobDocument): JobJson {
  return { ...job, drawing: drawingToJson(job.drawing) };
}

/**
 * Builds a drawing from JSON, checking all of it.
 * @throws NotADrawing naming the first thing that is wrong
 */
export function drawingFromJson(json: unknown): Drawing {
  const { items, groups } = asRecord(json, 'drawing');
  if (!Array.isArray(items) || !Array.isArray(groups)) throw new NotADrawing('drawing: items and groups must be lists');
  if (items.length > mostItems) throw new NotADrawing(`the drawing ${tooMuchOf(items)}`);
  const ids = new Set<string>();
  const paints = new Map<string, Paint>();
  const drawing: Drawing = {
    items: items.map((item, i) => {
      const read = itemFromJson(item, `item ${i}`, paints);
      if (ids.has(read.id)) throw new NotADrawing(`item ${i}: the id ${read.id} is there twice`);
      ids.add(read.id);
      return read;
    }),
    groups: groups.map((group, i) => {
      const { id, name, parentId } = asRecord(group, `group ${i}`);
      return {
        id: asText(id, `group ${i}: id`),
        name: asTextOrNull(name, `group ${i}: name`),
        parentId: asTextOrNull(parentId, `group ${i}: parentId`),
      };
    }),
  };
  const tooMuch = tooMuchOf(drawing.items);
  if (tooMuch) throw new NotADrawing(`the drawing ${tooMuch}`);
  return drawing;
}

/** @param paints those read so far: items painted alike share one */
function itemFromJson(json: unknown, where: string, paints: Map<string, Paint>): Item {
  const record = asRecord(json, where);
  const paint = sharedPaint(paintFromJson(record.paint, where), paints);
  const matrix = asNumbers(record.matrix, `${where}: matrix`);
  if (matrix.length !== 6) throw new NotADrawing(`${where}: matrix must be 6 numbers`);
  return {
    id: asText(record.id, `${where}: id`),
    name: asTextOrNull(record.name, `${where}: name`),
    shape: shapeFromJson(record.shape, where),
    matrix: matrix as unknown as Matrix,
    paint,
    fillRule: record.fillRule === 'evenodd' ? 'evenodd' : 'nonzero',
    groupId: asTextOrNull(record.groupId, `${where}: groupId`),
    pinned: asTextOrNull(record.pinned, `${where}: pinned`),
    hidden: record.hidden === true,
    ...(record.locked === true ? { locked: true } : {}),
    ...(record.link === undefined ? {} : { link: asText(record.link, `${where}: link`) }),
    ...(record.keep === undefined ? {} : { keep: oneOf(record.keep, keeps, `${where}: keep`) }),
    ...(record.also === undefined ? {} : { also: asText(record.also, `${where}: also`) }),
  };
}

function paintFromJson(json: unknown, where: string): Paint {
  const { stroke, strokeWidthMm, fill, cap, join } = asRecord(json, `${where}: paint`);
  return {
    stroke: asColour(stroke, `${where}: stroke`),
    strokeWidthMm: asNumber(strokeWidthMm, `${where}: strokeWidthMm`),
    fill: asColour(fill, `${where}: fill`),
    ...(cap === 'round' || cap === 'square' ? { cap } : {}),
    ...(join === 'round' || join === 'bevel' ? { join } : {}),
  };
}

/** More sheets lie on no bed, and more layers, guide lines, dimension marks or test cards are in no job. */
const mostSheets = 1000;
const mostParts = 2000;

/** A stretch of the bed beyond which no sheet makes sense, in mm. */
const largestSheet = 10_000;

/**
 * Builds a job from JSON, checking all of it.
 * @throws NotADrawing naming the first thing that is wrong
 */
export function jobFromJson(json: unknown): JobDocument {
  const record = asRecord(json, 'job');
  const unit = lengthUnits.find((known) => known === record.unit);
  if (!unit) throw new NotADrawing('job: unit must be mm, cm or in');
  return {
    drawing: drawingFromJson(record.drawing),
    // Jobs of earlier versions do not know whose they are.
    member: asTextOrNull(record.member, 'job: member') ?? '',
    machineId: asText(record.machineId, 'job: machineId'),
    keyId: asText(record.keyId, 'job: keyId'),
    unit,
    sheets: asList(record.sheets, 'job: sheets', mostSheets).map((sheet, i) => sheetFromJson(sheet, `sheet ${i}`)),
    assignments: asList(record.assignments, 'job: assignments').map((entry, i) => {
      const { part, colour, widthMm, layerId } = asRecord(entry, `assignment ${i}`);
      if (part !== 'stroke' && part !== 'fill') throw new NotADrawing(`assignment ${i}: part must be stroke or fill`);
      return {
        part,
        colour: asText(asColour(colour, `assignment ${i}: colour`), `assignment ${i}: colour`),
        widthMm: widthMm === null ? null : asNumber(widthMm, `assignment ${i}: widthMm`),
        layerId: asText(layerId, `assignment ${i}: layerId`),
      };
    }),
    settings: Object.fromEntries(
      Object.entries(asRecord(record.settings, 'job: settings')).map(([layerId, settings]) => [
        layerId,
        settingsFromJson(settings, `settings of ${layerId}`),
      ]),
    ),
    lensId: asTextOrNull(record.lensId ?? null, 'job: lensId'),
    variants: Object.fromEntries(
      Object.entries(asRecord(record.variants ?? {}, 'job: variants')).map(([layerId, variant]) => [
        layerId,
        asText(variant, `variant of ${layerId}`),
      ]),
    ),
    layers: asList(record.layers ?? [], 'job: layers', mostParts).map((layer, i) => layerFromJson(layer, `layer ${i}`)),
    burning: Object.fromEntries(
      Object.entries(asRecord(record.burning ?? {}, 'job: burning')).map(([layerId, burning]) => [
        layerId,
        burningFromJson(burning, `burning of ${layerId}`),
      ]),
    ),
    runs: runsFromJson(record.runs, record.off),
    order: asList(record.order ?? [], 'job: order').map((id) => asText(id, 'job: order')),
    numbered: asList(record.numbered ?? [], 'job: numbered').map((id) => asText(id, 'job: numbered')),
    starts: asList(record.starts ?? [], 'job: starts').map((entry, i) => startFromJson(entry, `start ${i}`)),
    flips: asList(record.flips ?? [], 'job: flips').map((entry, i) => flipFromJson(entry, `flip ${i}`)),
    // Jobs of earlier versions do not know what they were brought in from.
    arrivals: asList(record.arrivals ?? [], 'job: arrivals').map((entry, i) => arrivalFromJson(entry, `arrival ${i}`)),
    guides: asList(record.guides ?? [], 'job: guides', mostParts).map((entry, i) => guideFromJson(entry, `guide ${i}`)),
    dimensions: asList(record.dimensions ?? [], 'job: dimensions', mostParts).map((entry, i) =>
      dimensionFromJson(entry, `dimension ${i}`),
    ),
    cards: asList(record.cards ?? [], 'job: cards', mostParts).map((card, i) => cardFromJson(card, `card ${i}`)),
    mark: record.mark ? pointFromJson(record.mark, 'job: mark') : null,
  };
}

function guideFromJson(json: unknown, where: string): GuideLine {
  const { id, axis, at } = asRecord(json, where);
  if (axis !== 'x' && axis !== 'y') throw new NotADrawing(`${where}: axis must be x or y`);
  return { id: asText(id, `${where}: id`), axis, at: asNumber(at, `${where}: at`) };
}

const dimensionAxes: readonly DimensionAxis[] = ['straight', 'x', 'y'];

function dimensionFromJson(json: unknown, where: string): DimensionMark {
  const { id, from, to, axis, beside } = asRecord(json, where);
  const known = dimensionAxes.find((name) => name === axis);
  if (!known) throw new NotADrawing(`${where}: axis must be ${dimensionAxes.join(', ')}`);
  return {
    id: asText(id, `${where}: id`),
    from: endFromJson(from, `${where}: from`),
    to: endFromJson(to, `${where}: to`),
    axis: known,
    beside: asNumber(beside, `${where}: beside`),
  };
}

function endFromJson(json: unknown, where: string): DimensionEnd {
  const end = asRecord(json, where);
  const number = (name: string) => asNumber(end[name], `${where}: ${name}`);
  switch (end.kind) {
    case 'outline':
      return {
        kind: 'outline',
        itemId: asText(end.itemId, `${where}: itemId`),
        subpath: number('subpath'),
        at: number('at'),
      };
    case 'bounds':
      return { kind: 'bounds', itemId: asText(end.itemId, `${where}: itemId`), u: number('u'), v: number('v') };
    case 'point':
      return { kind: 'point', x: number('x'), y: number('y') };
    default:
      throw new NotADrawing(`${where}: kind must be outline, bounds or point`);
  }
}

function pointFromJson(json: unknown, where: string): Point {
  const { x, y } = asRecord(json, where);
  return { x: asNumber(x, `${where}: x`), y: asNumber(y, `${where}: y`) };
}

function arrivalFromJson(json: unknown, where: string): Arrival {
  const { id, file, originalId, choices, place } = asRecord(json, where);
  const map = asNumbers(place, `${where}: place`);
  if (map.length !== 6) throw new NotADrawing(`${where}: place must be 6 numbers`);
  return {
    id: asText(id, `${where}: id`),
    file: asText(file, `${where}: file`),
    originalId: originalId === null ? null : asNumber(originalId, `${where}: originalId`, 0, Number.MAX_SAFE_INTEGER),
    choices: choicesFromJson(choices, `${where}: choices`),
    place: map as unknown as Matrix,
  };
}

/** Of what was chosen for reading, what is known here; the rest is as usual. */
function choicesFromJson(json: unknown, where: string): ReadingChoices {
  const { page, dashes, clips, up, cutAt } = asRecord(json, where);
  const side = solidSides.find((known) => known === up);
  return {
    ...(page === undefined ? {} : { page: asNumber(page, `${where}: page`) }),
    ...(dashes === 'dashed' ? { dashes } : {}),
    ...(clips === 'whole' ? { clips } : {}),
    ...(side ? { up: side } : {}),
    ...(cutAt === undefined ? {} : { cutAt: cutAt === 'outline' ? cutAt : asNumber(cutAt, `${where}: cutAt`) }),
  };
}

function sheetFromJson(json: unknown, where: string): Sheet {
  const sheet = asRecord(json, where);
  const number = (name: string) => asNumber(sheet[name], `${where}: ${name}`);
  const [width, height] = [number('width'), number('height')];
  if (!(width > 0 && height > 0 && width <= largestSheet && height <= largestSheet)) {
    throw new NotADrawing(`${where}: width and height must lie between 0 and ${largestSheet} mm`);
  }
  return {
    id: asText(sheet.id, `${where}: id`),
    materialId: asText(sheet.materialId, `${where}: materialId`),
    x: number('x'),
    y: number('y'),
    width,
    height,
    margin: number('margin'),
    ...(sheet.angle === undefined || sheet.angle === 0 ? {} : { angle: number('angle') }),
    ...(sheet.stockId ? { stockId: asText(sheet.stockId, `${where}: stockId`) } : {}),
    ...(sheet.thicknessMm === undefined ? {} : { thicknessMm: number('thicknessMm') }),
  };
}
