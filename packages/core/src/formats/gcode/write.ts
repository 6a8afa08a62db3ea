import { restingFocus, toMachine } from '../../machine/frame.ts';
import type { Machine } from '../../machine/machine.ts';
import { Move, type Moves } from '../../plan/moves.ts';
import { type BurnPlan, stepTitle } from '../../plan/plan.ts';
import type { Air } from '../../settings/setting.ts';

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
  yield* machine.startLines ?? [];
  yield 'M4S0';
  // What was done by hand before is undone: the plan begins with the air off, and the focus where it rests.
  if (machine.air) yield airLine('off');
  if (machine.focus) yield `G0Z${coordinate(restingFocus(machine))}`;
  let air: Air = 'off';
  let floor = 0;
  for (const { settings, moves, durations, ...step } of plan.steps) {
    yield `(${commentText(stepTitle(step))})`;
    if (settings.air !== air) yield airLine(settings.air);
    air = settings.air;
    const stepFloor = powerWord((settings.cornerPowerPercent / 100) * machine.powerScale);
    if (stepFloor !== floor) yield beamLine(stepFloor);
    floor = stepFloor;
    const burning = { feed: settings.speedMmPerS * 60, power: settings.powerPercent / 100, floor };
    yield* writeMoves(machine, moves, durations, burning);
  }
  yield 'M5';
  if (air !== 'off') yield airLine('off');
  const count = plan.back.kinds.length;
  const durations = new Float32Array(count).fill(plan.backS / Math.max(1, count));
  yield* writeMoves(machine, plan.back, durations, { feed: 0, power: 0, floor: 0 });
  yield* machine.endLines ?? [];
}

/** The words of straight moves: what holds until it is said anew is left out, and so are blanks (RS-274, modal groups). */
class MoveWords {
  private code = '';
  private x = '';
  private y = '';

  move(code: 'G0' | 'G1', x: string, y: string): string {
    let words = '';
    if (code !== this.code) words += code;
    if (x !== this.x) words += `X${x}`;
    if (y !== this.y) words += `Y${y}`;
    this.code = code;
    this.x = x;
    this.y = y;
    return words;
  }

  /** The head stands, or goes up and down. */
  stand(): void {
    this.code = '';
  }
}

/** Puts the beam on, so that its power follows the speed, down to a floor. */
function beamLine(floor: number): string {
  return floor > 0 ? `M4Q${floor}` : 'M4';
}

/** With what the moves of a step burn. */
interface Burning {
  /** In mm/min. */
  readonly feed: number;
  /** The share of the machine's power. */
  readonly power: number;
  /** What the power does not fall below, on the machine's scale. */
  readonly floor: number;
}

function* writeMoves(
  machine: Machine,
  moves: Moves,
  durations: Float32Array,
  { feed, power, floor }: Burning,
): Generator<string | TimedLine> {
  const said = new MoveWords();
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
      yield { text: said.move('G0', coordinate(x), coordinate(y)), seconds };
      continue;
    }
    const value = moves.values?.[i] ?? 0;
    if (kind === Move.focus) {
      said.stand();
      yield { text: `G0Z${coordinate(value)}`, seconds };
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
      yield `M3S${s}`;
      yield { text: `G4P${Number(value.toFixed(3))}`, seconds };
      // Whether a machine keeps its floor meanwhile is its own affair.
      yield beamLine(floor);
      saidPower = s;
      continue;
    }
    let text = said.move('G1', coordinate(x), coordinate(y));
    if (!saidFeed) text += `F${Number(feed.toFixed(2))}`;
    if (s !== saidPower) text += `S${s}`;
    saidFeed = true;
    saidPower = s;
    yield { text, seconds };
  }
}

function airLine(air: Air): string {
  if (air === 'off') return 'M9';
  if (air === 'low') return 'M7';
  return air === 'high' ? 'M8' : `M8P${air}`;
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
