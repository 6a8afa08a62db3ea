import type { Laid, Place, Room, Search } from './layout.ts';

/** Lengths this near to each other, in mm, are one. */
const same = 1e-6;

/** A stretch of the edge of what lies there, in mm from the room's corner: how far it reaches. */
interface Step {
  x: number;
  width: number;
  y: number;
}

/** A way in which a rectangle may lie. */
interface Side {
  readonly turn: number;
  readonly width: number;
  readonly height: number;
}

/** Whether all that is searched is rectangles that lie straight, in rooms that are rectangles. */
export function isAllBoxes({ turned, rooms }: Search): boolean {
  const fills = ({ shape: { box, area } }: (typeof turned)[number][number]) =>
    Math.abs((box.maxX - box.minX) * (box.maxY - box.minY) - area) < same * Math.max(1, area);
  return rooms.every(({ free }) => free === null) && turned.every((ways) => ways.every(fills));
}

/**
 * Lays rectangles in an order, each time at the lowest stretch of the edge of what lies there, the leftmost of such: of
 * those that fit there the one that goes with most of its sides, and of those as good the first in the order (Wei, Oon, Zhu
 * and Lim, “A skyline heuristic for the 2D rectangular packing and strip packing problems”, European Journal of Operational
 * Research 215, 2011).
 */
export class SkylineLayout {
  private readonly ways: Side[][];
  /** The same with X and Y exchanged. */
  private readonly across: Side[][];

  constructor(private readonly search: Search) {
    this.ways = search.turned.map((ways) => {
      const sides: Side[] = [];
      ways.forEach(({ shape: { box } }, turn) => {
        const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
        const isKnown = (known: Side) => Math.abs(known.width - width) < same && Math.abs(known.height - height) < same;
        if (!sides.some(isKnown)) sides.push({ turn, width, height });
      });
      return sides;
    });
    this.across = this.ways.map((sides) =>
      sides.map(({ turn, width, height }) => ({ turn, width: height, height: width })),
    );
  }

  /** @param isAcross whether it is built up along X instead of along Y */
  lay(order: readonly number[], isAcross: boolean): Laid {
    let left = [...order];
    const places: Place[][] = [];
    for (const room of this.search.rooms) {
      if (left.length === 0) break;
      const there: Place[] = [];
      left = this.fill(room, left, isAcross, there);
      places.push(there);
    }
    return { places, left };
  }

  private fill({ box }: Room, waiting: number[], isAcross: boolean, there: Place[]): number[] {
    const [width, height] = isAcross
      ? [box.maxY - box.minY, box.maxX - box.minX]
      : [box.maxX - box.minX, box.maxY - box.minY];
    const ways = isAcross ? this.across : this.ways;
    const steps: Step[] = [{ x: 0, width, y: 0 }];
    const left = [...waiting];
    while (left.length > 0) {
      let lowest = 0;
      for (let i = 1; i < steps.length; i++) if (steps[i].y < steps[lowest].y - same) lowest = i;
      const step = steps[lowest];
      if (step.y >= height - same) break;
      const [before, after] = [
        lowest > 0 ? steps[lowest - 1].y : Infinity,
        lowest + 1 < steps.length ? steps[lowest + 1].y : Infinity,
      ];
      const [wallBefore, wallAfter] = [before - step.y, after - step.y];
      const room = height - step.y;
      let [best, bestSide, bestFit] = [-1, null as Side | null, -1];
      for (let i = 0; i < left.length && bestFit < 4; i++) {
        for (const side of ways[left[i]]) {
          if (side.width > step.width + same || side.height > room + same) continue;
          const isWide = side.width > step.width - same;
          let fit = isWide ? 1 : 0;
          const isAsHigh = (wall: number) => Math.abs(side.height - wall) < same;
          if (isWide) fit += (isAsHigh(wallBefore) ? 1 : 0) + (isAsHigh(wallAfter) ? 1 : 0);
          else if (isAsHigh(wallBefore) || isAsHigh(wallAfter)) fit++;
          if (isAsHigh(room)) fit++;
          if (fit > bestFit) [best, bestSide, bestFit] = [i, side, fit];
        }
      }
      if (!bestSide) {
        raise(steps, lowest, Math.min(before, after));
        continue;
      }
      const [piece] = left.splice(best, 1);
      const { width: wide, height: high, turn } = bestSide;
      const isLike = (wall: number) => Math.abs(high - wall) < same;
      const goesLeft = isLike(wallBefore) || (!isLike(wallAfter) && wallBefore >= wallAfter);
      const x = goesLeft ? step.x : step.x + step.width - wide;
      const { minX, minY } = this.search.turned[piece][turn].shape.box;
      const [atX, atY] = isAcross ? [step.y, x] : [x, step.y];
      there.push({ piece, turn, x: box.minX + atX - minX, y: box.minY + atY - minY });
      putOn(steps, lowest, x, wide, step.y + high);
    }
    return left;
  }
}

/** Nothing fits on a stretch: it is given up, up to the lower one beside it. */
function raise(steps: Step[], lowest: number, y: number): void {
  steps[lowest].y = y === Infinity ? Number.MAX_VALUE : y;
  join(steps);
}

function putOn(steps: Step[], lowest: number, x: number, width: number, y: number): void {
  const step = steps[lowest];
  const parts: Step[] = [];
  if (x > step.x + same) parts.push({ x: step.x, width: x - step.x, y: step.y });
  parts.push({ x, width, y });
  const end = step.x + step.width;
  if (x + width < end - same) parts.push({ x: x + width, width: end - x - width, y: step.y });
  steps.splice(lowest, 1, ...parts);
  join(steps);
}

function join(steps: Step[]): void {
  for (let i = steps.length - 1; i > 0; i--) {
    if (Math.abs(steps[i].y - steps[i - 1].y) > same) continue;
    steps[i - 1].width += steps[i].width;
    steps.splice(i, 1);
  }
}
