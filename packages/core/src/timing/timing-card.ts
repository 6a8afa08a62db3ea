import { boxHeight, boxWidth, growBox } from '../geometry/paths/box.ts';
import type { Point } from '../geometry/paths/matrix.ts';
import { bedBox, type Machine } from '../machine/machine.ts';
import { type MotionFigures, type TimedPart, timeMoves } from '../plan/motion.ts';
import { Move, MoveList, type Moves } from '../plan/moves.ts';
import { charactersOf, lengthsOf, moveLines, type TimedLine } from '../plan/program-words.ts';

/** What a part of the card tells most of. */
export type CardTopic = 'x' | 'y' | 'slope' | 'corners' | 'travel' | 'pieces' | 'words';

/** A part of a timing card: a program of its own, unlit, from rest to rest. */
export interface CardPart {
  readonly topic: CardTopic;
  /** Such as `X, 30 strokes of 2 mm`. */
  readonly title: string;
  /** Where the head stands before it, in bed mm. */
  readonly start: Point;
  readonly lines: readonly TimedLine[];
  /** Its moves, as they are timed. */
  readonly timed: TimedPart;
  /** How many moves it has. */
  readonly moves: number;
}

/** The longest way on the card, in mm. */
const longest = 300;
/** Strokes to and fro along an axis: how long, and how many. */
const strokes: readonly (readonly [mm: number, count: number])[] = [
  [longest, 2],
  [60, 4],
  [20, 8],
  [2, 30],
  [0.2, 80],
  [0.02, 120],
];
/** Straight ways in pieces: how long these are, and how many a way has. */
const pieces: readonly (readonly [mm: number, count: number])[] = [
  [0.02, 500],
  [0.05, 1000],
  [0.2, 500],
  [1, 150],
];
/**
 * Fine pieces after a long way: how long they are, and how many. Meanwhile lines come in, as many as the controller takes:
 * how many it knows shows even where lines are slow.
 */
const afterWay: readonly [mm: number, count: number] = [0.05, 600];
/**
 * The same with a way that takes so long, in seconds, that many slow lines come in, and pieces that take less than those: at
 * this speed at most, in mm/s.
 */
const afterSlowWay = { speed: 40, seconds: 3, mm: 0.02, count: 800 };
/** How many zeros make a line long, and how long its pieces are. */
const zeros = 20;
const wordy: readonly [mm: number, count: number] = [0.05, 500];
const beginning = ['G21', 'G90', 'M5'];
const end = 'M5';

/**
 * The parts of a timing card for a machine: strokes long and short along each axis and across, turns, travels, and ways
 * in fine pieces, two of them after a long way. All unlit, in the middle of the bed, and all but one at its top speed.
 */
export function timingCard(machine: Machine): CardPart[] {
  const box = growBox(bedBox(machine), -machine.margin - 1);
  const [width, height] = [boxWidth(box), boxHeight(box)];
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
  const parts: CardPart[] = [];
  const add = (
    topic: CardTopic,
    title: string,
    size: Point,
    draw: (list: MoveList, start: Point) => void,
    { pad = 0, speed = machine.topSpeed }: { pad?: number; speed?: number } = {},
  ) => {
    const start = { x: middle.x - size.x / 2, y: middle.y - size.y / 2 };
    const list = new MoveList(start);
    draw(list, { x: list.x, y: list.y });
    parts.push(partOf(machine, topic, title, start, list.build(), speed, pad));
  };
  const along = (topic: 'x' | 'y', mm: number, count: number, kind: number) => (list: MoveList, start: Point) => {
    for (let i = 0; i < count; i++) {
      const gone = i % 2 === 0 ? mm : 0;
      list.to(kind, start.x + (topic === 'x' ? gone : 0), start.y + (topic === 'y' ? gone : 0));
    }
  };
  for (const topic of ['x', 'y'] as const) {
    const room = topic === 'x' ? width : height;
    const size = (mm: number) => (topic === 'x' ? { x: mm, y: 0 } : { x: 0, y: mm });
    for (const [wanted, count] of strokes) {
      const mm = Math.min(wanted, room);
      add(
        topic,
        `${topic.toUpperCase()}: ${count} strokes of ${rounded(mm)} mm`,
        size(mm),
        along(topic, mm, count, Move.dark),
      );
    }
    const mm = Math.min(longest, room);
    add('travel', `${topic.toUpperCase()}: 4 travels of ${rounded(mm)} mm`, size(mm), along(topic, mm, 4, Move.travel));
  }
  const side = Math.min(40, width, height);
  for (const [mm, count] of [
    [side, 4],
    [2, 30],
  ] as const) {
    const leg = mm / Math.SQRT2;
    add('slope', `Across: ${count} strokes of ${rounded(mm)} mm`, { x: leg, y: leg }, (list, { x, y }) => {
      for (let i = 0; i < count; i++) list.to(Move.dark, x + (i % 2 === 0 ? leg : 0), y + (i % 2 === 0 ? leg : 0));
    });
  }
  for (const corners of [4, 8, 3]) {
    const mm = Math.min(4, side / 6);
    add('corners', `${5 * corners} turns of ${360 / corners}°`, { x: mm, y: 0 }, (list, start) => {
      let { x, y } = start;
      for (let i = 0; i < 5 * corners; i++) {
        const angle = (2 * Math.PI * i) / corners;
        x += mm * Math.cos(angle);
        y += mm * Math.sin(angle);
        list.to(Move.dark, x, y);
      }
    });
  }
  const way =
    (mm: number, count: number) =>
    (list: MoveList, { x, y }: Point) => {
      for (let i = 1; i <= count; i++) list.to(Move.dark, x + i * mm, y);
    };
  for (const [mm, wanted] of pieces) {
    const count = Math.min(wanted, Math.floor(width / mm));
    add('pieces', `${count} pieces of ${mm} mm`, { x: count * mm, y: 0 }, way(mm, count));
  }
  const wayThenPieces = (before: number, fine: number, wanted: number, speed: number) => {
    const few = Math.min(wanted, Math.floor(width / 2 / fine));
    const first = Math.min(before, width - few * fine);
    const atSpeed = speed < machine.topSpeed ? ` at ${rounded(speed)} mm/s` : '';
    add(
      'pieces',
      `${few} pieces of ${fine} mm after ${rounded(first)} mm${atSpeed}`,
      { x: first + few * fine, y: 0 },
      (list, { x, y }) => {
        list.to(Move.dark, x + first, y);
        way(fine, few)(list, { x: x + first, y });
      },
      { speed },
    );
  };
  const [fine, most] = afterWay;
  wayThenPieces(longest, fine, most, machine.topSpeed);
  const slow = Math.min(afterSlowWay.speed, machine.topSpeed);
  wayThenPieces(slow * afterSlowWay.seconds, afterSlowWay.mm, afterSlowWay.count, slow);
  const [mm, wanted] = wordy;
  const count = Math.min(wanted, Math.floor(width / mm));
  add('words', `${count} pieces of ${mm} mm in long lines`, { x: count * mm, y: 0 }, way(mm, count), { pad: zeros });
  return parts;
}

/** How many seconds a part takes by given figures, until its last line is answered. */
export function secondsOf({ timed, start }: Pick<CardPart, 'timed' | 'start'>, figures: MotionFigures): number {
  const all = timeMoves([timed, ending], figures, { ...start, z: 0 });
  return all.reduce((sum, part) => part.reduce((some, seconds) => some + seconds, sum), 0);
}

/** The line that ends a part: like a focus that stays, it is read, and waits until the head is at rest. */
const ending: TimedPart = {
  moves: { ...new MoveList({ x: 0, y: 0 }).build(), kinds: Uint8Array.of(Move.focus), values: Float64Array.of(0) },
  speedMmPerS: 1,
  characters: Uint16Array.from(lengthsOf([end])),
};

function partOf(
  machine: Machine,
  topic: CardTopic,
  title: string,
  start: Point,
  moves: Moves,
  speedMmPerS: number,
  pad: number,
): CardPart {
  const burning = { feed: speedMmPerS * 60, power: 0, floor: 0 };
  const characters = charactersOf(machine, moves, burning).map((count) => count + pad);
  const timed: TimedPart = { moves, speedMmPerS, switches: lengthsOf(beginning), characters };
  const durations = timeMoves([timed], machine, start)[0];
  const still = (text: string): TimedLine => ({ text, seconds: 0 });
  const spoken = [...moveLines(machine, moves, durations, burning)].map((line) =>
    typeof line === 'string' ? still(line) : { ...line, text: padded(line.text, pad) },
  );
  return {
    topic,
    title,
    start,
    lines: [...beginning.map(still), ...spoken, still(end)],
    timed,
    moves: moves.kinds.length,
  };
}

/** A line that says the same at greater length. */
function padded(text: string, count: number): string {
  return text.replace(/([XY]-?)/, `$1${'0'.repeat(count)}`);
}

function rounded(mm: number): number {
  return Number(mm.toFixed(2));
}
