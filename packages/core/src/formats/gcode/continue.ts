import { fromMachine, toMachine } from '../../machine/frame.ts';
import { accelerationAlong, bedBox, type Machine } from '../../machine/machine.ts';
import { coordinate, type TimedLine } from '../../plan/program-words.ts';
import { rampsOf } from '../../plan/ramps.ts';
import { afterLine, firstState, isMove, type ProgramState, wordsOf } from './program-state.ts';

/** A program has so many lines before its first step: what it is called, and for which machine. */
const headLines = 2;

/**
 * The rest of a program from one of its lines on, as a program of its own: what held at that line is said anew, and the
 * head comes to the place where it begins. Where that line burns, the head runs up to it unlit, in its direction, at
 * its speed. All that follows stays as it is, line by line: so every stretch is in what was burnt, or in this.
 *
 * @param lines of a program that Lambent wrote, each with its planned seconds
 * @param fromLine the first line that is burnt again, counted from 1
 * @throws RangeError where the program has no such line
 */
export function* continueProgram(lines: Iterable<TimedLine>, fromLine: number, machine: Machine): Generator<TimedLine> {
  let state = firstState;
  let count = 0;
  let isFedAndLit = false;
  for (const line of lines) {
    count++;
    const { text, seconds } = line;
    if (count < fromLine) {
      if (count <= headLines && text.startsWith('(')) yield line;
      state = afterLine(state, text);
      continue;
    }
    const words = wordsOf(text);
    if (count === fromLine) yield* beginning(state, text, fromLine, machine);
    const next = afterLine(state, text);
    if (isMove(words) && next.motion !== 0 && !isFedAndLit) {
      isFedAndLit = true;
      yield { text: `G${next.motion}${place(next)}${centreWords(next)}F${next.feed}S${next.power}`, seconds };
    } else if (isMove(words) && !isFedAndLit) yield { text: `G0${place(next)}`, seconds };
    else yield line;
    state = next;
  }
  if (count < fromLine) throw new RangeError(`The program has ${count} lines, and no line ${fromLine}.`);
}

/** Says what holds, and brings the head to where the line begins. */
function* beginning(state: ProgramState, text: string, fromLine: number, machine: Machine): Generator<TimedLine> {
  const still = (said: string): TimedLine => ({ text: said, seconds: 0 });
  yield still(`(Goes on from line ${fromLine})`);
  yield still('G21');
  yield still('G90');
  yield* (machine.startLines ?? []).map(still);
  yield still('M5S0');
  if (state.air ?? machine.air) yield still(state.air ?? 'M9');
  if (machine.focus) yield still(`G0Z${coordinate(state.z)}`);
  const next = afterLine(state, text);
  const burns = isMove(wordsOf(text)) && next.motion !== 0;
  const from = burns ? leadIn(state, next, machine) : state;
  yield { text: `G0${place(from)}`, seconds: 0 };
  if (next.beam === state.beam) yield still(state.beam);
  if (!burns || (from.x === state.x && from.y === state.y)) return;
  const seconds = (2 * Math.hypot(state.x - from.x, state.y - from.y)) / (next.feed / 60);
  yield { text: `G1${place(state)}F${next.feed}S0`, seconds };
}

/** Where the centre of an arc is, in its line; nothing of a straight move. */
function centreWords({ motion, i, j }: ProgramState): string {
  return motion < 2 ? '' : `I${coordinate(i)}J${coordinate(j)}`;
}

/** Which way a move leads where it begins: an arc, square to where its centre is. */
function directionOf(from: ProgramState, { motion, x, y, i, j }: ProgramState): [dx: number, dy: number] {
  if (motion === 2) return [-j, i];
  return motion === 3 ? [j, -i] : [x - from.x, y - from.y];
}

/** Where the head begins to come to speed for a line; on the bed. */
function leadIn(from: ProgramState, to: ProgramState, machine: Machine): { x: number; y: number } {
  const [dx, dy] = directionOf(from, to);
  const length = Math.hypot(dx, dy);
  if (length === 0) return from;
  const [ux, uy] = [dx / length, dy / length];
  const wanted = rampsOf(machine.jerk).runUp(to.feed / 60, accelerationAlong(machine, ux, uy));
  const { minX, minY, maxX, maxY } = bedBox(machine);
  const start = fromMachine(machine, from.x, from.y);
  const back = fromMachine(machine, from.x - ux, from.y - uy);
  const room = (begin: number, step: number, least: number, most: number) =>
    step === 0 ? Number.POSITIVE_INFINITY : step > 0 ? (most - begin) / step : (least - begin) / step;
  const reach = Math.max(
    0,
    Math.min(wanted, room(start.x, back.x - start.x, minX, maxX), room(start.y, back.y - start.y, minY, maxY)),
  );
  const place = { x: start.x + (back.x - start.x) * reach, y: start.y + (back.y - start.y) * reach };
  return toMachine(machine, place.x, place.y);
}

function place({ x, y }: { readonly x: number; readonly y: number }): string {
  return `X${coordinate(x)}Y${coordinate(y)}`;
}
