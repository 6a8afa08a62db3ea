export { packedMatrix } from './check.ts';
export { packed } from './pack.ts';
export { type DrawnPiece, drawnPieces } from './pieces.ts';
export { leastSheets, sheetUses } from './use.ts';
export type { Packing, PackSheet, PackWish, Turning } from './wish.ts';
