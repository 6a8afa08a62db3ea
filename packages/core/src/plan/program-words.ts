import type { Point } from '../geometry/paths/matrix.ts';
import { toldPlace } from '../machine/axes.ts';
import { countsDown, restingFocus, toMachine } from '../machine/frame.ts';
import type { Machine } from '../machine/machine.ts';
import type { Air } from '../settings/setting.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { Move, type MoveArc, type Moves } from './moves.ts';

/** A line of a program, and the seconds that the machine is planned to take for it. */
export interface TimedLine {
  readonly text: string;
  readonly seconds: number;
}

/** What is said before the moves of a step, and with what these burn. */
export interface StepWords {
  readonly switches: readonly string[];
  readonly burning: Burning;
}

/** What is said beside the moves of a program, which is what the head rests at. */
export interface ProgramWords {
  readonly opening: readonly string[];
  readonly steps: readonly StepWords[];
  /** Before the head goes back. */
  readonly closing: readonly string[];
}

/** What a program of steps says beside its moves, in their order. */
export function wordsOfProgram(machine: Machine, steps: readonly LayerSettings[]): ProgramWords {
  // What was done by hand before is undone: the plan begins with the air off, and the focus where it rests.
  const opening = ['G21', 'G90', ...(machine.startLines ?? []), 'M4S0'];
  if (machine.air) opening.push(airLine('off'));
  if (machine.focus) opening.push(`G0Z${coordinate(restingFocus(machine))}`);
  let air: Air = 'off';
  let floor = 0;
  const words = steps.map((settings): StepWords => {
    const switches: string[] = [];
    if (settings.air !== air) switches.push(airLine(settings.air));
    air = settings.air;
    const stepFloor = powerWord((settings.cornerPowerPercent / 100) * machine.powerScale);
    if (stepFloor !== floor) switches.push(beamLine(stepFloor));
    floor = stepFloor;
    return { switches, burning: { feed: settings.speedMmPerS * 60, power: settings.powerPercent / 100, floor } };
  });
  return { opening, steps: words, closing: air === 'off' ? ['M5'] : ['M5', airLine('off')] };
}

/** How many characters lines have, each with its end. */
export function lengthsOf(lines: readonly string[]): number[] {
  return lines.map((line) => line.length + 1);
}

/** How many characters the lines of each move have, with their ends; those of an arc stand with its first move. */
export function charactersOf(machine: Machine, moves: Moves, burning: Burning): Uint16Array {
  const { length } = moves.kinds;
  const counts = new Uint16Array(length);
  const arcs = arcsByMove(moves);
  let i = 0;
  for (const line of moveLines(machine, moves, new Float32Array(length), burning)) {
    counts[i] += (typeof line === 'string' ? line.length : line.text.length) + 1;
    // What follows the last move belongs to it.
    if (typeof line !== 'string') i = Math.min(length - 1, i + (arcs.get(i)?.count ?? 1));
  }
  return counts;
}

/** A length to 0.001 mm, without zeros at its end: as `toFixed` rounds it, which is slow and asked only near a half. */
export function coordinate(mm: number): string {
  const thousandths = mm * 1000;
  const whole = Math.round(thousandths);
  const isSure = Math.abs(Math.abs(thousandths - whole) - 0.5) > 1e-4 && Math.abs(whole) < 1e9;
  return String((isSure ? whole / 1000 : Number(mm.toFixed(3))) || 0);
}

/** Arcs by the moves that they begin with. */
function arcsByMove({ arcs }: Moves): ReadonlyMap<number, MoveArc> {
  return new Map(arcs.map((arc) => [arc.first, arc]));
}

/** The words of moves: what holds until it is said anew is left out, and so are blanks (RS-274, modal groups). */
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

  /** @param i where its centre is from its beginning, along X; j along Y */
  arc(code: 'G2' | 'G3', x: string, y: string, i: string, j: string): string {
    const words = `${code === this.code ? '' : code}X${x}Y${y}I${i}J${j}`;
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
export interface Burning {
  /** In mm/min. */
  readonly feed: number;
  /** The share of the machine's power. */
  readonly power: number;
  /** What the power does not fall below, on the machine's scale. */
  readonly floor: number;
}

/** With what a head moves that burns nothing. */
export const unlitBurning: Burning = { feed: 0, power: 0, floor: 0 };

/** The lines of moves, each with its seconds; a line without any belongs to the move after it. */
export function* moveLines(
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
  const arcs = arcsByMove(moves);
  for (let i = 0; i < moves.kinds.length; i++) {
    const arc = arcs.get(i);
    const last = arc ? i + arc.count - 1 : i;
    const { x, y } = toldPlace(machine, toMachine(machine, moves.xs[last], moves.ys[last]));
    const kind = moves.kinds[i];
    let seconds = durations[i];
    for (let k = i + 1; k <= last; k++) seconds += durations[k];
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
    let text = arc ? arcWords(said, machine, arc, { x, y }) : said.move('G1', coordinate(x), coordinate(y));
    if (!saidFeed) text += `F${Number(feed.toFixed(2))}`;
    if (s !== saidPower) text += `S${s}`;
    saidFeed = true;
    saidPower = s;
    yield { text, seconds };
    i = last;
  }
}

/** The words of an arc that ends at a place of the machine's frame. Where Y counts down, G3 is clockwise on screen. */
function arcWords(said: MoveWords, machine: Machine, { toCentre, isClockwise }: MoveArc, to: Point): string {
  const down = countsDown(machine);
  const code = isClockwise === down < 0 ? 'G2' : 'G3';
  const [x, y, i, j] = [to.x, to.y, toCentre.x, down * toCentre.y].map(coordinate);
  return said.arc(code, x, y, i, j);
}

function airLine(air: Air): string {
  if (air === 'off') return 'M9';
  if (air === 'low') return 'M7';
  return air === 'high' ? 'M8' : `M8P${air}`;
}

function powerWord(s: number): number {
  return Number(s.toFixed(1));
}
