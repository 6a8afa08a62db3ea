import { toMachine } from '../../machine/frame.ts';
import { burnsPictures } from '../../operations/operations.ts';
import { Move, type Moves } from '../../plan/moves.ts';
import { type BurnPlan, stepTitle } from '../../plan/plan.ts';
import type { Air } from '../../settings/setting.ts';

/**
 * The program of a burn plan in G-code (RS-274), line by line, without line ends; made as it is asked
 * for, so that a large engraving never lies in memory whole. mm (G21), absolute (G90), in the machine's
 * own frame; F in mm/min, S on the machine's power scale, M4 so that power follows the head's speed, down to Q. Z is
 * the focus above the stock; where the beam waits, M3 keeps it lit for the seconds of G4. Air is M7 (low), M8 (high, or
 * P bar) and M9.
 */
export function* writeGcode(plan: BurnPlan, title: string): Generator<string> {
  for (const { text } of programLines(plan, title)) yield text;
}

/** A line of a program, and the seconds that the machine is planned to take for it. */
export interface TimedLine {
  readonly text: string;
  readonly seconds: number;
}

/** The same program as `writeGcode` writes, each line with its time. */
export function* programLines(plan: BurnPlan, title: string): Generator<TimedLine> {
  for (const line of headedLines(plan, title)) yield typeof line === 'string' ? { text: line, seconds: 0 } : line;
}

function* headedLines(plan: BurnPlan, title: string): Generator<string | TimedLine> {
  const { machine } = plan;
  yield `(Lambent: ${commentText(title)})`;
  yield `(${commentText(machine.name)}, ${machine.bedWidth} x ${machine.bedHeight} mm)`;
  yield 'G21';
  yield 'G90';
  yield 'M4 S0';
  let air: Air = 'off';
  let floor = 0;
  for (const step of plan.steps) {
    const { settings } = step;
    yield `(${commentText(stepTitle(step))})`;
    if (settings.air !== air) yield airLine(settings.air);
    if (settings.cornerPowerPercent !== floor) {
      yield `M4 Q${powerWord((settings.cornerPowerPercent / 100) * machine.powerScale)}`;
    }
    air = settings.air;
    floor = settings.cornerPowerPercent;
    const said = burnsPictures(step.operation) ? new ShortWords() : new WholeWords();
    yield* writeMoves(plan, said, step.moves, step.durations, settings.speedMmPerS * 60, settings.powerPercent / 100);
  }
  yield 'M5';
  if (air !== 'off') yield airLine('off');
  const count = plan.back.kinds.length;
  const durations = new Float32Array(count).fill(plan.backS / Math.max(1, count));
  yield* writeMoves(plan, new WholeWords(), plan.back, durations, 0, 0);
}

/** How a straight move is said: `G1 X10 Y20`. */
interface MoveWords {
  /** Between the words of a line. */
  readonly space: string;
  move(code: 'G0' | 'G1', x: string, y: string): string[];
  /** The head stands, or goes up and down. */
  stand(): void;
}

class WholeWords implements MoveWords {
  readonly space = ' ';

  move(code: 'G0' | 'G1', x: string, y: string): string[] {
    return [`${code} X${x} Y${y}`];
  }

  stand(): void {}
}

/** Words that hold until they are said anew are left out: a picture has millions of moves. */
class ShortWords implements MoveWords {
  readonly space = '';
  private code = '';
  private x = '';
  private y = '';

  move(code: 'G0' | 'G1', x: string, y: string): string[] {
    const words: string[] = [];
    if (code !== this.code) words.push(code);
    if (x !== this.x) words.push(`X${x}`);
    if (y !== this.y) words.push(`Y${y}`);
    [this.code, this.x, this.y] = [code, x, y];
    return words;
  }

  stand(): void {
    this.code = '';
  }
}

/** @param power the share of the machine's power that the step burns with */
function* writeMoves(
  { machine }: BurnPlan,
  said: MoveWords,
  moves: Moves,
  durations: Float32Array,
  feed: number,
  power: number,
): Generator<string | TimedLine> {
  let saidFeed = false;
  let saidPower = Number.NaN;
  // Nearly all moves of a step have one power.
  let lastPower = Number.NaN;
  let word = 0;
  for (let i = 0; i < moves.kinds.length; i++) {
    const { x, y } = toMachine(machine, moves.xs[i], moves.ys[i]);
    const kind = moves.kinds[i];
    const seconds = durations[i];
    if (kind === Move.travel) {
      yield { text: said.move('G0', coordinate(x), coordinate(y)).join(said.space), seconds };
      continue;
    }
    const value = moves.values?.[i] ?? 0;
    if (kind === Move.focus) {
      said.stand();
      yield { text: `G0 Z${coordinate(value)}`, seconds };
      continue;
    }
    const share = moves.powers?.[i] ?? 1;
    const scaled = power * share * machine.powerScale;
    if (scaled !== lastPower) {
      word = powerWord(scaled);
      lastPower = scaled;
    }
    const s = kind === Move.dark ? 0 : word;
    if (kind === Move.wait) {
      said.stand();
      yield `M3 S${s}`;
      yield { text: `G4 P${Number(value.toFixed(3))}`, seconds };
      yield 'M4';
      saidPower = s;
      continue;
    }
    const words = said.move('G1', coordinate(x), coordinate(y));
    if (!saidFeed) words.push(`F${Number(feed.toFixed(2))}`);
    if (s !== saidPower) words.push(`S${s}`);
    saidFeed = true;
    saidPower = s;
    yield { text: words.join(said.space), seconds };
  }
}

function airLine(air: Air): string {
  if (air === 'off') return 'M9';
  if (air === 'low') return 'M7';
  return air === 'high' ? 'M8' : `M8 P${air}`;
}

function powerWord(s: number): number {
  return Number(s.toFixed(1));
}

/** A length to 0.001 mm, without zeros at its end: as `toFixed` rounds it, which is slow and asked only near a half. */
export function coordinate(mm: number): string {
  const thousandths = mm * 1000;
  const whole = Math.round(thousandths);
  const isSure = Math.abs(Math.abs(thousandths - whole) - 0.5) > 1e-4 && Math.abs(whole) < 1e9;
  return String((isSure ? whole / 1000 : Number(mm.toFixed(3))) || 0);
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
