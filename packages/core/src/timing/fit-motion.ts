import type { MachineFigureName } from '../machine/figures.ts';
import type { Machine } from '../machine/machine.ts';
import type { MotionFigures } from '../plan/motion.ts';
import { type Fitted, leastSquares } from './least-squares.ts';
import { type CardPart, type CardTopic, secondsOf } from './timing-card.ts';

/** The figures that a timing card tells. */
export const timedFigures = [
  'travelSpeed',
  'acceleration',
  'accelerationY',
  'jerk',
  'cornerDeviation',
  'lookAhead',
  'moveMs',
  'characterMs',
] as const satisfies readonly MachineFigureName[];
export type TimedFigure = (typeof timedFigures)[number];

/** What was found out of a figure. */
export interface FittedFigure {
  readonly figure: TimedFigure;
  /** Null where there is nothing of it that could be noticed. */
  readonly value: number | null;
  /** One sigma, as a share of the value; null where there is no value, or it is only a bound. */
  readonly doubt: number | null;
  /** Whether it is at least, or at most, so much: more cannot be told, and makes no difference. */
  readonly bound: 'least' | 'most' | null;
}

/** What the seconds of a timing card tell. */
export interface TimingFit {
  readonly figures: readonly FittedFigure[];
  /** The machine's figures for its times, as they were found. */
  readonly motion: Pick<Machine, TimedFigure>;
  /** By part, how many seconds it takes by the figures as they stand, and as they were found. */
  readonly parts: readonly { readonly standsS: number; readonly fittedS: number }[];
}

/** How finely the clock is read, in seconds, and by which share what it counts may be off. */
const clockS = 0.002;
const clockShare = 0.0005;
/** A figure that is less sure than this, as a share, is told as a bound only. */
const toldWithin = 0.2;
/** What remains falls by this much where a figure is worth having. */
const worthwhile = 9;
/** How long acceleration may take to set in, in seconds: these are tried. */
const rises = [0.1, 0.03, 0.01, 0.003];
const mostTurns = 12;
/** Look-aheads that are tried first. */
const aheads = [1, 2, 4, 8, 12, 16, 24, 32, 48, 64, 100, 150, 220, 320, 470, 700, 1000, 2000];

type Figures = Pick<Machine, TimedFigure> & Pick<Machine, 'focus' | 'connection' | 'axes' | 'origin'>;
/** Figures that are sought by their logarithms. */
type Sought = Exclude<TimedFigure, 'lookAhead'>;

/**
 * Fits the figures of a machine to the seconds that the parts of a timing card took: first how it moves, by strokes,
 * turns and travels; then what its lines take, by ways in fine pieces; then all together. (Least squares on the motion
 * model itself, `plan/motion.ts`.)
 *
 * @param machine whose card it was, with its figures as they stand
 * @param seconds of each part
 */
export function fitMotion(machine: Machine, card: readonly CardPart[], seconds: readonly number[]): TimingFit {
  const fit = new MotionFit(card, seconds);
  const { focus, connection, axes, origin } = machine;
  const moved = fit.moving(fit.start({ ...motionOf(machine), focus, connection, axes, origin }));
  const spoken = fit.lines(moved);
  const sought = soughtIn(spoken);
  const { figures, fitted } = fit.all(spoken, sought);
  const motion = motionOf(figures);
  return {
    motion,
    figures: timedFigures.map((figure) => {
      if (figure === 'lookAhead') return fit.lookAheadOf(figures);
      const index = sought.indexOf(figure);
      const value = motion[figure] || null;
      const doubt = index < 0 ? null : fitted.doubts[index];
      if (value === null || doubt === null) return { figure, value: null, doubt: null, bound: null };
      return doubt > toldWithin
        ? { figure, value, doubt: null, bound: figure === 'jerk' ? 'least' : 'most' }
        : { figure, value, doubt, bound: null };
    }),
    parts: card.map((part) => ({ standsS: secondsOf(part, machine), fittedS: secondsOf(part, figures) })),
  };
}

const ofLines: readonly CardTopic[] = ['pieces', 'words'];
const isOfLines = ({ topic }: CardPart) => ofLines.includes(topic);

function motionOf(from: Pick<Machine, TimedFigure>): Pick<Machine, TimedFigure> {
  const { travelSpeed, acceleration, accelerationY, jerk, cornerDeviation, lookAhead, moveMs, characterMs } = from;
  return { travelSpeed, acceleration, accelerationY, jerk, cornerDeviation, lookAhead, moveMs, characterMs };
}

function soughtIn(figures: Figures): Sought[] {
  return timedFigures.filter((name): name is Sought => name !== 'lookAhead' && (figures[name] ?? 0) > 0);
}

/** Fits to the seconds of one card. */
class MotionFit {
  constructor(
    private readonly card: readonly CardPart[],
    private readonly seconds: readonly number[],
  ) {}

  /** Where to begin: accelerations that the strokes need at least; lines take no more than the finest pieces did. */
  start(stands: Figures): Figures {
    const along = (topic: CardTopic) =>
      Math.max(
        ...this.card.flatMap(({ topic: own, timed: { moves } }, i) =>
          // From rest to rest over s at a: t = 2·√(s/a).
          own === topic
            ? [(4 * Math.hypot(moves.xs[0] - moves.xs[1], moves.ys[0] - moves.ys[1])) / this.eachS(i) ** 2]
            : [],
        ),
      );
    return {
      ...stands,
      acceleration: along('x'),
      accelerationY: along('y'),
      jerk: undefined,
      lookAhead: undefined,
      moveMs: this.lineMs,
      characterMs: 0,
    };
  }

  /** How many ms a line takes at most: no more than each of the finest pieces did. */
  private get lineMs(): number {
    return 1000 * Math.min(...this.card.flatMap((part, i) => (part.topic === 'pieces' ? [this.eachS(i)] : [])));
  }

  private eachS(index: number): number {
    return this.seconds[index] / this.card[index].moves;
  }

  /** How the machine moves, by strokes, turns and travels: with a limit of jerk, and with axes of their own, where that tells more. */
  moving(start: Figures): Figures {
    // Strokes that take hardly longer than a line say little of the head.
    const isOfHead = (part: CardPart) =>
      !isOfLines(part) && this.eachS(this.card.indexOf(part)) > 2.5 * (this.lineMs / 1000);
    const best = (from: Figures) => this.fit(from, soughtIn(from), isOfHead);
    const free = best(start);
    // As long as a tenth of a second, and as short as a ms, acceleration may take to set in.
    const smooth = rises.map((rise) => best({ ...start, jerk: start.acceleration / rise }));
    const smoothest = least(smooth);
    const chosen = free.fitted.rest - smoothest.fitted.rest > worthwhile ? smoothest : free;
    const whole = best({ ...chosen.figures, accelerationY: undefined });
    return whole.fitted.rest - chosen.fitted.rest > worthwhile ? chosen.figures : whole.figures;
  }

  /** What lines take, and how many moves are known ahead, by ways in fine pieces. */
  lines(moved: Figures): Figures {
    const words = this.card.findIndex(({ topic }) => topic === 'words');
    const length = this.card[words].timed.characters?.[1] ?? 1;
    const sayings: Pick<Figures, 'moveMs' | 'characterMs'>[] = [
      { moveMs: undefined, characterMs: 0 },
      { moveMs: Math.min(moved.moveMs ?? Infinity, this.lineMs), characterMs: 0 },
      { moveMs: Math.min(moved.moveMs ?? Infinity, this.lineMs), characterMs: (1000 * this.eachS(words)) / length },
    ];
    const tried = sayings.map((saying) => this.ahead({ ...moved, ...saying }));
    return tried.reduce((best, next) => (best.fitted.rest - next.fitted.rest > worthwhile ? next : best)).figures;
  }

  /** The best look-ahead, and what lines take with it. */
  private ahead(start: Figures): { figures: Figures; fitted: Fitted } {
    const sought = soughtIn(start).filter((name) => name === 'moveMs' || name === 'characterMs');
    const fitWith = (lookAhead: number | undefined) => this.fit({ ...found.figures, lookAhead }, sought, isOfLines);
    let found = this.fit({ ...start, lookAhead: undefined }, sought, isOfLines);
    // What lines take hangs on how many are known ahead, and the other way round: by turns, until neither changes.
    for (let turn = 0; turn < mostTurns; turn++) {
      const lookAhead = this.bestAhead(found.figures);
      if (lookAhead === found.figures.lookAhead) break;
      found = fitWith(lookAhead);
    }
    const without = fitWith(undefined);
    return without.fitted.rest - found.fitted.rest > worthwhile ? found : without;
  }

  /** The look-ahead with which least remains; all that is tried first, then between the best of those. */
  private bestAhead(figures: Figures): number {
    const known = new Map<number, number>();
    const rest = (lookAhead: number) => {
      const value = known.get(lookAhead) ?? this.restWith(figures, lookAhead);
      known.set(lookAhead, value);
      return value;
    };
    const coarse = aheads.map(rest);
    const place = coarse.indexOf(Math.min(...coarse));
    let low = aheads[Math.max(0, place - 1)];
    let high = aheads[Math.min(aheads.length - 1, place + 1)];
    // What remains has one lowest place between them: thirds are left out by turns.
    while (high - low > 2) {
      const third = Math.max(1, Math.floor((high - low) / 3));
      if (rest(low + third) <= rest(high - third)) high -= third;
      else low += third;
    }
    for (let n = low; n <= high; n++) rest(n);
    return [...known].reduce((best, next) => (next[1] < best[1] ? next : best))[0];
  }

  private restWith(figures: Figures, lookAhead: number | undefined): number {
    return this.restsOf({ ...figures, lookAhead }, isOfLines).reduce((sum, value) => sum + value * value, 0);
  }

  /** Fits to all of the card. Where characters take longer than lines, these may take far less than it seems. */
  all(start: Figures, sought: readonly Sought[]): { figures: Figures; fitted: Fitted } {
    const { moveMs, characterMs } = start;
    const starts =
      moveMs && characterMs ? [1, 0.3, 0.1].map((share) => ({ ...start, moveMs: share * moveMs })) : [start];
    return least(starts.map((from) => this.fit(from, sought, () => true)));
  }

  /** Whether what is found holds, or more would do as well. */
  lookAheadOf(figures: Figures): FittedFigure {
    const { lookAhead } = figures;
    const figure = 'lookAhead';
    const restWith = (ahead: number | undefined) => this.restWith(figures, ahead);
    if (lookAhead === undefined) {
      const most = restWith(undefined) + worthwhile;
      const enough = aheads.find((ahead) => restWith(ahead) <= most) ?? null;
      return { figure, value: enough, doubt: null, bound: 'least' };
    }
    const best = restWith(lookAhead);
    let off = 1;
    while (off < lookAhead && restWith(lookAhead + off) < best + 1 && restWith(lookAhead - off) < best + 1) off++;
    return { figure, value: lookAhead, doubt: off / 2 / lookAhead, bound: null };
  }

  /** Fits figures by the parts that count. */
  fit(
    start: Figures,
    sought: readonly Sought[],
    counts: (part: CardPart) => boolean,
  ): { figures: Figures; fitted: Fitted } {
    const figuresAt = (logs: readonly number[]): Figures => ({
      ...start,
      ...Object.fromEntries(sought.map((name, i) => [name, Math.exp(logs[i])])),
    });
    const fitted = leastSquares(
      (logs) => this.restsOf(figuresAt(logs), counts),
      sought.map((name) => Math.log(start[name] as number)),
    );
    return { figures: figuresAt(fitted.parameters), fitted };
  }

  private restsOf(figures: MotionFigures, counts: (part: CardPart) => boolean): number[] {
    return this.card.flatMap((part, i) => {
      if (!counts(part)) return [];
      return [(secondsOf(part, figures) - this.seconds[i]) / (clockS + clockShare * this.seconds[i])];
    });
  }
}

function least<T extends { fitted: Fitted }>(tried: readonly T[]): T {
  return tried.reduce((best, next) => (next.fitted.rest < best.fitted.rest ? next : best));
}
