import { type BurnPlan, stepTitle } from '../../plan/plan.ts';
import { moveLines, type TimedLine, unlitBurning, wordsOfProgram } from '../../plan/program-words.ts';

/**
 * The program of a burn plan in G-code (RS-274), line by line, without line ends; made as it is asked
 * for, so that a large engraving never lies in memory whole. mm (G21), absolute (G90), in the machine's
 * own frame; F in mm/min, S on the machine's power scale, M4 so that power follows the head's speed, down to Q. Z is
 * the focus above the stock; where the beam waits, M3 keeps it lit for the seconds of G4. Air is M7 (low), M8 (high, or
 * P bar) and M9. Words that hold are left out.
 */
export function* writeGcode(plan: BurnPlan, title: string): Generator<string> {
  for (const { text } of programLines(plan, title)) yield text;
}

/** The same program as `writeGcode` writes, each line with its time. */
export function* programLines(plan: BurnPlan, title: string): Generator<TimedLine> {
  for (const line of headedLines(plan, title)) yield typeof line === 'string' ? { text: line, seconds: 0 } : line;
}

function* headedLines(plan: BurnPlan, title: string): Generator<string | TimedLine> {
  const { machine, steps, back } = plan;
  const {
    opening,
    steps: words,
    closing,
  } = wordsOfProgram(
    machine,
    steps.map(({ settings }) => settings),
  );
  yield `(Lambent: ${commentText(title)})`;
  yield `(${commentText(machine.name)}, ${machine.bedWidth} x ${machine.bedHeight} mm)`;
  yield* opening;
  for (const [i, { moves, durations, ...step }] of steps.entries()) {
    yield `(${commentText(stepTitle(step))})`;
    yield* words[i].switches;
    yield* moveLines(machine, moves, durations, words[i].burning);
  }
  yield* closing;
  const count = back.kinds.length;
  const durations = new Float32Array(count).fill(plan.backS / Math.max(1, count));
  yield* moveLines(machine, back, durations, unlitBurning);
  yield* machine.endLines ?? [];
}

/** Text that can stand in a comment: ASCII, no brackets, on one line. */
function commentText(text: string): string {
  return text
    .replace(/·/g, '-')
    .normalize('NFKD')
    .replace(/[^ -~]/g, '')
    .replace(/[()]/g, '')
    .trim()
    .slice(0, 80);
}
