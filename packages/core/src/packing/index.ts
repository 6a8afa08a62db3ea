export { packedMatrix } from './check.ts';
export { type JobPack, layPacked, packOfJob } from './of-job.ts';
export { packed } from './pack.ts';
export { type DrawnPiece, drawnPieces } from './pieces.ts';
export { isBetterPacking, leastSheets, packedOutlines, sheetUses } from './use.ts';
export type { Packing, PackSheet, PackWish, Turning } from './wish.ts';
