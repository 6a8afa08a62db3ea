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

export interface Limits {
  readonly acceleration: number;
  readonly cornerDeviation: number;
}

interface Planned extends Block {
  readonly length: number;
  readonly dirX: number;
  readonly dirY: number;
  /** Of one that stands: for how long, and where the focus is afterwards. */
  readonly stands: { readonly seconds: number; readonly z: number } | null;
}

/** The move under way: at its start, and how its speed runs. */
interface Running {
  readonly block: Planned;
  readonly fromX: number;
  readonly fromY: number;
  readonly v0: number;
  readonly v1: number;
  readonly peak: number;
  readonly upS: number;
  readonly evenS: number;
  readonly totalS: number;
  elapsed: number;
}

/** How many moves ahead the head looks when it decides how fast a move may end. */
const lookAhead = 400;

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
  private tailX = 0;
  private tailY = 0;
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
    return running ? speedAt(running, this.limits.acceleration) : 0;
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
    this.queue.push({ ...block, length, dirX: dx / length, dirY: dy / length, stands: null });
  }

  /** Lets the head stand. */
  addStand({ seconds, z, power, line, ordinal }: Stand): void {
    const here = { x: this.tailX, y: this.tailY, dirX: 0, dirY: 0 };
    this.queue.push({ ...here, speed: 0, power, steady: true, line, ordinal, length: 0, stands: { seconds, z } });
  }

  /** Drops everything that waits; the head stands where it is. */
  clear(): void {
    if (this.running) this.tellOf(this.running, this.running.elapsed);
    this.queue.length = 0;
    this.head = 0;
    this.running = null;
    this.speedNow = 0;
    this.tailX = this.x;
    this.tailY = this.y;
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
      if (!this.running && !this.start()) break;
      const running = this.running as Running;
      const rest = running.totalS - running.elapsed;
      if (rest > left) {
        running.elapsed += left;
        left = 0;
        const along = distanceAt(running, this.limits.acceleration);
        this.x = running.fromX + running.block.dirX * along;
        this.y = running.fromY + running.block.dirY * along;
      } else {
        left -= rest;
        running.elapsed = running.totalS;
        this.x = running.block.x;
        this.y = running.block.y;
        this.doneLine = running.block.line;
        this.doneOrdinal = running.block.ordinal;
        this.tellOf(running, running.totalS);
        this.speedNow = running.v1;
        if (running.block.stands) this.z = running.block.stands.z;
        this.running = null;
      }
    }
    return seconds - left;
  }

  private tellOf({ block, fromX, fromY }: Running, seconds: number): void {
    const { power, steady, speed } = block;
    if (power > 0 && seconds > 0)
      this.burnt({ fromX, fromY, toX: this.x, toY: this.y, z: this.z, power, steady, speed, seconds });
  }

  private start(): boolean {
    const block = this.queue[this.head];
    if (!block) {
      this.speedNow = 0;
      return false;
    }
    const v1 = this.endSpeed();
    this.head++;
    if (this.head > 2048) {
      this.queue.splice(0, this.head);
      this.head = 0;
    }
    if (block.stands) {
      const still = { v0: 0, v1: 0, peak: 0, upS: 0, evenS: block.stands.seconds, elapsed: 0 };
      this.running = { block, fromX: this.x, fromY: this.y, ...still, totalS: block.stands.seconds };
      return true;
    }
    const { acceleration: a } = this.limits;
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
    if (first.stands || this.queue.length - this.head > lookAhead) return true;
    return this.endSpeed(0) === this.endSpeed(Infinity);
  }

  /**
   * The speed at which the next move may end: so that the moves known after it can still be braked for,
   * and no more than it can reach.
   * @param beyond the speed at which the last of the moves known may end
   */
  private endSpeed(beyond = 0): number {
    const { acceleration: a } = this.limits;
    const last = Math.min(this.queue.length, this.head + lookAhead) - 1;
    let allowed = beyond;
    for (let i = last; i > this.head; i--) {
      const before = this.queue[i - 1];
      const block = this.queue[i];
      const corner = cornerSpeed(before, block, this.limits);
      allowed = Math.min(corner, before.speed, block.speed, Math.sqrt(allowed * allowed + 2 * a * block.length));
    }
    const first = this.queue[this.head];
    return Math.min(allowed, Math.sqrt(this.speedNow * this.speedNow + 2 * a * first.length));
  }
}

/** The speed at which centripetal acceleration on the corner's inscribed arc is all the machine has. */
function cornerSpeed(before: Planned, after: Planned, { acceleration, cornerDeviation }: Limits): number {
  if (before.stands || after.stands) return 0;
  const cross = before.dirX * after.dirY - before.dirY * after.dirX;
  const dot = before.dirX * after.dirX + before.dirY * after.dirY;
  const halfTurn = Math.abs(Math.atan2(cross, dot)) / 2;
  const bulge = 1 - Math.cos(halfTurn);
  if (bulge < 1e-9) return Infinity;
  const radius = (cornerDeviation * Math.cos(halfTurn)) / bulge;
  return Math.sqrt(acceleration * Math.max(0, radius));
}

function speedAt(run: Running, a: number): number {
  if (run.elapsed < run.upS) return run.v0 + a * run.elapsed;
  if (run.elapsed < run.upS + run.evenS) return run.peak;
  return run.peak - a * (run.elapsed - run.upS - run.evenS);
}

function distanceAt(run: Running, a: number): number {
  const t = run.elapsed;
  if (t < run.upS) return run.v0 * t + (a * t * t) / 2;
  const up = ((run.v0 + run.peak) / 2) * run.upS;
  if (t < run.upS + run.evenS) return up + run.peak * (t - run.upS);
  const down = t - run.upS - run.evenS;
  return up + run.peak * run.evenS + run.peak * down - (a * down * down) / 2;
}
