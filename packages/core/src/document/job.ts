import type { Point } from '../geometry/paths/matrix.ts';
import { orNull, type Schema, such, type ValueOf, withUsual } from '../schema/schema.ts';
import { list, record, table } from '../schema/structures.ts';
import { number, oneOf, text } from '../schema/values.ts';
import { settingsSchema } from '../settings/settings.ts';
import { lengthUnits } from '../units/length.ts';
import { arrivalSchema } from './arrival.ts';
import { builtThingSchema } from './built.ts';
import { cardSchema } from './card.ts';
import { dimensionSchema } from './dimension.ts';
import { colour, point } from './fields.ts';
import { type Drawing, emptyDrawing } from './item.ts';
import { burningSchema, layerSchema } from './layer.ts';
import { rowListSchema } from './row-list.ts';
import { firstRun, runSchema } from './run.ts';
import { sheetSchema } from './sheet.ts';

/** More sheets lie on no bed, and more layers, guide lines, dimension marks, test cards or runs are in no job. */
const mostSheets = 1000;
const mostParts = 2000;
const mostRuns = 500;

/** Which half of a paint is meant: an item's stroke and its fill may mean different things. */
export const paintPart = oneOf(['stroke', 'fill']);
export type PaintPart = ValueOf<typeof paintPart>;

/** This job's own word on a paint, over its colour key. */
const assignment = record({
  part: paintPart,
  colour,
  /** Stroke width in mm; null for fills. */
  widthMm: orNull(number()),
  layerId: text,
});
export type Assignment = ValueOf<typeof assignment>;

/** An endless line that helps layout and never burns: upright at an x, or level at a y, in mm. */
const guideLine = record({ id: text, axis: oneOf(['x', 'y']), at: number() });
export type GuideLine = ValueOf<typeof guideLine>;

/** Figure and ground of an engraving swapped: what the border holds burns, but not the items. */
const fillFlip = record({
  id: text,
  itemIds: list(text),
  borderId: text,
  /** How far inside the border the ground ends, in mm. */
  insetMm: number(),
});
export type FillFlip = ValueOf<typeof fillFlip>;

/** Where a closed outline of an item starts: which outline of it, and how far along it in segments. */
const startPoint = record({ itemId: text, subpath: number(), at: number() });
export type StartPoint = ValueOf<typeof startPoint>;

/** Where a closed outline of an item is held by tabs, over what its layer says: which outline, and how far along it in segments. */
const tabPlaces = record({ itemId: text, subpath: number(), at: list(number()) });
export type TabPlaces = ValueOf<typeof tabPlaces>;

const runs = such(list(runSchema, { most: mostRuns, each: (i) => `run ${i + 1}` }), (known) => {
  if (known.length === 0) return 'must be one at least';
  return new Set(known.map(({ id }) => id)).size < known.length ? 'must have an id each, and two have the same' : null;
});

const parts = <T>(schema: Schema<T>, name: string, most = mostParts) =>
  withUsual(list(schema, { most, each: (i) => `${name} ${i}` }), []);

/** A finding of the checks that the operator accepts, with why. */
const accepted = record({
  /** What it is about, as `checks/accept.ts` has it: another one is another finding. */
  about: text,
  code: text,
  message: text,
  reason: text,
});
export type Accepted = ValueOf<typeof accepted>;

/** A job but for its drawing: what the operator decided, nothing that can be derived. */
export const jobSettingsSchema = record({
  /** Whose job it is, as the operator typed it; empty when nobody said. */
  member: withUsual(text, ''),
  machineId: text,
  keyId: text,
  unit: oneOf(lengthUnits),
  sheets: list(sheetSchema, { most: mostSheets, each: (i) => `sheet ${i}` }),
  assignments: list(assignment, { each: (i) => `assignment ${i}` }),
  /** By layer id: the settings changed by hand, over the recipe's. */
  settings: table(settingsSchema, (layerId) => `settings of ${layerId}`, true),
  /** The lens that is in the machine; null for the one it usually has. */
  lensId: orNull(text),
  /** By layer id: which of several recipes it goes by; the usual one where nothing is said. */
  variants: withUsual(
    table(text, (layerId) => `variant of ${layerId}`, true),
    {},
  ),
  /** The job's own layers, and those of its key that it changes, by id. */
  layers: parts(layerSchema, 'layer'),
  /** By layer id: what the job says of filling and order, over its key. */
  burning: withUsual(
    table(burningSchema, (layerId) => `burning of ${layerId}`, true),
    {},
  ),
  /** The trips of the machine, in their order; one at least. */
  runs,
  /** Steps of the burn plan in the order the operator put them, by id; empty for the usual order. */
  order: withUsual(list(text), []),
  /** Items numbered by hand, in the order they burn on layers that go by it. */
  numbered: withUsual(list(text), []),
  starts: parts(startPoint, 'start', Number.POSITIVE_INFINITY),
  /** Tabs that were placed by hand. */
  tabs: parts(tabPlaces, 'tabs', Number.POSITIVE_INFINITY),
  flips: parts(fillFlip, 'flip', Number.POSITIVE_INFINITY),
  /** The files that were brought in, in their order. */
  arrivals: parts(arrivalSchema, 'arrival', Number.POSITIVE_INFINITY),
  accepted: parts(accepted, 'accepted finding'),
  guides: parts(guideLine, 'guide'),
  /** Measures that are shown, follow what they measure, and never burn. */
  dimensions: parts(dimensionSchema, 'dimension'),
  /** Things built from numbers, whose parts lie in it. */
  built: parts(builtThingSchema, 'built thing'),
  /** The test cards that lie in it, and what was read off them. */
  cards: parts(cardSchema, 'card'),
  /** Words or numbers in rows that designs of it are made for. */
  lists: parts(rowListSchema, 'list', 100),
  /** A place the operator marked, to put things at or to measure from, in mm. */
  mark: orNull(point as Schema<Point>),
});

/** One piece of work, as it is stored. */
export type JobDocument = { readonly drawing: Drawing } & ValueOf<typeof jobSettingsSchema>;

/** A job with nothing in it. */
export function newJob(machineId: string, keyId: string): JobDocument {
  return {
    drawing: emptyDrawing,
    member: '',
    machineId,
    keyId,
    unit: 'mm',
    sheets: [],
    assignments: [],
    settings: {},
    lensId: null,
    variants: {},
    layers: [],
    burning: {},
    runs: [firstRun],
    order: [],
    numbered: [],
    starts: [],
    tabs: [],
    flips: [],
    arrivals: [],
    accepted: [],
    guides: [],
    dimensions: [],
    built: [],
    cards: [],
    lists: [],
    mark: null,
  };
}
