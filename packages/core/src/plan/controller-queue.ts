import { type MoveTimer, trapezoidTime } from './move-timer.ts';

/** No controller is planned to know more moves than this at a time. */
const mostAhead = 10_000;
/** So many moves more than it knows wait together to be timed. */
const room = 4096;

/**
 * Times moves as a small controller makes them: it takes a while for each line, and knows but a few moves ahead. It is a
 * queue of one server: a line is read in so many seconds, and known when there is room for it. How fast a move ends is
 * settled when it begins: so that what is known by then can be braked for.
 */
export class ControllerQueue implements MoveTimer {
  private timed = 0;
  /** The moves since the head was at rest that are not timed yet. */
  private count = 0;
  private readonly ahead: number;
  private readonly lengths: Float64Array;
  private readonly tops: Float64Array;
  private readonly entries: Float64Array;
  private readonly accelerations: Float64Array;
  /** When each is known, in seconds since the head was at rest. */
  private readonly arrivals: Float64Array;
  /** Of how many of them that is settled, and when the last one was. */
  private settled = 0;
  private lastArrival = 0;
  /** When the last timed move ended, and the square of its speed then. */
  private clock = 0;
  private square = 0;

  /**
   * @param durations where times are put, in seconds
   * @param ahead how many moves are known beside the one that is made; missing where that is no limit
   * @param lineS how many seconds each line takes
   */
  constructor(
    private readonly durations: Float32Array,
    ahead: number | undefined,
    private readonly lineS: number,
  ) {
    this.ahead = Math.min(ahead ?? mostAhead, mostAhead);
    const size = this.ahead + room;
    this.lengths = new Float64Array(size);
    this.tops = new Float64Array(size);
    this.entries = new Float64Array(size);
    this.accelerations = new Float64Array(size);
    this.arrivals = new Float64Array(size);
  }

  move(length: number, top: number, entry: number, acceleration: number): void {
    if (this.count === this.lengths.length) this.time(this.count - this.ahead);
    const { count } = this;
    this.lengths[count] = length;
    this.tops[count] = top;
    this.entries[count] = entry;
    this.accelerations[count] = acceleration;
    this.count = count + 1;
  }

  stand(seconds: number, lines: number): void {
    this.rest();
    this.durations[this.timed++] = seconds + lines * this.lineS;
  }

  rest(): void {
    this.time(this.count);
    this.settled = this.lastArrival = this.clock = this.square = 0;
  }

  /** Times the first so many moves. */
  private time(count: number): void {
    const { lengths, tops, accelerations, durations, arrivals, timed } = this;
    for (let i = 0; i < count; i++) {
      this.settleArrivals(i);
      const begins = Math.max(this.clock, arrivals[i]);
      const reached = this.square + 2 * accelerations[i] * lengths[i];
      const square = Math.min(reached, this.brakedFor(i, begins));
      const [v0, v1] = [Math.sqrt(this.square), Math.sqrt(square)];
      const ends = begins + trapezoidTime(lengths[i], v0, v1, tops[i], accelerations[i]);
      durations[timed + i] = ends - this.clock;
      this.clock = ends;
      this.square = square;
    }
    this.timed = timed + count;
    for (const array of [lengths, tops, this.entries, accelerations, arrivals]) array.copyWithin(0, count, this.count);
    this.count -= count;
    this.settled -= count;
  }

  /** Settles when moves are known for which there is room while one is made: as many as the controller knows ahead. */
  private settleArrivals(making: number): void {
    const until = Math.min(this.count, making + this.ahead + 1);
    for (; this.settled < until; this.settled++) {
      // Room for the last of them was made by the end of the move before.
      const free = this.settled === making + this.ahead ? this.clock : 0;
      this.lastArrival = Math.max(this.lastArrival + this.lineS, free);
      this.arrivals[this.settled] = this.lastArrival;
    }
  }

  /** The square of the speed at which a move may end, so that what is known when it begins can be braked for. */
  private brakedFor(making: number, begins: number): number {
    const { count, lengths, entries, accelerations, arrivals, settled } = this;
    let most = Infinity;
    let brakes = 0;
    for (let j = making + 1; j < count && j < settled && arrivals[j] <= begins; j++) {
      most = Math.min(most, brakes + entries[j]);
      if (brakes >= most) return most;
      brakes += 2 * accelerations[j] * lengths[j];
    }
    return Math.min(most, brakes);
  }
}
