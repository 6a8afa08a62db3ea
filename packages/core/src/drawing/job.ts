import type { Point } from '../geometry/matrix.ts';
import type { LengthUnit } from '../units/length.ts';
import type { Arrival } from './arrival.ts';
import type { DimensionMark } from './dimension.ts';
import { type Colour, type Drawing, emptyDrawing } from './item.ts';
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

/** What can be set on a layer; lengths in mm, speed in mm/s, power in per cent of the machine's. */
export interface LayerSettings {
  readonly powerPercent: number;
  readonly speedMmPerS: number;
  readonly passes: number;
  /** Distance between scan lines; only engraving uses it. */
  readonly lineSpacingMm: number;
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
  /** Layers switched off for this run, by id. */
  readonly off: readonly string[];
  /** The files that were brought in, in their order. */
  readonly arrivals: readonly Arrival[];
  readonly guides: readonly GuideLine[];
  /** Measures that are shown, follow what they measure, and never burn. */
  readonly dimensions: readonly DimensionMark[];
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
    off: [],
    arrivals: [],
    guides: [],
    dimensions: [],
    mark: null,
  };
}
