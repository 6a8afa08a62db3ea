import type { Point } from '../geometry/paths/matrix.ts';
import type { LayerSettings } from '../settings/settings.ts';
import type { LengthUnit } from '../units/length.ts';
import type { Arrival } from './arrival.ts';
import type { LaidCard } from './card.ts';
import type { DimensionMark } from './dimension.ts';
import { type Colour, type Drawing, emptyDrawing } from './item.ts';
import type { Layer, LayerBurning } from './layer.ts';
import { firstRun, type Run } from './run.ts';
import type { Sheet } from './sheet.ts';

/** Which half of a paint is meant: an item's stroke and its fill may mean different things. */
export type PaintPart = 'stroke' | 'fill';

/** This job's own word on a paint, over its colour key. */
export interface Assignment {
  readonly part: PaintPart;
  readonly colour: Colour;
  /** Stroke width in mm; null for fills. */
  readonly widthMm: number | null;
  readonly layerId: string;
}

/** An endless line that helps layout and never burns: upright at an x, or level at a y, in mm. */
export interface GuideLine {
  readonly id: string;
  readonly axis: 'x' | 'y';
  readonly at: number;
}

/** Figure and ground of an engraving swapped: what the border holds burns, but not the items. */
export interface FillFlip {
  readonly id: string;
  readonly itemIds: readonly string[];
  readonly borderId: string;
  /** How far inside the border the ground ends, in mm. */
  readonly insetMm: number;
}

/** Where a closed outline of an item starts: which outline of it, and how far along it in stretches. */
export interface StartPoint {
  readonly itemId: string;
  readonly subpath: number;
  readonly at: number;
}

/** One piece of work, as it is stored: what the operator decided, nothing that can be derived. */
export interface JobDocument {
  readonly drawing: Drawing;
  /** Whose job it is, as the operator typed it; empty when nobody said. */
  readonly member: string;
  readonly machineId: string;
  readonly keyId: string;
  readonly unit: LengthUnit;
  readonly sheets: readonly Sheet[];
  readonly assignments: readonly Assignment[];
  /** By layer id: the settings changed by hand, over the recipe's. */
  readonly settings: Readonly<Record<string, Partial<LayerSettings>>>;
  /** The lens that is in the machine; null for the one it usually has. */
  readonly lensId: string | null;
  /** By layer id: which of several recipes it goes by; the usual one where nothing is said. */
  readonly variants: Readonly<Record<string, string>>;
  /** The job's own layers, and those of its key that it changes, by id. */
  readonly layers: readonly Layer[];
  /** By layer id: what the job says of filling and order, over its key. */
  readonly burning: Readonly<Record<string, Partial<LayerBurning>>>;
  /** The trips of the machine, in their order; one at least. */
  readonly runs: readonly Run[];
  /** Steps of the burn plan in the order the operator put them, by id; empty for the usual order. */
  readonly order: readonly string[];
  /** Items numbered by hand, in the order they burn on layers that go by it. */
  readonly numbered: readonly string[];
  readonly starts: readonly StartPoint[];
  readonly flips: readonly FillFlip[];
  /** The files that were brought in, in their order. */
  readonly arrivals: readonly Arrival[];
  readonly guides: readonly GuideLine[];
  /** Measures that are shown, follow what they measure, and never burn. */
  readonly dimensions: readonly DimensionMark[];
  /** The test cards that lie in it, and what was read off them. */
  readonly cards: readonly LaidCard[];
  /** A place the operator marked, to put things at or to measure from, in mm. */
  readonly mark: Point | null;
}

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
    flips: [],
    arrivals: [],
    guides: [],
    dimensions: [],
    cards: [],
    mark: null,
  };
}
