import { type Area, areaOf, growArea, intersectAreas, sizeOfArea, subtractAreas } from '../geometry/areas/area.ts';
import { type Box, boxContains, boxesMeet, growBox } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { type Matrix, multiply, rotation, scaling, translation } from '../geometry/paths/matrix.ts';
import { type Path, PathBuilder, pathBounds, transformPath } from '../geometry/paths/path.ts';
import type { PackedPiece, Packing, PackWish } from './wish.ts';

/** Distances are kept to this, in mm. */
export const distanceTolerance = 1e-3;
/** How far the lines that outlines are held to stray from them, in mm. */
const curveTolerance = 2e-4;

/** Something that a packing does not keep. */
export interface PackingFault {
  readonly what: 'overlap' | 'too near' | 'outside' | 'into the margin' | 'on an obstacle';
  /** Which of the packing's sheets. */
  readonly sheet: number;
  /** Which of what lies on it; the second is -1 for the sheet's own edge, and for what stays there. */
  readonly pieces: readonly [number, number];
  /** How near they come, in mm. */
  readonly distanceMm: number;
}

/** How a packed piece is moved from where its outline was drawn. */
export function packedMatrix({ x, y, angle, isMirrored }: PackedPiece): Matrix {
  const turn = multiply(rotation(angle), isMirrored ? scaling(-1, 1) : scaling(1, 1));
  return multiply(translation(x, y), turn);
}

/** Holds packings of one wish to the true outlines. Pairs that were seen to lie well are not looked at again. */
export class PackingCheck {
  private readonly edges = new Map<number, Outlined>();
  private readonly obstacles = new Map<number, readonly Outlined[]>();
  private readonly well = new Set<string>();

  constructor(private readonly wish: PackWish) {}

  /**
   * What of a packing does not keep what was asked for, by the true outlines, worked out apart from the search: pieces that
   * lie over each other or nearer than the gap, and pieces beyond the edge of the sheet or within its margin.
   */
  faults(packing: Pick<Packing, 'sheets'>): PackingFault[] {
    return packing.sheets.flatMap(({ sheet, pieces }, i) => {
      const outlines = new Map<PackedPiece, Outlined>();
      const outlined = (mine: PackedPiece) => {
        const known =
          outlines.get(mine) ?? new Outlined(transformPath(this.wish.pieces[mine.piece].outline, packedMatrix(mine)));
        outlines.set(mine, known);
        return known;
      };
      const boxes = pieces.map((mine) => this.boxOf(mine));
      return pieces.flatMap((mine, a) => {
        const among = pieces.slice(a + 1).flatMap((other, k) => {
          const reach = growBox(boxes[a], this.wish.gapMm + distanceTolerance);
          if (!boxesMeet(reach, boxes[a + 1 + k])) return [];
          const found = this.unlessWell(pairName(mine, other), () => this.between(outlined(mine), outlined(other)));
          return found ? [{ ...found, sheet: i, pieces: [a, a + 1 + k] as const }] : [];
        });
        const name = `${sheet} ${placeName(mine)} ${mine.x} ${mine.y}`;
        const out = this.unlessWell(name, () => this.onSheet(outlined(mine), this.edgeOf(sheet)));
        const stays = this.obstaclesOf(sheet).flatMap((obstacle, k) => {
          const found = this.unlessWell(`${name} ${k}`, () => this.between(outlined(mine), obstacle));
          return found ? [{ ...found, what: 'on an obstacle' as const }] : [];
        });
        const onSheet = [...(out ? [out] : []), ...stays];
        return [...among, ...onSheet.map((found) => ({ ...found, sheet: i, pieces: [a, -1] as const }))];
      });
    });
  }

  private unlessWell(name: string, look: () => Found | null): Found | null {
    if (this.well.has(name)) return null;
    const found = look();
    if (!found) this.well.add(name);
    return found;
  }

  private readonly turnedBoxes = new Map<string, Box>();

  private boxOf(mine: PackedPiece): Box {
    const name = placeName(mine);
    const box =
      this.turnedBoxes.get(name) ??
      pathBounds(transformPath(this.wish.pieces[mine.piece].outline, packedMatrix({ ...mine, x: 0, y: 0 })));
    this.turnedBoxes.set(name, box);
    return { minX: box.minX + mine.x, minY: box.minY + mine.y, maxX: box.maxX + mine.x, maxY: box.maxY + mine.y };
  }

  private edgeOf(sheet: number): Outlined {
    const known = this.edges.get(sheet) ?? new Outlined(this.wish.sheets[sheet].outline);
    this.edges.set(sheet, known);
    return known;
  }

  private obstaclesOf(sheet: number): readonly Outlined[] {
    const known =
      this.obstacles.get(sheet) ?? this.wish.sheets[sheet].obstacles.map((obstacle) => new Outlined(obstacle));
    this.obstacles.set(sheet, known);
    return known;
  }

  private between(mine: Outlined, other: Outlined): Found | null {
    const { gapMm } = this.wish;
    if (!mine.isSurelyBeside(other) && sizeOfArea(intersectAreas(mine.shrunk, other.area)) > 0)
      return { what: 'overlap', distanceMm: 0 };
    const distanceMm = distanceBetween(mine, other, gapMm);
    return distanceMm < gapMm - distanceTolerance ? { what: 'too near', distanceMm } : null;
  }

  private onSheet(mine: Outlined, edge: Outlined): Found | null {
    const { marginMm } = this.wish;
    if (!mine.isSurelyIn(edge) && sizeOfArea(subtractAreas(mine.shrunk, edge.area)) > 0)
      return { what: 'outside', distanceMm: 0 };
    const distanceMm = distanceBetween(mine, edge, marginMm);
    return distanceMm < marginMm - distanceTolerance ? { what: 'into the margin', distanceMm } : null;
  }
}

type Found = Pick<PackingFault, 'what' | 'distanceMm'>;

function placeName({ piece, angle, isMirrored }: PackedPiece): string {
  return `${piece} ${angle} ${isMirrored}`;
}

/** Two pieces as they lie to each other: wherever both are, it is the same. */
function pairName(mine: PackedPiece, other: PackedPiece): string {
  return `${placeName(mine)} ${placeName(other)} ${(other.x - mine.x).toFixed(7)} ${(other.y - mine.y).toFixed(7)}`;
}

/** An outline as fine lines. Its area is worked out when it is asked for. */
class Outlined {
  /** Its edges, four numbers each: from where to where. */
  readonly edges: Float64Array;
  readonly index: ReturnType<typeof indexBoxes>;
  readonly box: Box;
  private readonly lines: Path;
  private knownArea: Area | null = null;
  private knownShrunk: Area | null = null;

  constructor(path: Path) {
    const builder = new PathBuilder();
    const edges: number[] = [];
    for (const { points, closed } of flatten(path, curveTolerance)) {
      if (!closed) continue;
      builder.moveTo(points[0], points[1]);
      for (let i = 2; i < points.length; i += 2) builder.lineTo(points[i], points[i + 1]);
      builder.close();
      for (let i = 0; i < points.length; i += 2) {
        const next = (i + 2) % points.length;
        edges.push(points[i], points[i + 1], points[next], points[next + 1]);
      }
    }
    this.lines = builder.build();
    this.box = pathBounds(this.lines);
    this.edges = Float64Array.from(edges);
    this.index = indexBoxes(Array.from({ length: edges.length / 4 }, (_, k) => edgeBox(this.edges, 4 * k)));
  }

  get area(): Area {
    this.knownArea ??= areaOf(this.lines, 'evenodd');
    return this.knownArea;
  }

  /** The same, smaller all around by what may be off. */
  get shrunk(): Area {
    this.knownShrunk ??= growArea(this.area, -distanceTolerance);
    return this.knownShrunk;
  }

  /** Whether nothing of it lies over the other, as far as their bounds tell. */
  isSurelyBeside(other: Outlined): boolean {
    return !boxesMeet(growBox(this.box, -distanceTolerance), other.box);
  }

  /** Whether all of it lies in the other, as far as bounds tell. */
  isSurelyIn(other: Outlined): boolean {
    return other.area.isBox && boxContains(other.box, this.box, distanceTolerance);
  }
}

/** How near two outlines come to each other, in mm; infinite where that is more than `within`. */
function distanceBetween(mine: Outlined, other: Outlined, within: number): number {
  if (within <= 0) return Infinity;
  const reach = growBox(other.box, within);
  let least = Infinity;
  for (let i = 0; i < mine.edges.length; i += 4) {
    const box = edgeBox(mine.edges, i);
    if (!boxesMeet(box, reach)) continue;
    const { minX, minY, maxX, maxY } = growBox(box, within);
    for (const k of other.index?.search(minX, minY, maxX, maxY) ?? [])
      least = Math.min(least, distanceOfEdges(mine.edges, i, other.edges, 4 * k));
  }
  return least;
}

function edgeBox(edges: Float64Array, i: number): Box {
  const [x0, y0, x1, y1] = [edges[i], edges[i + 1], edges[i + 2], edges[i + 3]];
  return { minX: Math.min(x0, x1), minY: Math.min(y0, y1), maxX: Math.max(x0, x1), maxY: Math.max(y0, y1) };
}

/** The distance of two straight lines that do not cross: that of an end of the one from the other. */
function distanceOfEdges(a: Float64Array, i: number, b: Float64Array, k: number): number {
  return Math.min(
    distanceToEdge(a[i], a[i + 1], b, k),
    distanceToEdge(a[i + 2], a[i + 3], b, k),
    distanceToEdge(b[k], b[k + 1], a, i),
    distanceToEdge(b[k + 2], b[k + 3], a, i),
  );
}

function distanceToEdge(x: number, y: number, edges: Float64Array, i: number): number {
  const [x0, y0] = [edges[i], edges[i + 1]];
  const [dx, dy] = [edges[i + 2] - x0, edges[i + 3] - y0];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / square));
  return Math.hypot(x - x0 - t * dx, y - y0 - t * dy);
}
