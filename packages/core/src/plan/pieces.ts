import type { Polyline } from '../geometry/paths/flatten.ts';
import { separates } from '../operations/operations.ts';
import { nestedLines } from './cut-steps.ts';
import type { PreparedJob } from './prepare.ts';

/** What comes of a sheet by cutting: pieces, and what falls out of them. */
export interface CutPieces {
  readonly pieces: number;
  readonly fallsOut: number;
  /** The outlines within pieces; what they enclose, even-odd, is gone from the sheet. */
  readonly holes: readonly Polyline[];
  /** By item: in how many others its outermost outline lies. */
  readonly depths: ReadonlyMap<string, number>;
}

/** What comes free, by how the closed lines of all cuts that burn lie in each other. */
export function cutPieces(prepared: PreparedJob): CutPieces {
  const cuts = prepared.layers.filter(({ layer, burns }) => burns && separates(layer.operation));
  const closed = nestedLines(prepared, cuts).filter(({ line }) => line.line.closed);
  const fallsOut = closed.filter(({ depth }) => depth % 2 === 1).length;
  const holes = closed.filter(({ depth }) => depth > 0).map(({ line }) => line.line);
  const depths = new Map<string, number>();
  for (const { line, depth } of closed) {
    depths.set(line.item.id, Math.min(depth, depths.get(line.item.id) ?? depth));
  }
  return { pieces: closed.length - fallsOut, fallsOut, holes, depths };
}
