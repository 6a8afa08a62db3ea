import type { Block, LitStretch, Planned, Running, Stand } from './blocks.ts';
import {
  accelerationAlong,
  alongRamps,
  brakedFrom,
  cornerSpeed,
  type Limits,
  peakSpeed,
  secondsToGain,
} from './ramps.ts';

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
  /** Seconds spent in moves, and waiting for lines. */
  private clock = 0;
  /** Up to where in the queue it is settled when moves are known, and when the last of them is. */
  private settled = 0;
  private lastKnown = 0;
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
    return running ? alongRamps(running, running.block.acceleration, this.limits.jerk).speed : 0;
  }

  get power(): number {
    return this.running?.block.power ?? 0;
  }

  /** Adds the straight ways of one line, of which it is done with the last, and which are read as one. */
  addLine(places: readonly { x: number; y: number }[], block: Omit<Block, 'x' | 'y' | 'isJoined'>): void {
    places.forEach(({ x, y }, i) => {
      const before = i < places.length - 1 ? 1 : 0;
      const { line, ordinal } = block;
      this.add({ ...block, x, y, line: line - before, ordinal: ordinal - before, isJoined: i > 0 });
    });
  }

  private add(block: Block): void {
    const dx = block.x - this.tailX;
    const dy = block.y - this.tailY;
    const length = Math.hypot(dx, dy);
    this.tailX = block.x;
    this.tailY = block.y;
    if (length === 0) return;
    const [dirX, dirY] = [dx / length, dy / length];
    const acceleration = accelerationAlong(this.limits, dirX, dirY);
    const leg = { dirX, dirY, stands: null };
    const before = this.queue.at(-1);
    const corner = before ? cornerSpeed(before, leg, this.limits) : 0;
    this.queue.push({ ...block, ...leg, length, acceleration, corner, knownAt: 0, endedAt: 0 });
  }

  /** Lets the head come to rest, and stand: for no time where something is switched. */
  addStand({ seconds, z, power, line, ordinal }: Stand): void {
    const here = { x: this.tailX, y: this.tailY, dirX: 0, dirY: 0, acceleration: 0, corner: 0, knownAt: 0, endedAt: 0 };
    this.tailZ = z;
    const stands = { seconds, z };
    this.queue.push({ ...here, speed: 0, power, steady: true, isJoined: false, line, ordinal, length: 0, stands });
  }

  /** Lets the head come to rest, for something to be switched. */
  addSwitch(line: number, ordinal: number): void {
    if (this.waiting === 0 && this.limits.lineS === 0) return;
    this.addStand({ seconds: 0, z: this.tailZ, power: 0, line, ordinal });
  }

  /** Drops everything that waits; the head stands where it is. */
  clear(): void {
    if (this.running) this.tellOf(this.running, this.running.elapsed);
    this.queue.length = 0;
    this.head = 0;
    this.running = null;
    this.speedNow = this.clock = this.lastKnown = this.settled = 0;
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
        const along = alongRamps(running, running.block.acceleration, this.limits.jerk).distance;
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
          this.speedNow = 0;
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

  /**
   * Settles when lines are known: each is read in its time, and known when there is room for its move; what
   * switches, when the moves before it are made.
   * @returns in how many seconds the next one is
   */
  private untilKnown(): number {
    const { queue, head, limits } = this;
    if (limits.lineS === 0 || !queue[head]) return 0;
    const until = head + limits.lookAhead + 1;
    for (; this.settled < until && queue[this.settled]; this.settled++) {
      const { settled } = this;
      const isStand = queue[settled].stands !== null;
      if (isStand && settled > head) break;
      // There was room for it when the move before those that are known ended.
      const left = isStand ? settled - 1 : settled - limits.lookAhead - 1;
      const free = queue[left]?.endedAt ?? 0;
      const readS = queue[settled].isJoined ? 0 : limits.lineS;
      this.lastKnown = Math.max(this.lastKnown + readS, free);
      queue[settled].knownAt = this.lastKnown;
    }
    return Math.max(0, queue[head].knownAt - this.clock);
  }

  private start(): boolean {
    const block = this.queue[this.head];
    if (!block) {
      this.speedNow = 0;
      // What comes next is read from then on.
      this.lastKnown = Math.max(this.lastKnown, this.clock);
      return false;
    }
    const v1 = this.endSpeed();
    this.head++;
    const left = this.head - this.limits.lookAhead - 1;
    if (left > 2048) {
      this.queue.splice(0, left);
      this.settled -= left;
      this.head -= left;
    }
    if (block.stands) {
      const still = { v0: 0, v1: 0, peak: 0, upS: 0, evenS: block.stands.seconds, elapsed: 0 };
      this.running = { block, fromX: this.x, fromY: this.y, ...still, totalS: block.stands.seconds };
      return true;
    }
    const a = block.acceleration;
    const v0 = this.speedNow;
    const { jerk } = this.limits;
    const peak = peakSpeed(v0, v1, block.speed, block.length, a, jerk);
    const upS = secondsToGain(peak - v0, a, jerk);
    const downS = secondsToGain(peak - v1, a, jerk);
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
    const { lookAhead, lineS, jerk } = this.limits;
    let last = Math.min(this.queue.length - 1, this.head + lookAhead);
    while (lineS > 0 && last > this.head && (last >= this.settled || this.queue[last].knownAt > this.clock)) last--;
    let allowed = last < this.queue.length - 1 && lineS > 0 ? 0 : beyond;
    for (let i = last; i > this.head; i--) {
      const before = this.queue[i - 1];
      const block = this.queue[i];
      const most = Math.min(block.corner, before.speed, block.speed);
      allowed = brakedFrom(most, allowed, block.length, block.acceleration, jerk);
    }
    const first = this.queue[this.head];
    return brakedFrom(allowed, this.speedNow, first.length, first.acceleration, jerk);
  }
}
