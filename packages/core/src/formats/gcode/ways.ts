import { chordsOfArc } from '../../geometry/paths/arc-chords.ts';
import type { Point } from '../../geometry/paths/matrix.ts';
import { truePlace } from '../../machine/axes.ts';
import { countsDown, fromMachine } from '../../machine/frame.ts';
import type { Machine } from '../../machine/machine.ts';
import { afterLine, firstState, isMove, type ProgramState, wordsOf } from './program-state.ts';

/**
 * The ways of the head in a program, move by move: move i goes to (xs[i], ys[i]) in bed mm, and stands in line lines[i].
 * Arcs are several moves.
 */
export interface ProgramWays {
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  /** 1 where the beam is on. */
  readonly lit: Uint8Array;
  readonly lines: Uint32Array;
  /** The steps, by the comments that begin them; `move` is the first move of each. */
  readonly steps: readonly { readonly title: string; readonly line: number; readonly move: number }[];
  /** The first moves of pieces: each is burnt in one go, from one unlit way to the next. */
  readonly pieces: Uint32Array;
}

/** Reads where the head goes in a program that Lambent wrote. */
export function programWays(text: string, machine: Machine): ProgramWays {
  const [xs, ys, lit, lines, pieces]: number[][] = [[], [], [], [], []];
  const steps: { title: string; line: number; move: number }[] = [];
  let state = firstState;
  text.split('\n').forEach((said, i) => {
    const [, comment] = /^\((.*)\)$/.exec(said) ?? [];
    if (comment !== undefined) {
      if (i >= 2) steps.push({ title: comment, line: i + 1, move: xs.length });
      return;
    }
    const before = state;
    state = afterLine(state, said);
    if (!isMove(wordsOf(said))) return;
    const isLit = state.motion !== 0 && state.power > 0;
    if (isLit && lit.at(-1) !== 1) pieces.push(xs.length);
    for (const { x, y } of wayBetween(before, state, machine)) {
      xs.push(x);
      ys.push(y);
      lit.push(isLit ? 1 : 0);
      lines.push(i + 1);
    }
  });
  return {
    xs: Float32Array.from(xs),
    ys: Float32Array.from(ys),
    lit: Uint8Array.from(lit),
    lines: Uint32Array.from(lines),
    steps,
    pieces: Uint32Array.from(pieces),
  };
}

/** How far the lines that are drawn of arcs may be from them, in mm. */
const drawnWithin = 0.01;

/** Where the moves of a line end, on the bed. */
function wayBetween(before: ProgramState, after: ProgramState, machine: Machine): Point[] {
  const told = truePlace(machine, after);
  const to = fromMachine(machine, told.x, told.y);
  if (after.motion < 2) return [to];
  const centre = fromMachine(machine, before.x + after.i, before.y + after.j);
  // G2 is clockwise where Y counts up.
  const isClockwise = (after.motion === 2) === countsDown(machine) < 0;
  const around = { cx: centre.x, cy: centre.y, isClockwise };
  return chordsOfArc(fromMachine(machine, before.x, before.y), to, around, drawnWithin);
}
