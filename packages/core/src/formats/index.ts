export { type ArrivalPlace, acceptArrival, arrivalMap, arrivedItems, rereadArrival, shownBounds } from './arrive.ts';
export { codecFiles } from './assets.ts';
export { continueProgram } from './gcode/continue.ts';
export { type ProgramWays, programWays } from './gcode/ways.ts';
export { programLines, writeGcode } from './gcode/write.ts';
export {
  type FileUnit,
  fileNameFor,
  gatherOutgoing,
  type Outgoing,
  type OutgoingChoices,
  type OutgoingLayer,
  programNameFor,
  usualFileName,
} from './outgoing.ts';
export type { Paper } from './paper.ts';
export { decodePicture } from './picture/decode.ts';
export { describePicture } from './picture/describe.ts';
export { encodeJpeg, encodePixels } from './picture/encode.ts';
export { pictureFile } from './picture/file.ts';
export { thumbnailsOf } from './picture/thumbnails.ts';
export { prepareWithPictures } from './picture/to-burn.ts';
export { visiblePart } from './picture/visible.ts';
export { type ReadingTools, readDrawingFile } from './read.ts';
export {
  type FoundSize,
  type NoteKind,
  type PictureFile,
  type Reading,
  type ReadingNote,
  warningsOf,
} from './reading.ts';
export { FileRefused, largestFile } from './refusal.ts';
export { sniffFormat } from './sniff.ts';
export { writePicture } from './svg/picture.ts';
export { readColour } from './svg/values.ts';
export { writeSvg } from './svg/write.ts';
export { type DrawingRule, drawingRules, drawingTemplate } from './template.ts';
export { writeDxf, writePaper, writePdf } from './write.ts';
