import { boundsOf, type Item, pathOf, polylinesOf } from '../document/item.ts';
import { beamSide } from '../fit/kerf.ts';
import { facesOf } from '../geometry/areas/faces.ts';
import { type Box, boxAt, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import type { Polyline } from '../geometry/paths/flatten.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import { pathOfSubpaths, subpathsOf } from '../geometry/paths/segments.ts';
import { polylineBounds } from '../geometry/questions/nesting.ts';
import { crossingClusters } from './crossings.ts';
import { tabsOnLine } from './held.ts';
import { cutLayers, nestedLines, outlinePlaces } from './nested-lines.ts';
import type { CutThrough } from './plan.ts';
import type { PreparedJob, PreparedLayer } from './prepare.ts';

/** How cut outlines lie in each other. */
export interface CutPieces {
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

/** Every closed line that the run cuts, in drawing order: what is drawn twice comes out once. */
export function cutParts(prepared: PreparedJob): CutPart[] {
  const cuts = cutLayers(prepared);
  const nested = nestedLines(prepared, cuts);
  return outlinePlaces(nested).flatMap((i): CutPart[] => {
    const layer = cuts[nested.layerIndices[i]];
    const { settings } = layer.applied;
    if (!settings) return [];
    const { item, nth: subpath, line } = nested.lines[i];
    const isHeld = tabsOnLine(prepared.job, settings, nested.lines[i]).length > 0;
    return [{ item, subpath, line, bounds: boxAt(nested.boxes, i), layer, depth: nested.depths[i], isHeld }];
  });
}

/** How the closed lines of all cuts that burn lie in each other. */
export function cutPieces(prepared: PreparedJob): CutPieces {
  const parts = cutParts(prepared);
  const holes = parts.filter(({ depth }) => depth > 0).map(({ line }) => line);
  const depths = new Map<string, number>();
  for (const { item, depth } of parts) depths.set(item.id, Math.min(depth, depths.get(item.id) ?? depth));
  return { holes, depths };
}

/** Parts of one size that come out of a sheet. */
export interface PiecesOfSize {
  readonly count: number;
  /** Whether they are what falls out of pieces. */
  readonly isWaste: boolean;
  readonly isHeld: boolean;
  /** Whether so many outlines cross there that more comes out than was looked for. */
  readonly isRough: boolean;
  /** As they come out, the kerf taken off, in mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly itemIds: readonly string[];
  /** When they come free, one after the other, in seconds from the start; none of what tabs hold, or where no plan was given. */
  readonly freeAtS: readonly number[];
}

/** Something that comes out of the sheet, and when it does; never where that is not known, or tabs hold it. */
type Loose = Omit<PiecesOfSize, 'count' | 'freeAtS'> & { readonly atS: number };

/** When a line of an item is cut through; never where it is not. */
type CutTime = (itemId: string, nth: number) => number;

/**
 * What comes out by its size, to 0.01 mm: pieces before waste, the largest first.
 * @param cuts when the plan cuts what
 */
export function piecesBySize(prepared: PreparedJob, cuts: readonly CutThrough[] = []): PiecesOfSize[] {
  const sizes = new Map<string, { first: Omit<Loose, 'atS'>; count: number; ids: Set<string>; freeAtS: number[] }>();
  const times = new Map<string, number>();
  for (const { itemId, nth, atS } of cuts)
    times.set(`${itemId} ${nth}`, Math.max(atS, times.get(`${itemId} ${nth}`) ?? 0));
  const cutTime: CutTime = (itemId, nth) => times.get(`${itemId} ${nth}`) ?? Infinity;
  for (const { atS, ...loose } of looseParts(prepared, cutTime)) {
    const { isWaste, isHeld, isRough, widthMm, heightMm, itemIds } = loose;
    const name = [isWaste, isHeld, isRough, widthMm, heightMm].join(' ');
    const known = sizes.get(name) ?? { first: loose, count: 0, ids: new Set(), freeAtS: [] };
    sizes.set(name, known);
    known.count++;
    if (!isHeld && atS < Infinity) known.freeAtS.push(atS);
    for (const id of itemIds) known.ids.add(id);
  }
  return [...sizes.values()]
    .map(({ first, count, ids, freeAtS }) => ({
      ...first,
      count,
      itemIds: [...ids],
      freeAtS: freeAtS.sort((a, b) => a - b),
    }))
    .sort((a, b) => Number(a.isWaste) - Number(b.isWaste) || b.widthMm * b.heightMm - a.widthMm * a.heightMm);
}

/** How many pieces come out, and how much waste of them. */
export function countPieces(sizes: readonly PiecesOfSize[]): { pieces: number; fallsOut: number } {
  const sum = (isWaste: boolean) => sizes.reduce((all, size) => (size.isWaste === isWaste ? all + size.count : all), 0);
  return { pieces: sum(false), fallsOut: sum(true) };
}

/** More lines than these that cross are not parted: what they come to takes too long to find. */
const mostCrossing = 40;

/** What each closed line cuts out; lines that cross part what they enclose. */
function looseParts(prepared: PreparedJob, cutTime: CutTime): Loose[] {
  const parts = cutParts(prepared);
  /** By item that crosses others: the lines of all that cross each other there. */
  const crossing = new Map<Item, CutPart[]>();
  const items = new Set(cutLayers(prepared).flatMap(({ placed }) => placed.map(({ item }) => item)));
  for (const cluster of crossingClusters([...items])) {
    const members: CutPart[] = [];
    for (const item of cluster.items) crossing.set(item, members);
  }
  for (const part of parts) crossing.get(part.item)?.push(part);
  const parted = new Set([...crossing.values()].filter(({ length }) => length > 0 && length <= mostCrossing));
  const whole = parts.flatMap((part) => {
    const members = crossing.get(part.item);
    return members && parted.has(members) ? [] : [wholeOf(part, members !== undefined, cutTime)];
  });
  return [...whole, ...[...parted].flatMap((members) => partedBy(members, cutTime))];
}

/** What one line cuts out. */
function wholeOf({ item, subpath, line, layer, depth, isHeld }: CutPart, isRough: boolean, cutTime: CutTime): Loose {
  const kerfMm = layer.applied.settings?.kerfMm ?? 0;
  // The beam goes beside the line by half the kerf, or on it, and takes as much again.
  const growth = (beamSide(item, subpath, depth, layer.burning.keep) - 1) * kerfMm;
  const size = sizeOf(outlineBounds(item, subpath, line), growth);
  const atS = cutTime(item.id, subpath);
  return { ...size, isWaste: depth % 2 === 1, isHeld, isRough, itemIds: [item.id], atS };
}

/** What lines that cross cut out between them: its kerf is taken off where the beam goes along the lines. */
function partedBy(parts: readonly CutPart[], cutTime: CutTime): Loose[] {
  const { layer } = parts[0];
  const growth = layer.burning.keep === 'line' ? -(layer.applied.settings?.kerfMm ?? 0) : 0;
  const itemIds = [...new Set(parts.map(({ item }) => item.id))];
  const atS = Math.max(...parts.map(({ item, subpath }) => cutTime(item.id, subpath)));
  const outermost = Math.min(...parts.map(({ depth }) => depth));
  return facesOf(parts.map(({ line }) => line)).map(({ bounds, depth }) => ({
    ...sizeOf(bounds, growth),
    isWaste: (outermost + depth) % 2 === 0,
    isHeld: false,
    isRough: false,
    itemIds,
    atS,
  }));
}

function sizeOf(bounds: Box, growth: number): Pick<Loose, 'widthMm' | 'heightMm'> {
  const [widthMm, heightMm] = [boxWidth(bounds), boxHeight(bounds)].map((mm) => rounded(Math.max(0, mm + growth)));
  return { widthMm, heightMm };
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
