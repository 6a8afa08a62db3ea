import { areaOf, growArea, linesOfArea, subtractAreas } from '../geometry/areas/area.ts';
import { pathOfRings } from '../geometry/areas/rings.ts';
import { Verb } from '../geometry/paths/path.ts';
import { numbersFrom } from '../plan/random.ts';
import { PackingCheck } from './check.ts';
import { type Rings, shapeOf } from './edges.ts';
import type { Room, Search, Turned } from './layout.ts';
import { roomArea, type Score } from './score.ts';
import { type Scored, searched } from './search.ts';
import { ringsAround, type Turn, turnedPieces, turnsOf } from './turned.ts';
import type { PackedPiece, Packing, PackSheet, PackWish, Rank } from './wish.ts';

/** As many as fit are at most so many. */
const mostCopies = 1000;

interface Prepared {
  readonly search: Search;
  readonly turns: readonly (readonly Turn[])[];
  /** The number of each room's sheet in the wish. */
  readonly sheets: readonly number[];
  /** Pieces that are larger than every sheet. */
  readonly tooLarge: readonly number[];
}

/**
 * Lays pieces on sheets, better and better: see `searched`. What comes out is held to the true outlines before it does.
 *
 * @param seed a whole number; by the same, the same comes out
 * @yields each packing that is better than those before; null after each other try. Ends once nothing can be gained
 */
export function* packed(wish: PackWish, seed: number): Generator<Packing | null> {
  const prepared = prepare(wish);
  const check = new PackingCheck(wish);
  for (const found of searched(prepared.search, numbersFrom(seed))) {
    const packing = found && packingOf(wish, prepared, found);
    yield packing && check.faults(packing).length === 0 ? packing : null;
  }
}

function prepare(wish: PackWish): Prepared {
  const outlines = wish.pieces.map(({ outline }) => ringsAround(outline, wish.gapMm / 2, wish.fillsHoles));
  const turns = outlines.map((rings) => turnsOf(rings, wish));
  const turned = outlines.map((rings, i) =>
    turnedPieces(rings, turns[i], wish.pieces[i].outline.verbs.includes(Verb.cubic)),
  );
  const kinds = wish.sheets.map((sheet) => roomOf(sheet, wish));
  const isTooLarge = (ways: readonly Turned[]) => kinds.every((room) => ways.every((way) => !goesInto(way, room)));
  const tooLarge = turned.flatMap((ways, i) => (isTooLarge(ways) ? [i] : []));
  const fitting = wish.pieces.flatMap((_, i) => (tooLarge.includes(i) ? [] : [i]));
  const sheets = sheetsFor(
    wish,
    fitting.reduce((sum, i) => sum + (wish.pieces[i].count ?? 0), 0),
  );
  const free = sheets.reduce((sum, i) => sum + roomArea(kinds[i]), 0);
  const wanted = fitting.flatMap((i) => {
    const most = Math.min(mostCopies, Math.floor(free / turned[i][0].shape.area));
    return Array.from({ length: wish.pieces[i].count ?? most }, () => i);
  });
  const search = { turned, rooms: sheets.map((i) => kinds[i]), wanted, sharesEdges: wish.sharesEdges ?? false };
  return { search, turns, sheets, tooLarge };
}

/** The sheets that may be used, each by its number: of those of which there are as many as it takes, one for each piece. */
function sheetsFor({ sheets }: PackWish, pieces: number): number[] {
  return sheets.flatMap(({ count }, i) =>
    Array.from({ length: Math.min(count ?? Infinity, Math.max(1, pieces)) }, () => i),
  );
}

function goesInto({ shape: { box } }: Turned, room: Room): boolean {
  return (
    box.maxX - box.minX <= room.box.maxX - room.box.minX + 1e-9 &&
    box.maxY - box.minY <= room.box.maxY - room.box.minY + 1e-9
  );
}

/** Where pieces that are grown by half of the gap may lie on a sheet, so that they keep its margin. */
function roomOf({ outline, obstacles }: PackSheet, { marginMm, gapMm }: PackWish): Room {
  const inside = growArea(areaOf(outline, 'evenodd'), gapMm / 2 - marginMm);
  const area = obstacles
    .map((obstacle) => ringsAround(obstacle, gapMm / 2, false))
    .reduce((left, rings) => subtractAreas(left, areaOf(pathOfRings(rings), 'evenodd')), inside);
  const rings: Rings = linesOfArea(area).map(({ points }) => points);
  const shape = shapeOf(rings);
  const { box } = shape;
  const isBox = Math.abs((box.maxX - box.minX) * (box.maxY - box.minY) - shape.area) < 1e-6;
  return { box, free: isBox ? null : shape };
}

/** Plain numbers, which a worker can send. */
function rankOf({ left, sheets, filled, rest, way }: Score): Rank {
  return { left, sheets, filled, rest, way };
}

function packingOf(wish: PackWish, { search, turns, sheets, tooLarge }: Prepared, { laid, score }: Scored): Packing {
  const { places, left: waiting } = laid;
  const packedPiece = ({ piece, turn, x, y }: Scored['laid']['places'][number][number]): PackedPiece => ({
    piece,
    x,
    y,
    ...turns[piece][turn],
  });
  const isAsked = (piece: number) => wish.pieces[piece].count !== null;
  const count = (piece: number) =>
    tooLarge.includes(piece) ? (wish.pieces[piece].count ?? 0) : waiting.filter((other) => other === piece).length;
  return {
    sheets: places.flatMap((there, room) =>
      there.length > 0 ? [{ sheet: sheets[room], pieces: there.map(packedPiece) }] : [],
    ),
    left: search.turned.map((_, piece) => (isAsked(piece) ? count(piece) : 0)),
    rank: rankOf(score),
  };
}
