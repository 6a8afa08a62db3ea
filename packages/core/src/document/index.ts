export { type Arrival, arrivalItemId, type ReadingChoices, type SolidSide, solidSides } from './arrival.ts';
export type { BuiltThing } from './built.ts';
export {
  type CardAxis,
  type CardMark,
  type CardSetting,
  type CardWish,
  cardLayerId,
  cardMarks,
  cardOfLayer,
  isOnCard,
  type LaidCard,
} from './card.ts';
export { channelsOf } from './channels.ts';
export { type CodeSetting, symbologies, symbologyNames } from './code.ts';
export {
  besideAt,
  type DimensionAxis,
  type DimensionEnd,
  type DimensionMark,
  endAt,
  type PlacedDimension,
  placeDimension,
  pointOfEnd,
} from './dimension.ts';
export { tooMuchOf, tooMuchWithCopies, verbsOf } from './drawing-size.ts';
export {
  type Anchor,
  anchorPoint,
  boundsAmong,
  boundsOf,
  boundsOfAll,
  type Drawing,
  type Group,
  groupsAround,
  type Item,
  itemsAmong,
  type Keep,
  type Paint,
  pathOf,
  polylinesOf,
  topGroupOf,
  unpainted,
} from './item.ts';
export { type GuideLine, type JobDocument, newJob, type PaintPart, type StartPoint } from './job.ts';
export { type JobJson, jobFromJson, jobMediaType, jobToJson } from './json.ts';
export type { Layer, LayerBurning, LineOrder } from './layer.ts';
export { NotADrawing } from './not-a-drawing.ts';
export type { Pixels } from './pixels.ts';
export { nameOfRow, type Row, type RowList } from './row-list.ts';
export { findRun, firstRun, type Landing, landingWords, type Run, runBefore } from './run.ts';
export { isOnSheetOf, sheetsInRun, sheetsOnBed } from './run-sheets.ts';
export { type FollowingShape, isFollowing, type Shape, type TextSetting } from './shape.ts';
export { isOutlineUnknown, knowOutline, outlineOf, rectangleOf, sharpOutlineOf, verbsIn } from './shapes.ts';
export { type Sheet, sheetBox, sheetCorners, sheetFrame, sheetSafeBox, sheetUnder } from './sheet.ts';
export { outlineArea, type SheetShape, sheetOutline, sheetWithin, voidsOutline } from './sheet-outline.ts';
export { type BoltTie, boltRooms, type FitName, type FitTie, fitNames, type PartTie } from './ties.ts';
export type { Tone, TonePoint } from './tone.ts';
export { type TraceSettings, usualByColour, usualTraceSettings } from './traced.ts';
