import type { MoveTimer } from './move-timer.ts';
import type { Ramps } from './ramps.ts';

/** No controller is planned to know more moves than this at a time. */
const mostAhead = 10_000;
/** So many moves more than it knows wait together to be timed. */
const room = 4096;

/** What a small controller and the line to it take their time for. */
export interface LineFigures {
  /** How many moves are known beside the one that is made; missing where that is no limit. */
  readonly ahead: number | undefined;
  /** How many seconds it needs to read a line. */
  readonly lineS: number;
  /** How many seconds a character is on its way; all are there at once where that is 0. */
  readonly characterS: number;
  /** How many characters may be under way, or wait to be read. */
  readonly buffer: number;
}

/**
 * Times moves as a small controller makes them: it takes a while for each line, and knows but a few moves ahead. Two
 * servers in a row: a line comes over in its time, as soon as there is room for it among the characters; it is read in so
 * many seconds, and known when there is room for its move. How fast a move ends is settled when it begins: so
 * that what is known by then can be braked for. What switches waits for the moves before it, and nothing is read meanwhile.
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
  private readonly characters: Uint16Array;
  /** 1 where a move stands in the line of the one before it. */
  private readonly joined: Uint8Array;
  /** When each is known, in seconds since the first line was sent. */
  private readonly arrivals: Float64Array;
  /** Of how many of them that is settled, and when the last line was known. */
  private settled = 0;
  private lastKnown = 0;
  /** When the last character came over. */
  private cameAt = 0;
  /** The lines that were sent, from the oldest whose characters count: how many they are, and when it was known. */
  private sent: { readonly characters: number; knownAt: number }[] = [];
  private oldest = 0;
  private underWay = 0;
  /** When the last timed move ended, and the square of its speed then; up to when time is counted. */
  private clock = 0;
  private square = 0;
  private counted = 0;
  /** So many moves had to be looked at when a move was settled last. */
  private depth = 1;

  /** @param durations where times are put, in seconds */
  constructor(
    private readonly durations: Float32Array,
    private readonly line: LineFigures,
    private readonly ramps: Ramps,
  ) {
    this.ahead = Math.min(line.ahead ?? mostAhead, mostAhead);
    const size = this.ahead + room;
    this.lengths = new Float64Array(size);
    this.tops = new Float64Array(size);
    this.entries = new Float64Array(size);
    this.accelerations = new Float64Array(size);
    this.characters = new Uint16Array(size);
    this.joined = new Uint8Array(size);
    this.arrivals = new Float64Array(size);
  }

  move(length: number, top: number, entry: number, acceleration: number, characters: number, isJoined: boolean): void {
    if (this.count === this.lengths.length) this.time(this.count - this.ahead);
    const { count } = this;
    this.lengths[count] = length;
    this.tops[count] = top;
    this.entries[count] = entry;
    this.accelerations[count] = acceleration;
    this.characters[count] = characters;
    this.joined[count] = isJoined ? 1 : 0;
    this.count = count + 1;
  }

  stand(seconds: number, lines: number, characters: number): void {
    for (let i = 0; i < lines; i++) {
      this.switch(characters / lines);
      if (i === (lines - 1) >> 1) this.clock += seconds;
    }
    this.put(this.clock);
  }

  switch(characters: number): void {
    this.rest();
    this.clock = this.known(characters, this.clock);
  }

  rest(): void {
    this.time(this.count);
    this.settled = this.square = 0;
  }

  /** Puts down how long something took that ends now. */
  private put(end: number): void {
    this.durations[this.timed++] = end - this.counted;
    this.counted = end;
  }

  /** When the next line is known. @param free when there is room for what it says */
  private known(characters: number, free: number): number {
    const { lineS, characterS, buffer } = this.line;
    let sentAt = this.cameAt;
    if (characterS > 0) {
      const { sent } = this;
      this.underWay += characters;
      while (this.underWay > buffer && this.oldest < sent.length) {
        const { characters: gone, knownAt } = sent[this.oldest++];
        this.underWay -= gone;
        sentAt = Math.max(sentAt, knownAt);
      }
      this.cameAt = sentAt + characters * characterS;
    }
    this.lastKnown = Math.max(Math.max(this.cameAt, this.lastKnown) + lineS, free);
    if (characterS > 0) {
      this.sent.push({ characters, knownAt: this.lastKnown });
      if (this.oldest > room) {
        this.sent = this.sent.slice(this.oldest);
        this.oldest = 0;
      }
    }
    return this.lastKnown;
  }

  /** When one more move of the last line is known: its line is done with then, and not before. */
  private alsoKnown(free: number): number {
    this.lastKnown = Math.max(this.lastKnown, free);
    const last = this.sent.at(-1);
    if (last) last.knownAt = this.lastKnown;
    return this.lastKnown;
  }

  /** Times the first so many moves. */
  private time(count: number): void {
    const { lengths, tops, accelerations, arrivals, ramps } = this;
    for (let i = 0; i < count; i++) {
      this.settleArrivals(i);
      const begins = Math.max(this.clock, arrivals[i]);
      // What was starved has come to rest before.
      const reached = ramps.reach(this.square, lengths[i], accelerations[i]);
      const square = Math.min(reached, this.brakedFor(i, begins));
      const [v0, v1] = [Math.sqrt(this.square), Math.sqrt(square)];
      this.clock = begins + ramps.time(lengths[i], v0, v1, tops[i], accelerations[i]);
      this.square = square;
      this.put(this.clock);
    }
    const { entries, characters, joined } = this;
    for (const array of [lengths, tops, entries, accelerations, characters, joined, arrivals])
      array.copyWithin(0, count, this.count);
    this.count -= count;
    this.settled -= count;
  }

  /** Settles when moves are known for which there is room while one is made: as many as the controller knows ahead. */
  private settleArrivals(making: number): void {
    const until = Math.min(this.count, making + this.ahead + 1);
    for (; this.settled < until; this.settled++) {
      // Room for the last of them was made by the end of the move before.
      const free = this.settled === making + this.ahead ? this.clock : 0;
      this.arrivals[this.settled] =
        this.joined[this.settled] === 1 ? this.alsoKnown(free) : this.known(this.characters[this.settled], free);
    }
  }

  /** The square of the speed at which a move may end, so that what is known when it begins can be braked for. */
  private brakedFor(making: number, begins: number): number {
    const { arrivals, settled } = this;
    // How far one must look changes little from move to move.
    let depth = Math.max(1, this.depth - 1);
    for (;;) {
      const last = Math.min(making + depth, settled - 1);
      let end = making + 1;
      while (end <= last && arrivals[end] <= begins) end++;
      const least = this.backwards(making, end, 0);
      const isAll = end <= last || last < making + depth;
      if (isAll || this.backwards(making, end, Infinity) === least) {
        this.depth = depth;
        return least;
      }
      depth *= 2;
    }
  }

  /** The square of the speed at which a move may end. @param square at the end of the last move before `end` */
  private backwards(making: number, end: number, square: number): number {
    const { lengths, entries, accelerations, ramps } = this;
    let most = square;
    for (let i = end - 1; i > making; i--) {
      most = Math.min(entries[i], ramps.reach(most, lengths[i], accelerations[i]));
    }
    return most;
  }
}
