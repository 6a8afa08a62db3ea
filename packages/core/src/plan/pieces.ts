import { boundsOf, type Item, pathOf, polylinesOf } from '../document/item.ts';
import { isLeftOver } from '../edits/left-over.ts';
import { beamSide } from '../fit/kerf.ts';
import { type Box, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/paths/segments.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { cutLayers, nestedLines } from './cut-steps.ts';
import { tabsOnLine } from './held.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';

/** What comes of a sheet by cutting: pieces, and what falls out of them. */
export interface CutPieces {
  readonly pieces: number;
  readonly fallsOut: number;
  /** The outlines within pieces; what they enclose, even-odd, is gone from the sheet. */
  readonly holes: readonly Polyline[];
  /** By item: in how many others its outermost outline lies. */
  readonly depths: ReadonlyMap<string, number>;
}

/** A closed line that is cut: the edge of a piece, or of what falls out of one. */
export interface CutPart {
  readonly item: Item;
  readonly subpath: number;
  readonly line: Polyline;
  readonly bounds: Box;
  readonly layer: PreparedLayer;
  /** In how many others it lies: pieces lie in an even number, what falls out of them in an odd one. */
  readonly depth: number;
  /** Whether tabs hold it. */
  readonly isHeld: boolean;
}

/** Every closed line that the run cuts, in drawing order. */
export function cutParts(prepared: PreparedJob): CutPart[] {
  const cuts = cutLayers(prepared);
  const parts: CutPart[] = [];
  for (const { layerIndex, line: burnt, bounds, depth, isTwin } of nestedLines(prepared, cuts)) {
    const layer = cuts[layerIndex];
    const { settings } = layer.applied;
    const { item, nth: subpath, line } = burnt;
    // What is drawn twice comes out once, and what is too small to be a shape is nothing that comes out.
    if (!line.closed || !settings || isTwin || isLeftOver(bounds)) continue;
    const isHeld = tabsOnLine(prepared.job, settings, burnt).length > 0;
    parts.push({ item, subpath, line, bounds, layer, depth, isHeld });
  }
  return parts;
}

/** What comes free, by how the closed lines of all cuts that burn lie in each other. */
export function cutPieces(prepared: PreparedJob): CutPieces {
  const parts = cutParts(prepared);
  const fallsOut = parts.filter(({ depth }) => depth % 2 === 1).length;
  const holes = parts.filter(({ depth }) => depth > 0).map(({ line }) => line);
  const depths = new Map<string, number>();
  for (const { item, depth } of parts) depths.set(item.id, Math.min(depth, depths.get(item.id) ?? depth));
  return { pieces: parts.length - fallsOut, fallsOut, holes, depths };
}

/** Parts of one size that come out of a sheet. */
export interface PiecesOfSize {
  readonly count: number;
  /** Whether they are what falls out of pieces. */
  readonly isWaste: boolean;
  readonly isHeld: boolean;
  /** As they come out, the kerf taken off, in mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly itemIds: readonly string[];
}

/** What comes out by its size, to 0.01 mm: pieces before waste, the largest first. */
export function piecesBySize(prepared: PreparedJob): PiecesOfSize[] {
  const sizes = new Map<string, PiecesOfSize & { count: number; itemIds: string[] }>();
  for (const { item, subpath, line, layer, depth, isHeld } of cutParts(prepared)) {
    const isWaste = depth % 2 === 1;
    const kerfMm = layer.applied.settings?.kerfMm ?? 0;
    // The beam goes beside the line by half the kerf, or on it, and takes as much again.
    const growth = (beamSide(item, subpath, depth, layer.burning.keep) - 1) * kerfMm;
    const bounds = outlineBounds(item, subpath, line);
    const [widthMm, heightMm] = [boxWidth(bounds), boxHeight(bounds)].map((mm) => rounded(Math.max(0, mm + growth)));
    const name = [isWaste, isHeld, widthMm, heightMm].join(' ');
    const known = sizes.get(name);
    if (known) {
      known.count++;
      if (known.itemIds.at(-1) !== item.id) known.itemIds.push(item.id);
    } else sizes.set(name, { count: 1, isWaste, isHeld, widthMm, heightMm, itemIds: [item.id] });
  }
  return [...sizes.values()].sort(
    (a, b) => Number(a.isWaste) - Number(b.isWaste) || b.widthMm * b.heightMm - a.widthMm * a.heightMm,
  );
}

/** The exact bounds of one of an item's outlines, in bed mm. */
function outlineBounds(item: Item, subpath: number, line: Polyline): Box {
  const count = polylinesOf(item).length;
  if (count === 1) return boundsOf(item);
  const outlines = [...subpathsOf(pathOf(item))];
  // Where points without extent lie among them, outlines and lines do not match.
  return outlines.length === count ? pathBounds(pathOfSubpaths([outlines[subpath]])) : polylineBounds(line);
}

function rounded(mm: number): number {
  return Math.round(mm * 100) / 100;
}
