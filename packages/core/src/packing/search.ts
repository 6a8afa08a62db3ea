import { isAllBoxes, SkylineLayout } from './boxes.ts';
import { Crowd } from './crowd.ts';
import type { Laid, Place, Search } from './layout.ts';
import { isBetterRank, Score } from './score.ts';
import { bestStop, separate, shuffled } from './separate.ts';
import { TouchingLayout } from './touch.ts';

/** Of what lies in a room, so much is taken out and laid anew at most. */
const mostRuined = 0.5;
/** How much worse a layout may be that is gone on from, as a share of a sheet, at most. */
const mostSlack = 0.02;
/** A piece is pushed in with so many moves of each that lies there, at most. */
const movesToPush = 25;
/** After so many tries it is gone on from the best again. */
const triesAway = 200;
/** After so many orders of rectangles that are no better, another one is begun with: of the first ones, and at most. */
const [fewOrders, mostOrders] = [40, 3000];

/**
 * Lays pieces better and better. Rectangles that lie straight are laid in one order after another (`boxes.ts`). All else
 * begins as a layout of touching pieces (`touch.ts`), of which a part is taken out and laid anew with what waits (ruin and
 * recreate: Schrimpf et al., “Record breaking optimization results using the ruin and recreate principle”, Journal of
 * Computational Physics 159, 2000); and now and then a piece that waits is pushed in, and what it lies over moved aside
 * (`separate.ts`).
 *
 * @param random numbers from 0 to 1; by the same, the same comes out
 * @yields each layout that is better than those before; null after each other try. Ends once nothing can be gained any more
 */
export function* searched(search: Search, random: () => number): Generator<Scored | null> {
  let best: Score | null = null;
  for (const { laid, score } of isAllBoxes(search) ? ordersOfBoxes(search, random) : relaidAgain(search, random)) {
    const isGain = !best || isBetterRank(score, best);
    yield isGain ? { laid, score } : null;
    if (isGain) best = score;
    if (best?.isPerfect) return;
  }
}

/** A layout with how good it is. */
export interface Scored {
  readonly laid: Laid;
  readonly score: Score;
}

function scored(search: Search, laid: Laid): Scored {
  return { laid, score: new Score(search, laid) };
}

/** Layouts of rectangles: of an order in which two change places, or one goes elsewhere, what is no worse is gone on from. */
function* ordersOfBoxes(search: Search, random: () => number): Generator<Scored> {
  const skyline = new SkylineLayout(search);
  for (let round = 0; ; round++) {
    let order = bySize(search, search.wanted, round === 0 ? 0 : 1, random);
    const isAcross = round % 2 === 1;
    const patience = Math.min(mostOrders, fewOrders * 2 ** Math.floor(round / 2));
    let now = scored(search, skyline.lay(order, isAcross));
    yield now;
    for (let since = 0; since < patience; since++) {
      const next = [...order];
      const [i, k] = [Math.floor(random() * next.length), Math.floor(random() * next.length)];
      if (random() < 0.5) [next[i], next[k]] = [next[k], next[i]];
      else next.splice(k, 0, ...next.splice(i, 1));
      const tried = scored(search, skyline.lay(next, isAcross));
      yield tried;
      if (isBetterRank(now.score, tried.score)) continue;
      if (isBetterRank(tried.score, now.score)) since = 0;
      [order, now] = [next, tried];
    }
  }
}

/** Layouts of touching pieces, after one of their bounds, which is there at once: what is better, or not much worse, is gone on from. */
function* relaidAgain(search: Search, random: () => number): Generator<Scored> {
  if (search.rooms.every(({ free }) => free === null))
    yield scored(search, new SkylineLayout(search).lay(bySize(search, search.wanted, 0, random), false));
  let now = scored(search, laidFrom(search, [], 0, bySize(search, search.wanted, 0, random), random, 0));
  yield now;
  // What finds no place where nothing lies finds none however often it is tried.
  if (now.laid.places.every((there) => there.length === 0)) return;
  let best = now;
  let [nextPush, pause] = [16, 16];
  for (let tries = 1; ; tries++) {
    const isPush = tries === nextPush;
    const laid = isPush ? pushedIn(search, now.laid, random) : relaid(search, now.laid, random);
    if (isPush) {
      pause = laid === now.laid ? Math.min(256, pause * 2) : 8;
      nextPush = tries + pause;
    }
    const next = scored(search, laid);
    const slack = mostSlack * (0.5 + 0.5 * Math.cos((2 * Math.PI * tries) / triesAway)) * random();
    if (!isBetterRank(now.score, next.score) || next.score.filled >= now.score.filled - slack) now = next;
    if (isBetterRank(next.score, best.score)) best = next;
    yield next;
    if (tries % triesAway === 0) now = best;
  }
}

/** Pieces, the largest first. @param chance how far their sizes are made other than they are, as a share */
function bySize(search: Search, pieces: readonly number[], chance: number, random: () => number): number[] {
  const sizes = new Map(pieces.map((piece) => [piece, areaOf(search, piece) * (1 + chance * (random() - 0.5))]));
  return [...pieces].sort((a, b) => (sizes.get(b) ?? 0) - (sizes.get(a) ?? 0));
}

function areaOf({ turned }: Search, piece: number): number {
  return turned[piece][0].shape.area;
}

/** Lays what waits from a room on, one room after the other. @param before what lies in the rooms before */
function laidFrom(
  search: Search,
  before: readonly (readonly Place[])[],
  from: number,
  waiting: readonly number[],
  random: () => number,
  fancy: number,
): Laid {
  const places = before.slice(0, from);
  let left = [...waiting];
  for (let room = from; room < search.rooms.length && (left.length > 0 || room === from); room++) {
    const layout = new TouchingLayout(search.rooms[room], search.turned, random, fancy);
    for (const place of before[room] ?? []) layout.put(place);
    left = layout.lay(left);
    // What finds no place where nothing lies finds none anywhere.
    if (layout.places.length === 0 && search.rooms[room + 1] === search.rooms[room]) break;
    places.push(layout.places);
  }
  return { places, left };
}

/** A part of a room is taken out, and laid anew with what lies in the rooms after it, or nowhere; or the last room squeezed. */
function relaid(search: Search, laid: Laid, random: () => number): Laid {
  const { places, left } = laid;
  const room = Math.floor(random() * places.length);
  if (room === places.length - 1 && left.length === 0) return squeezed(search, laid, random);
  const there = places[room];
  // Mostly few, now and then many.
  const count = 1 + Math.floor(random() ** 2 * Math.max(2, there.length * mostRuined));
  const { minX, minY, maxX, maxY } = search.rooms[room].box;
  const near = nearestTo(search, there, minX + random() * (maxX - minX), minY + random() * (maxY - minY));
  const waiting = [...left, ...near.slice(0, count), ...places.slice(room + 1).flat()].map((entry) =>
    typeof entry === 'number' ? entry : entry.piece,
  );
  const before = [...places.slice(0, room), near.slice(count)];
  return laidFrom(search, before, room, bySize(search, waiting, 0.8, random), random, 0.4);
}

/** Places by how near their pieces lie to a point. */
function nearestTo({ turned }: Search, places: readonly Place[], x: number, y: number): Place[] {
  const far = ({ piece, turn, x: placeX, y: placeY }: Place) => {
    const { box } = turned[piece][turn].shape;
    return Math.hypot(placeX + (box.minX + box.maxX) / 2 - x, placeY + (box.minY + box.maxY) / 2 - y);
  };
  return [...places].sort((a, b) => far(a) - far(b));
}

/** The last room, with what lies there laid into a smaller part of it; as it was, where it does not fit. */
function squeezed(search: Search, laid: Laid, random: () => number): Laid {
  const last = laid.places.length - 1;
  const there = laid.places[last];
  const room = search.rooms[last];
  const ends = there.map(({ piece, turn, x, y }) => {
    const { maxX, maxY } = search.turned[piece][turn].shape.box;
    return [x + maxX, y + maxY];
  });
  const axis = random() < 0.5 ? 0 : 1;
  const [begin, most] = axis === 0 ? [room.box.minX, room.box.maxX] : [room.box.minY, room.box.maxY];
  const end = Math.max(...ends.map((place) => place[axis]));
  const wanted = end - (end - begin) * 0.08 * random();
  const box =
    axis === 0 ? { ...room.box, maxX: Math.min(most, wanted) } : { ...room.box, maxY: Math.min(most, wanted) };
  const count = Math.floor(random() * there.length);
  const near = nearestTo(
    search,
    there,
    axis === 0 ? end : random() * room.box.maxX,
    axis === 0 ? random() * room.box.maxY : end,
  );
  const isOut = (place: Place) => ends[there.indexOf(place)][axis] > wanted;
  const gone = near.filter((place, i) => i < count || isOut(place));
  const layout = new TouchingLayout({ ...room, box }, search.turned, random, 0.4);
  for (const place of near) if (!gone.includes(place)) layout.put(place);
  const left = layout.lay(
    bySize(
      search,
      gone.map(({ piece }) => piece),
      0.8,
      random,
    ),
  );
  return left.length > 0 ? laid : { places: [...laid.places.slice(0, last), layout.places], left: [] };
}

/** A piece that waits is pushed into a room: what it lies over is moved aside. As it was, where that does not come off. */
function pushedIn(search: Search, laid: Laid, random: () => number): Laid {
  const { places, left } = laid;
  const room = Math.floor(random() * places.length);
  const waiting = [
    ...left,
    ...places
      .slice(room + 1)
      .flat()
      .map(({ piece }) => piece),
  ];
  if (waiting.length === 0) return laid;
  const piece = shuffled(waiting, random)[0];
  const crowd = new Crowd(
    search.rooms[room],
    search.turned.map((ways) => ways.map(({ shape }) => shape)),
    random,
  );
  for (const place of places[room]) crowd.add(place);
  const { box } = search.rooms[room];
  const turn = Math.floor(random() * search.turned[piece].length);
  const mine = search.turned[piece][turn].shape.box;
  const i = crowd.add({ piece, turn, x: box.minX - mine.minX, y: box.minY - mine.minY });
  const stop = bestStop(crowd, i, random);
  if (stop) crowd.put(i, stop.turn, stop.x, stop.y);
  if (!separate(crowd, movesToPush * crowd.size, random).isApart) return laid;
  waiting.splice(waiting.indexOf(piece), 1);
  const before = places.slice(0, room + 1);
  before[room] = crowd.places();
  return laidFrom(search, before, room, bySize(search, waiting, 0.3, random), random, 0.2);
}
