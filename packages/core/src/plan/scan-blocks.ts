import { type Box, boxHeight, boxWidth, growBox, uniteBoxes } from '../geometry/paths/box.ts';
import { indexBoxes } from '../geometry/paths/box-index.ts';
import type { LayerSettings } from '../settings/settings.ts';
import type { Ramps } from './ramps.ts';
import { type Filled, levelled } from './scan-lines.ts';

/** What the time of scan lines goes by. */
export interface ScanPace {
  readonly settings: Pick<LayerSettings, 'lineSpacingMm' | 'speedMmPerS'>;
  /** Along the lines, in mm/s². */
  readonly acceleration: number;
  readonly ramps: Ramps;
  /** How far the head runs unlit at each end of a line, in mm. */
  readonly runUp: number;
}

interface Bounded {
  readonly bounds: Box;
}

/** Pieces that are scanned as one. */
interface Block<T> {
  readonly bounds: Box;
  readonly pieces: T[];
}

/** Pieces that are filled with lines at one angle, in degrees. */
export interface PiecesAtAngle {
  readonly angle: number;
  readonly pieces: readonly Filled[];
}

/**
 * Which pieces are filled sooner at one angle, and which at the other, by their boxes. Those that touch go together. All are
 * filled at one angle where that is soonest on the whole, as of many narrow pieces side by side.
 *
 * @returns first those at the first angle
 */
export function soonerAngles(
  pieces: readonly Filled[],
  [first, second]: readonly [number, number],
  paceAt: (angle: number) => ScanPace,
): PiecesAtAngle[] {
  const ways = [first, second].map((angle) => {
    const pace = paceAt(angle);
    const bounds = new Map(pieces.map((piece) => [piece, levelled(piece, angle).bounds]));
    const boundedOf = (some: readonly Filled[]) =>
      some.map((piece) => ({ piece, bounds: bounds.get(piece) ?? piece.bounds }));
    const secondsOf = (some: readonly Filled[]) =>
      some.length === 0
        ? 0
        : joinedBlocks(boundedOf(some), pace).reduce((sum, block) => sum + cost(block.bounds, pace), 0);
    return { pace, boundedOf, secondsOf };
  });
  const [level, turned] = ways;
  const [atFirst, atSecond]: [Filled[], Filled[]] = [[], []];
  for (const block of touchingBlocks(level.boundedOf(pieces), Math.max(level.pace.runUp, turned.pace.runUp))) {
    const members = block.pieces.map(({ piece }) => piece);
    (level.secondsOf(members) <= turned.secondsOf(members) ? atFirst : atSecond).push(...members);
  }
  const options: readonly (readonly [readonly Filled[], readonly Filled[]])[] = [
    [atFirst, atSecond],
    [pieces, []],
    [[], pieces],
  ];
  const seconds = options.map(([a, b]) => level.secondsOf(a) + turned.secondsOf(b));
  const [a, b] = options[seconds.indexOf(Math.min(...seconds))];
  return [
    { angle: first, pieces: a },
    { angle: second, pieces: b },
  ].filter(({ pieces: own }) => own.length > 0);
}

/** More blocks than this are not compared pair by pair. */
const mostPairs = 160;

/** Groups pieces into blocks that are each scanned as one, so that the whole takes little time. */
export function blocksOf<T extends Bounded>(pieces: readonly T[], pace: ScanPace): T[][] {
  return joinedBlocks(pieces, pace).map((block) => block.pieces);
}

/** About how many seconds a block takes, by its box; of lines that all go one way it is twice as long for every block. */
function cost(box: Box, { settings: { lineSpacingMm, speedMmPerS }, acceleration, ramps }: ScanPace): number {
  const rows = boxHeight(box) / lineSpacingMm;
  const across = (boxWidth(box) + 4 * ramps.runUp(speedMmPerS, acceleration)) / speedMmPerS;
  return rows * across;
}

function joinedBlocks<T extends Bounded>(pieces: readonly T[], pace: ScanPace): Block<T>[] {
  const blocks = touchingBlocks(pieces, pace.runUp);
  if (blocks.length > mostPairs)
    return [{ bounds: pieces.map(({ bounds }) => bounds).reduce(uniteBoxes), pieces: pieces.slice() }];
  for (;;) {
    let best: { i: number; j: number; saved: number } | null = null;
    for (let i = 0; i < blocks.length; i++) {
      for (let j = i + 1; j < blocks.length; j++) {
        const [a, b] = [blocks[i].bounds, blocks[j].bounds];
        const saved = cost(a, pace) + cost(b, pace) - cost(uniteBoxes(a, b), pace);
        if (saved > 0 && (!best || saved > best.saved)) best = { i, j, saved };
      }
    }
    if (!best) break;
    const [other] = blocks.splice(best.j, 1);
    const block = blocks[best.i];
    blocks[best.i] = { bounds: uniteBoxes(block.bounds, other.bounds), pieces: [...block.pieces, ...other.pieces] };
  }
  return blocks.sort((a, b) => a.bounds.minY - b.bounds.minY || a.bounds.minX - b.bounds.minX);
}

/** Pieces whose bounds come within `reach` mm of each other, gathered; overlapping ones must share a block. */
function touchingBlocks<T extends Bounded>(pieces: readonly T[], reach: number): Block<T>[] {
  const index = indexBoxes(pieces.map(({ bounds }) => bounds));
  const seen = new Uint8Array(pieces.length);
  const blocks: Block<T>[] = [];
  for (let first = 0; first < pieces.length; first++) {
    if (seen[first]) continue;
    seen[first] = 1;
    const waiting = [first];
    const places: number[] = [];
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      places.push(next);
      const near = growBox(pieces[next].bounds, reach);
      for (const other of index?.search(near.minX, near.minY, near.maxX, near.maxY) ?? []) {
        if (seen[other]) continue;
        seen[other] = 1;
        waiting.push(other);
      }
    }
    // In their order: of greys, what lies in front covers what is behind it.
    const members = places.sort((a, b) => a - b).map((place) => pieces[place]);
    blocks.push({ bounds: members.map((piece) => piece.bounds).reduce(uniteBoxes), pieces: members });
  }
  return blocks;
}
