export { packedMatrix } from './check.ts';
export { type FurtherSheets, furtherSheets } from './further.ts';
export { type Laying, layPacked, packedOutlines } from './lay.ts';
export { type JobPack, packOfJob, usualGap } from './of-job.ts';
export { type Offcut, offcutsLeft } from './offcut.ts';
export { packed } from './pack.ts';
export { type DrawnPiece, drawnPieces, nameOfPiece } from './pieces.ts';
export { isBetterPacking, leastSheets, sheetUses } from './use.ts';
export type { Packing, PackSheet, PackWish, Turning } from './wish.ts';
