import { accelerationAlong, cornerSpeed, distanceAt, type Limits, type Ramps, speedAt } from './ramps.ts';

/** A straight move to be made, in mm and mm/s. */
export interface Block {
  readonly x: number;
  readonly y: number;
  readonly speed: number;
  readonly power: number;
  /** Whether its power stays the same where the head slows down. */
  readonly steady: boolean;
  /** The program line it came from. */
  readonly line: number;
  /** Which line it was of all that were taken, counted from 1. */
  readonly ordinal: number;
}

/** A stretch that the head has just gone along, lit: where, and in how many seconds. */
export interface LitStretch {
  readonly fromX: number;
  readonly fromY: number;
  readonly toX: number;
  readonly toY: number;
  readonly z: number;
  readonly power: number;
  readonly steady: boolean;
  /** The speed that was asked for, in mm/s; 0 where the head stood. */
  readonly speed: number;
  readonly seconds: number;
}

/** Something the head does standing: for how long, and where its focus is afterwards. */
export interface Stand {
  readonly seconds: number;
  readonly z: number;
  readonly power: number;
  readonly line: number;
  readonly ordinal: number;
}

interface Planned extends Block {
  readonly length: number;
  readonly dirX: number;
  readonly dirY: number;
  /** Along it. */
  readonly acceleration: number;
  /** Of one that stands: for how long, and where the focus is afterwards. */
  readonly stands: { readonly seconds: number; readonly z: number } | null;
  /** When it has been read, in seconds since the head was at rest; set when there is room for it. */
  knownAt: number;
  /** When its move was done, likewise. */
  endedAt: number;
}

/** The move under way: at its start, and how its speed runs. */
interface Running extends Ramps {
  readonly block: Planned;
  readonly fromX: number;
  readonly fromY: number;
}

/**
 * Moves a head over a queue of straight moves, in time. Written from the machine's figures alone, and
 * move by move as a controller does it, so that it can be held against a planner's times.
 */
export class Motion {
  x = 0;
  y = 0;
  /** How far above the stock the focus is. */
  z = 0;
  private readonly queue: Planned[] = [];
  private head = 0;
  private running: Running | null = null;
  private speedNow = 0;
  /** Seconds since the head was at rest. */
  private clock = 0;
  /** Up to where in the queue it is settled when moves are known, and when the last of them is. */
  private settled = 0;
  private lastKnown = 0;
  /** Where in the queue the head began after it was at rest last. */
  private restedAt = 0;
  private tailX = 0;
  private tailY = 0;
  private tailZ = 0;
  /** The last line whose move is done, and which of all that were taken it was. */
  doneLine = 0;
  doneOrdinal = 0;

  constructor(
    private readonly limits: Limits,
    private readonly burnt: (stretch: LitStretch) => void = () => {},
  ) {}

  get waiting(): number {
    return this.queue.length - this.head + (this.running ? 1 : 0);
  }

  get speed(): number {
    const { running } = this;
    return running ? speedAt(running, running.block.acceleration) : 0;
  }

  get power(): number {
    return this.running?.block.power ?? 0;
  }

  add(block: Block): void {
    const dx = block.x - this.tailX;
    const dy = block.y - this.tailY;
    const length = Math.hypot(dx, dy);
    this.tailX = block.x;
    this.tailY = block.y;
    if (length === 0) return;
    const [dirX, dirY] = [dx / length, dy / length];
    const acceleration = accelerationAlong(this.limits, dirX, dirY);
    this.queue.push({ ...block, length, dirX, dirY, acceleration, stands: null, knownAt: 0, endedAt: 0 });
  }

  /** Lets the head stand. */
  addStand({ seconds, z, power, line, ordinal }: Stand): void {
    const here = { x: this.tailX, y: this.tailY, dirX: 0, dirY: 0, acceleration: 0, knownAt: 0, endedAt: 0 };
    // A wait is said in three lines, from the one that lights the beam on; a focus in one.
    const lines = z === this.tailZ ? 3 : 1;
    this.tailZ = z;
    const stands = { seconds: seconds + lines * this.limits.lineS, z };
    this.queue.push({ ...here, speed: 0, power, steady: true, line, ordinal, length: 0, stands });
  }

  /** Drops everything that waits; the head stands where it is. */
  clear(): void {
    if (this.running) this.tellOf(this.running, this.running.elapsed);
    this.queue.length = 0;
    this.head = 0;
    this.running = null;
    this.rest();
    this.tailX = this.x;
    this.tailY = this.y;
    this.tailZ = this.z;
  }

  /** Puts the head somewhere, as after homing. */
  place(x: number, y: number): void {
    this.x = x;
    this.y = y;
    this.clear();
  }

  /**
   * Lets `seconds` pass.
   * @param moreToCome begins no move whose end still hangs on moves that are not known yet
   * @returns how many of the seconds the head was moving
   */
  advance(seconds: number, moreToCome = false): number {
    let left = seconds;
    while (left > 0) {
      if (!this.running && moreToCome && !this.isDecided()) break;
      const unknownS = this.running ? 0 : this.untilKnown();
      if (unknownS > 0) {
        const waits = Math.min(left, unknownS);
        this.clock += waits;
        left -= waits;
        continue;
      }
      if (!this.running && !this.start()) break;
      const running = this.running as Running;
      const rest = running.totalS - running.elapsed;
      if (rest > left) {
        running.elapsed += left;
        this.clock += left;
        left = 0;
        const along = distanceAt(running, running.block.acceleration);
        this.x = running.fromX + running.block.dirX * along;
        this.y = running.fromY + running.block.dirY * along;
      } else {
        left -= rest;
        this.clock += rest;
        running.elapsed = running.totalS;
        this.x = running.block.x;
        this.y = running.block.y;
        this.doneLine = running.block.line;
        this.doneOrdinal = running.block.ordinal;
        this.tellOf(running, running.totalS);
        this.speedNow = running.v1;
        running.block.endedAt = this.clock;
        this.running = null;
        if (running.block.stands) {
          this.z = running.block.stands.z;
          this.rest();
        }
      }
    }
    return seconds - left;
  }

  private tellOf({ block, fromX, fromY }: Running, seconds: number): void {
    const { power, steady, speed, dirX, dirY } = block;
    if (power <= 0 || seconds <= 0) return;
    // The beam follows late: what it burns lies so much further on.
    const [lateX, lateY] = [dirX, dirY].map((part) => part * speed * (this.limits.lagS ?? 0));
    const [toX, toY] = [this.x + lateX, this.y + lateY];
    this.burnt({ fromX: fromX + lateX, fromY: fromY + lateY, toX, toY, z: this.z, power, steady, speed, seconds });
  }

  /** The head is at rest: what it does next is counted anew. */
  private rest(): void {
    this.speedNow = this.clock = this.lastKnown = 0;
    this.settled = this.restedAt = this.head;
  }

  /**
   * Settles when moves are known: each is read in its time, and known when there is room for it.
   * @returns in how many seconds the next one is
   */
  private untilKnown(): number {
    const { queue, head, limits } = this;
    if (limits.lineS === 0 || !queue[head] || queue[head].stands) return 0;
    const until = head + limits.lookAhead + 1;
    for (; this.settled < until && queue[this.settled] && !queue[this.settled].stands; this.settled++) {
      // There was room for it when the move before those that are known ended.
      const left = this.settled - limits.lookAhead - 1;
      const free = left < this.restedAt ? 0 : queue[left].endedAt;
      this.lastKnown = Math.max(this.lastKnown + limits.lineS, free);
      queue[this.settled].knownAt = this.lastKnown;
    }
    return Math.max(0, queue[head].knownAt - this.clock);
  }

  private start(): boolean {
    const block = this.queue[this.head];
    if (!block) {
      this.rest();
      return false;
    }
    const v1 = this.endSpeed();
    this.head++;
    const left = this.head - this.limits.lookAhead - 1;
    if (left > 2048) {
      this.queue.splice(0, left);
      this.settled -= left;
      this.restedAt = Math.max(0, this.restedAt - left);
      this.head -= left;
    }
    if (block.stands) {
      const still = { v0: 0, v1: 0, peak: 0, upS: 0, evenS: block.stands.seconds, elapsed: 0 };
      this.running = { block, fromX: this.x, fromY: this.y, ...still, totalS: block.stands.seconds };
      return true;
    }
    const a = block.acceleration;
    const v0 = this.speedNow;
    const reachable = Math.sqrt((2 * a * block.length + v0 * v0 + v1 * v1) / 2);
    const peak = Math.max(v0, v1, Math.min(block.speed, reachable));
    const upS = (peak - v0) / a;
    const downS = (peak - v1) / a;
    const ramps = (upS * (v0 + peak) + downS * (peak + v1)) / 2;
    const evenS = Math.max(0, block.length - ramps) / peak;
    this.running = {
      block,
      fromX: this.x,
      fromY: this.y,
      v0,
      v1,
      peak,
      upS,
      evenS,
      totalS: upS + evenS + downS,
      elapsed: 0,
    };
    return true;
  }

  /** Whether the speed at which the next move ends is the same whatever comes after the moves that are known. */
  private isDecided(): boolean {
    const first = this.queue[this.head];
    if (!first) return false;
    if (first.stands || this.queue.length - this.head > this.limits.lookAhead) return true;
    return this.endSpeed(0) === this.endSpeed(Infinity);
  }

  /**
   * The speed at which the next move may end: so that the moves known after it can still be braked for,
   * and no more than it can reach.
   * @param beyond the speed at which the last of the moves known may end
   */
  private endSpeed(beyond = 0): number {
    const { lookAhead, lineS } = this.limits;
    let last = Math.min(this.queue.length - 1, this.head + lookAhead);
    while (lineS > 0 && last > this.head && (last >= this.settled || this.queue[last].knownAt > this.clock)) last--;
    let allowed = last < this.queue.length - 1 && lineS > 0 ? 0 : beyond;
    for (let i = last; i > this.head; i--) {
      const before = this.queue[i - 1];
      const block = this.queue[i];
      const corner = cornerSpeed(before, block, this.limits);
      const braked = Math.sqrt(allowed * allowed + 2 * block.acceleration * block.length);
      allowed = Math.min(corner, before.speed, block.speed, braked);
    }
    const first = this.queue[this.head];
    return Math.min(allowed, Math.sqrt(this.speedNow * this.speedNow + 2 * first.acceleration * first.length));
  }
}
